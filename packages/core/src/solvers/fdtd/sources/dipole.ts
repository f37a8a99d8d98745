import { type Problem, problem } from '../../../document/index.ts';
import type { Axis } from '../../../numerics/axis.ts';
import type { Complex } from '../../../numerics/complex.ts';
import { c0, eta0 } from '../../../numerics/constants.ts';
import type { Index, Probe } from '../../../recorders/index.ts';
import type { PatternFigures } from '../../../results/index.ts';
import { bandFrequencies, type GridScene, type SceneDipole } from '../../../scene/index.ts';
import { extent } from '../../../yee/index.ts';
import { coefficients, type Discrete, isMetal, mediumOf, permittivityOf } from '../discrete.ts';
import { antennaFigures } from '../farReading.ts';
import type { InjectedRow, Injection } from '../injection.ts';
import { PortSpectrum } from '../portSpectrum.ts';
import { type Pulse, pulseAt } from '../../../numerics/pulse.ts';
import { boxGap } from '../recorders.ts';
import type { GridSource, SourceGround } from './source.ts';
import { sameMesh, sameNumber } from '../../../numerics/tolerance.ts';

/** One sample of the field that a dipole drives: its share of the moment along the sample's axis, direction and place counted in. */
interface Share {
  field: number;
  axis: Axis;
  at: Index;
  weight: number;
}

/** Cells beside those of the dipole's samples within which its medium must be level. */
const level = 1;

/**
 * A point of current on Yee's grid: each part of the moment is shared among the samples of its field around the point, as a current density over the volume
 * of each, by weights with the moments of a point up to the third: shared between two samples, it would lack some per cent of its power at twelve cells a
 * wavelength. The power that it gives is that of the same mean of the field on the moment.
 */
export function dipoleSource(dipole: SceneDipole, { scene, d, pulse }: SourceGround): GridSource {
  const { dt } = d;
  const magnetic = dipole.of === 'magnetic';
  const shares = sharesOf(dipole, d);
  const problems = shares
    ? [...mediumFaults(dipole, shares, d), ...closedFaults(dipole, scene)]
    : [
        place(
          dipole,
          'dipole.outside',
          'The dipole stands within two cells of the boundary, or outside.',
          'Move it inside, or give the boundaries a larger margin.',
        ),
      ];
  const late = magnetic ? 1 : 0.5;
  return {
    problems,
    injection: injectionOf(shares ?? [], d, pulse, late),
    probes: (shares ?? []).map(({ field, at }): Probe => ({ field, at, shift: [0, 0, 0], weights: [1, 0] })),
    read({ probe, every }) {
      /** Factor of the pulse's spectrum to moment 1 and phase zero, and the power that the dipole then gives. */
      const drive = (frequencies: ArrayLike<number>): { unit: Complex; power: number }[] => {
        const source = new PortSpectrum(frequencies, dt, late);
        source.update(Float64Array.from({ length: Math.ceil(pulse.length / dt) }, (_, n) => pulseAt(pulse, (n + late) * dt)));
        const field = new PortSpectrum(frequencies, dt, late + 0.5);
        const first = probe(0);
        const sum = new Float64Array(first.length);
        shares!.forEach(({ weight }, n) => {
          const series = probe(n);
          for (let i = 0; i < sum.length; i++) sum[i] += weight * series[i];
        });
        field.update(sum);
        return Array.from(frequencies, (f, n) => {
          const size = source.re[n] ** 2 + source.im[n] ** 2;
          // The scheme's power is that of the mean of the field over a step; H is kept times the impedance of free space.
          const mean = Math.cos(Math.PI * f * dt) / (magnetic ? eta0 : 1);
          const power = (-0.5 * mean * (field.re[n] * source.re[n] + field.im[n] * source.im[n])) / size;
          return { unit: [source.re[n] / size, -source.im[n] / size], power };
        });
      };
      const at = drive(scene.recordAt);
      const band = bandFrequencies(scene.band);
      return {
        scales: at.map(({ unit, power }): Complex => {
          // For 1 W that the dipole gives; where it gives none there is nothing to tell.
          const size = power > 0 ? (every * dt) / Math.sqrt(power) : 0;
          return [unit[0] * size, unit[1] * size];
        }),
        arrays: {
          frequency: { shape: [band.length], data: band },
          'source:power': { shape: [band.length], data: Float64Array.from(drive(band), ({ power }) => power) },
        },
        tell(far) {
          const figures = far?.readings.map((r): PatternFigures => antennaFigures(r, 1)) ?? null;
          return {
            told: {
              dipole: { name: dipole.name, of: dipole.of, at: dipole.at, direction: dipole.direction },
              farField: far && figures ? { name: far.name, step: far.step, figures } : null,
            },
            balance: figures?.map((f) => f.accepted - f.radiated - f.lost) ?? null,
          };
        },
      };
    },
  };
}

const place = ({ name }: SceneDipole, code: string, message: string, fix: string): Problem =>
  problem('error', code, { part: 'ports', name }, message, fix);

/** Where nothing takes power a dipole gives none in the end, and nothing can be told for 1 W of it. */
function closedFaults(dipole: SceneDipole, { boundaries, bodies, ports }: GridScene): Problem[] {
  const takes = bodies.some(({ material: m, conductor }) =>
    m.kind === 'conductor' ? !conductor.perfect && !!m.conductivity : !!m.lossTangent || !!m.dispersion,
  );
  if (boundaries.includes('open') || ports.length || takes) return [];
  return [
    place(
      dipole,
      'dipole.closed',
      'The dipole stands between walls on all sides, and nothing in them takes power.',
      'Open a side, or give a body losses.',
    ),
  ];
}

