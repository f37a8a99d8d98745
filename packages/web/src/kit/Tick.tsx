import { Checkbox, FormControlLabel, Radio, RadioGroup } from '@mui/material';

const box = { p: '3px', '& svg': { fontSize: 18 } };
const line = { m: 0, gap: '4px', '& .MuiFormControlLabel-label': { fontSize: 'inherit' } };

interface TickProps {
  label: string;
  value: boolean;
  disabled?: boolean;
  /** The label is for those who cannot see what it stands beside. */
  silent?: boolean;
  onChange(value: boolean): void;
}

/** Something that is so or not. */
export function Tick({ label, value, disabled, silent, onChange }: TickProps) {
  const own = (
    <Checkbox
      checked={value}
      disabled={disabled}
      slotProps={silent ? { input: { 'aria-label': label } } : undefined}
      onChange={(_, on) => onChange(on)}
      sx={box}
    />
  );
  return silent ? own : <FormControlLabel control={own} label={label} sx={line} />;
}

interface OneOfProps<T extends string> {
  label: string;
  value: T;
  options: readonly { value: T; label: string }[];
  onChange(value: NoInfer<T>): void;
}

/** One of a few, all of them seen, a line each. */
export const OneOf = <T extends string>({ label, value, options, onChange }: OneOfProps<T>) => (
  <RadioGroup aria-label={label} value={value} onChange={(_, v) => onChange(v as T)}>
    {options.map((o) => (
      <FormControlLabel key={o.value} value={o.value} label={o.label} control={<Radio sx={box} />} sx={line} />
    ))}
  </RadioGroup>
);

/** A mark that one of several has, set by clicking it. */
export const Mark = ({ label, text, on, onChange }: { label: string; text: string; on: boolean; onChange(): void }) => (
  <FormControlLabel
    label={text}
    sx={line}
    control={<Radio checked={on} onChange={onChange} sx={box} slotProps={{ input: { 'aria-label': label } }} />}
  />
);
