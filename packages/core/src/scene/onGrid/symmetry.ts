import { axes, type Place, type Point3, type Problem, problem, type Project } from '../../document/index.ts';
import { type Body, touches } from '../../geometry/index.ts';
import type { SceneGuide, ScenePort } from '../../ports/index.ts';
import { imageOf, type Mirror, type Mirrors } from '../../yee/index.ts';
import { apply } from '../../numerics/affine.ts';
import { sameMesh, sameNumber } from '../../numerics/tolerance.ts';

/** Planes of symmetry as the document has them, with their place in metres. */
export function resolveSymmetry(project: Project, value: (text: string, place: Place) => number): Mirrors {
  return axes.map((a) => {
    const entry = project.symmetry?.[a];
    return entry ? { wall: entry.wall, at: value(entry.at, { part: 'boundaries', chip: `symmetry.${a}.at` }) } : null;
  }) as unknown as Mirrors;
}

/** Points a body is looked at, along each axis, and the part of them that a faceted surface may put on the wrong side. */
const looks = 7;
const facets = 0.03;

/** Whether the image of a sheet's outline lies on another body. */
function imaged(b: Body, o: Body, m: Mirror, axis: number): boolean {
  if (b.shape.form !== 'tilted sheet') return false;
  const { frame, loops } = b.shape;
  const tolerance = sameMesh * Math.max(...b.max.map((x, a) => x - b.min[a]));
  return loops.flat().every(([u, v]) => touches(o.shape, apply(frame, [u, v, 0]).map((x, a) => (a === axis ? 2 * m.at - x : x)) as Point3, tolerance)); // prettier-ignore
}

/** Whether a body and the image of another fill the same points. */
function alike(b: Body, o: Body, m: Mirror, axis: number): boolean {
  if (b.shape.form === 'tilted sheet' || o.shape.form === 'tilted sheet') return imaged(b, o, m, axis) && imaged(o, b, m, axis);
  let off = 0;
  let count = 0;
  const tolerance = sameNumber * Math.max(...b.max.map((x, a) => x - b.min[a]));
  for (let n = 0; n < looks ** 3; n++) {
    const p = [0, 1, 2].map((a) => b.min[a] + ((b.max[a] - b.min[a]) * ((Math.floor(n / looks ** a) % looks) + 0.47)) / looks) as Point3;
    const image = p.map((x, a) => (a === axis ? 2 * m.at - x : x)) as Point3;
    count++;
    if (touches(b.shape, p, tolerance) !== touches(o.shape, image, tolerance)) off++;
  }
  return off <= facets * count;
}

/** Bodies that have no like on the other side of a plane of symmetry: told with their line. Compares materials, extents and what points they fill. */
export function unlikeBodies(bodies: readonly Body[], mirrors: Mirrors): Problem[] {
  return mirrors.flatMap((m, a) => {
    if (!m) return [];
    const size = Math.max(...bodies.map((b) => b.max[a])) - Math.min(...bodies.map((b) => b.min[a]));
    const near = (p: number, q: number): boolean => Math.abs(p - q) <= sameMesh * size;
    const odd = bodies.find((b) => {
      const [from, to] = imageOf(m, [b.min[a], b.max[a]]);
      return !bodies.some(
        (o) =>
          o.material.name === b.material.name &&
          [0, 1, 2].every((c) => (c === a ? near(o.min[a], from) && near(o.max[a], to) : near(o.min[c], b.min[c]) && near(o.max[c], b.max[c]))) &&
          alike(b, o, m, a),
      );
    });
    return odd
      ? [
          problem(
            'error',
            'symmetry.broken',
            { part: 'boundaries', chip: `symmetry.${axes[a]}.at` },
            `${odd.name} has no like on the other side of the plane of symmetry across ${axes[a]}.`,
            'Move the plane to the middle of the structure, or remove the symmetry.',
          ),
        ]
      : [];
  });
}

type Halved<T> = { kept: T | null } | { problem: Problem };

const told = (place: Place, message: string, fix: string): { problem: Problem } => ({
  problem: problem('error', 'symmetry.port', place, message, fix),
});

/**
 * The part of a lumped port in the half that is computed: `halved` tells the axes on which a plane of symmetry cuts it. Elements
 * on the other side are left out, those on this side have images; a port must lie on the plane.
 */
