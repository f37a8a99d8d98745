import type { Point2, Point3 } from '../../document/index.ts';
import { Filling } from '../../geometry/index.ts';
import type { Filled } from '../../geometry/index.ts';
import type { Grid } from '../../grid/index.ts';
import type { Axis } from '../../numerics/axis.ts';
import { Sets } from '../../numerics/sets.ts';
import { type CutCells, mostTilt } from '../cutCells.ts';

/** Where between two places of a face a thin wall is looked for, and lines on which a way is sought through what is free. */
const quarters = [0.25, 0.5, 0.75];
const looks = [0, 0.25, 0.5, 0.75, 1];

/** Walls of solid metal thinner than a cell as they cross faces of the grid: looked for on lines along its axes. */
export class ThinWalls {
  private readonly filling: Filling;
  constructor(
    scene: Filled,
    private readonly grid: Grid,
    private readonly solids: Pick<CutCells, 'metalOn' | 'beside'>,
  ) {
    this.filling = new Filling([], [], scene);
  }

  /**
   * Which places on the outline of a face, given in its unit square, are joined by what is free of metal inside: a number for each. The way is sought on lines along
   * both sides, through the places and between.
   */
  joined(n: Axis, at: readonly number[], places: readonly Point2[]): number[] {
    const { u, v, low, size, plane } = this.seen(n, at);
    const ticks = [0, 1].map((i) => Float64Array.from(new Set([...looks, ...places.map((p) => p[i])])).sort());
    const [nu, nv] = ticks.map((t) => t.length);
    const sets = new Sets(nu * nv);
    const free = (axis: Axis, across: Axis, fixed: number, visit: (a: number, clear: boolean) => void): void => {
      const [i, other] = axis === u ? [0, 1] : [1, 0];
      const p: Point3 = [0, 0, 0];
      [p[n], p[across]] = [plane, low[across] + size[other] * fixed];
      const spans = this.solids.metalOn(axis, p);
      for (let k = 1; k < ticks[i].length; k++) {
        const [a, b] = [k - 1, k].map((x) => low[axis] + size[i] * ticks[i][x]);
        let clear = true;
        for (let s = 0; s < spans.length; s += 2) if (spans[s] < b && spans[s + 1] > a) clear = false;
        visit(k, clear);
      }
    };
    ticks[1].forEach((y, row) => free(u, v, y, (k, clear) => void (clear && sets.join(row * nu + k - 1, row * nu + k))));
    ticks[0].forEach((x, column) => free(v, u, x, (k, clear) => void (clear && sets.join((k - 1) * nu + column, k * nu + column))));
    return places.map(([x, y]) => sets.of(ticks[1].indexOf(y) * nu + ticks[0].indexOf(x)));
  }

  /** Whether there is metal between two places of a face's outline all along: what tells most faces with one wall. */
  leads(n: Axis, at: readonly number[], p: Point2, q: Point2): boolean {
    const { u, v, low, size, plane } = this.seen(n, at);
    const i = Math.abs(p[0] - q[0]) * size[0] >= Math.abs(p[1] - q[1]) * size[1] ? 0 : 1;
    const [along, across] = i === 0 ? [u, v] : [v, u];
    return quarters.every((t) => {
      const place: Point3 = [0, 0, 0];
      [place[n], place[along]] = [plane, low[along] + size[i] * (p[i] + t * (q[i] - p[i]))];
      const spans = this.solids.metalOn(across, place);
      for (let s = 0; s < spans.length; s += 2) if (spans[s] < low[across] + size[1 - i] && spans[s + 1] > low[across]) return true;
      return false;
    });
  }

  /** Points of the unit square of a face along the side of a thin wall that lies to the left on the way from one place of the outline to another. */
  wayAlong(n: Axis, at: readonly number[], p: Point2, q: Point2): Point2[] {
    const { u, v, low, size } = this.seen(n, at);
    const i = Math.abs(p[0] - q[0]) * size[0] >= Math.abs(p[1] - q[1]) * size[1] ? 0 : 1;
    const [along, across] = i === 0 ? [u, v] : [v, u];
    // To the left of u is v, to the left of v is -u.
    const upper = q[i] > p[i] === (i === 0);
    return quarters.flatMap((t): Point2[] => {
      const here = p[i] + t * (q[i] - p[i]);
      const place: Point3 = [0, 0, 0];
      place[n] = low[n];
      place[along] = low[along] + size[i] * here;
      const spans = this.solids.metalOn(across, place);
      const near = low[across] + size[1 - i] * (p[1 - i] + t * (q[1 - i] - p[1 - i]));
      const side = spans.filter((_, s) => s % 2 === (upper ? 1 : 0)).map((x) => (x - low[across]) / size[1 - i]);
      const best = side.reduce(
        (b, x) => (Math.abs(x - (near - low[across]) / size[1 - i]) < Math.abs(b - (near - low[across]) / size[1 - i]) ? x : b),
        Infinity,
      );
      return best >= 0 && best <= 1 ? [i === 0 ? [here, best] : [best, here]] : [];
    });
  }

  /** A face as it is looked at: its axes, lowest corner and sides, and where it stands, just off its line. */
  private seen(n: Axis, at: readonly number[]): { u: Axis; v: Axis; low: number[]; size: number[]; plane: number } {
    const filling = this.filling;
    const [u, v] = [(n + 1) % 3, (n + 2) % 3] as [Axis, Axis];
    const [low, high] = [0, 1].map((by) => at.map((x, a) => filling.clamp(a as Axis, this.grid.lines[a][x + (a === n ? 0 : by)])));
    return { u, v, low, size: [u, v].map((a) => high[a] - low[a]), plane: this.solids.beside(n, at[n], filling)[1] };
  }

  /**
   * By how much a thin wall that crosses a face from one place to another of its unit square is longer than its trace, as it leans: where its middle lies half a cell
   * before and behind the face.
   */
  leanAt(n: Axis, at: readonly number[], p: Point2, q: Point2): number {
    const [u, v] = [(n + 1) % 3, (n + 2) % 3] as [Axis, Axis];
    const { lines } = this.grid;
    const size = [u, v].map((a) => lines[a][at[a] + 1] - lines[a][at[a]]);
    const way = [(q[0] - p[0]) * size[0], (q[1] - p[1]) * size[1]];
    const i = Math.abs(way[0]) >= Math.abs(way[1]) ? 1 : 0;
    const [across, along] = [[u, v][i], [u, v][1 - i]];
    const here: Point3 = [0, 0, 0];
    here[along] = lines[along][at[along]] + (size[1 - i] * (p[1 - i] + q[1 - i])) / 2;
    const near = lines[across][at[across]] + (size[i] * (p[i] + q[i])) / 2;
    const step = Math.min(...[-1, 0].map((by) => lines[n][at[n] + by + 1] - lines[n][at[n] + by] || Infinity)) / 2;
    const middles = [-step, step].map((by) => {
      here[n] = lines[n][at[n]] + by;
      const spans = this.solids.metalOn(across, here);
      let best = NaN;
      for (let s = 0; s < spans.length; s += 2) {
        const middle = (spans[s] + spans[s + 1]) / 2;
        if (!(Math.abs(middle - near) >= Math.abs(best - near))) best = middle;
      }
      return best;
    });
    const shift = ((middles[1] - middles[0]) * Math.abs(way[1 - i])) / (2 * step * Math.hypot(...way));
    return Number.isFinite(shift) ? Math.min(mostTilt, Math.hypot(1, shift)) : 1;
  }
}
