import type { Point2, Point3 } from '@jadebell/core/document';
import type { Body, Exact } from '@jadebell/core/geometry';
import { cellCount } from '@jadebell/core/grid';
import { type Affine, c0, compose, eta0, identity, invert, mu0, rotation } from '@jadebell/core/numerics';
import type { ResultSet } from '@jadebell/core/results';
import { solvers, type SolverHost } from '@jadebell/core/solvers';
import { filament, plainBody, plainScene, uniformGrid } from './bench.ts';
import { type Case, percent, type Row } from './case.ts';
import { decay, hannPower, peakNear, ringing } from './cavity.ts';
import { impedances, plainWire, wireScene } from './wireBench.ts';

const metal = { name: 'metal', kind: 'conductor' } as const;
const poor = { ...metal, conductivity: 1e4 } as const;

/** Turns about x, y, z one after another, degrees. */
export const turned = (...angles: Point3): Affine =>
  angles.reduce<Affine>((m, a, axis) => compose(rotation([0, 1, 2].map((x) => (x === axis ? 1 : 0)) as Point3, (a * Math.PI) / 180), m), identity);

/** Sheets of metal, each an outline about a frame (its columns: two directions in the plane, the normal, the origin), all turned together. */
const sheets = (all: readonly { frame: Affine; loop: Point2[] }[], turn: Affine, material: Body['material']): Body[] =>
  all.map(({ frame, loop }, n) => plainBody(`wall ${n}`, n, material, { form: 'tilted sheet', frame: compose(turn, frame), loops: [loop] }));

/** Size of the box, metres. */
export const boxSize: Point3 = [40e-3, 22e-3, 33e-3];
/** Its six walls. */
export function boxOfSheets(turn: Affine, material: Body['material'] = metal): Body[] {
  const rectangle = (a: number, b: number): Point2[] => [[-a / 2, -b / 2], [a / 2, -b / 2], [a / 2, b / 2], [-a / 2, b / 2]]; // prettier-ignore
  const walls = [0, 1, 2].flatMap((n) =>
    [-1, 1].map((side) => {
      const [u, v] = [(n + 1) % 3, (n + 2) % 3];
      const frame = [0, 1, 2].flatMap((r) => [r === u ? 1 : 0, r === v ? 1 : 0, r === n ? 1 : 0, r === n ? (side * boxSize[n]) / 2 : 0]);
      return { frame, loop: rectangle(boxSize[u], boxSize[v]) };
    }),
  );
  return sheets(walls, turn, material);
}
/** The same room in a solid whose walls have a thickness, metres. */
export function wallsOfBox(turn: Affine, thickness: number, material: Body['material'] = metal): Body[] {
  const box = (more: number): Exact => {
    const half = boxSize.map((x) => x / 2 + more) as Point3;
    return { form: 'moved', matrix: turn, inverse: invert(turn), of: { form: 'box', min: half.map((x) => -x) as Point3, max: half } };
  };
  return [plainBody('walls', 0, material, { form: 'cut', from: box(thickness), tools: [box(0)] })];
}
/** TE101 of the box, Hz, and its quality factor with walls of the surface resistance that the current on one side alone sees (Pozar, 6.46). */
export const boxMode = (c0 / 2) * Math.hypot(1 / boxSize[0], 1 / boxSize[2]);
export function boxQuality(resistance: number): number {
  const [a, b, d] = boxSize;
  const k = (2 * Math.PI * boxMode) / c0;
  return ((k * a * d) ** 3 * b * eta0) / (2 * Math.PI ** 2 * resistance) / (2 * a ** 3 * b + 2 * b * d ** 3 + a ** 3 * d + a * d ** 3);
}

