import {
  type Line,
  type MaterialEntry,
  nameText,
  type Part,
  type Port,
  type Project,
  projectTexts,
  type Recorder,
  redirectLines,
  type SectionEntry,
} from '@jadebell/core/document';
import { faceWords, reservedNames } from '@jadebell/core/expressions/names';

type Named = 'lines' | 'ports' | 'recorders' | 'sections' | 'parameters';

/** A name that is free among the entries: stem, stem2, stem3 ... */
export function freeName(project: Pick<Project, Named>, part: Named, stem: string, also: ReadonlySet<string> = new Set()): string {
  const beside = part === 'sections' ? project.ports : part === 'ports' ? (project.sections ?? []) : [];
  const taken = new Set([...project[part].map((e) => e.name), ...beside.map((e) => e.name), ...also]);
  if (!taken.has(stem)) return stem;
  const base = stem.replace(/\d+$/, '');
  for (let n = 2; ; n++) if (!taken.has(`${base}${n}`)) return `${base}${n}`;
}

/** Why a name cannot be taken, or null. */
export function nameFault(project: Project, part: Named, name: string): string | null {
  const shape = nameText.safeParse(name);
  if (!shape.success) return 'A name starts with a letter and has letters, digits and _ only.';
  if (part === 'parameters' && reservedNames.has(name)) return `${name} is the name of a unit, a constant or a function.`;
  if (part === 'lines' && faceWords.test(name)) return `${name} is what expressions call a part of a body.`;
  // A section and a port are both opened by their name.
  const beside = part === 'sections' ? project.ports : part === 'ports' ? project.sections : [];
  if ([...project[part], ...beside].some((e) => e.name === name)) return `${name} is taken already.`;
  return null;
}

/** Replaces the entry of a name. */
export const replaceEntry = <P extends 'lines' | 'ports' | 'recorders' | 'sections'>(
  project: Project,
  part: P,
  name: string,
  next: Project[P][number],
): Project => ({ ...project, [part]: (project[part] as (Line | Port | Recorder | SectionEntry)[]).map((e) => (e.name === name ? next : e)) });

/** Changes the lines of some names. */
export const changeLines = (project: Project, names: ReadonlySet<string>, change: (line: Line) => Line): Project => ({
  ...project,
  lines: project.lines.map((l) => (names.has(l.name) ? change(l) : l)),
});

/** Removes the entry of a name. */
export const removeEntry = (project: Project, part: Named, name: string): Project => ({
  ...project,
  [part]: (project[part] as { name: string }[]).filter((e) => e.name !== name),
});

/** Removes several lines. */
export const removeLines = (project: Project, names: ReadonlySet<string>): Project => ({
  ...project,
  lines: project.lines.filter((l) => !names.has(l.name)),
});

/** Moves a line to another place in the order; those of a folded section go with its title. */
export function moveLine(project: Project, from: number, to: number, count = 1): Project {
  const lines = [...project.lines];
  const moved = lines.splice(from, count);
  lines.splice(to > from ? Math.max(0, to - count + 1) : to, 0, ...moved);
  return { ...project, lines };
}

/** Puts copies of lines behind the last of them, with new names; references among them follow. */
export function duplicateLines(project: Project, names: ReadonlySet<string>): { project: Project; made: string[] } {
  const chosen = project.lines.filter((l) => names.has(l.name));
  const { lines } = renamed(project, { lines: chosen, ports: [] });
  const last = project.lines.findLastIndex((l) => names.has(l.name));
  return {
    project: { ...project, lines: [...project.lines.slice(0, last + 1), ...lines, ...project.lines.slice(last + 1)] },
    made: lines.map((l) => l.name),
  };
}

/** Lines with names that are free in a project; references among them follow. */
function renamed<P extends Pick<Project, 'lines' | 'ports'>>(project: Project, block: P): P {
  const taken = new Set<string>();
  const names = new Map(
    block.lines.map((l) => {
      const name = freeName(project, 'lines', l.name, taken);
      taken.add(name);
      return [l.name, name];
    }),
  );
  const redirected = redirectLines(block, names);
  return { ...redirected, lines: redirected.lines.map((l) => ({ ...l, name: names.get(l.name)! })) };
}

/** What lines need besides themselves, so that they can go to another project. */
export interface Clipping {
  format: 'jadebell-lines';
  lines: Line[];
  parameters: Project['parameters'];
  materials: MaterialEntry[];
  parts: Part[];
}

/** Takes lines with the parameters, materials and parts that they use. `uses` tells the parameters in an expression. */
export function clip(project: Project, names: ReadonlySet<string>, uses: (text: string) => string[]): Clipping {
  const lines = project.lines.filter((l) => names.has(l.name));
  const texts = (...wanted: Parameters<typeof projectTexts>[1][]): Set<string> => new Set(projectTexts({ lines }, ...wanted).map((e) => e.text));
  const wanted = new Set<string>();
  const visit = (text: string): void => {
    for (const name of uses(text)) {
      if (wanted.has(name)) continue;
      wanted.add(name);
      const parameter = project.parameters.find((g) => g.name === name);
      if (parameter) visit(parameter.expression);
    }
  };
  texts('expression').forEach(visit);
  const kinds = texts('material');
  const parts = texts('part');
  return {
    format: 'jadebell-lines',
    lines,
    parameters: project.parameters.filter((g) => wanted.has(g.name)),
    materials: project.materials.filter((m) => kinds.has(m.name)),
    parts: (project.parts ?? []).filter((p) => parts.has(p.name)),
  };
}

/** Adds lines of a clipping; parameters, materials and parts that the project has already stay as they are. */
export function paste(project: Project, clipping: Clipping): { project: Project; made: string[] } {
  const { lines } = renamed(project, { lines: clipping.lines, ports: [] });
  const add = <T extends { name: string }>(own: T[], more: T[]): T[] => [...own, ...more.filter((m) => !own.some((o) => o.name === m.name))];
  const parts = add(project.parts ?? [], clipping.parts);
  return {
    project: {
      ...project,
      parameters: add(project.parameters, clipping.parameters),
      materials: add(project.materials, clipping.materials),
      ...(parts.length ? { parts } : {}),
      lines: [...project.lines, ...lines],
    },
    made: lines.map((l) => l.name),
  };
}
