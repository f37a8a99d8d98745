import type { Point3 } from '../../../document/index.ts';
import { apart, type EdgePart, type SplitEdge, type SplitFace } from '../../../discretisation/split/types.ts';
import { shifted } from '../../../discretisation/enlarge.ts';
import type { Axis } from '../../../numerics/axis.ts';
import { P, tables } from '../../layout.ts';
import { type Entry, Rows } from '../../rows.ts';
import type { Sheet } from './sheet.ts';

/** A sample and its weight, as an address. */
export type Link = readonly [from: number, weight: number];

/** Links as they are collected; they get their addresses once all are there. */
class Links {
  private readonly all: Link[] = [];
  private at = 0;

  /** Adds some and gives where they begin and end, as numbers. */
  add(links: readonly Link[]): [number, number] {
    const first = this.all.length;
    this.all.push(...links);
    return [first, this.all.length];
  }
  put(sheet: Sheet): void {
    const rows = new Rows('splitLink', this.all.length);
    this.all.forEach(([from, weight], n) => rows.set(n, { from, weight }));
    this.at = sheet.putRows(rows);
  }
  address = (n: number): number => this.at + n * tables.splitLink.size;
}

/** Address of a part of an edge. */
const partAt = (sheet: Sheet, edge: SplitEdge, part: EdgePart): number =>
  part.sample === null ? sheet.address(edge.component, edge.at) : sheet.address(apart, [part.sample]);

/** The H that a part of an edge has beside it on a face: of the part of the face on its side, or of the grid; behind walls with a cell behind that of the image. */
export function besideEdge(sheet: Sheet, edge: SplitEdge, part: number, normal: Axis, at: Point3): Link {
  const splits = sheet.d.cuts!.splits!;
  const { boundaries } = sheet.plan;
  const { grid } = sheet.d;
  const across = (3 - edge.component - normal) as Axis;
  const behind = (s: number): number => (boundaries[s] === 'open' ? 0 : grid.outerCells[s]);
  const [low, high] = [behind(2 * across), grid.lines[across].length - 1 - behind(2 * across + 1)];
  const side = at[across] < low ? 2 * across : at[across] >= high ? 2 * across + 1 : -1;
  if (side < 0) {
    const own = splits.partBeside(normal, at, edge, part);
    return own ? [sheet.address(apart, [own.sample]), 1] : [sheet.address(3 + normal, at), 1];
  }
  // The image of the cell inside, or the cell at the far end and the edge there.
  const periodic = boundaries[side] === 'periodic';
  const cell = periodic === (side % 2 === 0) ? high - 1 : low;
  const seen = periodic ? splits.edgeAt(edge.component, shifted(edge.at, across, side % 2 ? low - high : high - low)) : edge;
  const own = seen && splits.partBeside(normal, shifted(at, across, cell - at[across]), seen, part);
  return own ? [sheet.address(apart, [own.sample]), periodic ? 1 : -1] : [sheet.address(3 + normal, at), 1];
}

