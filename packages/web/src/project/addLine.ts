import { type Accepts, freshSized, type Project, referenceFits, shapes, withPath } from '@jadebell/core/document';
import { compileValue } from '@jadebell/core/expressions';
import { formatSI } from '@jadebell/core/expressions/format';
import { c0 } from '@jadebell/core/numerics';
import { faceName } from '@jadebell/core/geometry/naming';
import { freeName } from './edits.ts';
import { useModel } from './model.ts';
import { useProject } from './store.ts';
import { useStage } from './stageState.ts';

/** Names that a reference of a line may take: what stands before it and is of the right kind. */
export function candidates(project: Project, before: string | null, accepts: Accepts): string[] {
  const { kinds, bodies, curves } = useModel.getState().view;
  // What still stands comes before what other lines have used up.
  const standing = new Set([...bodies, ...curves].map((b) => b.name));
  // Ports stand after all lines.
  const own = before === null ? -1 : project.lines.findIndex((l) => l.name === before);
  const limit = own < 0 ? Infinity : own;
  const order = new Map(project.lines.map((l, i) => [l.name, i]));
  const found = Object.keys(kinds).filter((name) => {
    const at = order.get(name) ?? order.get(name.replace(/_\d+$/, '')) ?? Infinity;
    return at < limit && referenceFits(accepts, kinds[name]);
  });
  return [...found.filter((n) => standing.has(n)), ...found.filter((n) => !standing.has(n))];
}

/** Part of what stands there that a new line is as large as. */
const ofStanding = 0.5;

/** Metres that suit a new line: half of what stands there, else a quarter of the wavelength in the middle of the band. */
function sizeHere(document: Project): number {
  const { bodies } = useModel.getState().view;
  const most = Math.max(0, ...bodies.flatMap((b) => b.max.map((m, a) => m - b.min[a])));
  if (most > 0) return ofStanding * most;
  const [from, to] = [document.solve.from, document.solve.to].map((t) => compileValue(t, 'frequency'));
  return typeof from === 'number' && typeof to === 'number' && from + to > 0 ? c0 / (2 * (from + to)) : 0;
}

/** Adds a line of a kind after the picked one, its references filled with what is picked or stands last; gives its name. */
export function addLine(kind: string): string | null {
  const shape = shapes.find((s) => s.kind === kind)!;
  const { edit, pick, document, picked } = useProject.getState();
  if (!document) return null;
  const { view } = useModel.getState();
  const { hit } = useStage.getState();
  const name = freeName(document, 'lines', shape.kind.replaceAll('-', '_'));
  let line = freshSized(shape, name, sizeHere(document), (si) => formatSI(si, 'length', 3));
  const visible = new Set([...view.bodies, ...view.curves].map((b) => b.name));
  const taken = new Set<string>();
  const choose = (accepts: Accepts): string => {
    const found = candidates(document, null, accepts).filter((n) => !taken.has(n));
    const best = found.find((n) => n === picked) ?? found.findLast((n) => visible.has(n)) ?? found.at(-1) ?? '';
    taken.add(best);
    return best;
  };
  for (const part of shape.sentence(line)) {
    if (typeof part === 'string') continue;
    if ('ref' in part) line = withPath(line, part.ref, choose(part.accepts));
    else if ('refs' in part) {
      const two = shape.kind === 'cut' || shape.kind === 'container' ? [choose(part.accepts)] : [choose(part.accepts), choose(part.accepts)];
      line = withPath(line, part.refs, two.filter(Boolean).reverse() as never);
    } else if ('face' in part && hit?.kind === 'face') {
      const body = view.bodies.find((b) => b.name === hit.body);
      if (body) line = withPath(line, part.face, faceName(body, hit.face!));
    } else if ('part' in part) {
      const wanted = shape.kind === 'import' ? 'mesh' : 'outlines';
      line = withPath(line, part.part, document.parts?.find((p) => p.kind === wanted)?.name ?? '');
    }
  }
  edit(`add ${kind}`, (d) => ({ ...d, lines: [...d.lines, line] }));
  pick(name);
  return name;
}

/** Shapes that can be added now: those that need a part need one. */
export const canAdd = (kind: string, project: Project): boolean =>
  kind === 'import'
    ? !!project.parts?.some((p) => p.kind === 'mesh')
    : kind === 'drawing'
      ? !!project.parts?.some((p) => p.kind === 'outlines')
      : true;
