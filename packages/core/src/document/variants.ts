import { namesUsed } from '../expressions/uses.ts';
import type { Variant } from '../studies/index.ts';
import type { Project } from './schema.ts';

const mutedOf = (project: Project): string[] => project.lines.filter((l) => l.muted).map((l) => l.name);

/** A project as it stands as a variant: its parameters that are given by values, not by formulas, and its muted lines. */
export const variantOf = (project: Project, name: string): Variant => ({
  name,
  values: project.parameters.filter((p) => !namesUsed(p.expression).length).map(({ name: parameter, expression }) => ({ parameter, expression })),
  muted: mutedOf(project),
});

/** A project switched to a variant. Parameters and lines that are no longer there are passed over. */
export function withVariant(project: Project, { values, muted }: Variant): Project {
  const given = new Map(values.map((v) => [v.parameter, v.expression]));
  const silent = new Set(muted);
  return {
    ...project,
    parameters: project.parameters.map((p) => (given.has(p.name) ? { ...p, expression: given.get(p.name)! } : p)),
    lines: project.lines.map((line) => {
      if (!!line.muted === silent.has(line.name)) return line;
      const { muted: _, ...sounding } = line;
      return silent.has(line.name) ? { ...sounding, muted: true } : sounding;
    }) as Project['lines'],
  };
}

/** In what a variant differs from the project as it stands, in words; nothing where it stands so. */
export function variantChanges(project: Project, { values, muted }: Variant): string[] {
  const now = new Map(project.parameters.map((p) => [p.name, p.expression]));
  const [silent, was] = [new Set(muted), new Set(mutedOf(project))];
  return [
    ...values
      .filter((v) => now.has(v.parameter) && now.get(v.parameter) !== v.expression)
      .map((v) => `${v.parameter}: ${now.get(v.parameter)} → ${v.expression}`),
    ...project.lines.filter((l) => silent.has(l.name) && !was.has(l.name)).map((l) => `${l.name} muted`),
    ...project.lines.filter((l) => !silent.has(l.name) && was.has(l.name)).map((l) => `${l.name} unmuted`),
  ];
}