/** Samples around the dipole with their shares; null where it stands too close to the edge of the computed region. */
function sharesOf({ of, at, direction }: SceneDipole, { grid }: Discrete): Share[] | null {
  const inside = grid.lines.every(
    (x, a) => at[a] > x[grid.outerCells[2 * a] + boxGap] && at[a] < x[x.length - 1 - grid.outerCells[2 * a + 1] - boxGap],
  );
  if (!inside) return null;
  /** Four samples on an axis around the point, at nodes or between them, and what each has of it, by Lagrange's cubic. */
  const four = (a: number, half: boolean): [index: number, share: number][] => {
    const x = grid.lines[a];
    const where = (i: number): number => (half ? (x[i] + x[i + 1]) / 2 : x[i]);
    let i = 0;
    while (where(i + 1) <= at[a]) i++;
    const all = [i - 1, i, i + 1, i + 2];
    const share = (n: number): number => all.reduce((p, m) => (m === n ? p : (p * (at[a] - where(m))) / (where(n) - where(m))), 1);
    // A hair's breadth off a sample is on it.
    return all.map((n): [number, number] => [n, share(n)]).filter(([, w]) => Math.abs(w) > sameMesh);
  };
  return ([0, 1, 2] as const).flatMap((axis) => {
    if (Math.abs(direction[axis]) < sameNumber) return [];
    // E stands between nodes along itself, H across itself.
    const [xs, ys, zs] = [0, 1, 2].map((a) => four(a, (a === axis) === (of === 'electric')));
    return xs.flatMap(([i, p]) =>
      ys.flatMap(([j, q]) =>
        zs.map(([k, r]): Share => ({ field: axis + (of === 'electric' ? 0 : 3), axis, at: [i, j, k], weight: direction[axis] * p * q * r })),
      ),
    );
  });
}

/** The medium around a dipole must be clear and level: within a loss its power has no limit, and at a surface a cell is not enough. */
function mediumFaults(dipole: SceneDipole, shares: readonly Share[], d: Discrete): Problem[] {
  const lines = d.grid.lines;
  let [metal, lossy, uneven] = [false, false, false];
  let first = 0;
  const corner = [0, 1, 2].map((a) => Math.min(...shares.map((s) => s.at[a])));
  const end = [0, 1, 2].map((a) => Math.max(...shares.map((s) => s.at[a])) + 1);
  const range = (a: number): number[] => {
    const from = Math.max(0, corner[a] - level);
    return Array.from({ length: Math.min(lines[a].length - 2, end[a] + level) - from }, (_, i) => from + i);
  };
  for (const c of [0, 1, 2] as const)
    for (const i of range(0))
      for (const j of range(1))
        for (const k of range(2)) {
          const near = [i, j, k].every((v, a) => v >= corner[a] && v <= end[a]);
          if (isMetal(d, c, [i, j, k])) {
            if (near) metal = true;
            else uneven = true;
            continue;
          }
          const e = permittivityOf(d, c, [i, j, k]);
          first ||= e;
          if (near && (mediumOf(d, c, [i, j, k]) || coefficients(d, c, [i, j, k])[0] !== 1)) lossy = true;
          if (Math.abs(e - first) > 1e-3 * first) uneven = true;
        }
  if (metal) return [place(dipole, 'dipole.metal', 'The dipole stands in metal, or within a cell of it.', 'Move it away, or take a finer accuracy.')];
  if (lossy)
    return [
      place(
        dipole,
        'dipole.lossy',
        'The dipole stands in a medium with losses or with a permittivity that changes over the band, where the power that it gives has no limit.',
        'Put it into a clear medium, or leave a small hollow of air around it.',
      ),
    ];
  if (uneven)
    return [
      problem(
        'warning',
        'dipole.close',
        { part: 'ports', name: dipole.name },
        `The dipole stands within ${level + 2} cells of a surface, so that its field close by is not resolved.`,
        'Take a finer accuracy, or move it away.',
      ),
    ];
  return [];
}

/** What a dipole adds to each of its samples: one tone without a shape, that of the pulse. */
function injectionOf(shares: readonly Share[], d: Discrete, pulse: Pulse, late: number): Injection {
  const { dt, grid } = d;
  const rows = shares.map(({ field, axis, at, weight }): InjectedRow => {
    const volume = ([0, 1, 2] as const).reduce<number>((v, a) => v * extent(grid, a, field, at[a]), 1);
    const push = field < 3 ? coefficients(d, axis, at)[1] * eta0 : c0 * dt;
    return { field, at, axis, count: 1, half: false, from: 0, factors: Float32Array.of((-weight * push) / volume, 0) };
  });
  const steps = Math.ceil(pulse.length / dt);
  const turn = Float32Array.from({ length: 2 * steps }, (_, i) => (i % 2 ? 0 : pulseAt(pulse, (i / 2 + late) * dt)));
  // One tone of size one everywhere: four values, as the kernel takes rows by fours.
  const flat = { node: Float32Array.of(1, 1, 1, 1, 0, 0, 0, 0), half: Float32Array.of(1, 1, 1, 1, 0, 0, 0, 0), length: 4 };
  return { tones: 1, steps, tables: [flat, flat, flat], rows, turnE: turn, turnH: turn };
}