export function halvePort(port: ScenePort, mirrors: Mirrors): Halved<ScenePort> {
  const place: Place = { part: 'ports', name: port.name };
  const out: ScenePort = { ...port, min: [...port.min], max: [...port.max], halved: [false, false, false], images: 1 };
  for (const [a, m] of mirrors.entries()) {
    if (!m) continue;
    const [from, to] = [port.min[a], port.max[a]];
    const slack = sameMesh * Math.max(...port.max.map((x, i) => x - port.min[i]));
    const middle = Math.abs((from + to) / 2 - m.at) <= slack;
    if (middle && to - from <= slack) {
      if (m.wall === 'electric')
        return told(
          place,
          `The port ${port.name} lies in a plane of electric symmetry, which shorts it.`,
          'Take a magnetic plane, or remove the symmetry.',
        );
      continue;
    }
    if (middle) {
      if ((m.wall === 'electric') !== (a === port.axis))
        return told(
          place,
          `The voltage of the port ${port.name} runs ${a === port.axis ? 'across' : 'along'} the plane of symmetry, which its wall does not allow.`,
          `Take ${a === port.axis ? 'an electric' : 'a magnetic'} plane across ${axes[a]}.`,
        );
      out.min[a] = m.at;
      out.halved![a] = true;
      continue;
    }
    if (from < m.at - slack && to > m.at + slack)
      return told(
        place,
        `The plane of symmetry across ${axes[a]} does not cut ${port.name} in the middle.`,
        'Move the plane or the port, or remove the symmetry.',
      );
    if (!port.load)
      return told(
        place,
        `The port ${port.name} has an image behind the plane of symmetry across ${axes[a]}, which would be excited with it.`,
        'Remove the symmetry, or put the port on the plane.',
      );
    if (to <= m.at + slack) return { kept: null };
    out.images! *= 2;
  }
  return { kept: out };
}

/** The part of a guided port in the half that is computed; `images` tells how many such parts the whole port has. */
export function halveGuide(guide: SceneGuide, mirrors: Mirrors): Halved<SceneGuide> {
  const place: Place = { part: 'ports', name: guide.name };
  const out: SceneGuide = { ...guide, min: [...guide.min], max: [...guide.max], images: 1, wholeImpedance: 1, halved: [false, false, false] };
  for (const [a, m] of mirrors.entries()) {
    if (!m) continue;
    const slack = sameMesh * Math.max(...guide.max.map((x, i) => x - guide.min[i]));
    if (a === guide.normal || Math.abs((guide.min[a] + guide.max[a]) / 2 - m.at) > slack)
      return told(
        place,
        `The plane of symmetry across ${axes[a]} does not cut ${guide.name} in the middle, so the port has an image behind it that would be excited with it.`,
        'Move the plane or the port, or remove the symmetry.',
      );
    out.min[a] = m.at;
    out.images! *= 2;
    out.halved![a] = true;
    // Behind an electric wall stands the other conductor, with the voltage turned; behind a magnetic one the other half of the current.
    out.wholeImpedance! *= m.wall === 'electric' ? 2 : 0.5;
  }
  return { kept: out };
}

/**
 * What cannot go on periodically across an axis: bodies that reach one side but not the other in like manner, and ports on a side.
 * `region` is the computed one.
 */
export function periodFaults(
  bodies: readonly Body[],
  ports: readonly (ScenePort | SceneGuide)[],
  region: { min: Point3; max: Point3; boundaries: readonly string[] },
): Problem[] {
  return axes.flatMap((name, a): Problem[] => {
    if (region.boundaries[2 * a] !== 'periodic') return [];
    const [low, high] = [region.min[a], region.max[a]];
    const slack = sameMesh * (high - low);
    const others = [0, 1, 2].filter((c) => c !== a);
    const reaches = (b: { min: Point3; max: Point3 }, side: number): boolean => (side ? b.max[a] >= high - slack : b.min[a] <= low + slack);
    const sameAcross = (b: Body, o: Body): boolean =>
      o.material.name === b.material.name && others.every((c) => Math.abs(o.min[c] - b.min[c]) <= slack && Math.abs(o.max[c] - b.max[c]) <= slack);
    const odd = bodies.find((b) => [0, 1].some((side) => reaches(b, side) && !bodies.some((o) => reaches(o, 1 - side) && sameAcross(b, o))));
    const port = ports.find((p) => [0, 1].some((side) => reaches(p, side)));
    return [
      ...(odd
        ? [
            problem(
              'error',
              'period.broken',
              { part: 'boundaries' },
              `${odd.name} reaches one periodic side across ${name}, but nothing like it the other, so the cells would not fit together.`,
              'Let it reach both sides, or end before them.',
            ),
          ]
        : []),
      ...(port
        ? [
            problem(
              'error',
              'port.periodic',
              { part: 'ports', name: port.name },
              `The port ${port.name} reaches a periodic side across ${name}.`,
              'Move it into the cell, or take electric or magnetic walls where the symmetry allows them.',
            ),
          ]
        : []),
    ];
  });
}
