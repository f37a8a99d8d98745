import { type Line, nameText, type Port, type Project, type Recorder } from '@jadebell/core/document';
import { reservedNames } from '@jadebell/core/names';

type Named = 'lines' | 'ports' | 'recorders' | 'givens';

/** A name that is free among the entries: stem, stem2, stem3 ... */
export function freeName(project: Project, part: Named, stem: string): string {
  const taken = new Set(project[part].map((e) => e.name));
  if (!taken.has(stem)) return stem;
  const base = stem.replace(/\d+$/, '');
  for (let n = 2; ; n++) if (!taken.has(`${base}${n}`)) return `${base}${n}`;
}

/** Why a name cannot be taken, or null. */
export function nameFault(project: Project, part: Named, name: string): string | null {
  const shape = nameText.safeParse(name);
  if (!shape.success) return 'A name starts with a letter and has letters, digits and _ only.';
  if (part === 'givens' && reservedNames.has(name)) return `${name} is the name of a unit, a constant or a function.`;
  if (project[part].some((e) => e.name === name)) return `${name} is taken already.`;
  return null;
}

const replaceWord = (text: string, from: string, to: string): string => text.replaceAll(new RegExp(`(?<![\\w.])${from}(?!\\w)`, 'g'), to);

/** Applies a change to every expression of the document: strings in chips of givens, lines, ports, recorders and settings. */
function mapExpressions(project: Project, change: (text: string) => string): Project {
  const keep = new Set([
    'kind',
    'name',
    'material',
    'note',
    'plane',
    'anchor',
    'axis',
    'across',
    'normal',
    'between',
    'group',
    'title',
    'accuracy',
    'solver',
    'format',
    'boundaries',
    'materials',
  ]);
  const walk = (value: unknown, key: string): unknown => {
    if (keep.has(key)) return value;
    if (typeof value === 'string') return change(value);
    if (Array.isArray(value)) return value.map((v) => walk(v, ''));
    if (value && typeof value === 'object') return Object.fromEntries(Object.entries(value).map(([k, v]) => [k, walk(v, k)]));
    return value;
  };
  return walk(project, '') as Project;
}

/** Renames a given and all its uses. */
export function renameGiven(project: Project, from: string, to: string): Project {
  const renamed = mapExpressions(project, (text) => replaceWord(text, from, to));
  return { ...renamed, givens: renamed.givens.map((g) => (g.name === from ? { ...g, name: to } : g)) };
}

/** Renames a line and the ports that refer to it. */
export function renameLine(project: Project, from: string, to: string): Project {
  return {
    ...project,
    lines: project.lines.map((l) => (l.name === from ? { ...l, name: to } : l)),
    ports: project.ports.map((p) => (p.kind === 'gap' ? { ...p, between: p.between.map((b) => (b === from ? to : b)) as [string, string] } : p)),
  };
}

/** Replaces the entry of a name. */
export const replaceEntry = <P extends 'lines' | 'ports' | 'recorders'>(
  project: Project,
  part: P,
  name: string,
  next: Project[P][number],
): Project => ({ ...project, [part]: (project[part] as (Line | Port | Recorder)[]).map((e) => (e.name === name ? next : e)) });

/** Removes the entry of a name. */
export const removeEntry = (project: Project, part: Named, name: string): Project => ({
  ...project,
  [part]: (project[part] as { name: string }[]).filter((e) => e.name !== name),
});

/** Moves a line to another place in the order. */
export function moveLine(project: Project, from: number, to: number): Project {
  const lines = [...project.lines];
  lines.splice(to, 0, ...lines.splice(from, 1));
  return { ...project, lines };
}
