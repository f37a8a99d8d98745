import { isSheet, rowSpans } from '../../geometry/index.ts';
import { type Grid, nearestLine } from '../../grid/index.ts';
import { modelAt } from '../../materials/index.ts';
import { eps0 } from '../../numerics/constants.ts';
import type { ResultMeta } from '../../results/index.ts';
import { frequenciesOf, numbersOf, type Scene, type SceneEnergy } from '../../scene/index.ts';
import type { Discrete } from './discretise.ts';
import { type Dielectric, dielectricsOf } from './materials.ts';
import { isHalf, type Region, type RegionSums } from './recording.ts';
import { type BlockValues, blockValues, planVolume, type VolumePlan } from './recordedVolume.ts';

type Index = [number, number, number];
type C = [re: number, im: number];

/** A line whose bodies' energy is taken; `volume` is null where they are of metal, which keeps fields out. */
export interface EnergyPlan {
  recorder: SceneEnergy;
  volume: VolumePlan | null;
}

/** Adds the regions of the fields in and around the bodies of a line. */
export function planEnergy(scene: Scene, grid: Grid, recorder: SceneEnergy, regions: Region[]): EnergyPlan {
  const own = scene.bodies.filter((b) => b.line === recorder.line && b.material.kind !== 'conductor');
  if (!own.length) return { recorder, volume: null };
  const lo: number[] = [];
  const hi: number[] = [];
  for (const a of [0, 1, 2] as const) {
    const x = grid.lines[a];
    const ends = own.flatMap((b) => [b.min[a], b.max[a]]);
    const plane = scene.mirrors?.[a]?.at;
    const folded = plane === undefined ? ends : ends.map((at) => (at < plane ? 2 * plane - at : at));
    const across = plane !== undefined && Math.min(...ends) < plane && Math.max(...ends) > plane;
    const most = [grid.pml[2 * a], x.length - 1 - grid.pml[2 * a + 1]];
    lo[a] = Math.max(most[0], nearestLine(x, across ? plane : Math.min(...folded)) - 1);
    hi[a] = Math.min(most[1], nearestLine(x, Math.max(...folded)) + 1);
  }
  return { recorder, volume: planVolume(grid, [0, 1, 2, 3, 4, 5], lo as Index, hi as Index, regions) };
}

/** Half cells of a block along an axis: their middles and widths; half cell 2i is the lower half of cell lo + i. */
interface HalfCells {
  centre: Float64Array;
  width: Float64Array;
}
const halfCells = (x: Float64Array, lo: number, hi: number): HalfCells => {
  const count = 2 * (hi - lo);
  const cell = (h: number): number => lo + (h >> 1);
  const step = (h: number): number => x[cell(h) + 1] - x[cell(h)];
  return {
    centre: Float64Array.from({ length: count }, (_, h) => x[cell(h)] + step(h) * (h & 1 ? 0.75 : 0.25)),
    width: Float64Array.from({ length: count }, (_, h) => step(h) / 2),
  };
};

/**
 * Marks the eighths of the block's cells with the number of the body that fills them plus one. `turned` says along which axes the
 * images behind planes of symmetry are looked at.
 */
function fillOf(scene: Scene, axes: readonly HalfCells[], turned: readonly boolean[]): Uint16Array {
  const [nx, ny, nz] = axes.map((h) => h.centre.length);
  const place = (a: number, h: number): number => (turned[a] ? 2 * scene.mirrors![a]!.at - axes[a].centre[h] : axes[a].centre[h]);
  const bodies = scene.bodies
    .map((body, n) => ({ body, mark: n + 1 }))
    .filter(({ body }) => !isSheet(body))
    .sort((p, q) => p.body.order - q.body.order);
  const out = new Uint16Array(nx * ny * nz);
  for (let k = 0; k < nz; k++)
    for (let j = 0; j < ny; j++) {
      const [y, z] = [place(1, j), place(2, k)];
      const row = (k * ny + j) * nx;
      for (const { body, mark } of bodies) {
        if (y < body.min[1] || y > body.max[1] || z < body.min[2] || z > body.max[2]) continue;
        const spans = rowSpans(body.shape, y, z);
        for (let s = 0; s < spans.length; s += 2)
          for (let i = 0; i < nx; i++) {
            const x = place(0, i);
            if (x >= spans[s] && x < spans[s + 1]) out[row + i] = mark;
          }
      }
    }
  return out;
}

