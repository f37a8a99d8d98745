import { abs, type Complex, div, sub } from '../../numerics/complex.ts';
import { problem, ProblemError, type Point3 } from '../../document/index.ts';
import { isSheet, touches } from '../../geometry/index.ts';
import { type Grid, nearestLine } from '../../grid/index.ts';
import { permittivityAt } from '../../materials/index.ts';
import { eps0 } from '../../numerics/constants.ts';
import { leastSquares } from '../../numerics/leastSquares.ts';
import { impedance, type PortGap } from '../../results/index.ts';
import type { GridScene, ScenePort } from '../../scene/index.ts';
import type { SolveOptions } from '../solver.ts';
import { discretise } from './discretise.ts';
import { portAlone } from './portAlone.ts';
import { columnEdges, type PortColumn, portColumns } from './portEdges.ts';
import type { SolveOnce } from './solveOnce.ts';
import type { Discrete } from './discrete.ts';

/** How far the surroundings of the port reach that are solved, in gaps and in widths of the metal that faces across it, whichever is more. */
const reach = { gaps: 6, widths: 2 };
/** Absorbing layers where the surroundings are cut out. */
const layers = 10;
/** Frequencies of the fit. */
const points = 11;

/** A small part of where solid metal faces metal: its place on the axes across the gap, and area, m^2. */
interface FacePatch {
  at: Point3;
  area: number;
}

/**
 * The columns of edges across the gap of a port whose both ends lie on metal that faces metal straight across, with the part of their dual faces that does, and
 * the patches of solid metal there: edges of sheets face each other with none.
 */
export function facingColumns(port: ScenePort, scene: GridScene, grid: Grid): { columns: PortColumn[]; patches: FacePatch[] } {
  const { axis } = port;
  const [p, q] = ([0, 1, 2] as const).filter((a) => a !== axis);
  const metal = scene.bodies.filter((b) => b.material.kind === 'conductor');
  const tolerance = 1e-4 * (port.max[axis] - port.min[axis]);
  const middle = port.min.map((v, a) => (v + port.max[a]) / 2) as Point3;
  const faces = (u: number, v: number): boolean =>
    [port.min[axis], port.max[axis]].every((end) => {
      const at = [...middle] as Point3;
      [at[axis], at[p], at[q]] = [end, u, v];
      return metal.some((b) => touches(b.shape, at, tolerance));
    });
  // What lies behind a wall or plane of symmetry, or in absorbing layers, does not count.
  const lines = [p, q].map((a) => grid.lines[a].subarray(grid.outerCells[2 * a], grid.lines[a].length - grid.outerCells[2 * a + 1]));
  const seed = [nearestLine(lines[0], middle[p]), nearestLine(lines[1], middle[q])];
  // From the port outwards, node by node: other gaps in the same plane are not this one's.
  const found = new Map<string, [number, number]>();
  const open: [number, number][] = [];
  const visit = (i: number, j: number): void => {
    const key = `${i} ${j}`;
    if (found.has(key) || i < 0 || j < 0 || i >= lines[0].length || j >= lines[1].length || !faces(lines[0][i], lines[1][j])) return;
    found.set(key, [i, j]);
    open.push([i, j]);
  };
  visit(seed[0], seed[1]);
  for (let at = open.pop(); at; at = open.pop()) for (const [di, dj] of [[1, 0], [-1, 0], [0, 1], [0, -1]]) visit(at[0] + di, at[1] + dj); // prettier-ignore
  const nodes = [...found.values()];
  const half = (x: Float64Array, i: number, by: 1 | -1): number => (i + by < 0 || i + by >= x.length ? 0 : Math.abs(x[i + by] - x[i]) / 2);
  const patches: FacePatch[] = [];
  const area = nodes.map(([i, j]) => {
    let sum = 0;
    for (const a of [1, -1] as const)
      for (const b of [1, -1] as const) {
        const [u, v] = [half(lines[0], i, a), half(lines[1], j, b)];
        const at: Point3 = [0, 0, 0];
        [at[p], at[q]] = [lines[0][i] + (a * u) / 2, lines[1][j] + (b * v) / 2];
        if (!u || !v || !faces(at[p], at[q])) continue;
        patches.push({ at, area: u * v });
        sum += u * v;
      }
    return sum;
  });
  // Edges of sheets: by the part of the width instead; two points as they are.
  const width = ([i, j]: [number, number]): number =>
    [0, 1].reduce((sum, d) => {
      const [x, n] = [lines[d], d ? j : i];
      return sum + ([1, -1] as const).reduce((s, by) => {
        const h = half(x, n, by);
        return s + (h && (d ? faces(lines[0][i], x[n] + (by * h) / 2) : faces(x[n] + (by * h) / 2, lines[1][j])) ? h : 0);
      }, 0);
    }, 0); // prettier-ignore
  const solid = area.some((a) => a > 0);
  const weights = solid ? area : nodes.map(width);
  const some = weights.some((w) => w > 0);
  const columns = nodes.map(([i, j], n): PortColumn => {
    const index: [number, number, number] = [0, 0, 0];
    [index[p], index[q]] = [i + grid.outerCells[2 * p], j + grid.outerCells[2 * q]];
    return { index, weight: some ? weights[n] : 1 };
  });
  return { columns: columns.filter((c) => c.weight > 0), patches };
}

