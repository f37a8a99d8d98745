import type { Complexes } from '../../numerics/complex.ts';
import { type Section, stepsOf } from './section.ts';

/** Steps of a section in stretched coordinates, where the metric of a bend stands apart. */
export interface ComplexSteps {
  /** Cells and dual cells. */
  du: Complexes;
  dv: Complexes;
  dualU: Complexes;
  dualV: Complexes;
  /** Length along the guide for unit angle, over that at the reference: on nodes and on cell centres of each axis. */
  nodeU: Complexes;
  halfU: Complexes;
  nodeV: Complexes;
  halfV: Complexes;
}

/** exp of this is what absorbing edges take from a wave of the least transverse wave number they are meant for, there and back. */
const depth = 10;

/** Strength of an absorbing edge of this thickness: a wave of transverse wave number kt fades by exp(-depth) there and back. */
export const absorberStrength = (kt: number, thickness: number): number => (1.5 * depth) / (kt * thickness);

/**
 * Complex coordinate along an axis: beyond the start of an absorbing edge it leaves the real line with the cube of the depth,
 * so that an outgoing wave fades (W. C. Chew and W. H. Weedon, Microw. Opt. Technol. Lett. 7, 599, 1994).
 */
function stretched(x: number, lines: Float64Array, low: number, high: number, strength: [number, number]): number {
  const [a, b] = [lines[0] + low, lines[lines.length - 1] - high];
  if (low > 0 && x < a) return (strength[0] * low * ((a - x) / low) ** 3) / 3;
  if (high > 0 && x > b) return (-strength[1] * high * ((x - b) / high) ** 3) / 3;
  return 0;
}

function axisSteps(
  x: Float64Array,
  edges: [number, number],
  strength: [number, number],
  bend: { radius: number; at: number } | null,
): { d: Complexes; dual: Complexes; node: Complexes; half: Complexes } {
  const n = x.length;
  const shift = (p: number): number => stretched(p, x, edges[0], edges[1], strength);
  const middle = (i: number): number => (x[i] + x[i + 1]) / 2;
  const make = (count: number): Complexes => ({ re: new Float64Array(count), im: new Float64Array(count) });
  const [d, dual, node, half] = [make(n - 1), make(n), make(n), make(n - 1)];
  for (let i = 0; i < n; i++) {
    const [low, high] = [i > 0 ? middle(i - 1) : x[0], i + 1 < n ? middle(i) : x[n - 1]];
    dual.re[i] = high - low;
    dual.im[i] = shift(high) - shift(low);
    node.re[i] = bend ? 1 + (x[i] - bend.at) / bend.radius : 1;
    node.im[i] = bend ? shift(x[i]) / bend.radius : 0;
    if (i + 1 === n) continue;
    d.re[i] = x[i + 1] - x[i];
    d.im[i] = shift(x[i + 1]) - shift(x[i]);
    half.re[i] = bend ? 1 + (middle(i) - bend.at) / bend.radius : 1;
    half.im[i] = bend ? shift(middle(i)) / bend.radius : 0;
  }
  return { d, dual, node, half };
}

/** Steps of a section with its absorbing edges and its bend. */
export function complexSteps(s: Section): ComplexSteps {
  const none = { thickness: [0, 0, 0, 0], strength: [0, 0, 0, 0] };
  const { thickness: t, strength: k } = s.absorb ?? none;
  const u = axisSteps(s.u, [t[0], t[1]], [k[0], k[1]], s.bend?.axis === 'u' ? s.bend : null);
  const v = axisSteps(s.v, [t[2], t[3]], [k[2], k[3]], s.bend?.axis === 'v' ? s.bend : null);
  return {
    du: u.d,
    dv: v.d,
    dualU: u.dual,
    dualV: v.dual,
    nodeU: u.node,
    halfU: u.half,
    nodeV: v.node,
    halfV: v.half,
  };
}

/** What stands on edges, nodes and cells of a section: permittivities and permeabilities with losses and the metric of a bend. */
export interface Coefficients {
  /** Permittivity of edges along u and v; one over that of nodes along the guide, 0 in metal. */
  eu: Complexes;
  ev: Complexes;
  wInverse: Complexes;
  /** Permeability along v at edges along u, along u at edges along v; one over that of cells times their free area. */
  muV: Complexes;
  muU: Complexes;
  cellInverse: Complexes;
}

/** Whether a section has anything that makes its modes complex. */
export const isComplex = (s: Section): boolean => !!s.loss || !!s.absorb;

/** Coefficients of the operator in stretched coordinates. */
export function coefficientsOf(s: Section, cs: ComplexSteps): Coefficients {
  const { nu, nv } = stepsOf(s);
  const w = nu + 1;
  const size = w * (nv + 1);
  const make = (): Complexes => ({ re: new Float64Array(size), im: new Float64Array(size) });
  const out: Coefficients = { eu: make(), ev: make(), wInverse: make(), muV: make(), muU: make(), cellInverse: make() };
  const set = (to: Complexes, n: number, re: number, im: number, hr: number, hi: number): void => {
    to.re[n] = re * hr - im * hi;
    to.im[n] = re * hi + im * hr;
  };
  for (let j = 0; j <= nv; j++)
    for (let i = 0; i <= nu; i++) {
      const n = j * w + i;
      // The metric of a bend; it varies along one axis only.
      const metric = (a: Complexes, p: number, b: Complexes, q: number): [number, number] => [
        a.re[p] * b.re[q] - a.im[p] * b.im[q],
        a.re[p] * b.im[q] + a.im[p] * b.re[q],
      ];
      if (i < nu) {
        const [hr, hi] = metric(cs.halfU, i, cs.nodeV, j);
        set(out.eu, n, s.eu[n], -(s.loss?.u[n] ?? 0), hr, hi);
        set(out.muV, n, s.mu?.v[n] ?? 1, 0, hr, hi);
      }
      if (j < nv) {
        const [hr, hi] = metric(cs.nodeU, i, cs.halfV, j);
        set(out.ev, n, s.ev[n], -(s.loss?.v[n] ?? 0), hr, hi);
        set(out.muU, n, s.mu?.u[n] ?? 1, 0, hr, hi);
      }
      const [er, ei] = [s.ew[n], -(s.loss?.w[n] ?? 0)];
      if (er !== 0) {
        const d = er * er + ei * ei;
        const [hr, hi] = metric(cs.nodeU, i, cs.nodeV, j);
        set(out.wInverse, n, er / d, -ei / d, hr, hi);
      }
      if (i < nu && j < nv) {
        const free = (s.area?.[n] ?? 1) * (s.mu?.w[n] ?? 1);
        const [hr, hi] = metric(cs.halfU, i, cs.halfV, j);
        if (free > 0) set(out.cellInverse, n, 1 / free, 0, hr, hi);
      }
    }
  return out;
}