/** Relative permittivity and loss at a frequency, and d(w e') / dw over it, by which energy is stored in a medium with memory. */
export function mediumAt({ level, model }: Dielectric, frequency: number): { re: number; loss: number; stored: number } {
  if (!model) return { re: level, loss: 0, stored: level };
  const at = (f: number): { re: number; loss: number } => modelAt(model, 2 * Math.PI * f);
  const h = 1e-4;
  const { re, loss } = at(frequency);
  return { re, loss, stored: ((1 + h) * at(frequency * (1 + h)).re - (1 - h) * at(frequency * (1 - h)).re) / (2 * h) };
}

/**
 * By how much the square of E in a body differs from that of a sample whose dual cell it fills in part, times the cell: along a face E goes on,
 * across it D. `own` and `other` are the permittivities of the body and of what else is there, `normal` points across the face. Summed over
 * the three components it is |n . E|^2 ((e_h / e)^2 - 1) with the harmonic mean e_h.
 */
function acrossFace(own: number, share: number, other: number, normal: Index, component: number, e: readonly C[]): number {
  const harmonic = 1 / (share / own + (1 - share) / other);
  let product = 0;
  for (let a = 0; a < 3; a++) product += normal[a] * (e[component][0] * e[a][0] + e[component][1] * e[a][1]);
  return normal[component] * product * ((harmonic / own) ** 2 - 1);
}

/** E of another component where a sample stands: the mean of the four around it. */
function beside(values: BlockValues, c: number, component: number, at: Index): C {
  const { from, count, re, im } = values;
  let [sr, si, n] = [0, 0, 0];
  for (const up of [0, 1])
    for (const back of [0, 1]) {
      const p: Index = [at[0] - from[0], at[1] - from[1], at[2] - from[2]];
      p[component] += up;
      p[c] -= back;
      if (p.some((x, a) => x < 0 || x >= count[a])) continue;
      const i = (p[2] * count[1] + p[1]) * count[0] + p[0];
      sr += re[i];
      si += im[i];
      n++;
    }
  return n ? [sr / n, si / n] : [0, 0];
}

/**
 * Stored energies, J, and lost power, W, of each line at each recorded frequency. Each field sample stands for the eighths of cells around
 * it that the body fills. In media with memory the stored energy is
 * that of small loss, e0 d(w e')/dw |E|^2 / 4 (Landau and Lifshitz, Electrodynamics of Continuous Media, sec. 80). Metal only loses: `metal` gives
 * what each line does.
 */
export function energiesOf(
  plans: readonly EnergyPlan[],
  scene: Scene,
  d: Discrete,
  sums: (region: number) => RegionSums,
  scales: readonly [number, number][],
  metal: (f: number) => readonly { line: string; power: number }[],
): NonNullable<ResultMeta['energies']> {
  const media = ([0, 1, 2] as const).map((a) => dielectricsOf(scene, a));
  const combinations = [0, 1, 2, 3, 4, 5, 6, 7].filter((n) => [0, 1, 2].every((a) => !(n & (1 << a)) || scene.mirrors?.[a]));
  return plans.map(({ recorder, volume }) => {
    const numbers = numbersOf(recorder.kept, scales.length);
    const electric = numbers.map(() => 0);
    const magnetic = numbers.map(() => 0);
    const lost = numbers.map((f) => metal(f).reduce((sum, m) => sum + (m.line === recorder.line ? m.power : 0), 0));
    if (volume) {
      const axes = ([0, 1, 2] as const).map((a) => halfCells(d.grid.lines[a], volume.lo[a], volume.hi[a]));
      const fills = combinations.map((n) => fillOf(scene, axes, [0, 1, 2].map((a) => !!(n & (1 << a))))); // prettier-ignore
      numbers.forEach((at, f) => {
        const frequency = scene.recordAt[at];
        // As everywhere, power and energy are those of the mean of E over a step.
        const mean2 = Math.cos(Math.PI * frequency * d.dt) ** 2;
        const mine = scene.bodies.map((b) => b.line === recorder.line && b.material.kind !== 'conductor');
        const fields = volume.blocks.map((block) => blockValues(block, sums, at, scales[at]));
        for (const [b, { field }] of volume.blocks.entries()) {
          const values = fields[b];
          const c = (field % 3) as 0 | 1 | 2;
          const own = media[c].map((m) => (m ? mediumAt(m, frequency) : null));
          eachSample(volume, values, field, axes, fills, (n, place, parts, normalOf) => {
            const square = values.re[n] ** 2 + values.im[n] ** 2;
            if (!square) return;
            let [total, level] = [0, 0];
            for (const [mark, size] of parts) {
              const m = mark ? own[mark - 1] : vacuum;
              if (!m) continue;
              total += size;
              level += size * m.re;
            }
            for (const [mark, size] of parts) {
              if (!mark || !mine[mark - 1]) continue;
              if (field > 2) {
                magnetic[f] += (eps0 / 4) * square * size;
                continue;
              }
              const m = own[mark - 1]!;
              let e2 = square;
              const other = (level - size * m.re) / (total - size);
              if (size < 0.999 * total && Math.abs(other - m.re) > 1e-6 * m.re) {
                const e = [0, 1, 2].map((a): C => (a === c ? [values.re[n], values.im[n]] : beside(fields[a], a, c, place)));
                e2 += acrossFace(m.re, size / total, other, normalOf(mark), c, e);
              }
              const scaled = (mean2 * e2 * size) / (d.cuts?.free(c, place[0], place[1], place[2]) || 1) ** 2;
              electric[f] += (eps0 / 4) * m.stored * scaled;
              lost[f] += Math.PI * frequency * eps0 * m.loss * scaled;
            }
          });
        }
      });
    }
    return { name: recorder.name, line: recorder.line, ...frequenciesOf(recorder.kept, scene.recordAt), electric, magnetic, lost };
  });
}

