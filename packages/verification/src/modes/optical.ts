import { c0, type Complex, mul, sub, abs2 } from '@jadebell/core/numerics';
import { plainBody } from '../bench.ts';
import { type Case, percent, type Row } from '../case.ts';
import { bisect } from '../cavity.ts';
import { bar, complexZero, dielectric, rod, root, row, sectionAcross, solved } from './parts.ts';

const wave = 1.55e-6;
const k0 = (2 * Math.PI) / wave;
const frequency = c0 / wave;

/** Integral of f from a to b, Simpson's rule. */
function integral(f: (x: number) => number, a: number, b: number, n = 400): number {
  let sum = f(a) + f(b);
  for (let i = 1; i < n; i++) sum += f(a + ((b - a) * i) / n) * (i % 2 ? 4 : 2);
  return (sum * (b - a)) / n / 3;
}
const besselJ = (n: number, x: number): number => integral((t) => Math.cos(n * t - x * Math.sin(t)), 0, Math.PI) / Math.PI;
const besselK = (n: number, x: number): number => integral((t) => Math.exp(-x * Math.cosh(t)) * Math.cosh(n * t), 0, 12, 2000);

/** Effective index of the HE11 mode of a rod (A. W. Snyder, J. D. Love, Optical Waveguide Theory, table 12-4). */
function rodIndex(core: number, clad: number, radius: number, k: number): number {
  const f = (n: number): number => {
    const [u, w] = [k * radius * Math.sqrt(core * core - n * n), k * radius * Math.sqrt(n * n - clad * clad)];
    const j = (besselJ(0, u) - besselJ(1, u) / u) / (u * besselJ(1, u));
    const kk = (-besselK(0, w) - besselK(1, w) / w) / (w * besselK(1, w));
    return (j + kk) * (j + (kk * clad * clad) / (core * core)) - ((n / core) * ((k * radius) ** 2 * (core * core - clad * clad)) / (u * u * w * w)) ** 2; // prettier-ignore
  };
  return bisect(f, clad + 0.5 * (core - clad), core * (1 - 1e-6));
}

/** A round rod in air: curved dielectric, both polarisations, group index. */
export const rodModes: Case = {
  name: 'rod-modes',
  title: 'Section: rod of index 1.45 and radius 1 um in air at 1.55 um, HE11',
  slow: false,
  async run(host) {
    const [core, radius] = [1.45, 1e-6];
    const bodies = [plainBody('rod', 0, dielectric(core * core), rod(radius))];
    const exact = rodIndex(core, 1, radius, k0);
    const d = 1e-3;
    const group = (rodIndex(core, 1, radius, k0 * (1 + d)) * (1 + d) - rodIndex(core, 1, radius, k0 * (1 - d)) * (1 - d)) / (2 * d);
    const rows: Row[] = [];
    const errors: number[] = [];
    for (const cell of [0.1e-6, 0.05e-6]) {
      const s = sectionAcross({ min: [-3.03e-6, -3.02e-6], max: [3.05e-6, 3.06e-6], frequency, modes: 2, grid: { cell: [cell, cell] } });
      const r = await solved(host, bodies, s);
      const name = `cell ${cell * 1e9} nm`;
      errors.push(Math.abs(r.figures[0].index[0] - exact));
      for (const [i, m] of r.figures.entries())
        rows.push(row(`${name}: index of polarisation ${i + 1}`, 'characteristic equation (Snyder and Love)', [m.index[0], exact], 0.05, r));
      rows.push(row(`${name}: group index`, 'derivative of the same equation', [r.figures[0].groupIndex!, group], 0.1, r));
    }
    rows.push({ quantity: 'order of convergence (at least 1.5)', reference: '2', source: 'second-order averages', computed: Math.log2(errors[0] / errors[1]).toFixed(2), error: Math.max(0, 1.5 - Math.log2(errors[0] / errors[1])), allowed: 0, unit: '%', cells: 0, seconds: 0 }); // prettier-ignore
    return rows;
  },
};

