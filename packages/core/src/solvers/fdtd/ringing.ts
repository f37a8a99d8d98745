import { dielectricsOf } from '../../discretisation/media.ts';
import { fillOf } from '../../geometry/index.ts';
import { mediumAt } from '../../materials/index.ts';
import { steppingDefaults } from '../../methods/index.ts';
import type { Axis } from '../../numerics/axis.ts';
import { c0 } from '../../numerics/constants.ts';
import { sameMesh } from '../../numerics/tolerance.ts';
import { atFrequencies } from '../../recorders/index.ts';
import type { GridScene, SceneGuide } from '../../scene/index.ts';
import { leavesByGuides } from './annex.ts';
import { patchQuality } from './patchQuality.ts';

/**
 * Periods of the band's centre for which structures ring after the pulse, from the demo projects: open ones until their energy has
 * decayed to 1e-5 (4 to 33; lossy ones, and a body beside a dipole, hardly 1); those with guided ports until their waves can be carried on (23 to 100), and where
 * fields are recorded until what creeps at the cutoff of the guide has faded from these (67 to 164), as in closed walls.
 */
const ringing = { open: 13, ports: 45, fields: 105 };
/** Time in which what creeps at a cutoff comes to be told apart from the band, times how far the band begins above it: 0.4 to 0.6 of guides with and without an iris. */
const creeping = 0.5;
/** Most half waves across a tube that are looked at. */
const mostTubeModes = 8;

/** Part of the periods in which a patch alone would ring by its radiation that those of the demos do, which lose power in metal and board and through their port. */
const patchRings = 0.6;

/** Cutoffs of a guided port up to a frequency, about, hertz, lowest first: those of a tube of its rectangle filled as its middle; none where metal stands there, or several media. */
function cutoffsOf(scene: GridScene, { normal, into, min, max, inhomogeneous }: SceneGuide): number[] {
  const [u, v] = [0, 1, 2].filter((a) => a !== normal);
  const sides = [u, v].map((a) => max[a] - min[a]);
  const [x, y, z] = min.map((low, a) => [(low + max[a]) / 2 + (a === normal ? into * sameMesh * sides[0] : 0)]);
  const [mark] = fillOf(scene.bodies, x, y, z);
  const medium = mark ? dielectricsOf(scene, u as Axis)[mark - 1] : null;
  if (inhomogeneous || (mark && !medium)) return [];
  const index = Math.sqrt(medium ? Math.max(1, mediumAt(medium, scene.band.from).re) : 1);
  const half = sides.map((side) => c0 / (2 * index * side));
  const counts = half.map((f) => Math.min(mostTubeModes, Math.floor(scene.band.to / f)) + 1);
  const all = Array.from({ length: counts[0] * counts[1] }, (_, n) => [n % counts[0], Math.floor(n / counts[0])]);
  // TE of each pair but none, TM of each without a zero.
  return all
    .flatMap(([m, n]) => Array<number>(m && n ? 2 : m + n ? 1 : 0).fill(Math.hypot(m * half[0], n * half[1])))
    .filter((f) => f < scene.band.to)
    .sort((a, b) => a - b);
}

/** Periods of the band's centre for which a scene rings after its pulse, about. */
export function ringingPeriods(scene: GridScene): number {
  const { guides, boundaries, bodies, band, details } = scene;
  const centre = (band.from + band.to) / 2;
  if (leavesByGuides(guides)) {
    const tubes = guides.map((g) => cutoffsOf(scene, g));
    const creep = Math.max(0, ...tubes.flatMap((t) => (t[0] < band.from ? [(creeping * centre) / (band.from - t[0])] : [])));
    // Modes that no port takes up ring between the ports.
    const left = guides.some((g, n) => tubes[n].length > g.modes);
    // On lines nothing creeps that would have to fade from fields.
    const fields = tubes.some((t) => t.length) && scene.recordAt.length > 0 && scene.recorders.some(atFrequencies);
    return Math.max(fields || left ? ringing.fields : ringing.ports, creep);
  }
  if (!boundaries.includes('open')) return ringing.fields;
  const q = patchQuality(bodies, c0 / centre);
  return Math.max(ringing.open, (patchRings * q * Math.log(1 / (details.stopAt ?? steppingDefaults.stopAt))) / (2 * Math.PI));
}
