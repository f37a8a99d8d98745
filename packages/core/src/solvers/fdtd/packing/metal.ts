import { recursion } from '../../../discretisation/immittance.ts';
import { P, tables } from '../../layout.ts';
import { Rows } from '../../rows.ts';
import type { Sheet } from './sheet.ts';

/** Losses of metal: branches by plane, edges and faces apart. Edges of lumped ports (by address) have branches of their own. */
export function packBranches(sheet: Sheet, ofPorts: ReadonlySet<number>): void {
  const { d, words } = sheet;
  const { branches } = d;
  const [, , nz] = sheet.cells;
  const address = (n: number): number => sheet.address(branches.field[n], branches.index.subarray(3 * n, 3 * n + 3));
  // Branches on cut faces come last, as of the plane beyond the grid: their faces are ready only after the sweep.
  const planeOf = (n: number): number => (n < branches.onCuts ? nz : branches.index[3 * n + 2]);
  const order = Array.from({ length: branches.count }, (_, n) => n).sort((a, b) => planeOf(a) - planeOf(b));
  for (const [start, list, magnetic] of [
    [P.EDGE_START, P.EDGES, false],
    [P.FACE_START, P.FACES, true],
  ] as const) {
    const mine = order.filter((n) => branches.field[n] > 2 === magnetic && !ofPorts.has(address(n)));
    const rows = new Rows('branch', mine.length);
    mine.forEach((n, i) => rows.set(i, { field: address(n), kind: branches.metal[n], q: branches.q[n] }));
    words[list] = sheet.putRows(rows);
    words[start] = sheet.put(sheet.planeStarts(mine.map(planeOf), nz + 1));
  }
  const floats = tables.branchClass.size / 4;
  const classes = new Float32Array(Math.max(1, branches.metals.length) * floats);
  branches.metals.forEach((m, i) => classes.set(recursion(m.fit, d.dt), i * floats));
  words[P.BRANCH] = sheet.put(classes);
}

/** Faces cut by curved metal, and their lenders. */
export function packCuts(sheet: Sheet): void {
  const { d, words } = sheet;
  const cuts = d.cuts?.faces;
  const count = cuts?.count ?? 0;
  const faces = new Rows('cutFace', count);
  for (let n = 0; n < count; n++)
    faces.set(n, {
      field: sheet.address(cuts!.field[n], cuts!.index.subarray(3 * n, 3 * n + 3)),
      own: cuts!.own[n],
      first: cuts!.start[n],
      end: cuts!.start[n + 1],
    });
  const links = new Rows('cutLink', cuts?.other.length ?? 0);
  cuts?.other.forEach((face, l) => links.set(l, { face, factor: cuts.factor[l] }));
  words[P.CUT_COUNT] = count;
  words[P.CUTS] = sheet.putRows(faces);
  words[P.CUT_LINKS] = sheet.putRows(links);
}