/** A one-dimensional section: layers across y, a few cells along x. */
const layered = (parts: Partial<Parameters<typeof sectionAcross>[0]> & { min: [number, number]; max: [number, number]; cell: number }) => {
  const { cell, ...rest } = parts;
  return sectionAcross({ frequency, grid: { cell: [(rest.max[0] - rest.min[0]) / 3, cell] }, ...rest });
};

/** A hollow core between dense walls, which leaks: TE, even. */
export const leakySlab: Case = {
  name: 'leaky-slab',
  title: 'Section: leaky slab, 4 um of index 1 between index 1.444, TE',
  slow: false,
  async run(host) {
    const [d, clad] = [4e-6, 1.444];
    // kappa tan(kappa d / 2) = j k of the outgoing wave outside.
    const residual = (n: Complex): Complex => {
      const n2 = mul(n, n);
      const kappa = root([k0 * k0 * (1 - n2[0]), -k0 * k0 * n2[1]]);
      const out = root([k0 * k0 * (clad * clad - n2[0]), -k0 * k0 * n2[1]]);
      const x: Complex = [(kappa[0] * d) / 2, (kappa[1] * d) / 2];
      const sin: Complex = [Math.sin(x[0]) * Math.cosh(x[1]), Math.cos(x[0]) * Math.sinh(x[1])];
      const cos: Complex = [Math.cos(x[0]) * Math.cosh(x[1]), -Math.sin(x[0]) * Math.sinh(x[1])];
      return sub(mul(kappa, sin), mul([-out[1], out[0]], cos));
    };
    const n = complexZero(residual, [0.985, -0.001], 1e-3);
    const bodies = [plainBody('clad', 0, dielectric(clad * clad), bar(-1, 1, -1, 1)), plainBody('core', 1, dielectric(1), bar(-1, 1, -d / 2, d / 2))];
    const s = layered({ min: [0, -3e-6], max: [0.3e-6, 3e-6], cell: 0.02e-6, edges: ['electric', 'electric', 'open', 'open'], near: 0.98, modes: 1 });
    const r = await solved(host, bodies, s);
    const [{ index }] = r.figures;
    return [row('index', 'complex root of the slab’s equation', [index[0], n[0]], 0.02, r), row('extinction', 'the same', [index[1], -n[1]], 2, r)];
  },
};

/** A surface wave on gold, described by its complex permittivity. */
export const surfaceWave: Case = {
  name: 'surface-wave',
  title: 'Section: surface wave between a metal of permittivity -20 - 1j and air',
  slow: false,
  async run(host) {
    const metal: Complex = [-20, -1];
    const ratio = (a: Complex, b: Complex): Complex => mul(a, [b[0] / abs2(b), -b[1] / abs2(b)]);
    const n = root(ratio(metal, [metal[0] + 1, metal[1]]));
    // A Drude metal that has just this permittivity here.
    const w = 1 / wave / 100;
    const q = [1 - metal[0], -metal[1]];
    const collision = (w * q[1]) / q[0];
    const plasma = Math.sqrt(q[0] * (w * w + collision * collision));
    const gold = { name: 'gold', kind: 'dielectric' as const, dispersion: { form: 'drude' as const, infinity: 1, plasma, collision } };
    const bodies = [plainBody('gold', 0, gold, bar(-1, 1, -1, 0))];
    const s = layered({
      min: [0, -0.4e-6],
      max: [0.03e-6, 7e-6],
      cell: 0.004e-6,
      edges: ['magnetic', 'magnetic', 'electric', 'electric'],
      modes: 1,
      near: 1.02,
    });
    const r = await solved(host, bodies, s);
    const [{ index }] = r.figures;
    return [
      row('index', 'closed form, sqrt(e / (1 + e))', [index[0], n[0]], 0.05, r),
      row('extinction', 'the same', [index[1], Math.abs(n[1])], 3, r),
    ];
  },
};

