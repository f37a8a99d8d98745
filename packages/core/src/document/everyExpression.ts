import { atPath, withPath } from './chips.ts';
import { portChips } from './ports/index.ts';
import { recorderChips } from './recorders/index.ts';
import type { Project } from './schema.ts';
import { sectionChips } from './sections/index.ts';
import { shapeOf } from './shapes/index.ts';

/** Applies a change to the expressions at some paths of an entry; the same entry where nothing changes. */
function changeAt<T>(entry: T, paths: readonly string[], change: (text: string) => string): T {
  let next = entry;
  for (const path of paths) {
    const text = atPath(next, path);
    if (typeof text !== 'string') continue;
    const changed = change(text);
    if (changed !== text) next = withPath(next, path, changed);
  }
  return next;
}

const same = <T>(list: T[], next: T[]): T[] => (list.every((v, i) => v === next[i]) ? list : next);

/** A project with a change applied to every expression in it, and to nothing else. */
export function mapExpressions(project: Project, change: (text: string) => string): Project {
  return {
    ...project,
    givens: same(
      project.givens,
      project.givens.map((g) => changeAt(g, ['expression', 'dial.min', 'dial.max'].slice(0, g.dial ? 3 : 1), change)),
    ),
    lines: same(
      project.lines,
      project.lines.map((l) => changeAt(l, shapeOf(l).chips(l).map((c) => c.path), change)), // prettier-ignore
    ),
    ports: same(
      project.ports,
      project.ports.map((p) => changeAt(p, portChips(p).map((c) => c.path), change)), // prettier-ignore
    ),
    recorders: same(
      project.recorders,
      project.recorders.map((r) => changeAt(r, recorderChips(r).map((c) => c.path), change)), // prettier-ignore
    ),
    sections: same(
      project.sections,
      project.sections.map((s) => changeAt(s, sectionChips(s).map((c) => c.path), change)), // prettier-ignore
    ),
    recordAt: same(project.recordAt, project.recordAt.map(change)),
    ...(project.margin === undefined ? {} : { margin: change(project.margin) }),
    ...(project.ground === undefined ? {} : { ground: changeAt(project.ground, ['at', 'permittivity', 'conductivity'], change) }),
    ...(project.symmetry === undefined ? {} : { symmetry: changeAt(project.symmetry, ['x.at', 'y.at', 'z.at'], change) }),
    solve: changeAt(
      project.solve,
      ['from', 'to', 'details.smallestCell', ...(project.solve.combine ?? []).flatMap((_, i) => [`combine.${i}.amplitude`, `combine.${i}.phase`])],
      change,
    ),
  };
}

/** Every expression of a project. */
export function allExpressions(project: Project): string[] {
  const found: string[] = [];
  mapExpressions(project, (text) => {
    found.push(text);
    return text;
  });
  return found;
}

const word = (name: string, before: string, after: string): RegExp => new RegExp(`(?<!${before})${name}${after}`, 'g');

/** Renames a given and all its uses. */
export function renameGiven(project: Project, from: string, to: string): Project {
  const renamed = mapExpressions(project, (text) => text.replaceAll(word(from, '[\\w.]', '(?![\\w.])'), to));
  return { ...renamed, givens: renamed.givens.map((g) => (g.name === from ? { ...g, name: to } : g)) };
}

/** Changes names of lines wherever lines, ports and recorders refer to them, in references and in expressions; the lines keep their own. */
export function redirectLines<P extends Pick<Project, 'lines' | 'ports'> & Partial<Project>>(project: P, names: ReadonlyMap<string, string>): P {
  if (!names.size) return project;
  const target = (name: string): string => {
    const member = /^(.+?)(_\d+)$/.exec(name);
    return names.get(name) ?? (member && names.has(member[1]) ? names.get(member[1])! + member[2] : name);
  };
  // A name before a dot is a line, at the beginning of a reference or as the line that a face came from.
  const inText = (text: string): string => text.replaceAll(/(?<![\w])([A-Za-z_]\w*)(?=\s*\.\s*[A-Za-z_])/g, (name: string) => target(name));
  const lines = project.lines.map((line) => {
    const shape = shapeOf(line);
    let next = changeAt(line, shape.chips(line).map((c) => c.path), inText); // prettier-ignore
    for (const { path } of shape.inputs(line)) {
      const old = String(atPath(next, path));
      const changed = old.split('.').map(target).join('.');
      if (changed !== old) next = withPath(next, path, changed);
    }
    return next.in !== undefined && target(next.in) !== next.in ? { ...next, in: target(next.in) } : next;
  });
  const ports = project.ports.map((p) => {
    const changed = changeAt(p, portChips(p).map((c) => c.path), inText); // prettier-ignore
    if (changed.kind === 'gap' || changed.kind === 'element-gap') return { ...changed, between: changed.between.map(target) as [string, string] };
    if (changed.kind === 'wire-port' || changed.kind === 'element-wire') return { ...changed, wire: target(changed.wire) };
    if (changed.kind === 'element-line') return { ...changed, wires: changed.wires.map(target) as [string, string] };
    return changed.kind === 'guide-face' ? { ...changed, face: changed.face.split('.').map(target).join('.') } : changed;
  });
  const givens = project.givens?.map((g) => changeAt(g, ['expression'], inText));
  const recorders = project.recorders?.map((entry) => {
    const r = changeAt(entry, recorderChips(entry).map((c) => c.path), inText); // prettier-ignore
    return r.kind === 'energy' ? { ...r, body: target(r.body) } : r.kind === 'wire-probe' ? { ...r, wire: target(r.wire) } : r;
  });
  const sections = project.sections?.map((s) => changeAt(s, sectionChips(s).map((c) => c.path), inText)); // prettier-ignore
  return { ...project, lines, ports, ...(givens ? { givens } : {}), ...(recorders ? { recorders } : {}), ...(sections ? { sections } : {}) }; // prettier-ignore
}

/** Renames a line and all that refers to it. */
export function renameLine(project: Project, from: string, to: string): Project {
  const redirected = redirectLines(project, new Map([[from, to]]));
  return { ...redirected, lines: redirected.lines.map((l) => (l.name === from ? { ...l, name: to } : l)) };
}