const [side, depth] = [40e-3, 12e-3];
/** A prism over an equilateral triangle, its axis along z before it is turned: the walls of a horn, closed by a third and by two lids. */
function wedge(turn: Affine): Body[] {
  const r = side / Math.sqrt(3);
  const corners = [0, 1, 2].map((n): Point2 => [r * Math.cos((2 * Math.PI * n) / 3), r * Math.sin((2 * Math.PI * n) / 3)]);
  const walls = corners.map(([x, y], n) => {
    const [x1, y1] = corners[(n + 1) % 3];
    const [dx, dy] = [(x1 - x) / side, (y1 - y) / side];
    // Along the side, along z, and across both.
    return { frame: [dx, 0, dy, x, dy, 0, -dx, y, 0, 1, 0, -depth / 2], loop: [[0, 0], [side, 0], [side, depth], [0, depth]] as Point2[] }; // prettier-ignore
  });
  const lids = [-1, 1].map((s) => ({ frame: [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, (s * depth) / 2], loop: corners }));
  return sheets([...walls, ...lids], turn, metal);
}
/** First mode with E along the prism, Hz: k = 4 pi / (sqrt 3 side) (S. A. Schelkunoff, Electromagnetic Waves, 10.8). */
const wedgeMode = (2 * c0) / (Math.sqrt(3) * side);

/** Rings what sheets enclose on cubes of `step` metres that lie at no simple place about it; a probe near the middle stands along `axis`. */
export async function ringOfSheets(
  host: SolverHost,
  bodies: Body[],
  near: number,
  step: number,
  axis: 0 | 1 | 2,
  periods: number,
): Promise<{ f: number; q: number; cells: number; seconds: number }> {
  const started = host.now();
  const cells = [0, 1, 2].map((a) => Math.ceil((2 * Math.max(...bodies.map((b) => Math.max(b.max[a], -b.min[a])))) / step) + 4) as Point3;
  const min = cells.map((n, a) => -step * (n / 2 - [0.31, 0.17, 0.43][a])) as Point3;
  const max = min.map((x, a) => x + step * cells[a]) as Point3;
  const grid = uniformGrid(min, max, cells, 0);
  const from = grid.lines.map((l) => l.reduce((best, x) => (Math.abs(x - 1e-3) < Math.abs(best - 1e-3) ? x : best))) as Point3;
  const ports = [filament('probe', from, axis, step, 1e6)];
  const scene = plainScene({
    bodies,
    ports,
    min,
    max,
    band: { from: 0.8 * near, to: 1.2 * near, points: 2 },
    boundaries: Array<'electric'>(6).fill('electric'),
  });
  const { signal, dt } = await ringing(host, scene, grid, near, periods);
  return { f: peakNear(hannPower(signal, dt), near), q: decay(signal, dt, near).q, cells: cellCount(grid), seconds: host.now() - started };
}

/** Frequency, Hz, at which the reactance of a single port passes through zero upwards, and the resistance there. */
function resonance(result: ResultSet): [f: number, r: number] {
  const f = result.arrays.frequency.data;
  const z = Array.from(f, (_, i) => impedances(result, i)[0][0]);
  const at = z.findIndex((_, i) => i > 0 && z[i - 1][1] < 0 && z[i][1] >= 0);
  const t = -z[at - 1][1] / (z[at][1] - z[at - 1][1]);
  return [f[at - 1] + t * (f[at] - f[at - 1]), z[at - 1][0] + t * (z[at][0] - z[at - 1][0])];
}

