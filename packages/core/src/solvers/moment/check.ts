import { type Place, type Problem, problem } from '../../document/index.ts';
import { polylineOf, joinWithin, pointOn, toPiece, type WireMesh } from '../../grid/index.ts';
import { c0 } from '../../numerics/constants.ts';
import { type WiresScene, type WirePlace, type WireScene, wireLength } from '../../scene/index.ts';
import type { Machine, Plan } from '../solver.ts';
import { circuitOf, extraUnknowns } from './circuit.ts';
import { distanceOf } from './near.ts';
import { meshOf } from './solve.ts';
import { WireSystem } from './system.ts';
import type { WireEstimate } from '../../methods/index.ts';
import { sameNumber } from '../../numerics/tolerance.ts';

/** Radius over wavelength from which on a wire is no longer thin: currents around it begin to matter. */
const thickWire = 1 / 30;
/** Segments shorter than so many radii are told. */
const shortSegment = 1;
/** Angle between two wires at a node below which they run into each other, radians. */
const sharpAngle = Math.PI / 9;

const millimetres = (x: number): string => `${Number((1e3 * x).toPrecision(4))} mm`;
const line = (name: string): Place => ({ part: 'lines', name });

/** Frequencies that a sweep over a band is expected to solve. */
const expectedSolves = (scene: WiresScene, mesh: WireMesh): number => {
  const { from, to, points } = scene.band;
  if (scene.details.eachFrequency) return points + scene.recordAt.length;
  // Poles of the wires in the band: one for each half wavelength of the longest one, and a few for the ends.
  const longest = Math.max(...scene.wires.wires.map(wireLength));
  const poles = (2 * longest * (to - from)) / c0;
  return Math.min(points, Math.ceil(8 + 2 * poles + (mesh.count > 0 ? 0 : 1))) + scene.recordAt.length;
};

/** Seconds of one frequency on this machine, from its speed in the time domain: fill by pairs, factors by the cube. */
function secondsEach(mesh: WireMesh, unknowns: number, machine: Machine, earth: boolean): number {
  // On the reference machine 2 threads step 2.2e8 cells and do 7e9 flops, and 1.1e7 pairs, a second.
  const speed = machine.cellsPerSecond / 2.2e8;
  return ((8 / 3) * unknowns ** 3) / (7e9 * speed) + (mesh.count ** 2 * (earth ? 12 : 1)) / (1.1e7 * speed) + (earth ? 0.6 : 0.002);
}

/** Cost of a scene of wires: segments, unknowns, bytes, frequencies, seconds. */
function estimateScene(scene: WiresScene, mesh: WireMesh, machine: Machine): WireEstimate {
  const unknowns = mesh.bases + extraUnknowns(scene.wires);
  const frequencies = expectedSolves(scene, mesh);
  let longest = 0;
  for (let i = 0; i < mesh.count; i++) longest = Math.max(longest, mesh.segments[8 * i + 6]);
  return {
    solver: 'moment',
    segments: mesh.count,
    unknowns,
    bytes: WireSystem.bytes(mesh, unknowns - mesh.bases, machine.threads),
    frequencies,
    excitations: scene.source ? 1 : scene.wires.ports.filter((p) => !scene.excite || scene.excite.includes(p.name)).length,
    seconds: frequencies * secondsEach(mesh, unknowns, machine, scene.wires.ground?.kind === 'earth') + 0.3,
    segmentsPerWavelength: c0 / scene.band.to / longest,
  };
}