/** TM of a slab whose permittivity differs along its three axes. */
export const tensorSlab: Case = {
  name: 'tensor-slab',
  title: 'Section: anisotropic slab, permittivity 4.9, 5.2, 4.4 along x, y, z, 0.8 um thick in 2.07',
  slow: false,
  async run(host) {
    const [ex, ey, ez, clad, t] = [4.9, 5.2, 4.4, 2.07, 0.8e-6];
    const tm = bisect(
      (n) => {
        const kappa = k0 * Math.sqrt(ez * (1 - (n * n) / ey));
        const gamma = k0 * Math.sqrt(n * n - clad);
        return Math.atan((gamma * ez) / (clad * kappa)) - (kappa * t) / 2;
      },
      Math.sqrt(clad) + 1e-6,
      Math.sqrt(ey) - 1e-6,
    );
    const te = bisect(
      (n) => Math.atan(Math.sqrt((n * n - clad) / (ex - n * n))) - (k0 * Math.sqrt(ex - n * n) * t) / 2,
      Math.sqrt(clad) + 1e-6,
      Math.sqrt(ex) - 1e-6,
    );
    const bodies = [plainBody('clad', 0, dielectric(clad), bar(-1, 1, -1, 1)), plainBody('core', 1, dielectric(4.83, { permittivityAlong: [ex, ey, ez] }), bar(-1, 1, -t / 2, t / 2))]; // prettier-ignore
    const rows: Row[] = [];
    for (const [name, exact, wall] of [
      ['TE', te, 'electric'],
      ['TM', tm, 'magnetic'],
    ] as const) {
      // prettier-ignore
      const s = layered({ min: [0, -2.4e-6], max: [0.06e-6, 2.4e-6], cell: 0.01e-6, edges: [wall, wall, 'electric', 'electric'] });
      const r = await solved(host, bodies, s);
      rows.push({
        ...row(`${name} index (allowed 1e-4 absolute)`, 'slab equation with the tensor', [r.figures[0].index[0], exact], 0, r),
        allowed: 0.01 / exact,
      });
    }
    return rows;
  },
};

/** Radial equation of TE waves round a bend, E along the axis: r^2 E'' + r E' + (k^2 r^2 - nu^2) E = 0, by Runge-Kutta; complex r and nu allowed. */
function radial(
  index: (r: number) => number,
  path: (t: number) => Complex,
  slope: (t: number) => Complex,
  nu: Complex,
  steps: number,
  start: [Complex, Complex],
): [Complex, Complex] {
  let [e, g] = start;
  const nu2 = mul(nu, nu);
  const h = 1 / steps;
  // State: E and r dE/dr, which is continuous where the index jumps.
  const rate = (t: number, y: Complex, z: Complex, n: number): [Complex, Complex] => {
    const r = path(t);
    const d = slope(t);
    const s = 1 / abs2(r);
    const over = mul(d, [r[0] * s, -r[1] * s]);
    const r2 = mul(r, r);
    const k2 = (n * k0) ** 2;
    return [mul(over, z), mul(over, mul([nu2[0] - k2 * r2[0], nu2[1] - k2 * r2[1]], y))];
  };
  const plus = (a: Complex, b: Complex, f: number): Complex => [a[0] + f * b[0], a[1] + f * b[1]];
  for (let i = 0; i < steps; i++) {
    const t = i * h;
    const n = index(path(t + h / 2)[0]);
    const a = rate(t, e, g, n);
    const b = rate(t + h / 2, plus(e, a[0], h / 2), plus(g, a[1], h / 2), n);
    const c = rate(t + h / 2, plus(e, b[0], h / 2), plus(g, b[1], h / 2), n);
    const d = rate(t + h, plus(e, c[0], h), plus(g, c[1], h), n);
    e = [0, 1].map((k) => e[k] + (h / 6) * (a[0][k] + 2 * b[0][k] + 2 * c[0][k] + d[0][k])) as Complex;
    g = [0, 1].map((k) => g[k] + (h / 6) * (a[1][k] + 2 * b[1][k] + 2 * c[1][k] + d[1][k])) as Complex;
  }
  return [e, g];
}

