import { type Asked, isMetal, type LineConstraint, priorityOf } from './constraints.ts';
import { growth, type HardPoint } from './lines.ts';

/** The straight edge of a sheet, held by two lines beside it. */
interface Edge {
  at: number;
  outward: 1 | -1;
  /** The cell that spans the edge. */
  size: number;
}
/** Of the cell at the edge of a sheet one part of so many lies within the metal. */
const parts = 3;
/** Largest part of what lies between an edge and the next metal that its cell may take: then a strip or a gap this wide holds whole cells of nearly the same size. */
const mostOfGap = 0.375;

/** Coordinates this close are one: a part of the axis's extent. */
const sameOn = (min: number, max: number): number => 1e-8 * Math.max(max - min, Math.abs(min), Math.abs(max));

/** The straight edges of sheets that can be held by two lines, the longest first. */
function edgesOf(inside: readonly LineConstraint[], limits: Asked['limits'], [min, max]: [number, number], minCell: number): Edge[] {
  const same = sameOn(min, max);
  const metal = inside.filter(isMetal);
  const mirrors = inside.filter((w) => w.mirror);
  const through = inside.filter((w) => w.through).map((w) => w.at);
  /** Distance to the next metal there, behind a magnetic wall to its image. */
  const apart = (w: LineConstraint, at: number): number => Math.abs(w.at - at) * (mirrors.some((m) => Math.abs(m.at - w.at) <= same) ? 2 : 1);
  const edges: Edge[] = [];
  for (const { at, outward, size: wanted } of [...inside].sort((a, b) => (b.length ?? 0) - (a.length ?? 0))) {
    // At the region's end, and behind some ports, the sheet goes on.
    if ([min, max, ...through].some((x) => Math.abs(at - x) <= same)) continue;
    if (outward === undefined || edges.some((t) => Math.abs(t.at - at) <= same)) continue;
    const solidHere = metal.some((w) => Math.abs(w.at - at) <= same && w.by !== 'sheet edge' && w.by !== 'port');
    // One cell must span the two lines, so it may be no larger than what stands around allows.
    const others = metal.filter((w) => Math.abs(w.at - at) > same);
    const size = Math.min(
      wanted,
      ...others.map((w) => apart(w, at) * mostOfGap),
      ...others.map((w) => w.size + (growth - 1) * Math.abs(w.at - at)),
      ...limits.map((l) => l.size + (growth - 1) * Math.max(0, l.from - at, at - l.to)),
    );
    if (!solidHere && size >= minCell * 0.999) edges.push({ at, outward, size });
  }
  return edges;
}

/** Whether a coordinate lies within the cell that spans an edge. */
const spans = ({ at, outward, size }: Edge, x: number): boolean =>
  (x - at) * outward > -size / parts && (x - at) * outward < ((parts - 1) * size) / parts;

/**
 * Chooses the lines among those that are asked for. Those of highest priority survive where two are closer than the smallest cell; equal ones merge.
 * At the straight edge of a sheet, where the field is singular, the two lines beside it stand a third of a cell inside the
 * metal and two thirds outside, which makes the staircase of the grid act like the true edge: E beside it falls as one over the root of the distance.
 * `dropped` are the coordinates that no line holds.
 */
export function resolveConstraints(
  { lines, limits }: Asked,
  [min, max]: [number, number],
  minCell: number,
): { points: HardPoint[]; dropped: number[] } {
  const same = sameOn(min, max);
  const inside = lines.filter((w) => w.at >= min - same && w.at <= max + same);
  const edges = edgesOf(inside, limits, [min, max], minCell);
  const kept: LineConstraint[] = edges.flatMap(({ at, outward, size }) => [
    { at: at - (outward * size) / parts, size, by: 'sheet edge', whole: outward > 0 },
    { at: at + ((parts - 1) * outward * size) / parts, size, by: 'sheet edge', whole: outward < 0 },
  ]);
  const dropped: number[] = [];
  for (const line of [...inside].sort((a, b) => priorityOf(b) - priorityOf(a))) {
    const held = edges.some((t) => Math.abs(t.at - line.at) <= same || (!isMetal(line) && spans(t, line.at)));
    const twin = kept.find((k) => Math.abs(k.at - line.at) <= same);
    if (held) {
      // A dielectric face at a sheet's edge is met by averaging; ports and sheets are held by the two lines.
      if (!isMetal(line)) dropped.push(line.at);
    } else if (twin) twin.size = Math.min(twin.size, line.size);
    else if (line.by === 'thin layer' || kept.some((k) => Math.abs(k.at - line.at) < minCell * 0.999)) dropped.push(line.at);
    else kept.push({ ...line });
  }
  return { points: kept.sort((a, b) => a.at - b.at).map(({ at, size, whole }) => ({ at, size, whole })), dropped };
}
