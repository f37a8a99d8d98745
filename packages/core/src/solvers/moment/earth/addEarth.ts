import type { NearList } from '../near.ts';
import { endsOf, type WireSystem } from '../system.ts';
import { type Earth, EarthPairs } from './pairs.ts';

/**
 * Adds to a filled system what real earth sends back at a frequency, Hz: images at rest, whose static parts for close pairs are in `near`, and what the
 * table tells beyond them, exactly by Sommerfeld's integrals.
 */
export function addEarth(system: WireSystem, earth: Earth, near: NearList, frequency: number): void {
  const { mesh } = system;
  const { segments, count } = mesh;
  const pairs = new EarthPairs(mesh, earth, frequency);
  const { sums, vector, scalar } = pairs;
  const ends = endsOf(mesh);
  for (let i = 0; i < count; i++) {
    let entry = near.first[i];
    const last = near.first[i + 1];
    for (let j = 0; j < count; j++) {
      const close = entry < last && near.source[entry] === j ? near.pairs[entry++] : null;
      if (j < i) continue;
      pairs.sum(i, j, close ? close.rho2 : null);
      if (close) pairs.addStatic(i, j, close.integrals);
      scatter(i, j);
      if (i !== j) scatter(j, i, true);
    }
  }

  /** Adds a pair's sums to the bases of both segments; `turned`: they were taken with the segments exchanged. */
  function scatter(i: number, j: number, turned = false): void {
    for (let e = 0; e < 2; e++)
      for (let f = 0; f < 2; f++) {
        const n = turned ? 2 * f + e : 2 * e + f;
        const slope = (scalar * (e === f ? 1 : -1)) / (segments[8 * i + 6] * segments[8 * j + 6]);
        // j vector V - j slope S
        const re = -vector * sums[2 * n + 1] + slope * sums[9];
        const im = vector * sums[2 * n] - slope * sums[8];
        for (let p = ends.first[2 * i + e]; p < ends.first[2 * i + e + 1]; p++)
          for (let q = ends.first[2 * j + f]; q < ends.first[2 * j + f + 1]; q++) {
            const sign = ends.list[p][1] * ends.list[q][1];
            system.add(ends.list[p][0], ends.list[q][0], sign * re, sign * im);
          }
      }
  }
}
