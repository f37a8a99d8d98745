import { add, c0, type Complex, div, eta0, gauss, mul, scale } from '@jadebell/core/numerics';
import { type Ground, waveOf } from '@jadebell/core/scene';
import { earthPermittivity, reflections } from '@jadebell/core/solvers/moment/parts';
import type { Case, Row } from './case.ts';
import { away, f, impedances, ohms, plainWire, solveWires, started, upright, wireScene, wl } from './wireBench.ts';

/**
 * Current at the far end of a line over a perfect plane lit by a wave in the plane of the line, by field coupling to transmission lines in the scattered voltage
 * (A. K. Agrawal, H. J. Price, S. H. Gurbaxani, IEEE Trans. EMC-22, 1980): the total field without the wire along it drives it, and the vertical field
 * at both ends. The wave comes from (theta, pi), E in the plane of incidence, 1 V/m; ends 0 and L, impedances `near` and `far`, ohms.
 */
function coupledCurrent(
  { length, height, radius, near, far }: { length: number; height: number; radius: number; near: number; far: number },
  theta: number,
  frequency: number,
): [number, number] {
  const k = (2 * Math.PI * frequency) / c0;
  const zc = 60 * Math.acosh(height / radius);
  const turn = (x: number): Complex => [Math.cos(k * Math.sin(theta) * x), -Math.sin(k * Math.sin(theta) * x)];
  // E = theta unit vector of where it comes from: (-cos theta, 0, -sin theta); with what the plane sends back.
  const ex = (x: number): Complex => mul(turn(x), scale(-Math.cos(theta), [0, 2 * Math.sin(k * height * Math.cos(theta))]));
  const up = (x: number): Complex => scale((-2 * Math.sin(theta) * Math.sin(k * height * Math.cos(theta))) / (k * Math.cos(theta)), turn(x));
  const { points, weights } = gauss(64);
  let [vs, is]: Complex[] = [
    [0, 0],
    [0, 0],
  ];
  for (let i = 0; i < 64; i++) {
    const x = points[i] * length;
    const e = scale(weights[i] * length, ex(x));
    vs = add(vs, scale(Math.cos(k * (length - x)), e));
    is = add(is, mul([0, -Math.sin(k * (length - x)) / zc], e));
  }
  // V(L) = cos V0 - j Zc sin I0 + vs, I(L) = -j sin / Zc V0 + cos I0 + is; V0 = -near I0 + up(0), V(L) = far I(L) + up(L).
  const [cos, sin] = [Math.cos(k * length), Math.sin(k * length)];
  const left: Complex = [-near * cos - far * cos, -zc * sin - (far * near * sin) / zc];
  const right = add(add(add(up(length), scale(far, is)), scale(-1, vs)), mul(up(0), [-cos, (-far * sin) / zc]));
  const i0 = div(right, left);
  const v0 = add(scale(-near, i0), up(0));
  return add(add(mul([0, -sin / zc], v0), scale(cos, i0)), is);
}

