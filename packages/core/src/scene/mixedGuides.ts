import { type Boundary, type Place, type Point3, type Problem, problem } from '../document/index.ts';
import { type Body, isSheet, rowSpans } from '../geometry/index.ts';
import { permittivityAt } from '../materials/index.ts';
import type { SceneGuide } from '../ports/index.ts';

/** Points across a port, each way, at which its filling is looked at. */
const looks = 32;

/** Change of permittivity over the band from which on a port's modes are followed over it. */
const steady = 5e-3;

/**
 * Whether what fills a guided port just inside its plane, metal apart, is more than one medium, or one whose permittivity changes
 * over the band (hertz).
 */
export function seesSeveral(guide: SceneGuide, bodies: readonly Body[], [from, to]: readonly [number, number]): boolean {
  const { normal, into, min, max } = guide;
  const size = Math.min(...[0, 1, 2].filter((a) => a !== normal).map((a) => max[a] - min[a]));
  const solids = bodies.filter((b) => !isSheet(b)).sort((a, b) => a.order - b.order);
  const at: Point3 = [0, 0, 0];
  at[normal] = min[normal] + 1e-6 * size * into;
  const [u, v] = [0, 1, 2].filter((a) => a !== normal);
  const seen = new Set<string>();
  for (let i = 0; i < looks; i++)
    for (let j = 0; j < looks; j++) {
      at[u] = min[u] + ((max[u] - min[u]) * (i + 0.5)) / looks;
      at[v] = min[v] + ((max[v] - min[v]) * (j + 0.5)) / looks;
      const here = solids.findLast((b) => [0, 1, 2].every((a) => b.min[a] <= at[a] && b.max[a] >= at[a]) && within(b, at))?.material;
      if (here?.kind === 'conductor') continue;
      if (here?.dispersion) {
        const [low, high] = [from, to].map((f) => permittivityAt(here, f).re);
        if (!(Math.abs(high - low) < (steady * Math.abs(high + low)) / 2)) return true;
      }
      // Media that differ along the axes are several to a wave.
      if (here?.permittivityAlong && new Set(here.permittivityAlong).size > 1) return true;
      seen.add(here?.dispersion ? here.name : String(here?.permittivityAlong?.[0] ?? here?.permittivity ?? 1));
      if (seen.size > 1) return true;
    }
  return false;
}

function within(b: Body, [x, y, z]: Point3): boolean {
  const spans = rowSpans(b.shape as Parameters<typeof rowSpans>[0], y, z);
  for (let s = 0; s + 1 < spans.length; s += 2) if (x >= spans[s] && x <= spans[s + 1]) return true;
  return false;
}

/**
 * Ends the computed region at the planes of guided ports that see several media, where absorbing layers carry the guide on;
 * changes the region and its boundaries, and tells of ports that do not stand at an end of the model.
 */
export function endAtGuides(
  guides: readonly SceneGuide[],
  bodies: readonly Body[],
  others: readonly { name: string; min: Point3; max: Point3 }[],
  region: { min: Point3; max: Point3; boundaries: Boundary[] },
): Problem[] {
  const problems: Problem[] = [];
  for (const g of guides) {
    if (!g.mixed) continue;
    const a = g.normal;
    const place: Place = { part: 'ports', name: g.name };
    const plane = g.min[a];
    const slack = 1e-6 * (region.max[a] - region.min[a]);
    const behind = (p: { min: Point3; max: Point3 }): boolean => (g.into > 0 ? p.max[a] <= plane + slack : p.min[a] >= plane - slack);
    const hidden = [...bodies, ...others.filter((o) => o.name !== g.name)].find(behind);
    if (hidden)
      problems.push(
        problem(
          'error',
          'port.not-at-end',
          place,
          `The guided port sees several media, so the model ends at its plane, but ${hidden.name} lies behind it.`,
          'Move the port to the end of the model, let one medium fill the guide there, or feed it with a lumped port.',
        ),
      );
    region[g.into > 0 ? 'min' : 'max'][a] = plane;
    region.boundaries[2 * a + (g.into > 0 ? 0 : 1)] = 'open';
  }
  return problems;
}
