import type { CrossSection } from 'manifold-3d';
import { type Point2, signedArea } from '../shapes/index.ts';
import type { Kernel } from './kernel.ts';

/** Closed outlines of one plane; inside by the even-odd rule. */
export type Loops = Point2[][];

/**
 * Works on outlines with the kernel's cross-sections. These keep eight decimals, so outlines are brought to unit size first,
 * and coordinates that were in the input come back exactly.
 */
function onUnit(kernel: Kernel, inputs: readonly Loops[], work: (sections: CrossSection[], scale: number) => CrossSection): Loops {
  const all = inputs.flat(2);
  if (!all.length) return [];
  const low: Point2 = [Infinity, Infinity];
  const high: Point2 = [-Infinity, -Infinity];
  for (const p of all)
    for (const a of [0, 1]) {
      low[a] = Math.min(low[a], p[a]);
      high[a] = Math.max(high[a], p[a]);
    }
  const extent = Math.max(high[0] - low[0], high[1] - low[1], 1e-300);
  const shift: Point2 = [(low[0] + high[0]) / 2, (low[1] + high[1]) / 2];
  const sections = inputs.map(
    (loops) =>
      new kernel.CrossSection(
        loops.map((l) => l.map((p): Point2 => [(p[0] - shift[0]) / extent, (p[1] - shift[1]) / extent])),
        'EvenOdd',
      ),
  );
  const result = work(sections, extent);
  const raw = result.toPolygons();
  for (const s of new Set([...sections, result])) s.delete();
  const known = [0, 1].map((a) => [...new Set(all.map((p) => p[a]))].sort((x, y) => x - y));
  const back = (v: number, a: number): number => {
    const x = v * extent + shift[a];
    const near = nearest(known[a], x);
    return Math.abs(near - x) < 3e-8 * extent ? near : x;
  };
  return raw
    .map((loop) => loop.map((p): Point2 => [back(p[0], 0), back(p[1], 1)]))
    .filter((l) => l.length > 2 && Math.abs(signedArea(l)) > 1e-14 * extent * extent);
}

function nearest(sorted: readonly number[], x: number): number {
  let lo = 0;
  let hi = sorted.length - 1;
  while (lo < hi) {
    const mid = (lo + hi) >> 1;
    if (sorted[mid] < x) lo = mid + 1;
    else hi = mid;
  }
  return lo > 0 && x - sorted[lo - 1] < sorted[lo] - x ? sorted[lo - 1] : sorted[lo];
}

/** Outlines in a standard form: outer ones counter-clockwise, holes clockwise, nothing crossing. */
export const tidyLoops = (kernel: Kernel, loops: Loops): Loops => onUnit(kernel, [loops], ([s]) => s);
/** The same for strips that overlap themselves: what any of them covers. */
export const unionLoops = (kernel: Kernel, pieces: readonly Loops[]): Loops => onUnit(kernel, pieces, (s) => kernel.CrossSection.union(s));
/** Outlines less others; metres. */
export const cutLoops = (kernel: Kernel, from: Loops, tools: readonly Loops[]): Loops =>
  onUnit(kernel, [from, ...tools], ([f, ...t]) => kernel.CrossSection.difference([f, ...t]));
/** What outlines have in common; metres. */
export const commonLoops = (kernel: Kernel, parts: readonly Loops[]): Loops => onUnit(kernel, parts, (s) => kernel.CrossSection.intersection(s));
/** Moves outlines outwards by `by` metres. */
export const offsetLoops = (kernel: Kernel, loops: Loops, by: number, corners: 'sharp' | 'round'): Loops =>
  onUnit(kernel, [loops], ([s], scale) => s.offset(by / scale, corners === 'round' ? 'Round' : 'Miter', 4, 64));