/** A dipole whose arms of strip lean by an angle from the axis of its gap, solved as sheets and, with a quarter of the width as radius, as wires. */
async function leaning(
  host: SolverHost,
  angle: number,
): Promise<{ sheets: [number, number]; wires: [number, number]; cells: number; seconds: number }> {
  const [length, width, gap, room] = [24e-3, 2e-3, 1e-3, 20e-3];
  const [s, c] = [Math.sin((angle * Math.PI) / 180), Math.cos((angle * Math.PI) / 180)];
  const band = { from: 2e9, to: 4e9, points: 201 };
  const started = host.now();
  const loop: Point2[] = [[-width / 2, 0], [width / 2, 0], [width / 2, length], [-width / 2, length]]; // prettier-ignore
  const arms = [1, -1].map((up, n) =>
    plainBody(`arm ${n}`, n, metal, { form: 'tilted sheet', frame: [0, s, up * c, 0, 1, 0, 0, 0, 0, up * c, -s, (up * gap) / 2], loops: [loop] }),
  );
  const port = { ...filament('feed', [0, -width / 2, -gap / 2], 2, gap, 50), max: [0, width / 2, gap / 2] as Point3, across: 1 as const };
  const scene = plainScene({ bodies: arms, ports: [port], min: [-room, -room, -length - room], max: [room + s * length, room, length + room], band });
  const result = await solvers.fdtd.solve(scene, { host });
  const end = (up: number): Point3 => [s * length, 0, up * (gap / 2 + c * length)];
  const wire = plainWire('v', [end(1), [0, 0, gap / 2], [0, 0, -gap / 2], end(-1)], width / 4);
  const wires = await solvers.moment.solve(wireScene({ wires: [wire], ports: [[0, length + gap / 2]], frequency: 3e9, accuracy: 'fine', band }), {
    host,
  });
  return {
    sheets: resonance(result),
    wires: resonance(wires),
    cells: result.meta.evidence.cells.reduce((p, n) => p * n, 1),
    seconds: host.now() - started,
  };
}

/** Cells a wavelength. */
const densities = [13, 26, 52];

const ghz = (f: number): string => `${(f / 1e9).toFixed(4)} GHz`;

/** The same in half a minute: one room of sheets and of thin walls, its order and its losses. */
export const tiltedBox: Case = {
  name: 'tilted-box',
  title: 'A room of sheets and of thin walls across no axis',
  slow: true,
  async run(host) {
    const turn = turned(37, 21, 13);
    const ring = (bodies: Body[], n: number, periods = 100): ReturnType<typeof ringOfSheets> =>
      ringOfSheets(host, bodies, boxMode, c0 / boxMode / n, 1, periods);
    const row = (quantity: string, got: Awaited<ReturnType<typeof ring>>, allowed: number): Row => ({ quantity, reference: ghz(boxMode), source: 'Pozar 6.40', computed: ghz(got.f), error: percent(got.f, boxMode), allowed, unit: '%', cells: got.cells, seconds: got.seconds }); // prettier-ignore
    const coarse = await ring(boxOfSheets(turn), 13);
    const fine = await ring(boxOfSheets(turn), 22);
    const order = Math.log(percent(coarse.f, boxMode) / percent(fine.f, boxMode)) / Math.log(22 / 13);
    const lossy = await ring(boxOfSheets(turn, poor), 13, 300);
    const quality = 2 * boxQuality(Math.sqrt((Math.PI * boxMode * mu0) / poor.conductivity));
    return [
      row('sheets, 13 cells a wavelength', coarse, 0.6),
      row('sheets, 22 cells a wavelength', fine, 0.25),
      { quantity: 'order between the two', reference: '2', source: 'parts of edges and faces on either side', computed: order.toFixed(2), error: percent(order, 2), allowed: 25, unit: '%', cells: fine.cells, seconds: 0 }, // prettier-ignore
      { quantity: 'sheets of 10 kS/m, current on both faces: Q', reference: quality.toFixed(1), source: 'Pozar 6.46, half the surface impedance', computed: lossy.q.toFixed(1), error: percent(lossy.q, quality), allowed: 5, unit: '%', cells: lossy.cells, seconds: lossy.seconds }, // prettier-ignore
      row('walls of 0.3 mm, 13 cells a wavelength', await ring(wallsOfBox(turn, 0.3e-3), 13), 0.6),
    ];
  },
};