/** What a specialist would point out before the run, its segments and its cost. */
export function planScene(scene: WiresScene, machine: Machine): Plan<WireMesh, WireEstimate> {
  const wires = scene.wires;
  const rough = wires.wires.reduce((sum, w) => sum + wireLength(w), 0) / (c0 / scene.band.to / 16);
  const limit = Math.min(machine.memory, 2 ** 32 - 2 ** 24);
  if (rough ** 2 * 16 > limit)
    return {
      problems: [
        problem(
          'error',
          'machine.memory',
          { part: 'machine' },
          `The wires would need at least ${rough.toPrecision(3)} unknowns, ${((rough ** 2 * 16) / 1e9).toPrecision(3)} GB; ${(limit / 1e9).toPrecision(3)} GB can be used here.`,
          'Look for a dimension or a frequency with the wrong unit; otherwise take a coarser accuracy or a lower band.',
        ),
      ],
    };
  const found: Problem[] = [...inGround(wires), ...meetings(wires), ...selfCrossings(wires), ...thick(scene)];
  if (found.some((p) => p.severity === 'error')) return { problems: found };
  const mesh = meshOf(scene);
  const estimate = estimateScene(scene, mesh, machine);
  if (estimate.bytes > limit)
    found.push(
      problem(
        'error',
        'machine.memory',
        { part: 'machine' },
        `The model needs ${(estimate.bytes / 1e9).toPrecision(3)} GB for ${mesh.bases} unknowns; ${(limit / 1e9).toPrecision(3)} GB can be used here.`,
        'Take a coarser accuracy or a lower band.',
      ),
    );
  const problems = [...found, ...shortSegments(wires, mesh), ...sharpJoints(wires, mesh), ...emptyPlaces(wires, mesh)];
  return problems.some((p) => p.severity === 'error') ? { problems } : { problems, ready: { mesh, estimate } };
}

/** Wires under or along the ground. */
function inGround({ wires, ground }: WireScene): Problem[] {
  if (!ground) return [];
  return wires.flatMap((w) => {
    const lowest = Math.min(...w.points.map((p) => p[2]));
    const slack = 0.1 * w.radius;
    if (lowest < ground.at - slack)
      return [
        problem(
          'error',
          'wire.buried',
          line(w.line),
          `${w.name} reaches ${millimetres(ground.at - lowest)} into the ground at z = ${millimetres(ground.at)}.`,
          'Raise it, or lower the ground.',
        ),
      ];
    const { points } = polylineOf(w);
    const lying = points.findIndex((p, i) => i > 0 && Math.max(p[2], points[i - 1][2]) - ground.at < w.radius * (1 - sameNumber));
    if (lying > 0)
      return [
        problem(
          'error',
          'wire.on-ground',
          line(w.line),
          `${w.name} lies on the ground: its middle is lower than its radius.`,
          'Raise it by its radius or more; an upright wire can lead its end down.',
        ),
      ];
    if (ground.kind === 'earth' && lowest - ground.at < 2 * w.radius)
      return [
        problem(
          'error',
          'wire.earth-contact',
          line(w.line),
          `${w.name} ends in real earth, which this solver does not join to wires.`,
          'Lift its end by some radii, or take a perfect ground.',
        ),
      ];
    return [];
  });
}

/** Wires that cross, overlap or nearly touch. */
function meetings(scene: WireScene): Problem[] {
  const out: Problem[] = [];
  const within = joinWithin(scene);
  const courses = scene.wires.map(polylineOf);
  const bounds = courses.map(({ points }) => [0, 1, 2].map((a) => [Math.min(...points.map((p) => p[a])), Math.max(...points.map((p) => p[a]))]));
  const row = (a: readonly number[], b: readonly number[], radius: number): Float64Array => {
    const l = Math.hypot(b[0] - a[0], b[1] - a[1], b[2] - a[2]);
    return Float64Array.of(...a, ...b.map((x, i) => (x - a[i]) / l), l, radius);
  };
  scene.wires.forEach((w, n) => {
    for (let m = n + 1; m < scene.wires.length; m++) {
      const v = scene.wires[m];
      const touch = w.radius + v.radius;
      const reach = 2 * touch;
      if ([0, 1, 2].some((a) => bounds[n][a][0] > bounds[m][a][1] + reach || bounds[m][a][0] > bounds[n][a][1] + reach)) continue;
      const joint = jointOf(courses[n].points, courses[m].points, within);
      if (joint === 'overlap') {
        out.push(problem('error', 'wire.overlap', line(v.line), `${v.name} lies on ${w.name}.`, 'Remove one of them, or move it aside.'));
        continue;
      }
      const near = nearest(courses[n].points, courses[m].points, (a, b) => distanceOf(row(...a, w.radius), row(...b, v.radius)), joint);
      if (near >= reach || joint === 'joined') continue;
      if (near < touch)
        out.push(
          problem(
            'error',
            'wire.crossing',
            line(v.line),
            near <= within
              ? `${v.name} and ${w.name} cross without an end or a corner there, so they are not joined.`
              : `${v.name} and ${w.name} pass at ${millimetres(near)}, closer than their radii, but are not joined.`,
            'Let an end or a corner of one lie on the other to join them, or move them apart.',
          ),
        );
      else
        out.push(
          problem(
            'warning',
            'wire.nearly',
            line(v.line),
            `${v.name} and ${w.name} nearly touch: ${millimetres(near)} between their axes.`,
            'Let their ends meet exactly if they should be joined; so close, the current around them is not even.',
          ),
        );
    }
  });
  return out;
}

