import { changeTexts, type Role, textsOf } from '../entries/index.ts';
import { isFormula } from '../studies/index.ts';
import { type Project, projectSchema } from './schema.ts';

/** A project with a change applied to every expression in it, and to nothing else. What does not change stays the same object. */
export const mapExpressions = (project: Project, change: (text: string) => string): Project =>
  changeTexts(projectSchema, project, { expression: change });

/** All texts of a project, or a part of one, that play some roles, in the order of the schema. */
export const projectTexts = (project: Partial<Project>, ...wanted: Role[]): { role: Role; text: string; path: string }[] =>
  textsOf(projectSchema, project, wanted);

/** A name where it stands by itself: not after a dot, nor before one. */
const word = (name: string): RegExp => new RegExp(`(?<![\\w.])${name}(?![\\w.])`, 'g');
const exchange =
  (from: string, to: string) =>
  (text: string): string =>
    text === from ? to : text;
const named = <E extends { name: string }>(entries: E[], from: string, to: string): E[] =>
  entries.map((e) => (e.name === from ? { ...e, name: to } : e));

/** Renames a parameter and all its uses. */
export function renameParameter(project: Project, from: string, to: string): Project {
  const renamed = changeTexts(projectSchema, project, { expression: (text) => text.replaceAll(word(from), to), parameter: exchange(from, to) });
  return { ...renamed, parameters: named(renamed.parameters, from, to) };
}

/** Changes names of lines wherever something refers to them, in references and in expressions; the lines keep their own. Takes parts of a project too. */
export function redirectLines<P extends Partial<Project>>(project: P, names: ReadonlyMap<string, string>): P {
  if (!names.size) return project;
  const target = (name: string): string => {
    const member = /^(.+?)(_\d+)$/.exec(name);
    return names.get(name) ?? (member && names.has(member[1]) ? names.get(member[1])! + member[2] : name);
  };
  return changeTexts(projectSchema, project, {
    // A name before a dot is a line, at the beginning of a reference or as the line that a face came from.
    expression: (text) => text.replaceAll(/(?<![\w])([A-Za-z_]\w*)(?=\s*\.\s*[A-Za-z_])/g, (name: string) => target(name)),
    line: target,
    face: (text) => text.split('.').map(target).join('.'),
  });
}

/** Renames a line and all that refers to it. */
export function renameLine(project: Project, from: string, to: string): Project {
  const redirected = redirectLines(project, new Map([[from, to]]));
  return { ...redirected, lines: named(redirected.lines, from, to) };
}

/** Renames a port and all that refers to it. */
export function renamePort(project: Project, from: string, to: string): Project {
  const redirected = changeTexts(projectSchema, project, { port: exchange(from, to) });
  return { ...redirected, ports: named(redirected.ports, from, to) };
}

/** Renames a measure and all that refers to it. */
export function renameMeasure(project: Project, from: string, to: string): Project {
  const redirected = changeTexts(projectSchema, project, { measure: exchange(from, to) });
  const measures = named(redirected.measures ?? [], from, to);
  return { ...redirected, measures: measures.map((m) => (isFormula(m) ? { ...m, formula: m.formula.replaceAll(word(from), to) } : m)) };
}
