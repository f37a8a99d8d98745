import { type Place, type Point3, type Problem, problem } from '../../document/index.ts';
import { type Body, Filling } from '../../geometry/index.ts';
import { permittivityAt } from '../../materials/index.ts';
import type { SceneGuide } from '../../ports/index.ts';
import type { SceneRegion } from './region.ts';
import { sameMesh } from '../../numerics/tolerance.ts';

/** Points across a port, each way, at which its filling is looked at beside those between flat faces, as bodies may be curved. */
const looks = 32;
/** Flat faces of a body on one axis beyond which they are not followed one by one. */
const mostFaces = 200;
/** Of a port's size: thinner than this is what rounding leaves. */
const sliver = sameMesh;

/** Change of permittivity over the band from which on a port's modes are followed over it. */
const steady = 5e-3;

/** Bodies that a guided port sees just inside its plane, null for empty space: in every stretch between flat faces, and at points of its own. */
export function seenBy({ normal, into, min, max }: SceneGuide, bodies: readonly Body[]): Set<Body | null> {
  const size = Math.min(...[0, 1, 2].filter((a) => a !== normal).map((a) => max[a] - min[a]));
  const inside = min[normal] + sliver * size * into;
  const [xs, ys, zs] = ([0, 1, 2] as const).map((a) => {
    if (a === normal) return Float64Array.of(inside);
    const span = max[a] - min[a];
    const faces = bodies.flatMap((b) => [b.min[a], b.max[a], ...(b.planes[a].length <= mostFaces ? b.planes[a] : [])]);
    const ends = [min[a], ...faces.filter((x) => x > min[a] && x < max[a]), max[a]].sort((p, q) => p - q);
    const between = ends.slice(1).flatMap((x, i) => (x - ends[i] > sliver * span ? [(x + ends[i]) / 2] : []));
    return Float64Array.from([...between, ...Array.from({ length: looks }, (_, i) => min[a] + (span * (i + 0.5)) / looks)]).sort();
  });
  const filling = new Filling(bodies);
  const row = new Uint16Array(xs.length);
  const marks = new Set<number>();
  for (const y of ys)
    for (const z of zs) {
      filling.row(y, z, xs, row);
      for (const m of row) marks.add(m);
    }
  return new Set([...marks].map((m) => (m ? bodies[m - 1] : null)));
}

/**
 * Whether what fills a guided port just inside its plane, metal apart, is more than one medium, or one whose permittivity changes
 * over the band (hertz).
 */
export function isInhomogeneous(guide: SceneGuide, bodies: readonly Body[], [from, to]: readonly [number, number]): boolean {
  const seen = new Set<string>();
  for (const body of seenBy(guide, bodies)) {
    const here = body?.material;
    if (here?.kind === 'conductor') continue;
    if (here?.dispersion) {
      const [low, high] = [from, to].map((f) => permittivityAt(here, f).re);
      if (!(Math.abs(high - low) < (steady * Math.abs(high + low)) / 2)) return true;
    }
    // Media that differ along the axes are several to a wave.
    if (here?.permittivityAlong && new Set(here.permittivityAlong).size > 1) return true;
    seen.add(here?.dispersion ? here.name : String(here?.permittivityAlong?.[0] ?? here?.permittivity ?? 1));
  }
  return seen.size > 1;
}

/**
 * The region that ends at the planes of guided ports which see several media and behind which the model goes on: absorbing layers carry the guide on there. Tells of ports
 * that do not stand at an end of the model, and of those that want an end of it where there is none.
 */
export function endAtGuides(
  guides: readonly SceneGuide[],
  bodies: readonly Body[],
  others: readonly { name: string; min: Point3; max: Point3 }[],
  around: SceneRegion,
): { region: SceneRegion; problems: Problem[] } {
  const problems: Problem[] = [];
  const region = { min: [...around.min] as Point3, max: [...around.max] as Point3, boundaries: [...around.boundaries] };
  for (const g of guides) {
    if (!g.inhomogeneous) continue;
    const a = g.normal;
    const place: Place = { part: 'ports', name: g.name };
    const plane = g.min[a];
    const slack = sameMesh * (region.max[a] - region.min[a]);
    if (g.ends) {
      const side = g.into > 0 ? around.min[a] : around.max[a];
      if (g.into > 0 ? plane > side + slack : plane < side - slack) continue;
      problems.push(
        problem(
          'error',
          'port.no-back',
          { ...place, chip: 'behind' },
          `The guided port stands on the side of the computed region, so that there is no room for its metal back.`,
          'Let the model go on behind it, or open that side with a margin.',
        ),
      );
      continue;
    }
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
  return { region, problems };
}
