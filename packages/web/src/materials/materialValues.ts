import { type MaterialEntry, materialSchema } from '@jadebell/core/document';
import { type Dispersion, dispersions, type Form } from './dispersions.ts';

/** A figure of a material, how it is called, and the unit that it is typed in. */
interface Typed {
  key: 'permittivity' | 'lossTangent' | 'permeability' | 'magneticLossTangent' | 'atFrequency' | 'conductivity';
  label: string;
  unit?: string;
  scale?: number;
}
export const figures: Record<MaterialEntry['kind'], readonly Typed[]> = {
  dielectric: [
    { key: 'permittivity', label: 'relative permittivity' },
    { key: 'lossTangent', label: 'loss tangent' },
    { key: 'permeability', label: 'relative permeability' },
    { key: 'magneticLossTangent', label: 'magnetic loss tangent' },
    { key: 'atFrequency', label: 'given for', unit: 'GHz', scale: 1e9 },
  ],
  conductor: [
    { key: 'conductivity', label: 'conductivity', unit: 'S/m' },
    { key: 'permeability', label: 'relative permeability' },
  ],
};
/** Figures that may differ along the axes. */
export const triples = [
  { key: 'permittivityAlong', label: 'permittivity along x, y, z' },
  { key: 'permeabilityAlong', label: 'permeability along x, y, z' },
] as const;

/** A material as it is typed: all texts. Figures by their keys, those of a dispersion behind `dispersion.`, its rows as lines. */
export interface MaterialValues {
  name: string;
  kind: MaterialEntry['kind'];
  source: string;
  form: Form | '';
  figures: Record<string, string>;
  rows: string;
}
/** What cannot be taken, by the field where it stands: `name`, `figures.KEY`, `rows`. */
export type MaterialFaults = Record<string, string>;

const shown = (v: number | undefined, scale = 1): string => (v === undefined ? '' : String(scale === 1 ? v : Number((v / scale).toPrecision(15))));
const figuresOf = (d: Dispersion): Record<string, number> => d as unknown as Record<string, number>;
const rowsOf = (d: Dispersion, key: string): number[][] => (d as unknown as Record<string, number[][]>)[key];

/** A material's texts, as they are typed. */
export function valuesOf(m: MaterialEntry): MaterialValues {
  const texts: Record<string, string> = {};
  for (const list of Object.values(figures)) for (const { key, scale } of list) texts[key] = shown(m[key], scale);
  for (const { key } of triples) texts[key] = m[key]?.join(', ') ?? '';
  const d = m.dispersion;
  const entry = d && dispersions[d.form];
  for (const f of entry?.figures ?? []) texts[`dispersion ${f.key}`] = shown(figuresOf(d!)[f.key], f.scale);
  const rows = entry?.rows ? rowsOf(d!, entry.rows.key).map((row) => row.map((v, i) => shown(v, entry.rows!.scale[i])).join('  ')).join('\n') : ''; // prettier-ignore
  return { name: m.name, kind: m.kind, source: m.source ?? '', form: d?.form ?? '', figures: texts, rows };
}

/** Fields under which an issue of the schema is told. */
const fieldOf = (path: readonly PropertyKey[], form: Form | ''): string => {
  const [first, second] = path.map(String);
  if (first === 'dispersion') return form && second === dispersions[form].rows?.key ? 'rows' : `figures.dispersion ${second}`;
  return first === 'name' || first === 'source' ? first : `figures.${first}`;
};

/**
 * The material that texts say, on top of one that has what they do not, or what cannot be taken of them. A form of dispersion that was just chosen comes
 * with figures to start from.
 */
export function materialOf(
  values: MaterialValues,
  base: MaterialEntry,
  taken: readonly string[],
): { material: MaterialEntry } | { faults: MaterialFaults } {
  const faults: MaterialFaults = {};
  const number = (key: string, label: string, scale = 1): number | undefined => {
    const text = values.figures[key]?.trim() ?? '';
    if (!text) return undefined;
    if (Number.isFinite(Number(text))) return Number(text) * scale;
    faults[`figures.${key}`] = `The ${label} is not a number.`;
    return undefined;
  };
  const next: Record<string, unknown> = { name: values.name.trim(), kind: values.kind, source: values.source.trim() || undefined };
  if (!next.name) faults.name = 'A material needs a name.';
  else if (taken.includes(String(next.name))) faults.name = `${String(next.name)} is taken already.`;
  if (values.kind === 'dielectric' && values.form) next.dispersion = dispersionOf(values, base, number, faults);
  else for (const { key, label, scale } of figures[values.kind]) next[key] = number(key, label, scale);
  if (values.kind === 'dielectric' && !values.form)
    for (const { key, label } of triples) {
      const parts = values.figures[key]?.split(/[,;\s]+/).filter(Boolean) ?? [];
      if (parts.length && (parts.length !== 3 || !parts.every((p) => Number.isFinite(Number(p)))))
        faults[`figures.${key}`] = `Give three numbers for the ${label}, or leave it empty.`;
      else next[key] = parts.length ? parts.map(Number) : undefined;
    }
  if (Object.keys(faults).length) return { faults };
  const kept = Object.fromEntries(Object.entries({ range: base.range, note: base.note, ...next }).filter(([, v]) => v !== undefined));
  const { data, error } = materialSchema.safeParse(kept);
  if (!error) return { material: data };
  return { faults: Object.fromEntries(error.issues.map((i) => [fieldOf(i.path, values.form), i.message])) };
}

function dispersionOf(
  values: MaterialValues,
  base: MaterialEntry,
  number: (key: string, label: string, scale?: number) => number | undefined,
  faults: MaterialFaults,
): Dispersion {
  const form = values.form as Form;
  const entry = dispersions[form];
  // Just chosen: its figures are not typed yet.
  if (base.dispersion?.form !== form) return entry.make;
  const out: Record<string, unknown> = { form };
  for (const { key, label, scale } of entry.figures) {
    out[key] = number(`dispersion ${key}`, label, scale);
    if (out[key] === undefined) faults[`figures.dispersion ${key}`] ??= `The ${label} is not a number.`;
  }
  if (entry.rows) {
    const { key, label, scale } = entry.rows;
    const rows: number[][] = [];
    values.rows.split('\n').forEach((line, n) => {
      const parts = line.split(/[,;\s]+/).filter(Boolean);
      if (!parts.length) return;
      if (parts.length !== scale.length || !parts.every((p) => Number.isFinite(Number(p))))
        faults.rows ??= `Row ${n + 1} should hold ${scale.length} numbers: ${label}.`;
      else rows.push(parts.map((p, i) => Number(p) * scale[i]));
    });
    out[key] = rows;
  }
  return out as unknown as Dispersion;
}
