import { formatSI } from '../expressions/index.ts';
import { planeRegion } from '../yee/index.ts';
import { type Face, faceSamples, facesOn, fieldOf, powerThrough } from './faces.ts';
import { beside, defineRecorder, type Named } from './recorder.ts';
import {
  across,
  mirrorRectangle,
  type Rectangle,
  rectangleFields,
  rectangleMarks,
  rectangleNodes,
  rectangleOutside,
  recordedAt,
  resolveRectangle,
} from './rectangle.ts';
import type { Axis } from '../numerics/axis.ts';

interface Told {
  normal: Axis;
  /** Coordinate of the grid's plane, metres. */
  at: number;
  /** W at each frequency, for 1 W incident or a wave of 1 V/m. */
  power: number[];
}
/** Points along each side of a rectangle at which power is taken from wires. */
const points = 48;

/** A rectangle in words: its name and where it stands. */
export const rectangleText = ({ name, normal, at }: Named<{ normal: number; at: number }>): string =>
  `${name}, ${'xyz'[normal]} = ${formatSI(at, 'length', 4)}`;

export const flux = defineRecorder<Rectangle, Told>()({
  kind: 'flux',
  title: 'power through a rectangle',
  stem: 'power',
  solvers: ['fdtd', 'moment'],
  over: 'frequencies',
  fields: rectangleFields('power counts that flows'),
  sentence: 'Power through the rectangle {name} {normal} {at} · from {from} to {to} · counted {towards}',
  fresh: across,
  resolve: (entry, v) => resolveRectangle(entry, v),
  mirror: (r, mirrors) => mirrorRectangle<Rectangle>(r, mirrors, false),
  outside: rectangleOutside,
  lines: (r, axis) => [r.min[axis], r.max[axis]],
  samples: (_, { sides }) => 3 * Math.max(...sides),
  marks: rectangleMarks,
  onGrid(r, g) {
    const [lo, hi] = rectangleNodes(r, g);
    const faces = facesOn(r.normal, 1, lo[r.normal]).map((face): [Face, number] => [
      face,
      g.add(planeRegion(g.grid, fieldOf(face), r.normal, face.index, lo, hi)),
    ]);
    return ({ numbers, scales, sums, all, dt }): Told => ({
      normal: r.normal,
      at: recordedAt(r, g, lo[r.normal]),
      power: numbers.map((f) => {
        const samples = faces.map(([face, region]) => faceSamples(face, sums(region), g.grid, lo, hi, f, scales[f]));
        // As everywhere, power is that of the mean of E over a step.
        return (r.images ?? 1) * r.sign * Math.cos(Math.PI * all[f] * dt) * powerThrough(samples);
      }),
    });
  },
  async onWires(r, { numbers, fieldAt, rest }) {
    const [a, b] = beside(r.normal);
    const cell = ((r.max[a] - r.min[a]) * (r.max[b] - r.min[b])) / points ** 2;
    // Components u, w, normal in right-handed order.
    const [u, w] = [(r.normal + 1) % 3, (r.normal + 2) % 3];
    const out = new Float64Array(12);
    const power: number[] = [];
    for (const f of numbers) {
      await rest();
      let sum = 0;
      for (let i = 0; i < points; i++)
        for (let j = 0; j < points; j++) {
          const p: number[] = [...r.min];
          p[a] = r.min[a] + ((i + 0.5) / points) * (r.max[a] - r.min[a]);
          p[b] = r.min[b] + ((j + 0.5) / points) * (r.max[b] - r.min[b]);
          fieldAt(f, p, out);
          const re = (e: number, h: number): number => out[2 * e] * out[6 + 2 * h] + out[2 * e + 1] * out[7 + 2 * h];
          sum += (re(u, w) - re(w, u)) / 2;
        }
      power.push(r.sign * sum * cell);
    }
    return { normal: r.normal, at: r.min[r.normal], power };
  },
  curves: {
    flux: {
      title: 'Power through a rectangle',
      unit: 'W',
      forms: ['plain', 'dBpower'],
      terms: ({ name }) => [{ key: name, label: name }],
      values: (told, key) => (told.name === key ? told.power : undefined),
    },
  },
  table: {
    title: 'Power through rectangles',
    file: 'power',
    heads: ['rectangle'],
    rows: (x) => [
      {
        heads: [rectangleText(x)],
        texts: x.power.map((p) => formatSI(p, 'power', 4)),
        columns: [{ title: `${x.name} (W)`, values: x.power }],
      },
    ],
  },
  card: 'table',
});
