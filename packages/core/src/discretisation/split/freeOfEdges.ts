import type { Point3 } from '../../document/index.ts';
import type { Grid } from '../../grid/index.ts';
import type { Axis } from '../../numerics/axis.ts';
import type { CutCells } from '../cutCells.ts';
import type { EdgeRow } from '../rows.ts';

/** What metal besides sheets across no axis leaves free of an edge: stretches, by parts of its length. */
export type FreeOfEdge = (c: Axis, at: Point3) => readonly (readonly [from: number, to: number])[];

/** What solids and aligned sheets leave of edges, as rows of the grid and the solids that cut them tell it. */
export function freeInRows(rowOf: (c: Axis, j: number, k: number) => EdgeRow, grid: Grid, solids: CutCells | null): FreeOfEdge {
  const known = new Map<string, { metal: Uint8Array; free: Float64Array | null }>();
  const [nx, ny, nz] = grid.lines.map((x) => x.length - 1);
  return (c, at) => {
    const [i, j, k] = at;
    if ((c !== 0 && (i === 0 || i === nx)) || (c !== 1 && (j === 0 || j === ny)) || (c !== 2 && (k === 0 || k === nz))) return [];
    const name = `${c} ${j} ${k}`;
    let row = known.get(name);
    if (!row) {
      const { mixed, metal, sheet, free } = rowOf(c, j, k);
      row = {
        metal: mixed ? Uint8Array.from(metal, (m, n) => (m || sheet[n] > 1 ? 1 : 0)) : new Uint8Array(nx + 1),
        free: mixed && free ? free.slice() : null,
      };
      known.set(name, row);
    }
    if (row.metal[i]) return [];
    const several = solids?.stretches(c, at);
    if (several) return several;
    const part = Math.min(1, row.free?.[i] ?? 1);
    return part === 1 ? [[0, 1]] : solids?.holds(at) ? [[1 - part, 1]] : [[0, part]];
  };
}