/** Edges and faces on either side of sheets across no axis. */
export function packSplits(sheet: Sheet): void {
  const splits = sheet.d.cuts?.splits;
  if (!splits) return;
  const { words, d, factors } = sheet;
  sheet.apart = sheet.arena.take(4 * Math.max(1, splits.places.length));
  const links = new Links();
  const edges = d.splitEdges.flatMap(({ edge, ca, cb }) => {
    const [b, c] = [(edge.component + 1) % 3, (edge.component + 2) % 3] as [Axis, Axis];
    return edge.parts.map((part, n) => {
      const drive = cb * (part.to - part.from);
      const beside = (normal: Axis, along: Axis, sign: number): Link[] =>
        [0, -1].map((by): Link => {
          const [from, weight] = besideEdge(sheet, edge, n, normal, shifted(edge.at, along, by) as Point3);
          return [from, (by ? -1 : 1) * sign * weight];
        });
      const derivative = (a: Axis): [number, number, number] => [
        drive * factors[a].eInverse[edge.at[a]],
        factors[a].eB[edge.at[a]],
        drive * factors[a].eC[edge.at[a]],
      ];
      return sample(partAt(sheet, edge, part), ca, links.add(beside(c, b, 1)), derivative(b), links.add(beside(b, c, -1)), derivative(c));
    });
  });
  const faces = splits.faces.flatMap(({ normal, at, parts }) => {
    const derivative = (along: 0 | 1): [number, number, number] => {
      const a = ((normal + 1 + along) % 3) as Axis;
      return [factors[a].hInverse[at[a]], factors[a].hB[at[a]], factors[a].hC[at[a]]];
    };
    return parts.map((part) => {
      const of = (along: 0 | 1): Link[] =>
        part.sides.filter((s) => s.along === along).map((s) => [partAt(sheet, s.edge, s.edge.parts[s.part]), s.sign]);
      return sample(sheet.address(apart, [part.sample]), 1, links.add(of(0)), derivative(0), links.add(of(1)), derivative(1));
    });
  });
  const ofEdges = d.splitEdges
    .filter(({ edge }) => edge.parts.some((p) => p.sample !== null))
    .map(({ edge }) => ({ field: sheet.address(edge.component, edge.at), of: links.add(edge.parts.map((p): Link => [partAt(sheet, edge, p), 1])) }));
  const ofFaces = splits.faces.map((face) => ({ field: sheet.address(3 + face.normal, face.at), of: links.add(meanOf(sheet, face)) }));
  links.put(sheet);
  const put = (list: typeof edges, count: number, at: number): void => {
    const rows = new Rows('splitSample', list.length);
    list.forEach(({ of: [first, middle, end], ...own }, n) =>
      rows.set(n, { ...own, first: links.address(first), middle: links.address(middle), end: links.address(end) }),
    );
    words[count] = list.length;
    words[at] = sheet.putRows(rows);
  };
  const putSums = (list: typeof ofFaces, count: number, at: number): void => {
    const rows = new Rows('splitSum', list.length);
    list.forEach(({ field, of: [first, end] }, n) => rows.set(n, { field, first: links.address(first), end: links.address(end) }));
    words[count] = list.length;
    words[at] = sheet.putRows(rows);
  };
  put(edges, P.SPLIT_E_COUNT, P.SPLIT_E);
  put(faces, P.SPLIT_H_COUNT, P.SPLIT_H);
  putSums(ofEdges, P.SPLIT_SUM_E_COUNT, P.SPLIT_SUM_E);
  putSums(ofFaces, P.SPLIT_SUM_H_COUNT, P.SPLIT_SUM_H);
  const jumps = splits.faces.flatMap(({ parts, joints }) =>
    joints.map((j) => ({
      field: j.sample,
      one: parts[j.one].sample,
      other: parts[j.other].sample,
      share: parts[j.other].counts / (parts[j.one].counts + parts[j.other].counts),
    })),
  );
  const rows = new Rows('splitJump', jumps.length);
  const address = (n: number): number => sheet.address(apart, [n]);
  jumps.forEach(({ field, one, other, share }, n) => rows.set(n, { field: address(field), one: address(one), other: address(other), share }));
  words[P.SPLIT_JUMP_COUNT] = jumps.length;
  words[P.SPLIT_JUMP] = sheet.putRows(rows);
}

/** An entry whose links follow one another. */
const sample = (
  field: number,
  keep: number,
  [first, middle]: [number, number],
  [factorA, fadeA, feedA]: [number, number, number],
  [, end]: [number, number],
  [factorB, fadeB, feedB]: [number, number, number],
): Entry<'splitSample'> & { of: [number, number, number] } => ({
  field,
  keep,
  factorA,
  fadeA,
  feedA,
  factorB,
  fadeB,
  feedB,
  of: [first, middle, end],
});

/** The grid's sample of a split face: the mean of its parts by their areas. */
function meanOf(sheet: Sheet, { parts }: SplitFace): Link[] {
  const whole = parts.reduce((sum, p) => sum + p.area, 0);
  return parts.map((p): Link => [sheet.address(apart, [p.sample]), p.area / whole]);
}
