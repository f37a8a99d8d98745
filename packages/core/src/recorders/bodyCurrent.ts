import type { Complex } from '../numerics/complex.ts';
import type { Axis } from '../numerics/axis.ts';
import { axisField, length, ref } from '../entries/index.ts';
import { fillOf, insideSheet } from '../geometry/index.ts';
import { eta0 } from '../numerics/constants.ts';
import { inPlane, type Point3 } from '../shapes/index.ts';
import { blockValues, imageSign, type Mirrors, nearestLine, planVolume } from '../yee/index.ts';
import { complexColumns, components, everyNth, phasorColumns } from './columns.ts';
import { milliamperes, nodeNear, planAmpere } from './current.ts';
import { axisOf, beside, defineRecorder, type Fault, type GridRecording, type Index, isFault } from './recorder.ts';
import { mirrorRectangle, type Rectangle, recordedAt } from './rectangle.ts';
import { sameNumber } from '../numerics/tolerance.ts';

interface Told {
  line: string;
  /** The cut: its axis, and where it was taken, metres. */
  normal: Axis;
  at: number;
  /** Current through the cut towards larger coordinates, A, peak, at each frequency. */
  current: Complex[];
}
interface Placed {
  line: string;
  /** The box around the bodies of the line, and the rectangle at which it is cut. */
  min: Point3;
  max: Point3;
  cut: Rectangle;
}

/** A patch of a body's surface, seen from outside: its middle, outward normal, and the extents along the two other axes; metres. */
interface Patch {
  /** The cell beside it. */
  cell: Index;
  normal: Axis;
  side: 1 | -1;
  at: Point3;
  size: Complex;
}

/** Faces of the grid's cells in which metal of a body ends, on both sides of a sheet. */
function patchesOf(line: string, { grid, bodies }: GridRecording, lo: Index, hi: Index): Patch[] {
  const { lines } = grid;
  const middle = (a: number, i: number): number => (lines[a][i] + lines[a][i + 1]) / 2;
  const step = (a: number, i: number): number => lines[a][i + 1] - lines[a][i];
  const count = hi.map((h, a) => h - lo[a]);
  const fill = fillOf(
    bodies,
    ...([0, 1, 2].map((a) => Array.from({ length: count[a] }, (_, i) => middle(a, lo[a] + i))) as [number[], number[], number[]]),
  );
  const at = (cell: Index): number => fill[((cell[2] - lo[2]) * count[1] + cell[1] - lo[1]) * count[0] + cell[0] - lo[0]];
  const inside = (cell: Index): boolean => cell.every((i, a) => i >= lo[a] && i < hi[a]);
  const metal = (cell: Index): boolean => !!at(cell) && bodies[at(cell) - 1].material.kind === 'conductor';
  const out: Patch[] = [];
  const add = (cell: Index, normal: Axis, side: 1 | -1): void => {
    if (!inside(cell) || metal(cell)) return;
    const centre = cell.map((i, a) => (a === normal ? lines[a][side > 0 ? i : i + 1] : middle(a, i))) as Point3;
    const [b, c] = beside(normal);
    out.push({ cell, normal, side, at: centre, size: [step(b, cell[b]), step(c, cell[c])] });
  };
  const moved = (cell: Index, a: Axis, by: number): Index => cell.map((i, n) => (n === a ? i + by : i)) as Index;
  const cell: Index = [0, 0, 0];
  for (cell[2] = lo[2]; cell[2] < hi[2]; cell[2]++)
    for (cell[1] = lo[1]; cell[1] < hi[1]; cell[1]++)
      for (cell[0] = lo[0]; cell[0] < hi[0]; cell[0]++) {
        const mark = at(cell);
        if (!mark || bodies[mark - 1].line !== line) continue;
        for (const a of [0, 1, 2] as const) for (const side of [1, -1] as const) add(moved(cell, a, side), a, side);
      }
  for (const { shape } of bodies.filter((b) => b.line === line)) {
    if (shape.form !== 'sheet') continue;
    const a = shape.normal;
    const [u, v] = inPlane[a];
    const plane = nearestLine(lines[a], shape.offset);
    for (let j = lo[v]; j < hi[v]; j++)
      for (let i = lo[u]; i < hi[u]; i++) {
        if (!insideSheet(shape.loops, [middle(u, i), middle(v, j)], 0)) continue;
        const beyond: Index = [0, 0, 0];
        [beyond[a], beyond[u], beyond[v]] = [plane, i, j];
        add(beyond, a, 1);
        add(moved(beyond, a, -1), a, -1);
      }
  }
  return out;
}

/** A patch or the image of one: where it looks, and the signs that the current's components take in it. */
interface Seen extends Patch {
  outward: number[];
  signs: number[];
}

