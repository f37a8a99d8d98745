import type { Complex } from '../numerics/complex.ts';
import type { Axis } from '../numerics/axis.ts';
import { ref } from '../entries/index.ts';
import { formatSI } from '../expressions/index.ts';
import { type Body, fillOf } from '../geometry/index.ts';
import { mediumAt } from '../materials/index.ts';
import { eps0 } from '../numerics/constants.ts';
import { type BlockValues, blockValues, isHalf, nearestLine, planVolume, type VolumePlan } from '../yee/index.ts';
import { defineRecorder, type Fault, type GridReading, type GridRecording, type Index } from './recorder.ts';
import { sameMesh } from '../numerics/tolerance.ts';

interface Told {
  line: string;
  /** Mean stored energies, J, and lost power, W, at each frequency. */
  electric: number[];
  magnetic: number[];
  lost: number[];
}

const dielectric = (b: Body): boolean => b.material.kind !== 'conductor';

/** Nodes of the box around the bodies of a line, a cell more on each side; those behind a plane of symmetry are seen by their images. */
function nodesOf(own: readonly Body[], { grid, mirrors }: GridRecording): { lo: Index; hi: Index } {
  const lo: Index = [0, 0, 0];
  const hi: Index = [0, 0, 0];
  for (const a of [0, 1, 2] as const) {
    const x = grid.lines[a];
    const ends = own.flatMap((b) => [b.min[a], b.max[a]]);
    const plane = mirrors?.[a]?.at;
    const folded = plane === undefined ? ends : ends.map((at) => (at < plane ? 2 * plane - at : at));
    const across = plane !== undefined && Math.min(...ends) < plane && Math.max(...ends) > plane;
    lo[a] = Math.max(grid.outerCells[2 * a], nearestLine(x, across ? plane : Math.min(...folded)) - 1);
    hi[a] = Math.min(x.length - 1 - grid.outerCells[2 * a + 1], nearestLine(x, Math.max(...folded)) + 1);
  }
  return { lo, hi };
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
 * By how much the square of E in a body differs from that of a sample whose dual cell it fills in part, times the cell: along a face E goes on,
 * across it D. `own` and `other` are the permittivities of the body and of what else is there, `normal` points across the face. Summed over
 * the three components it is |n . E|^2 ((e_h / e)^2 - 1) with the harmonic mean e_h.
 */
function acrossFace(own: number, share: number, other: number, normal: Index, component: number, e: readonly Complex[]): number {
  const harmonic = 1 / (share / own + (1 - share) / other);
  let product = 0;
  for (let a = 0; a < 3; a++) product += normal[a] * (e[component][0] * e[a][0] + e[component][1] * e[a][1]);
  return normal[component] * product * ((harmonic / own) ** 2 - 1);
}

/** E of another component where a sample stands: the mean of the four around it. */
function beside(values: BlockValues, c: number, component: number, at: Index): Complex {
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

/** A block of the grid in eighths of its cells, each with the body that fills it, by number from 1; one fill for each image behind planes of symmetry. */
class Eighths {
  private readonly parts = new Map<number, number>();
  private readonly corner: Index = [0, 0, 0];

  constructor(
    private readonly lo: Index,
    private readonly axes: readonly HalfCells[],
    private readonly fills: readonly Uint16Array[],
  ) {}

  static of({ grid, bodies, mirrors }: GridRecording, { lo, hi }: VolumePlan): Eighths {
    const axes = ([0, 1, 2] as const).map((a) => halfCells(grid.lines[a], lo[a], hi[a]));
    const images = [0, 1, 2, 3, 4, 5, 6, 7].filter((n) => [0, 1, 2].every((a) => !(n & (1 << a)) || mirrors?.[a]));
    const places = (n: number): Float64Array[] => axes.map(({ centre }, a) => (n & (1 << a) ? centre.map((x) => 2 * mirrors![a]!.at - x) : centre));
    return new Eighths(
      lo,
      axes,
      images.map((n) => {
        const [x, y, z] = places(n);
        return fillOf(bodies, x, y, z);
      }),
    );
  }

  /** Volume, m^3, that each body has of the cells around a sample of a field: two half cells on each axis. The map is used again by the next call. */
  around(field: number, at: Index): ReadonlyMap<number, number> {
    // Those of its cell, or the upper of the cell before and the lower of the cell after.
    for (let a = 0; a < 3; a++) this.corner[a] = 2 * (at[a] - this.lo[a]) - (isHalf(a, field) ? 0 : 1);
    this.parts.clear();
    this.visit(0, 2, (mark, size) => void this.parts.set(mark, (this.parts.get(mark) ?? 0) + size));
    return this.parts;
  }

  /** Direction across the face of a body near the sample that was last looked around: from the middle of what it fills up to a cell away to the sample. */
  normal(mark: number, field: number, at: Index): Index {
    const out: Index = [0, 0, 0];
    const here = at.map((i, a) => this.middle(a, field, i));
    this.visit(1, 3, (m, size, p) => {
      if (m === mark) for (let a = 0; a < 3; a++) out[a] -= size * (this.axes[a].centre[p[a]] - here[a]);
    });
    const length = Math.hypot(...out);
    return length ? (out.map((x) => x / length) as Index) : out;
  }

  /** Visits the half cells from so many before the corner up to so many after, with what fills them and their volume. */
  private visit(before: number, after: number, each: (mark: number, size: number, place: Index) => void): void {
    const { axes, corner } = this;
    const [nx, ny, nz] = axes.map((h) => h.centre.length);
    const place: Index = [0, 0, 0];
    for (const fill of this.fills)
      for (let c = Math.max(0, corner[2] - before); c < corner[2] + after && c < nz; c++)
        for (let b = Math.max(0, corner[1] - before); b < corner[1] + after && b < ny; b++)
          for (let a = Math.max(0, corner[0] - before); a < corner[0] + after && a < nx; a++) {
            place[0] = a;
            place[1] = b;
            place[2] = c;
            each(fill[(c * ny + b) * nx + a], axes[0].width[a] * axes[1].width[b] * axes[2].width[c], place);
          }
  }

  /** Coordinate of a sample: of a cell the end of its lower half, of a node where the cell before ends. */
  private middle(a: number, field: number, i: number): number {
    const { centre, width } = this.axes[a];
    const h = 2 * (i - this.lo[a]);
    const end = (n: number): number => centre[n] + width[n] / 2;
    return isHalf(a, field) ? end(h) : h > 0 ? end(h - 1) : centre[0] - width[0] / 2;
  }
}

const vacuum = { re: 1, loss: 0, stored: 1 };
type Medium = typeof vacuum;

/** Energies and loss of the marked bodies at one recorded frequency by its number, W and J. Each field sample stands for the eighths of cells around it that a body fills. */
function energiesAt(
  g: GridRecording,
  { dt, all, sums, scales }: GridReading,
  f: number,
  volume: VolumePlan,
  eighths: Eighths,
  mine: readonly boolean[],
): { electric: number; magnetic: number; lost: number } {
  const frequency = all[f];
  // As everywhere, power and energy are those of the mean of E over a step.
  const mean2 = Math.cos(Math.PI * frequency * dt) ** 2;
  const out = { electric: 0, magnetic: 0, lost: 0 };
  const fields = volume.blocks.map((block) => blockValues(block, sums, f, scales[f]));
  const media = ([0, 1, 2] as const).map((a) => g.dielectrics(a).map((m): Medium | null => (m ? mediumAt(m, frequency) : null)));
  const at: Index = [0, 0, 0];

  /** Adds what a sample of E of component c tells of the bodies around it. */
  const addElectric = (c: Axis, n: number, square: number, parts: ReadonlyMap<number, number>): void => {
    const own = media[c];
    let [total, level] = [0, 0];
    for (const [mark, size] of parts) {
      const m = mark ? own[mark - 1] : vacuum;
      if (!m) continue;
      total += size;
      level += size * m.re;
    }
    for (const [mark, size] of parts) {
      if (!mark || !mine[mark - 1]) continue;
      const m = own[mark - 1]!;
      let e2 = square;
      const other = (level - size * m.re) / (total - size);
      if (size < 0.999 * total && Math.abs(other - m.re) > sameMesh * m.re) {
        const e = [0, 1, 2].map((a): Complex => (a === c ? [fields[c].re[n], fields[c].im[n]] : beside(fields[a], a, c, at)));
        e2 += acrossFace(m.re, size / total, other, eighths.normal(mark, c, at), c, e);
      }
      const scaled = (mean2 * e2 * size) / (g.energyPart(c, at[0], at[1], at[2]) || 1);
      out.electric += (eps0 / 4) * m.stored * scaled;
      out.lost += Math.PI * frequency * eps0 * m.loss * scaled;
    }
  };

  for (const [b, { field, from, count }] of volume.blocks.entries()) {
    const { re, im } = fields[b];
    for (let n = 0; n < re.length; n++) {
      const square = re[n] ** 2 + im[n] ** 2;
      if (!square) continue;
      at[0] = from[0] + (n % count[0]);
      at[1] = from[1] + (Math.floor(n / count[0]) % count[1]);
      at[2] = from[2] + Math.floor(n / (count[0] * count[1]));
      const parts = eighths.around(field, at);
      if (field < 3) addElectric(field as Axis, n, square, parts);
      else for (const [mark, size] of parts) if (mark && mine[mark - 1]) out.magnetic += (eps0 / 4) * square * size;
    }
  }
  return out;
}

const figures = [
  { key: 'electric', label: 'stored in E', unit: 'J' },
  { key: 'magnetic', label: 'stored in H', unit: 'J' },
  { key: 'lost', label: 'lost', unit: 'W' },
] as const;

/**
 * Energy stored and power lost in the bodies of a line. In media with memory the stored energy is that of small loss, e0 d(w e')/dw |E|^2 / 4 (Landau and
 * Lifshitz, Electrodynamics of Continuous Media, sec. 80). Metal only loses.
 */
export const energy = defineRecorder<{ line: string }, Told>()({
  kind: 'energy',
  title: 'energy and loss in a body',
  stem: 'energy',
  solvers: ['fdtd'],
  over: 'frequencies',
  fields: { body: ref('body', 'any', 'Name of the line whose body it is') },
  sentence: 'Energy and loss {name} · in {body}',
  fresh: ({ lines }) => ({ body: lines[0] ?? '' }),
  resolve: ({ body }, _, bodies): { line: string } | Fault =>
    bodies.some((b) => b.line === body)
      ? { line: body }
      : {
          code: 'recorder.body',
          chip: 'body',
          fault: body ? `There is no body of a line ${body}.` : 'No body is chosen.',
          fix: 'Choose a line that makes a body.',
        },
  samples(r, { inside, bodies }) {
    const own = bodies.filter((b) => b.line === r.line && dielectric(b));
    const end = (pick: (...v: number[]) => number, of: 'min' | 'max'): number[] => [0, 1, 2].map((a) => pick(...own.map((b) => b[of][a])));
    return own.length ? 6 * inside(end(Math.min, 'min'), end(Math.max, 'max')) : 0;
  },
  marks: ({ line }) => [{ form: 'body', line }],
  onGrid(r, g) {
    const mine = g.bodies.map((b) => b.line === r.line && dielectric(b));
    const nodes = mine.includes(true) ? nodesOf(g.bodies.filter((_, n) => mine[n]), g) : null; // prettier-ignore
    const volume = nodes && planVolume(g.grid, [0, 1, 2, 3, 4, 5], nodes.lo, nodes.hi, g.add);
    g.keepMetalLoss();
    return (reading): Told => {
      const eighths = volume && Eighths.of(g, volume);
      const all = reading.numbers.map((f) => {
        const own = volume ? energiesAt(g, reading, f, volume, eighths!, mine) : { electric: 0, magnetic: 0, lost: 0 };
        own.lost += reading.metalLoss(f).reduce((sum, m) => sum + (m.line === r.line ? m.power : 0), 0);
        return own;
      });
      return { line: r.line, electric: all.map((x) => x.electric), magnetic: all.map((x) => x.magnetic), lost: all.map((x) => x.lost) };
    };
  },
  curves: {
    lost: {
      title: 'Power lost in a body',
      unit: 'W',
      forms: ['plain', 'dBpower'],
      terms: ({ line }) => [{ key: line, label: line }],
      values: (told, key) => (told.line === key ? told.lost : undefined),
    },
  },
  table: {
    title: 'Energy and loss in bodies',
    about: 'means over a period',
    file: 'energy',
    heads: ['body', 'what'],
    // Metal keeps fields out: it only loses.
    rows: (e) =>
      figures
        .filter((k) => k.key === 'lost' || e[k.key].some((x) => x > 0))
        .map((k) => ({
          heads: [e.line, k.label],
          texts: e[k.key].map((x) => formatSI(x, k.unit === 'J' ? 'energy' : 'power', 4)),
          columns: [{ title: `${e.line} ${k.label} (${k.unit})`, values: e[k.key] }],
        })),
  },
  card: 'table',
});