/** A slab bent so tightly that it radiates, TE. */
export const bentSlab: Case = {
  name: 'bent-slab',
  title: 'Section: slab of index 1.6, 0.8 um wide, in 1.444, bent to a radius of 15 um, TE',
  slow: false,
  async run(host) {
    const [core, clad, t, radius] = [1.6, 1.444, 0.8e-6, 15e-6];
    const index = (r: number): number => (Math.abs(r - radius) < t / 2 ? core : clad);
    const [inside, outside] = [radius - 3e-6, radius + 8e-6];
    // Ends of the path: the wave has died out inside; outside the coordinate leaves the real line, so that an outgoing wave dies out too.
    const turn = radius + 3e-6;
    const path = (s: number): Complex => {
      const r = inside + s * (outside - inside);
      return [r, r > turn ? -1.2 * (r - turn) * ((r - turn) / (outside - turn)) : 0];
    };
    const slope = (s: number): Complex => {
      const r = inside + s * (outside - inside);
      return [outside - inside, r > turn ? -2.4 * ((r - turn) / (outside - turn)) * (outside - inside) : 0];
    };
    // Steps end on the faces of the slab: the length of 11 um and the faces at 2.6 and 3.4 um have 0.1 um in common.
    const nu = complexZero((x) => radial(index, path, slope, x, 2200, [[0, 0], [1, 0]])[0], [k0 * radius * 1.536, -k0 * radius * 0.005], 0.05); // prettier-ignore
    const [n, loss] = [nu[0] / (k0 * radius), -nu[1] / (k0 * radius)];
    const bodies = [
      plainBody('clad', 0, dielectric(clad * clad), bar(-1, 1, -1, 1)),
      plainBody('core', 1, dielectric(core * core), bar(-1, 1, -t / 2, t / 2)),
    ];
    const rows: Row[] = [];
    for (const sign of [1, -1]) {
      const s = layered({
        min: [0, -3e-6],
        max: [0.3e-6, 3e-6],
        cell: 0.02e-6,
        edges: ['electric', 'electric', 'open', 'open'],
        near: 1.515,
        bend: { radius: sign * radius, axis: 1 },
      });
      const r = await solved(host, bodies, s);
      const [figures] = r.figures;
      const side = sign > 0 ? 'centre below' : 'centre above';
      rows.push(row(`${side}: index`, 'radial equation, Runge-Kutta', [figures.index[0], n], 0.02, r));
      rows.push(row(`${side}: loss of a quarter turn, dB`, 'the same', [figures.quarterTurn!, 20 * Math.LOG10E * loss * k0 * radius * (Math.PI / 2)], 3, r)); // prettier-ignore
    }
    return rows;
  },
};

/** A guide filled with a lossy medium, by the general solver and by the potentials. */
export const lossyFilling: Case = {
  name: 'lossy-filling',
  title: 'Section: guide 15.8 x 7.9 mm filled with permittivity 2.5, loss tangent 0.05',
  slow: false,
  async run(host) {
    const [a, b, er, tan, f] = [15.8e-3, 7.9e-3, 2.5, 0.05, 12e9];
    const k = (2 * Math.PI * f) / c0;
    const exact = root([er * k * k - (Math.PI / a) ** 2, -er * tan * k * k]);
    const bodies = [plainBody('fill', 0, dielectric(er, { lossTangent: tan }), bar(-1, 1, -1, 1))];
    const rows: Row[] = [];
    for (const near of [0, 1.4]) {
      const r = await solved(host, bodies, sectionAcross({ min: [0, 0], max: [a, b], frequency: f, near, grid: { cell: [a / 60, b / 30] } }));
      const [m] = r.figures;
      const name = near ? 'general solver' : 'potentials';
      rows.push(row(`${name}: phase constant, rad/m`, 'closed form', [m.beta, exact[0]], 0.05, r));
      rows.push({ ...row(`${name}: attenuation, Np/m`, 'closed form', [m.alpha, -exact[1]], 0.2, r), error: percent(m.alpha, -exact[1]) });
    }
    return rows;
  },
};