export const wirePickUp: Case = {
  name: 'wire-pick-up',
  title: 'Wires: a terminated line over a perfect plane lit by a wave',
  slow: false,
  async run(host) {
    const rows: Row[] = [];
    const line = { length: 3, height: 0.004, radius: 2e-4, near: 100, far: 300 };
    for (const theta of [Math.PI / 3, Math.PI / 6, -Math.PI / 3]) {
      const seconds = started(host);
      const scene = wireScene({
        wires: [plainWire('line', [[0, 0, 0], [0, 0, line.height], [line.length, 0, line.height], [line.length, 0, 0]], line.radius)], // prettier-ignore
        frequency: 100e6,
        wave: waveOf('wave', 0, theta, Math.PI, 0, 0),
        band: { from: 2e6, to: 50e6, points: 97 },
        more: {
          ground: { kind: 'perfect', at: 0 },
          loads: [0, line.length + 2 * line.height].map((at, i) => ({
            name: ['near', 'far'][i],
            place: { wire: 0, at },
            load: { form: 'series' as const, r: [line.near, line.far][i], l: 0, c: 0 },
          })),
        },
      });
      const { arrays, meta } = await solveWires(scene, host);
      let [off, most] = [0, 0];
      let at = 0;
      arrays.frequency.data.forEach((frequency, n) => {
        const told = coupledCurrent(line, theta, frequency);
        const own = [arrays['probe:far'].data[4 * n + 2], arrays['probe:far'].data[4 * n + 3]];
        if (Math.hypot(...told) > most) [most, at] = [Math.hypot(...told), n];
        off = Math.max(off, Math.hypot(own[0] - told[0], own[1] - told[1]));
      });
      rows.push({
        quantity: `current at the far end from ${((180 * theta) / Math.PI).toFixed(0)} deg, 2 to 50 MHz, largest difference`,
        reference: `up to ${(1e6 * most).toFixed(1)} uA`,
        source: 'field coupling to transmission lines (Agrawal, Price, Gurbaxani, IEEE Trans. EMC-22, 1980)',
        computed: `${(1e6 * Math.hypot(arrays['probe:far'].data[4 * at + 2], arrays['probe:far'].data[4 * at + 3])).toFixed(1)} uA there`,
        error: (100 * off) / most,
        allowed: 3,
        unit: '%',
        cells: meta.evidence.unknowns,
        seconds: seconds(),
      });
    }
    return rows;
  },
};

/** Integral of a short wire's current along it, m, for 1 A in its middle; all in phase. */
function momentOf({ arrays }: { arrays: Record<string, { data: ArrayLike<number> }> }): number {
  const [segments, current] = [arrays['wire:segments'].data, arrays['wire:current'].data];
  const size = (i: number): number => Math.hypot(current[2 * i], current[2 * i + 1]);
  let [sum, most] = [0, 0];
  for (let i = 0; i < current.length / 4; i++) {
    sum += (segments[8 * i + 6] * (size(2 * i) + size(2 * i + 1))) / 2;
    most = Math.max(most, size(2 * i), size(2 * i + 1));
  }
  return sum / most;
}

/**
 * What a half-space adds to the impedance of a short element at a height, for 1 m of current moment, ohm/m^2: the spectral field at its own place, by the
 * angle of the plane waves it is made of, first those that run, then those that fade (A. Banos, Dipole Radiation in the Presence of a Conducting Half-Space, 1966).
 */
function elementOverEarth(upright: boolean, height: number, frequency: number, permittivity: number, conductivity: number): [number, number] {
  const k = (2 * Math.PI * frequency) / c0;
  const eps = earthPermittivity({ permittivity, conductivity }, frequency);
  const { points, weights } = gauss(8);
  const sum: Complex = [0, 0];
  const add = (s: number, kz: Complex, weight: Complex): void => {
    const { e, h } = reflections(eps, [s * s, 0]);
    const size = Math.exp(2 * k * height * kz[1]);
    const turn: Complex = [size * Math.cos(2 * k * height * kz[0]), -size * Math.sin(2 * k * height * kz[0])];
    // ds = kz times the weight. Level: (kz e + h / kz) s kz; upright: -2 s^3 e.
    const kz2 = mul(kz, kz);
    const v: Complex = upright ? [-2 * s ** 3 * e[0], -2 * s ** 3 * e[1]] : (mul(kz2, e).map((x, i) => s * (x + h[i])) as Complex);
    const w = mul(mul(v, turn), weight);
    sum[0] += w[0];
    sum[1] += w[1];
  };
  const n = 400;
  const last = Math.asinh(40 / (2 * k * height));
  for (let p = 0; p < n; p++)
    for (let q = 0; q < 8; q++) {
      const t = ((p + points[q]) / n) * (Math.PI / 2);
      add(Math.sin(t), [Math.cos(t), 0], [(weights[q] / n) * (Math.PI / 2), 0]);
      const u = ((p + points[q]) / n) * last;
      add(Math.cosh(u), [0, -Math.sinh(u)], [0, (weights[q] / n) * last]);
    }
  const scale = (eta0 * k * k) / (8 * Math.PI);
  return [scale * sum[0], scale * sum[1]];
}