/** Wires that come back upon themselves: pieces closer than twice the radius that lie far apart along the wire. */
function selfCrossings(scene: WireScene): Problem[] {
  return scene.wires.flatMap((w) => {
    const { points, at } = polylineOf(w);
    const total = at[at.length - 1];
    const ends = (i: number): Float64Array => {
      const [a, b] = [points[i - 1], points[i]];
      const l = Math.hypot(b[0] - a[0], b[1] - a[1], b[2] - a[2]);
      return Float64Array.of(...a, ...b.map((x, c) => (x - a[c]) / l), l, w.radius);
    };
    const rows = points.slice(1).map((_, i) => ends(i + 1));
    for (let i = 0; i < rows.length; i++)
      for (let j = i + 2; j < rows.length; j++) {
        // Along the wire, the shorter way round where it is closed.
        const way = Math.min(at[j] - at[i + 1], w.closed ? total - at[j + 1] + at[i] : Infinity);
        if (way < 6 * w.radius || distanceOf(rows[i], rows[j]) >= 2 * w.radius) continue;
        const [x, y, z] = points[j].map(millimetres);
        return [
          problem(
            'error',
            'wire.self-crossing',
            line(w.line),
            `${w.name} comes back upon itself near ${x}, ${y}, ${z}, where it is not joined.`,
            'Move its points apart, or build it of two wires whose ends meet there.',
          ),
        ];
      }
    return [];
  });
}

type Points = readonly (readonly [number, number, number])[];

/** How two courses meet: at an end or corner of either, along a stretch, or nowhere. */
function jointOf(a: Points, b: Points, within: number): 'joined' | 'overlap' | null {
  const on = (p: Points[0], path: Points): boolean =>
    path.some(
      (_, i) =>
        i > 0 &&
        toPiece(p as [number, number, number], path[i - 1] as [number, number, number], path[i] as [number, number, number]).distance <= within,
    );
  const found: Points[0][] = [...a.filter((p) => on(p, b)), ...b.filter((p) => on(p, a))];
  const places = new Set(found.map((p) => p.map((x) => Math.round(x / (4 * within))).join()));
  if (!found.length) return null;
  // Two places in common with all that is between them make a stretch.
  if (places.size > 1)
    for (let i = 0; i < found.length; i++)
      for (let j = i + 1; j < found.length; j++) {
        const [p, q] = [found[i], found[j]];
        if (Math.hypot(p[0] - q[0], p[1] - q[1], p[2] - q[2]) <= 8 * within) continue;
        const mid = p.map((x, c) => (x + q[c]) / 2) as [number, number, number];
        if (on(mid, a) && on(mid, b)) return 'overlap';
      }
  return 'joined';
}

function nearest(a: Points, b: Points, distance: (p: [Points[0], Points[0]], q: [Points[0], Points[0]]) => number, joint: string | null): number {
  if (joint === 'joined') return 0;
  let least = Infinity;
  for (let i = 1; i < a.length; i++) for (let j = 1; j < b.length; j++) least = Math.min(least, distance([a[i - 1], a[i]], [b[j - 1], b[j]]));
  return least;
}