const vacuum = { re: 1, loss: 0, stored: 1 };

/**
 * Visits the samples of a block around which some body is: the sample's number, its grid index, the volume that each body, marked
 * as in the fills, has of the cells around it, and what tells the direction across a body's face there.
 */
function eachSample(
  volume: VolumePlan,
  { from, count }: { from: Index; count: Index },
  field: number,
  axes: readonly HalfCells[],
  fills: readonly Uint16Array[],
  visit: (n: number, at: Index, parts: ReadonlyMap<number, number>, normalOf: (mark: number) => Index) => void,
): void {
  const [nx, ny, nz] = axes.map((h) => h.centre.length);
  // First of the two half cells around a sample: those of its cell, or the upper of the cell before and the lower of the cell after.
  const first = (a: number, i: number): number => 2 * (i - volume.lo[a]) - (isHalf(a, field) ? 0 : 1);
  const at: Index = [0, 0, 0];
  const parts = new Map<number, number>();
  const corner: Index = [0, 0, 0];
  // From the middle of what the body fills of the eighths up to a cell away to the middle of all.
  const normalOf = (mark: number): Index => {
    const out: Index = [0, 0, 0];
    for (const fill of fills)
      for (let c = Math.max(0, corner[2] - 1); c < corner[2] + 3 && c < nz; c++)
        for (let b = Math.max(0, corner[1] - 1); b < corner[1] + 3 && b < ny; b++)
          for (let a = Math.max(0, corner[0] - 1); a < corner[0] + 3 && a < nx; a++) {
            if (fill[(c * ny + b) * nx + a] !== mark) continue;
            const size = axes[0].width[a] * axes[1].width[b] * axes[2].width[c];
            for (const [x, h] of [a, b, c].entries()) out[x] -= size * (axes[x].centre[h] - middle(x, field, at[x]));
          }
    const length = Math.hypot(...out);
    return length ? (out.map((x) => x / length) as Index) : out;
  };
  const middle = (a: number, f: number, i: number): number => {
    const h = 2 * (i - volume.lo[a]);
    const edge = (n: number): number => axes[a].centre[n] + axes[a].width[n] / 2;
    // Of a cell the end of its lower half, of a node where the cell before ends.
    return isHalf(a, f) ? edge(h) : h > 0 ? edge(h - 1) : axes[a].centre[0] - axes[a].width[0] / 2;
  };
  for (let k = 0, n = 0; k < count[2]; k++)
    for (let j = 0; j < count[1]; j++)
      for (let i = 0; i < count[0]; i++, n++) {
        at[0] = from[0] + i;
        at[1] = from[1] + j;
        at[2] = from[2] + k;
        for (let a = 0; a < 3; a++) corner[a] = first(a, at[a]);
        const [x, y, z] = corner;
        parts.clear();
        for (const fill of fills)
          for (let c = Math.max(0, z); c < z + 2 && c < nz; c++)
            for (let b = Math.max(0, y); b < y + 2 && b < ny; b++)
              for (let a = Math.max(0, x); a < x + 2 && a < nx; a++) {
                const mark = fill[(c * ny + b) * nx + a];
                parts.set(mark, (parts.get(mark) ?? 0) + axes[0].width[a] * axes[1].width[b] * axes[2].width[c]);
              }
        if (parts.size > 1 || !parts.has(0)) visit(n, at, parts, normalOf);
      }
}