/** Patches with their images behind planes of symmetry that cut the body. */
function withImages(patches: readonly Patch[], { min }: Placed, mirrors: Mirrors | undefined): Seen[] {
  const own = patches.map((p): Seen => ({ ...p, outward: [0, 1, 2].map((a) => (a === p.normal ? p.side : 0)), signs: [1, 1, 1] }));
  return (mirrors ?? []).reduce<Seen[]>((all, m, a) => {
    if (!m || min[a] >= m.at) return all;
    const image = (p: Seen): Seen => ({
      ...p,
      at: p.at.map((x, n) => (n === a ? 2 * m.at - x : x)) as Point3,
      outward: p.outward.map((x, n) => (n === a ? -x : x)),
      signs: p.signs.map((s, c) => s * imageSign(m.wall, a, c)),
    });
    return [...all, ...all.map(image)];
  }, own);
}

/**
 * Current on a body: n x H of its surface, both sides of a sheet told apart, and the total current through a cut across an axis. On a grid the surface is that
 * of its cells and H stands half a cell off it; the total is by Ampere's law around the box of the body, so that another conductor within that box counts
 * too. In wires the surface current is the current over the circumference.
 *
 * Arrays: `surface:NAME` [frequencies, patches, 6] re/im of the current along x, y, z, A/m, peak; `surface:NAME:at` [patches, 8] middle x, y, z, outward normal
 * x, y, z (zero of a wire) and extents along the two other axes in their order (of a wire its circumference and length), metres.
 */
