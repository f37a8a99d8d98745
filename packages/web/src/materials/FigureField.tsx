import { TypedField } from '../kit/Field.tsx';

interface Props {
  label: string;
  value: string;
  unit?: string;
  onChange(text: string): void;
}

/** A named figure of a material, typed. */
export const FigureField = ({ label, value, unit, onChange }: Props) => (
  <div className="row" style={{ gap: 6 }}>
    <span style={{ width: 170 }}>{label}</span>
    <TypedField mono width={130} label={label} value={value} onChange={onChange} />
    {unit}
  </div>
);
