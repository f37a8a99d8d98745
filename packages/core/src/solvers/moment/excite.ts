import { type Complex, mul } from '../../numerics/complex.ts';
import { c0 } from '../../numerics/constants.ts';
import { gauss } from '../../numerics/gauss.ts';
import type { WireMesh } from '../../grid/index.ts';
import type { Earth } from './earth/pairs.ts';
import { earthPermittivity, reflections } from './earth/halfSpace.ts';
import type { IncidentField } from './sources.ts';
import { nothing } from '../../numerics/tolerance.ts';

type V3 = readonly [number, number, number];

/** A plane wave at one frequency: unit vector along which it runs, complex E at the origin, V/m. */
export interface Incident {
  towards: V3;
  re: V3;
  im: V3;
}

/** exp(-jkr . towards) E of a wave at a point, added to six numbers: re and im of x, y, z. */
export function addWave(wave: Incident, k: number, p: ArrayLike<number>, out: Float64Array, sign = 1): void {
  const phase = -k * (wave.towards[0] * p[0] + wave.towards[1] * p[1] + wave.towards[2] * p[2]);
  const [c, s] = [sign * Math.cos(phase), sign * Math.sin(phase)];
  for (let a = 0; a < 3; a++) {
    out[2 * a] += wave.re[a] * c - wave.im[a] * s;
    out[2 * a + 1] += wave.re[a] * s + wave.im[a] * c;
  }
}

/** The wave that a perfect plane at a height sends back: E along the plane changes its sign. */
export function reflected(wave: Incident, ground: number, k: number): Incident {
  const turn = ([x, y, z]: V3): V3 => [-x, -y, z];
  // Mirrored about the height, which shifts the phase at the origin.
  const phase = -2 * k * ground * wave.towards[2];
  const [c, s] = [Math.cos(phase), Math.sin(phase)];
  const [re, im] = [turn(wave.re), turn(wave.im)];
  return {
    towards: [wave.towards[0], wave.towards[1], -wave.towards[2]],
    re: re.map((x, a) => x * c - im[a] * s) as unknown as V3,
    im: re.map((x, a) => x * s + im[a] * c) as unknown as V3,
  };
}

/** The wave that real earth at a height sends back, by Fresnel's reflection of its parts in and across the plane of incidence. */
export function reflectedByEarth(wave: Incident, earth: Earth, frequency: number): Incident {
  const k = (2 * Math.PI * frequency) / c0;
  const [x, y, z] = wave.towards;
  const s = Math.hypot(x, y);
  const { e, h } = reflections(earthPermittivity(earth, frequency), [s * s, 0]);
  const [ux, uy] = s > nothing ? [x / s, y / s] : [1, 0];
  // Tangential E in the plane of incidence is reflected as TM, across it as TE; the upright part follows from div E = 0.
  const parts = (v: V3): [along: number, across: number, up: number] => [v[0] * ux + v[1] * uy, -v[0] * uy + v[1] * ux, v[2]];
  const [re, im] = [parts(wave.re), parts(wave.im)];
  const along = mul([re[0], im[0]], e);
  const across = mul([re[1], im[1]], h);
  // Upright E keeps its sign where the tangential one changes it.
  const up = mul([re[2], im[2]], [-e[0], -e[1]]);
  const phase = -2 * k * earth.at * z;
  const turn: Complex = [Math.cos(phase), Math.sin(phase)];
  const [a, b, c] = [along, across, up].map((v) => mul(v, turn));
  return {
    towards: [x, y, -z],
    re: [a[0] * ux - b[0] * uy, a[0] * uy + b[0] * ux, c[0]],
    im: [a[1] * ux - b[1] * uy, a[1] * uy + b[1] * ux, c[1]],
  };
}

const { points: nodes, weights } = gauss(4);
/** Most pieces of a segment close to a point of current. */
const mostPieces = 64;

/** Tests an incident field with the bases: integrals of f_m . E, V, as pairs of real and imaginary part. Close to a point a segment is cut in pieces. */
export function testField(mesh: WireMesh, incident: IncidentField, size: number): Float64Array {
  const out = new Float64Array(2 * size);
  const ends = new Float64Array(4 * mesh.count);
  const field = new Float64Array(12);
  for (let i = 0; i < mesh.count; i++) {
    const g = mesh.segments.subarray(8 * i, 8 * i + 8);
    const pieces = Math.min(mostPieces, Math.max(1, ...incident.points.map(({ at }) => Math.ceil((2 * g[6]) / fromSegment(g, at)))));
    for (let n = 0; n < 4 * pieces; n++) {
      const t = ((n >> 2) + nodes[n & 3]) / pieces;
      const s = t * g[6];
      field.fill(0);
      incident.add([g[0] + s * g[3], g[1] + s * g[4], g[2] + s * g[5]], field);
      for (let c = 0; c < 2; c++) {
        const along = ((field[c] * g[3] + field[2 + c] * g[4] + field[4 + c] * g[5]) * weights[n & 3] * g[6]) / pieces;
        ends[4 * i + c] += (1 - t) * along;
        ends[4 * i + 2 + c] += t * along;
      }
    }
  }
  for (let b = 0; b < mesh.bases; b++)
    for (let h = mesh.halfFirst[b]; h < mesh.halfFirst[b + 1]; h++) {
      const { segment, end, sign } = mesh.halves[h];
      for (const c of [0, 1]) out[2 * b + c] += sign * ends[4 * segment + 2 * end + c];
    }
  return out;
}

/** Distance of a point from a segment, metres. */
function fromSegment(g: Float64Array, p: V3): number {
  const d = [p[0] - g[0], p[1] - g[1], p[2] - g[2]];
  const s = Math.min(g[6], Math.max(0, d[0] * g[3] + d[1] * g[4] + d[2] * g[5]));
  return Math.hypot(...d.map((x, a) => x - s * g[3 + a]));
}

/** Current at the start and at the end of each segment, along it: [segment][end][re, im] from the solution's coefficients. */
export function endCurrents(mesh: WireMesh, x: Float64Array): Float64Array {
  const out = new Float64Array(4 * mesh.count);
  for (let b = 0; b < mesh.bases; b++)
    for (let h = mesh.halfFirst[b]; h < mesh.halfFirst[b + 1]; h++) {
      const { segment, end, sign } = mesh.halves[h];
      out[4 * segment + 2 * end] += sign * x[2 * b];
      out[4 * segment + 2 * end + 1] += sign * x[2 * b + 1];
    }
  return out;
}