/** The surroundings of a port on the run's own grid, open where they are cut out. */
function surroundings(scene: GridScene, port: ScenePort, grid: Grid, columns: readonly PortColumn[]): { scene: GridScene; grid: Grid; from: Point3 } {
  const gap = port.max[port.axis] - port.min[port.axis];
  const extent = ([0, 1, 2] as const).map((a): [number, number] => {
    const on = columns.map((c) => grid.lines[a][c.index[a]]);
    return a === port.axis ? [port.min[a], port.max[a]] : [Math.min(port.min[a], ...on), Math.max(port.max[a], ...on)];
  });
  const width = Math.max(...extent.map(([low, high], a) => (a === port.axis ? 0 : high - low)));
  const beyond = Math.max(reach.gaps * gap, reach.widths * width);
  const boundaries = [...scene.boundaries];
  const outerCells = [...grid.outerCells];
  const from: Point3 = [0, 0, 0];
  const [min, max] = [[...scene.min] as Point3, [...scene.max] as Point3];
  const lines = ([0, 1, 2] as const).map((a) => {
    const x = grid.lines[a];
    let [first, last] = [0, x.length - 1];
    let [before, after]: number[][] = [[], []];
    const low = nearestLine(x, extent[a][0] - beyond);
    if (low > grid.outerCells[2 * a]) {
      first = low;
      const step = x[low + 1] - x[low];
      before = Array.from({ length: layers }, (_, i) => x[low] - (layers - i) * step);
      [outerCells[2 * a], boundaries[2 * a], min[a]] = [layers, 'open', x[low]];
    }
    const high = nearestLine(x, extent[a][1] + beyond);
    if (high < x.length - 1 - grid.outerCells[2 * a + 1]) {
      last = high;
      const step = x[high] - x[high - 1];
      after = Array.from({ length: layers }, (_, i) => x[high] + (i + 1) * step);
      [outerCells[2 * a + 1], boundaries[2 * a + 1], max[a]] = [layers, 'open', x[high]];
    }
    from[a] = first - before.length;
    return Float64Array.from([...before, ...x.subarray(first, last + 1), ...after]);
  }) as Grid['lines'];
  return {
    from,
    grid: { ...grid, lines, outerCells },
    scene: { ...portAlone(scene, port, points), boundaries, min, max },
  };
}

/** Impedance of the only port of a run at each frequency, ohms. */
async function impedances(scene: GridScene, d: Discrete, options: SolveOptions, solve: SolveOnce): Promise<{ f: ArrayLike<number>; z: Complex[] }> {
  if (d.problems.length) throw new ProblemError(d.problems);
  const { arrays } = await solve(scene, d, { ...options, onProgress: undefined, jobs: undefined });
  const r = scene.ports[0].resistance;
  const { data } = arrays.s;
  const z = Array.from({ length: arrays.frequency.data.length }, (_, n) => impedance([data[2 * n], data[2 * n + 1]], [r, 0]));
  return { f: arrays.frequency.data, z };
}

/** Capacitance between faces of solid metal through the media between them, straight across, of the whole port, farads. */
function capacitance(patches: readonly FacePatch[], port: ScenePort, scene: GridScene, grid: Grid): number {
  const { axis } = port;
  const x = grid.lines[axis].filter((v) => v > port.min[axis] && v < port.max[axis]);
  const ends = [port.min[axis], ...x, port.max[axis]];
  const solids = scene.bodies.filter((b) => !isSheet(b) && b.material.kind === 'dielectric').sort((p, q) => p.order - q.order);
  const centre = (scene.band.from + scene.band.to) / 2;
  let sum = 0;
  for (const { at, area } of patches) {
    let elastance = 0;
    for (let n = 1; n < ends.length; n++) {
      const p = [...at] as Point3;
      p[axis] = (ends[n] + ends[n - 1]) / 2;
      const here = solids.findLast((b) => p.every((v, i) => b.min[i] <= v && v <= b.max[i]) && touches(b.shape, p, 0))?.material;
      elastance += (ends[n] - ends[n - 1]) / (here ? (here.permittivityAlong?.[axis] ?? permittivityAt(here, centre).re) : 1);
    }
    sum += (eps0 * area) / elastance;
  }
  return ([0, 1, 2] as const).reduce((c: number, a) => (port.halved?.[a] ? (a === axis ? c / 2 : 2 * c) : c), sum);
}

