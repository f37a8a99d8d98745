import { type Line, type Parameter, type Project, shapes, usedByLine } from '@jadebell/core/document';
import { namesUsed } from '@jadebell/core/expressions/uses';

/** What lines are left in the ledger by: a kind, a material, or a parameter that they follow. */
export interface LineFilter {
  by: 'kind' | 'material' | 'uses';
  value: string;
}

const titles = new Map(shapes.map((s) => [s.kind, s.title]));
/** A filter in words. */
export const filterText = ({ by, value }: LineFilter): string =>
  by === 'kind' ? (titles.get(value) ?? value) : by === 'material' ? `of ${value}` : `follows ${value}`;

/** The parameter and all that follow from it. */
function dependents(parameters: readonly Parameter[], name: string): Set<string> {
  const found = new Set([name]);
  for (let before = 0; before < found.size;) {
    before = found.size;
    for (const p of parameters) if (namesUsed(p.expression).some((n) => found.has(n))) found.add(p.name);
  }
  return found;
}

/** Whether a line is left by a filter. */
export function passes(parameters: readonly Parameter[], filter: LineFilter): (line: Line) => boolean {
  if (filter.by === 'kind') return (line) => line.kind === filter.value;
  if (filter.by === 'material') return (line) => 'material' in line && line.material === filter.value;
  const names = dependents(parameters, filter.value);
  return (line) => usedByLine(line).some((n) => names.has(n));
}

/** Filters that leave some lines of a project and not all. */
export function filtersFor(project: Project): LineFilter[] {
  const lines = project.lines.filter((l) => l.kind !== 'section');
  const all: LineFilter[] = [
    ...[...new Set(lines.map((l) => l.kind))].map((value): LineFilter => ({ by: 'kind', value })),
    ...[...new Set(lines.flatMap((l) => ('material' in l && l.material ? [l.material] : [])))].map((value): LineFilter => ({
      by: 'material',
      value,
    })),
    ...project.parameters.map(({ name }): LineFilter => ({ by: 'uses', value: name })),
  ];
  return all.filter((f) => {
    const left = lines.filter(passes(project.parameters, f)).length;
    return left > 0 && left < lines.length;
  });
}
