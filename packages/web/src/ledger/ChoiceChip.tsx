interface Props {
  label: string;
  value: string;
  options: readonly { value: string; label: string }[];
  failing?: boolean;
  onChange(value: string): void;
}

/** A chip that offers a fixed set. */
export function ChoiceChip({ label, value, options, failing, onChange }: Props) {
  return (
    <select className={`chip${failing ? ' failing' : ''}`} aria-label={label} value={value} onChange={(e) => onChange(e.target.value)}>
      {options.map((o) => (
        <option key={o.value} value={o.value}>
          {o.label}
        </option>
      ))}
    </select>
  );
}
