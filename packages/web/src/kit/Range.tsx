import { Slider } from '@mui/material';

interface Props {
  label: string;
  min: number;
  max: number;
  step?: number;
  value: number;
  /** The value in words, with its unit. */
  told: string;
  width?: number | string;
  onChange(value: number): void;
  /** It was let go. */
  onDone?(): void;
}

/** A value between two ends, slid. */
export const Range = ({ label, min, max, step = 1, value, told, width, onChange, onDone }: Props) => (
  <Slider
    size="small"
    aria-label={label}
    aria-valuetext={told}
    min={min}
    max={max}
    step={step}
    value={value}
    onChange={(_, v) => onChange(v)}
    onChangeCommitted={onDone}
    sx={{ width, py: 1.25, mx: 0.75 }}
  />
);