/** Wires that are not thin against the wavelength. */
function thick({ wires, band }: WiresScene): Problem[] {
  const limit = (c0 / band.to) * thickWire;
  return wires.wires
    .filter((w) => w.radius > limit)
    .map((w) =>
      problem(
        'warning',
        'wire.thick',
        line(w.line),
        `${w.name} has a radius of ${millimetres(w.radius)}, more than a thirtieth of the shortest wavelength: it is no thin wire there.`,
        'Take the time-domain solver, or a lower band.',
      ),
    );
}

/** Segments that are shorter than a wire is thick. */
function shortSegments({ wires }: WireScene, mesh: WireMesh): Problem[] {
  return wires.flatMap((w, n) => {
    let least = Infinity;
    for (let i = mesh.firstOf[n]; i < mesh.firstOf[n + 1]; i++) least = Math.min(least, mesh.segments[8 * i + 6]);
    if (least >= shortSegment * w.radius) return [];
    return [
      problem(
        'warning',
        'wire.short',
        line(w.line),
        `A piece of ${w.name} is only ${millimetres(least)} long, shorter than its radius of ${millimetres(w.radius)}: between a bend, a joint, a feed and an end the wire rule fails.`,
        'Make the wire thinner, or move what stands so close together apart.',
      ),
    ];
  });
}

/** Wires that leave a node almost side by side. */
function sharpJoints({ wires }: WireScene, mesh: WireMesh): Problem[] {
  const at: [segment: number, end: number][][] = Array.from({ length: mesh.nodeCount }, () => []);
  for (let i = 0; i < mesh.nodes.length; i++) at[mesh.nodes[i]].push([i >> 1, i & 1]);
  const told = new Set<string>();
  for (const list of at)
    for (let i = 0; i < list.length; i++)
      for (let j = i + 1; j < list.length; j++) {
        const [[s, e], [t, f]] = [list[i], list[j]];
        const dot = [3, 4, 5].reduce((sum, c) => sum + mesh.segments[8 * s + c] * mesh.segments[8 * t + c], 0) * (e ? -1 : 1) * (f ? -1 : 1);
        if (dot > Math.cos(sharpAngle)) told.add(`${mesh.wireOf[s]} ${mesh.wireOf[t]}`);
      }
  return [...told].map((pair) => {
    const [a, b] = pair.split(' ').map((n) => wires[Number(n)]);
    return problem(
      'warning',
      'wire.sharp',
      line(b.line),
      a === b ? `${a.name} turns back on itself by less than 20 deg.` : `${a.name} and ${b.name} meet at less than 20 deg.`,
      'Near the joint they run inside each other, which thin wires cannot tell: open the angle or round the bend.',
    );
  });
}

/** What is placed where no current can flow. */
function emptyPlaces(scene: WireScene, mesh: WireMesh): Problem[] {
  const circuit = circuitOf(scene, mesh);
  const what = (p: WirePlace): string => {
    const path = polylineOf(scene.wires[p.wire]);
    const [x, y, z] = pointOn(path, p.at).map(millimetres);
    return `${x}, ${y}, ${z}`;
  };
  const empty = (name: string, kind: string, place: WirePlace, chip: string): Problem =>
    problem(
      'error',
      'wire.free-end',
      { part: 'ports', name, chip },
      `${kind} ${name} stands at the free end of ${scene.wires[place.wire].name}, ${what(place)}, where no current flows.`,
      'Move it along the wire, or let the end touch another wire or a perfect ground.',
    );
  return [
    ...scene.ports.flatMap((p, i) => (circuit.ports[i].length ? [] : [empty(p.name, 'Port', p.place, 'at')])),
    ...scene.loads.flatMap((p, i) => (circuit.loads[i].length ? [] : [empty(p.name, 'Load', p.place, 'at')])),
    ...scene.lines.flatMap((p, i) => circuit.lines[i].flatMap((c, k) => (c.length ? [] : [empty(p.name, 'Line', p.places[k], `at.${k}`)]))),
  ];
}
