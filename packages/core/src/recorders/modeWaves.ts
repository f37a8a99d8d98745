import { scale, abs, add, type Complex, div, mul } from '../numerics/complex.ts';
import type { Axis } from '../numerics/axis.ts';
import { count } from '../entries/index.ts';
import { eta0 } from '../numerics/constants.ts';
import { planeRegion, sumAt } from '../yee/index.ts';
import { complexColumns } from './columns.ts';
import { rectangleText } from './flux.ts';
import { defineRecorder, isFault, type Named } from './recorder.ts';
import {
  across,
  mirrorRectangle,
  type Rectangle,
  rectangleFields,
  rectangleMarks,
  rectangleNodes,
  rectangleOutside,
  resolveRectangle,
} from './rectangle.ts';

const ways = ['forward', 'backward'] as const;
interface Told {
  normal: Axis;
  at: number;
  /** Complex amplitudes whose squares are powers in W, at each frequency; phases are those at the rectangle. */
  modes: { family: 'TEM' | 'TE' | 'TM' | 'hybrid'; name?: string; propagates: boolean[]; forward: Complex[]; backward: Complex[] }[];
}
type Placed = Rectangle & { modes: number };

/** Waves of a term 'name/mode/way', mode from 1. */
const waveOf = (told: Named<Told>, key: string): Complex[] | undefined => {
  const [name, mode, way] = key.split('/');
  return told.name === name ? told.modes[Number(mode) - 1]?.[way as (typeof ways)[number]] : undefined;
};
const terms = ({ name, modes }: Named<Told>): { key: string; label: string }[] =>
  modes.flatMap((_, m) => ways.map((way) => ({ key: `${name}/${m + 1}/${way}`, label: `${name} mode ${m + 1} ${way}` })));

/**
 * Waves of each mode through a rectangle, both ways: E and H are projected on the modes, which are orthogonal in the cross product (Collin, Field Theory of
 * Guided Waves, 2nd ed., sec. 5.6). Their squares are powers in watts; of a mode below cutoff, which alone carries none, they are those of its admittance's size.
 */
export const modeWaves = defineRecorder<Placed, Told>()({
  kind: 'mode',
  title: 'waves of modes in a rectangle',
  stem: 'waves',
  solvers: ['fdtd'],
  over: 'frequencies',
  fields: {
    ...rectangleFields('the forward wave runs'),
    modes: count('modes', '1', 1, 12, 'How many modes of the cross-section, those of lowest cutoff first'),
  },
  sentence: 'Waves of the modes in the rectangle {name} {normal} {at} · from {from} to {to} · forward {towards} · {modes} modes',
  fresh: across,
  resolve(entry, v) {
    const rectangle = resolveRectangle(entry, v);
    return isFault(rectangle) ? rectangle : { ...rectangle, modes: v.modes };
  },
  mirror: (r, mirrors) => mirrorRectangle<Placed>(r, mirrors, false),
  outside: rectangleOutside,
  samples: (_, { sides }) => 3 * Math.max(...sides),
  marks: rectangleMarks,
  onGrid(r, g) {
    const { normal } = r;
    const [lo, hi] = rectangleNodes(r, g);
    const modesOf = g.modes(normal, lo, hi, r.modes);
    const along = [(normal + 1) % 3, (normal + 2) % 3];
    // E and H along the first axis, and along the second.
    const regions = along.flatMap((a) => [a, a + 3].map((field) => g.add(planeRegion(g.grid, field, normal, lo[normal], lo, hi))));
    return ({ numbers, all, sums, scales, dt }): Told => {
      const m = modesOf();
      const out = m.modes.map(({ family, name }) => ({
        family,
        name,
        propagates: [] as boolean[],
        forward: [] as Complex[],
        backward: [] as Complex[],
      }));
      for (const f of numbers) {
        // Regions run along the lower axis first, sections along u.
        const [eu, hu, ev, hv] = regions.map((n): ((i: number, j: number) => Complex) => {
          const s = sums(n);
          return (i, j) => (s.region.innerAxis === m.u ? sumAt(s, j, i, f) : sumAt(s, i, j, f));
        });
        m.modes.forEach((mode, n) => {
          const p = mode.profile(all[f]);
          const v: Complex = [0, 0];
          const c: Complex = [0, 0];
          const sum = (into: Complex, x: Complex, w: number): void => {
            into[0] += w * x[0];
            into[1] += w * x[1];
          };
          for (let k = 0; k < p.eu.length; k++) {
            const [i, j] = [k % m.nu, Math.floor(k / m.nu)];
            const [au, av] = [m.areas.u[k], m.areas.v[k]];
            // The grid keeps E times the free part of its edge.
            if (au > 0) {
              sum(v, eu(i, j), au * p.hv[k]);
              sum(c, hv(i, j), au * p.eu[k] * (m.free.u?.[k] ?? 1));
            }
            if (av > 0) {
              sum(v, ev(i, j), -av * p.hu[k]);
              sum(c, hu(i, j), -av * p.ev[k] * (m.free.v?.[k] ?? 1));
            }
          }
          const { admittance: y, propagates } = mode.at(all[f]);
          // E = v, H = y c of the profile; a forward wave has both alike.
          const e = scale(1 / p.flux, v);
          const h = div(c, y);
          const size = Math.sqrt(((r.images ?? 1) * abs(y) * Math.cos(Math.PI * all[f] * dt)) / (2 * eta0)) / 2;
          const wave = (sign: number): Complex => mul(scale(size, scales[f]), add(e, scale(sign, h)));
          out[n].propagates.push(propagates);
          out[n].forward.push(wave(r.sign));
          out[n].backward.push(wave(-r.sign));
        });
      }
      return { normal, at: m.at, modes: out };
    };
  },
  curves: {
    'mode-power': {
      title: 'Power of a mode',
      unit: 'W',
      forms: ['dBpower', 'plain'],
      terms,
      values: (told, key) => waveOf(told, key)?.map(([re, im]) => re * re + im * im),
    },
  },
  table: {
    title: 'Waves of modes',
    about: 'power and phase there',
    file: 'mode-waves',
    heads: ['rectangle', 'mode', 'way'],
    rows: (r) =>
      r.modes.flatMap((mode, m) =>
        ways.map((way) => ({
          heads: [rectangleText(r), mode.name ?? `${m + 1} ${mode.family}`, way],
          texts: mode[way].map(
            ([re, im], f) =>
              `${(re * re + im * im).toPrecision(4)} W, ${((180 * Math.atan2(im, re)) / Math.PI).toFixed(1)}°${mode.propagates[f] ? '' : ' (cut off)'}`,
          ),
          columns: complexColumns(`${r.name} mode ${m + 1} ${way}`, 'W^(1/2)', mode[way]),
        })),
      ),
  },
  card: 'table',
});