export const bodyCurrent = defineRecorder<Placed, Told>()({
  kind: 'body-current',
  title: 'current on a body',
  stem: 'surface',
  solvers: ['fdtd', 'moment'],
  over: 'frequencies',
  fields: {
    body: ref('body', 'any', 'Name of the line whose bodies of metal it is'),
    along: axisField('z', 'axis of the cut', 'Axis along which the total current is told'),
    at: length('place of the cut', '0 mm', 'Coordinate on that axis at which the body is cut'),
  },
  sentence: 'Current on a body {name} · {body} · its total {along} through a cut at {at}',
  fresh: ({ lines }) => (lines[0] ? { body: lines[0], at: `${lines[0]}.centre.z` } : {}),
  resolve({ body, along }, { at }, bodies): Placed | Fault {
    const own = bodies.filter((b) => b.line === body);
    if (!own.length)
      return {
        code: 'recorder.body',
        chip: 'body',
        fault: body ? `There is no body of a line ${body}.` : 'No body is chosen.',
        fix: 'Choose a line that makes a body.',
      };
    if (!own.some((b) => b.material.kind === 'conductor'))
      return {
        code: 'recorder.no-metal',
        chip: 'body',
        fault: `${body} is not of metal.`,
        fix: 'Choose a line of metal: currents of others are fields times conductivity.',
      };
    const end = (pick: (...x: number[]) => number, of: 'min' | 'max'): Point3 => [0, 1, 2].map((a) => pick(...own.map((b) => b[of][a]))) as Point3;
    const [min, max] = [end(Math.min, 'min'), end(Math.max, 'max')];
    const normal = axisOf(along);
    if (!(at >= min[normal] && at <= max[normal]))
      return {
        code: 'recorder.beside-body',
        chip: 'at',
        fault: `The cut does not meet ${body}.`,
        fix: `Place it within ${body}, such as at ${body}.centre.${along}.`,
      };
    const on = (p: Point3): Point3 => p.map((x, a) => (a === normal ? at : x)) as Point3;
    return { line: body, min, max, cut: { normal, sign: 1, min: on(min), max: on(max) } };
  },
  mirror(r, mirrors) {
    const behind = mirrors.findIndex((m, a) => m && r.max[a] <= m.at);
    if (behind >= 0)
      return {
        code: 'symmetry.recorder',
        chip: 'body',
        fault: `${r.line} lies behind the plane of symmetry across ${'xyz'[behind]}, where nothing is computed.`,
        fix: 'Choose the body on the other side: the currents are alike but for their signs.',
      };
    const cut = mirrorRectangle(r.cut, mirrors, true);
    return isFault(cut) ? { ...cut, chip: 'at' } : { ...r, cut };
  },
  // The total is told where it is asked for, so the cut lies on a line of the grid.
  lines: ({ cut }, axis) => (axis === cut.normal ? [cut.min[axis]] : []),
  samples: (r, { inside }) => 3 * inside(r.min, r.max),
  marks: ({ line, cut }) => [
    { form: 'body', line },
    { form: 'rectangle', ...cut },
  ],
  onGrid(r, g) {
    const { grid, inner, mirrors } = g;
    const near = (p: Point3, by: number): Index =>
      p.map((x, a) => Math.min(Math.max(nearestLine(grid.lines[a], x) + by, inner.lo[a]), inner.hi[a])) as Index;
    const [lo, hi] = [near(r.min, -1), near(r.max, 1)];
    const volume = planVolume(grid, [3, 4, 5], lo, hi, g.add);
    const nodes = (p: Point3): Index => p.map((x, a) => nodeNear(g, a as Axis, x)) as Index;
    const [from, to] = [nodes(r.cut.min), nodes(r.cut.max)];
    const total = planAmpere(g, r.cut.normal, from, to);
    const factor = r.cut.sign * (r.cut.images ?? 1);
    return (reading): Told => {
      const patches = withImages(patchesOf(r.line, g, lo, hi), r, mirrors);
      const data = new Float32Array(reading.numbers.length * patches.length * 6);
      reading.numbers.forEach((f, i) => {
        const h = volume.blocks.map((block) => blockValues(block, reading.sums, f, reading.scales[f]));
        /** H along a tangential axis in the middle of a patch: the mean of the two samples of the cell beside it. */
        const field = (p: Patch, t: Axis): Complex => {
          const { from: first, count, re, im } = h[t];
          const at = (by: number): number => {
            const k = p.cell.map((c, a) => Math.min(Math.max(c + (a === t ? by : 0) - first[a], 0), count[a] - 1));
            return (k[2] * count[1] + k[1]) * count[0] + k[0];
          };
          return [(re[at(0)] + re[at(1)]) / (2 * eta0), (im[at(0)] + im[at(1)]) / (2 * eta0)];
        };
        patches.forEach((p, n) => {
          // n x H with n along the patch's axis; an image has what the patch itself has, with signs of its own.
          const { side } = p;
          const [u, v] = [(p.normal + 1) % 3, (p.normal + 2) % 3] as [Axis, Axis];
          const [hu, hv] = [field(p, u), field(p, v)];
          const o = (i * patches.length + n) * 6;
          for (const part of [0, 1] as const) {
            data[o + 2 * u + part] = -side * hv[part] * p.signs[u];
            data[o + 2 * v + part] = side * hu[part] * p.signs[v];
          }
        });
      });
      reading.keep(`surface:${r.name}`, { shape: [reading.numbers.length, patches.length, 6], data });
      reading.place(`surface:${r.name}:at`, {
        shape: [patches.length, 8],
        data: Float64Array.from(patches.flatMap((p) => [...p.at, ...p.outward, ...p.size])),
      });
      return {
        line: r.line,
        normal: r.cut.normal,
        at: recordedAt(r.cut, g, from[r.cut.normal]),
        current: reading.numbers.map((f) => total(reading, f).map((x) => factor * x) as Complex),
      };
    };
  },
  async onWires(r, { numbers, segments, lineOf, currentAt, rest, keep, place }) {
    const { normal, min } = r.cut;
    const own = Array.from({ length: segments.length / 8 }, (_, s) => s).filter((s) => lineOf(s) === r.line);
    const data = new Float32Array(numbers.length * own.length * 6);
    const current: Complex[] = [];
    for (const [i, f] of numbers.entries()) {
      await rest();
      const sum: Complex = [0, 0];
      own.forEach((s, n) => {
        const [x, y, z, dx, dy, dz, l, radius] = segments.subarray(8 * s, 8 * s + 8);
        const [begin, end] = currentAt(f, s);
        const d = [dx, dy, dz];
        const along = (t: number, part: 0 | 1): number => begin[part] + t * (end[part] - begin[part]);
        for (const part of [0, 1] as const)
          for (let a = 0; a < 3; a++) data[(i * own.length + n) * 6 + 2 * a + part] = (along(0.5, part) * d[a]) / (2 * Math.PI * radius);
        // Where the cut crosses the segment; its end belongs to the next.
        const t = (min[normal] - [x, y, z][normal]) / (l * d[normal]);
        if (Math.abs(d[normal]) > sameNumber && t >= 0 && t < 1)
          for (const part of [0, 1] as const) sum[part] += Math.sign(d[normal]) * along(t, part);
      });
      current.push(sum);
    }
    keep(`surface:${r.name}`, { shape: [numbers.length, own.length, 6], data });
    const at = own.flatMap((s) => {
      const [x, y, z, dx, dy, dz, l, radius] = segments.subarray(8 * s, 8 * s + 8);
      return [x + (dx * l) / 2, y + (dy * l) / 2, z + (dz * l) / 2, 0, 0, 0, 2 * Math.PI * radius, l];
    });
    place(`surface:${r.name}:at`, { shape: [own.length, 8], data: Float64Array.from(at) });
    return { line: r.line, normal, at: min[normal], current };
  },
  values: {
    arrays: ({ name }) => ({ values: `surface:${name}`, places: [`surface:${name}:at`] }),
    columns: (_, values, [at]) => [
      ...['x (m)', 'y (m)', 'z (m)', 'outward x', 'outward y', 'outward z', 'first side (m)', 'second side (m)'].map((title, n) => ({
        title,
        values: everyNth(at, 8, n),
      })),
      ...phasorColumns(values, 6, components('K'), 'A/m'),
    ],
  },
  curves: {
    'body-current': {
      title: 'Current through a cut of a body',
      unit: 'A',
      forms: ['magnitude', 'real', 'imaginary', 'phase', 'db'],
      terms: ({ name, line }) => [{ key: name, label: `${name} on ${line}` }],
      values: (told, key) => (told.name === key ? told.current : undefined),
    },
  },
  table: {
    title: 'Currents through bodies',
    about: 'peak',
    file: 'body-current',
    heads: ['body', 'cut'],
    rows: (x) => [
      { heads: [x.line, `${x.name}, along ${'xyz'[x.normal]}`], texts: x.current.map(milliamperes), columns: complexColumns(x.name, 'A', x.current) },
    ],
  },
  card: 'own',
});