/** Sheets that stand across no axis of the grid: rooms enclosed by them, their losses, and a dipole that leans. */
export const tiltedSheets: Case = {
  name: 'tilted-sheets',
  title: 'Sheets that stand across no axis',
  slow: true,
  async run(host) {
    const rows: Row[] = [];
    const row = (quantity: string, source: string, reference: number, got: { f: number; cells: number; seconds: number }, allowed: number): void =>
      void rows.push({ quantity, reference: ghz(reference), source, computed: ghz(got.f), error: percent(got.f, reference), allowed, unit: '%', cells: got.cells, seconds: got.seconds }); // prettier-ignore
    const rooms = [
      ['box turned about x by 20 degrees, TE101', 'Pozar, Microwave Engineering, 6.40', boxOfSheets(turned(20, 0, 0)), boxMode, 1],
      ['box turned about x, y, z by 37, 21, 13 degrees, TE101', 'Pozar 6.40', boxOfSheets(turned(37, 21, 13)), boxMode, 1],
      ['wedge of 60 degrees, turned by 10 and 25 degrees', 'Schelkunoff, Electromagnetic Waves, 10.8', wedge(turned(10, 25, 0)), wedgeMode, 2],
    ] as const;
    for (const [name, source, bodies, expected, axis] of rooms) {
      const got: Awaited<ReturnType<typeof ringOfSheets>>[] = [];
      for (const n of densities) got.push(await ringOfSheets(host, [...bodies], expected, c0 / expected / n, axis, 150));
      [0.6, 0.2, 0.06].forEach((allowed, n) => row(`${name}, ${densities[n]} cells a wavelength`, source, expected, got[n], allowed));
      const order = Math.log2(percent(got[0].f, expected) / percent(got[2].f, expected)) / 2;
      rows.push({ quantity: `${name}: order over the three`, reference: '2', source: 'parts of edges and faces on either side', computed: order.toFixed(2), error: percent(order, 2), allowed: 25, unit: '%', cells: got[2].cells, seconds: 0 }); // prettier-ignore
    }
    const quality = 2 * boxQuality(Math.sqrt((Math.PI * boxMode * mu0) / poor.conductivity));
    for (const angles of [
      [20, 0, 0],
      [37, 21, 13],
    ] as Point3[]) {
      const { q, cells, seconds } = await ringOfSheets(host, boxOfSheets(turned(...angles), poor), boxMode, 2e-3, 1, 400);
      rows.push({ quantity: `box turned by ${angles.join(', ')} degrees of 10 kS/m, current on both faces of the sheet: Q`, reference: quality.toFixed(1), source: 'Pozar 6.46, half the surface impedance', computed: q.toFixed(1), error: percent(q, quality), allowed: 3, unit: '%', cells, seconds }); // prettier-ignore
    }
    for (const thickness of [0.3e-3, 1e-3]) {
      const got = await ringOfSheets(host, wallsOfBox(turned(37, 21, 13), thickness), boxMode, c0 / boxMode / densities[1], 1, 150);
      row(
        `box of solid walls of ${1e3 * thickness} mm turned by 37, 21, 13 degrees, ${densities[1]} cells a wavelength`,
        'Pozar 6.40',
        boxMode,
        got,
        0.25,
      );
    }
    const better = { ...metal, conductivity: 1e5 } as const;
    const oneSide = boxQuality(Math.sqrt((Math.PI * boxMode * mu0) / better.conductivity));
    const walls = await ringOfSheets(host, wallsOfBox(turned(37, 21, 13), 0.2e-3, better), boxMode, 3e-3, 1, 150);
    rows.push({ quantity: 'box of solid walls of 0.2 mm turned by 37, 21, 13 degrees of 100 kS/m, current on one side: Q', reference: oneSide.toFixed(1), source: 'Pozar 6.46', computed: walls.q.toFixed(1), error: percent(walls.q, oneSide), allowed: 6, unit: '%', cells: walls.cells, seconds: walls.seconds }); // prettier-ignore
    for (const angle of [30, 45]) {
      const got = await leaning(host, angle);
      row(
        `dipole of 2 mm strip leaning by ${angle} degrees: resonance`,
        'wire of a quarter of the width, moment method',
        got.wires[0],
        { f: got.sheets[0], ...got },
        2,
      );
      rows.push({ quantity: 'resistance there', reference: `${got.wires[1].toFixed(1)} ohm`, source: 'the same', computed: `${got.sheets[1].toFixed(1)} ohm`, error: percent(got.sheets[1], got.wires[1]), allowed: 4, unit: '%', cells: got.cells, seconds: 0 }); // prettier-ignore
    }
    return rows;
  },
};