const reflection = ([re, im]: Complex, r: number): Complex => div([re - r, im], [re + r, im]);

/**
 * What a lumped port's gap adds where it stands at no line's end: in series the inductance of its current being narrower than the metal that faces across the gap, by two
 * runs of its surroundings on the run's own grid, with the port as it is and with its current spread evenly over all that metal; and across that the
 * capacitance of solid faces through what lies between them. What the two currents differ by closes close by, so their impedances differ by an inductance;
 * what they differ by else is told.
 */
export async function calibrateOnSpread(scene: GridScene, port: ScenePort, grid: Grid, options: SolveOptions, solve: SolveOnce): Promise<PortGap> {
  const { columns, patches } = facingColumns(port, scene, grid);
  if (!columns.length)
    throw new ProblemError([problem('error', 'port.gap-faces', { part: 'ports', name: port.name }, 'On the grid no metal faces metal straight across the gap.', 'Keep the gap.')]); // prettier-ignore
  const aux = surroundings(scene, port, grid, columns);
  const moved = columns.map(({ index, weight }) => ({ index: index.map((v, a) => (a === port.axis ? v : v - aux.from[a])) as Point3, weight }));
  const spread = discretise(aux.scene, aux.grid, (p, g) => columnEdges(p, g, moved));
  if (spread.problems.length) throw new ProblemError(spread.problems);
  const c = capacitance(patches, port, scene, grid);
  const own = portColumns(aux.scene.ports[0], aux.grid);
  const same = own.length === moved.length && own.every((o) => moved.some((m) => m.index.every((v, a) => a === port.axis || v === o.index[a])));
  if (same) return { capacitance: [c, 0], inductance: [0, 0], before: 0, after: 0 };
  const narrow = await impedances(aux.scene, discretise(aux.scene, aux.grid), options, solve);
  const wide = await impedances(aux.scene, spread, options, solve);
  return fitSpread(narrow.f, narrow.z, wide.z, c, port.resistance);
}

/**
 * The inductance that parts two impedances of a port, its current narrow and spread: a constant and a part with the square of frequency; and, as the current
 * that goes into the capacitance across turns elsewhere than that which goes on, what this part of it sees besides:
 * Zn - Zs = j w L - w^2 M C Zs, in least squares over the band.
 */
export function fitSpread(f: ArrayLike<number>, narrow: readonly Complex[], wide: readonly Complex[], c: number, resistance: number): PortGap {
  const top = f[f.length - 1];
  // Unknowns in henries: L0, L2 top^2, M; rows are real and imaginary parts over w.
  const rows: number[][] = [];
  const right: number[] = [];
  narrow.forEach((z, n) => {
    const w = 2 * Math.PI * f[n];
    rows.push([0, 0, -w * c * wide[n][0]], [1, (f[n] / top) ** 2, -w * c * wide[n][1]]);
    right.push((z[0] - wide[n][0]) / w, (z[1] - wide[n][1]) / w);
  });
  const size = c > 0 ? 3 : 2;
  const columns = Array.from({ length: size }, (_, k) => Float64Array.from(rows, (r) => r[k]));
  const [l0, l2, mutual = 0] = leastSquares(columns, Float64Array.from(right)) ?? [0, 0, 0];
  let [before, after] = [0, 0];
  narrow.forEach((z, n) => {
    const w = 2 * Math.PI * f[n];
    const l = l0 + l2 * (f[n] / top) ** 2;
    const turn = 1 - w * w * mutual * c;
    const [a, b, out] = ([z, wide[n], [z[0] / turn, (z[1] - w * l) / turn]] satisfies Complex[]).map((v) => reflection(v, resistance));
    before = Math.max(before, abs(sub(a, b)));
    after = Math.max(after, abs(sub(out, b)));
  });
  return { capacitance: [c, 0], inductance: [l0, l2 / top ** 2], ...(mutual ? { mutual } : {}), before, after };
}
