import { ButtonBase, type ButtonBaseProps } from '@mui/material';

interface Props extends ButtonBaseProps {
  failing?: boolean;
}

/** How a value in a sentence looks, and opens. */
export const ChipFace = ({ failing, ...rest }: Props) => <ButtonBase className={failing ? 'chip-face failing' : 'chip-face'} {...rest} />;
