import type { EdgeField } from './edgeField.ts';

/**
 * Parts by which the elements of a grid count beside the edge of a thin sheet. E across the edge, and H of a wave along it, are those of a static field (edgeField.ts);
 * E along the edge grows as the root of the distance. Voltage over flux of that field on an edge, and flux over magnetic tension on a face, over what they are in
 * a uniform field, is the part by which the element counts, as if that much of it were free: static field solutions in the coefficients of Yee's
 * scheme, whose symmetric use is stable (I. J. Craddock and C. J. Railton, IEEE Trans. Microwave Theory Tech. 46, 1091, 1998), here for any angle between edge and grid.
 */

const off = (d: number): number => Math.sqrt(Math.max(0, d));
/** Places spread over -1/2..1/2. */
const spread = [-5, -3, -1, 1, 3, 5].map((n) => n / 12);
/** Change of distance below which a stretch has one distance, as a part of it. */
const flat = 1e-6;
const out = new Float64Array(4);

/** Potential, flux, and slope of the potential along d and along z. */
const potential = (f: EdgeField, d: number, z: number): number => (f(d, z, out), out[0]);
const stream = (f: EdgeField, d: number, z: number): number => (f(d, z, out), out[1]);
/** Slope of the potential along z. */
const upright = (f: EdgeField, d: number, z: number): number => (f(d, z, out), -out[3]);
const inPlane = (f: EdgeField, d: number): number => (d > 0 ? potential(f, d, 0) : 0);

/** Mean of E across the edge over the free part of a stretch on which the distance changes evenly, taken over all of it. */
function meanAcross(f: EdgeField, d0: number, d1: number): number {
  if (Math.abs(d1 - d0) > flat * Math.max(Math.abs(d0), Math.abs(d1))) return (inPlane(f, d1) - inPlane(f, d0)) / (d1 - d0);
  if (d0 <= 0) return 0;
  f(d0, 0, out);
  return out[2];
}

/** The same of the root of the distance. */
function meanAlong(d0: number, d1: number): number {
  if (Math.abs(d1 - d0) < flat * Math.max(Math.abs(d0), Math.abs(d1))) return off(d0);
  return (2 * (off(d1) ** 3 - off(d0) ** 3)) / (3 * (d1 - d0));
}

/** Mean of E across the edge over heights -below..above at a distance. */
const tension = (f: EdgeField, d: number, below: number, above: number): number => (stream(f, d, above) - stream(f, d, -below)) / (below + above);

/** Integral of Re Z^1/2 over heights 0..h at distance d. */
function integralAlong(d: number, h: number): number {
  const size = Math.hypot(d, h);
  const [re, im] = [Math.sqrt(Math.max(0, (size + d) / 2)), Math.sqrt(Math.max(0, (size - d) / 2))];
  // Z^3/2 = Z times its root.
  return (2 / 3) * (d * im + h * re + (d < 0 ? Math.abs(d) ** 1.5 : 0));
}

/** Mean of E across the plane over heights 0..h at distance d; h may be negative. */
const meanUpright = (f: EdgeField, d: number, h: number): number => (potential(f, d, h) - inPlane(f, d)) / h;

/** Voltage over flux. Where both nearly vanish, other fields than that of the edge decide, for which an element is whole: it is kept near that. */
function ratio(voltage: number, flux: number): number {
  const r = voltage / flux;
  return r > 1 / farthest ? Math.min(farthest, r) : 1 / farthest;
}
/** How far from whole, either way. */
const farthest = 2.5;

/** Mean of E across the plane at height z over distances within half a width of d. */
const meanUprightAcross = (f: EdgeField, d: number, width: number, z: number): number =>
  width > flat * Math.abs(d) ? (stream(f, d - width / 2, z) - stream(f, d + width / 2, z)) / width : upright(f, d, z);

/** An edge of the grid in the sheet's plane: distances at its ends and its middle, slope of the distance along it and across it in the plane. Metres. */
export interface EdgePlace {
  ends: readonly [number, number];
  middle: number;
  along: number;
  across: number;
  /** Width of its dual face in the plane. */
  width: number;
}

/** Largest part of an edge, above which only such come as run close along a corner; across an edge that ends at the node it is 1.55. */
const mostOfEdge = 2;
/** Share of E along the edge beside that across it, as squares, for an edge of the grid in between. */
const ofAlong = 0.05;

/** Part by which an edge in the sheet's plane counts whose dual face reaches so far below and above it; 0 in the metal. */
export function edgePart(f: EdgeField, { ends: [d0, d1], middle, along, across, width }: EdgePlace, below: number, above: number): number {
  const free = (meanAcross(f, d0, middle) + meanAcross(f, middle, d1)) / 2;
  if (!(free > 0)) return 0;
  let [flux, fluxAlong] = [0, 0];
  for (const g of spread) {
    const d = middle + across * g * width;
    flux += tension(f, d, below, above) / spread.length;
    fluxAlong += (integralAlong(d, below) + integralAlong(d, above)) / (below + above) / spread.length;
  }
  const share = (along * along) / (along * along + ofAlong * (1 - along * along));
  return Math.min(mostOfEdge, (share * free) / flux + ((1 - share) * (meanAlong(d0, middle) + meanAlong(middle, d1))) / 2 / fluxAlong);
}

/** Stretches into which a face is cut. */
const rows = 8;

/** Part by which a face in the sheet's plane counts whose dual edge reaches so far below and above it: distances at its corners (00, 10, 01, 11) and its centre. */
export function facePart(
  f: EdgeField,
  [a, b, c, d]: readonly [number, number, number, number],
  centre: number,
  below: number,
  above: number,
): { part: number; tense: number } {
  let sum = 0;
  for (let n = 0; n < rows; n++) {
    const t = (n + 0.5) / rows;
    sum += meanAcross(f, a + t * (c - a), b + t * (d - b)) / rows;
  }
  const tense = tension(f, centre, below, above);
  return { part: sum / tense, tense };
}

/** Part by which an edge counts that stands on the plane, up to height z or down to it: distance and its slopes at its foot, widths of its dual face. */
export function postPart(f: EdgeField, foot: number, slopes: readonly [number, number], widths: readonly [number, number], z: number): number {
  const [a, b] = [Math.abs(slopes[0] * widths[0]), Math.abs(slopes[1] * widths[1])];
  let flux = 0;
  for (const g of spread) flux += meanUprightAcross(f, foot + Math.min(a, b) * g, Math.max(a, b), z / 2) / spread.length;
  return Math.min(mostOfEdge, ratio(meanUpright(f, foot, z), flux));
}

/** Part by which a face counts that stands on an edge of the plane, up to height z or down to it. */
export function sidePart(f: EdgeField, { ends: [d0, d1], middle, across, width }: EdgePlace, z: number): number {
  const share = across * across;
  if (share < flat) return 1;
  const flux = (meanUpright(f, d0, z) + 4 * meanUpright(f, middle, z) + meanUpright(f, d1, z)) / 6;
  const tensionAcross = meanUprightAcross(f, middle, Math.abs(across * width), z / 2);
  return 1 + share * (ratio(flux, tensionAcross) - 1);
}
