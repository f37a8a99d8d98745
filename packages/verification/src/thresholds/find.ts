/** A number that the code holds fixed: what it is named, where it stands, its value and what is said of it. */
export interface Threshold {
  /** File below the sources of the core. */
  file: string;
  name: string;
  value: number;
  about: string;
}

/** A constant of a module made of numbers alone, with the comment above it. */
const constant = /(?:\/\*\*((?:[^*]|\*(?!\/))*)\*\/\n[ \t]*)?((?:export )?const (\w+)(?:: number)? = )(-?[\d._e+\-*/ ()]+);$/gm;

/** Name under which a threshold is set from without. */
export const keyOf = (t: Pick<Threshold, 'file' | 'name'>): string => `${t.file} ${t.name}`;

const valueOf = (text: string): number => Number(Function(`return ${text}`)());

/** The thresholds of a module, in their order; a comment that speaks of several in a row is that of each. */
export function thresholdsIn(file: string, text: string): Threshold[] {
  const found: Threshold[] = [];
  let [about, end] = ['', -1];
  for (const m of text.matchAll(constant)) {
    if (m[1] !== undefined) about = m[1].replace(/\s*\n \* ?/g, ' ').trim();
    else if (m.index !== end + 1) about = '';
    end = m.index + m[0].length;
    found.push({ file, name: m[3], value: valueOf(m[4]), about });
  }
  return found;
}

/** The module with each threshold taken from the global table `thresholds` where that has one for it. */
export const settable = (file: string, text: string): string =>
  text.replace(constant, (all, _about, head: string, name: string, value: string) =>
    all.replace(`${head}${value};`, `${head}globalThis.thresholds?.[${JSON.stringify(keyOf({ file, name }))}] ?? (${value});`),
  );
