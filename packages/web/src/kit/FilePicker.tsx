import { styled } from '@mui/material/styles';
import type { Ref } from 'react';

const Hidden = styled('input')({ position: 'absolute', width: 1, height: 1, opacity: 0 });

interface Props {
  ref: Ref<HTMLInputElement>;
  label: string;
  /** Endings that it offers. */
  accept: string;
  multiple?: boolean;
  onFiles(files: File[]): void;
}

/** Lets files be chosen; unseen, it is opened by clicking its element. */
export const FilePicker = ({ ref, label, accept, multiple, onFiles }: Props) => (
  <Hidden
    ref={ref}
    type="file"
    aria-label={label}
    tabIndex={-1}
    accept={accept}
    multiple={multiple}
    onChange={(e) => {
      const files = [...(e.target.files ?? [])];
      e.target.value = '';
      if (files.length) onFiles(files);
    }}
  />
);