export const wireEarth: Case = {
  name: 'wire-earth',
  title: 'Wires: over real earth',
  slow: false,
  async run(host) {
    const rows: Row[] = [];
    const [length, radius] = [0.01 * wl, 1e-5 * wl];
    const near = [{ kind: 'far-field' as const, name: 'far', step: Math.PI / 6 }];
    for (const [permittivity, conductivity] of [
      [13, 0.005],
      [4, 0.001],
      [80, 5],
    ])
      for (const height of [0.05, 0.2])
        for (const up of [false, true]) {
          const seconds = started(host);
          const middle = height * wl;
          const wire = up ? upright('w', length, radius, [0, 0, middle]) : plainWire('w', [[-length / 2, 0, middle], [length / 2, 0, middle]], radius); // prettier-ignore
          const solved = async (ground: Ground | null) =>
            solveWires(wireScene({ wires: [wire], ports: [[0, length / 2]], frequency: f, more: { ground }, density: 1600, recorders: near }), host);
          const [over, free] = [await solved({ kind: 'earth', at: 0, permittivity, conductivity }), await solved(null)];
          const [a, b] = [impedances(over)[0][0], impedances(free)[0][0]];
          const z = [a[0] - b[0], a[1] - b[1]];
          // The current's moment over that at the feed.
          const moment = momentOf(free);
          const told = elementOverEarth(up, middle, f, permittivity, conductivity).map((v) => v * moment * moment);
          const text = ([re, im]: readonly number[]): string =>
            `${(1e3 * re).toFixed(2)} ${im < 0 ? '-' : '+'} j${(1e3 * Math.abs(im)).toFixed(2)} mohm`;
          rows.push({
            quantity: `impedance that earth of ${permittivity}, ${conductivity} S/m adds to ${up ? 'an upright' : 'a level'} short dipole ${height} wavelengths up`,
            reference: text(told),
            source: 'spectral integral at the element (Banos, 1966)',
            computed: text(z),
            error: away(z, told),
            allowed: 1.5,
            unit: '%',
            cells: over.meta.evidence.unknowns,
            seconds: seconds(),
          });
        }
    // Earth that conducts as metal does is a perfect plane; earth of air is none.
    const seconds = started(host);
    const height = 0.15 * wl;
    const level = plainWire('w', [[-0.25 * wl, 0, height], [0.2 * wl, 0.1 * wl, height + 0.1 * wl]], 1e-3 * wl); // prettier-ignore
    const of = async (ground: Ground | null): Promise<number[]> =>
      impedances(await solveWires(wireScene({ wires: [level], ports: [[0, 0.2 * wl]], frequency: f, more: { ground } }), host))[0][0];
    const [metal, perfect, air, none] = [
      await of({ kind: 'earth', at: 0, permittivity: 1, conductivity: 1e5 }),
      await of({ kind: 'perfect', at: 0 }),
      await of({ kind: 'earth', at: 0, permittivity: 1, conductivity: 0 }),
      await of(null),
    ];
    for (const [what, own, told, allowed] of [
      ['a slanted wire over earth of 100 kS/m', metal, perfect, 0.3],
      ['the same over earth of permittivity 1', air, none, 1e-6],
    ] as const)
      rows.push({
        quantity: `impedance of ${what}`,
        reference: ohms(told),
        source: what.includes('kS') ? 'the same over a perfect plane' : 'the same in empty space',
        computed: ohms(own),
        error: away(own, told),
        allowed,
        unit: '%',
        cells: 0,
        seconds: seconds() / 2,
      });
    return rows;
  },
};
