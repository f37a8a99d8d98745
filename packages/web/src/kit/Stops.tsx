import { ToggleButton, ToggleButtonGroup } from '@mui/material';
import { Hint } from './Hint.tsx';

interface Props<T extends string> {
  label: string;
  value: T;
  options: readonly { value: T; label: string; about?: string }[];
  onChange(value: NoInfer<T>): void;
}

/** One of a few that stand beside each other. */
export const Stops = <T extends string>({ label, value, options, onChange }: Props<T>) => (
  <ToggleButtonGroup exclusive size="small" aria-label={label} value={value} onChange={(_, v: T | null) => v !== null && onChange(v)}>
    {options.map((o) => (
      <ToggleButton key={o.value} value={o.value}>
        <Hint text={o.about}>
          <span>{o.label}</span>
        </Hint>
      </ToggleButton>
    ))}
  </ToggleButtonGroup>
);
