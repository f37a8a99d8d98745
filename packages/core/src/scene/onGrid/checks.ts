import { axes, type Point3, type Problem, problem, type Project } from '../../document/index.ts';
import { type Body, crossedIn } from '../../geometry/index.ts';
import { portKind, type SceneGuide, type ScenePort } from '../../ports/index.ts';
import type { PlacedRecorder } from '../../recorders/index.ts';
import type { Mirrors } from '../../yee/index.ts';
import { recorderOutside } from '../recorders.ts';
import { type PlacedSource, sourceFaults } from '../sources.ts';
import type { SceneRegion } from './region.ts';
import { periodFaults } from './symmetry.ts';

/** All of a project as it would stand on a grid, to be looked at. */
export interface OnGrid {
  project: Project;
  bodies: readonly Body[];
  ports: readonly ScenePort[];
  guides: readonly SceneGuide[];
  sources: readonly PlacedSource[];
  recorders: readonly PlacedRecorder[];
  margin: number;
  mirrors: Mirrors;
  /** The region around what it holds; the one that is computed, which ends at guided ports in several media; and that with its images. */
  around: SceneRegion;
  region: SceneRegion;
  whole: { min: Point3; max: Point3 };
}

type Check = (m: OnGrid) => Problem[];
const farField = ({ recorders }: OnGrid): boolean => recorders.some((r) => r.kind === 'far-field');

/** A wall on one side of an axis has an image, so a far field can be told; between two walls there is none. */
const closed: Check = (m) => {
  const { boundaries } = m.around;
  const shut = axes.some((_, a) => boundaries[2 * a + 1] !== 'open' && (boundaries[2 * a] !== 'open' || boundaries[2 * a + 1] === 'periodic'));
  return farField(m) && shut
    ? [
        problem(
          'error',
          'recorder.closed',
          { part: 'recorders' },
          'A far field needs an open boundary on at least one side of each axis.',
          'Open the boundaries, or remove the far field.',
        ),
      ]
    : [];
};

const sourcesAlone: Check = ({ sources, guides, around: { boundaries }, mirrors }) => [
  ...sourceFaults(sources, (s) => s.kind.onGrid?.(s.placed, { boundaries, symmetric: mirrors.some((m) => m) })),
  ...(sources.length && guides.length
    ? [
        problem(
          'error',
          'source.guided',
          { part: 'ports', name: sources[0].placed.name },
          `${sources[0].placed.name} excites the structure from without, which cannot be combined with guided ports yet.`,
          'Remove the guided ports, or the source.',
        ),
      ]
    : []),
];

const negativeMargin: Check = ({ margin }) =>
  margin < 0 ? [problem('error', 'value.not-positive', { part: 'boundaries', chip: 'margin' }, 'The margin is negative.', 'Give zero or more.')] : [];

/** Nothing feeds the model; where a port is there that could not be placed, that is told already. */
const unfed: Check = ({ project, ports, guides, sources }) =>
  !ports.some((p) => !p.load) &&
  !guides.length &&
  !sources.length &&
  project.ports.every((p) => portKind(p).role === 'load' || !portKind(p).solvers.includes('fdtd'))
    ? [problem('error', 'port.none', { part: 'ports' }, 'Nothing feeds the model.', 'Add a port under Feed.')]
    : [];

const cells: Check = ({ bodies, ports, guides, around }) => (bodies.length ? periodFaults(bodies, [...ports, ...guides], around) : []);

const farBesideGuide: Check = (m) => {
  const open = m.guides.find((g) => g.inhomogeneous && !g.ends);
  return open && farField(m)
    ? [
        problem(
          'warning',
          'recorder.port',
          { part: 'recorders' },
          `Behind the guided port ${open.name} the model goes on without end; the pattern is that of the part up to the port, less the wave in the guide.`,
          'Where the model ends at the port, as a board at its edge, say so at the port.',
        ),
      ]
    : [];
};

const outside: Check = ({ bodies, recorders, whole }) =>
  bodies.length ? recorders.flatMap((r) => recorderOutside(r, whole.min, whole.max) ?? []) : [];

const flat: Check = ({ bodies, region: { min, max } }) =>
  bodies.length && [0, 1, 2].some((a) => !(max[a] > min[a]))
    ? [
        problem(
          'error',
          'model.flat',
          { part: 'boundaries' },
          'The computed region has no extent along one axis.',
          'Give a margin above zero, or a body with height.',
        ),
      ]
    : [];

/** Modes are solved on a grid of their own, which cannot follow a sheet that crosses it at a slant. */
const tilted: Check = ({ bodies, guides }) =>
  guides.flatMap((g) =>
    bodies
      .filter((b) => b.shape.form === 'tilted sheet' && crossedIn(b.shape, g.normal, g.min, g.max).length)
      .map((b) =>
        problem(
          'error',
          'port.tilted-sheet',
          { part: 'ports', name: g.name },
          `${b.name}, a sheet that stands across none of the axes, crosses the guided port ${g.name}, whose modes cannot follow it.`,
          'Thicken the sheet to a solid, draw the port beside it, or feed it by a lumped port.',
        ),
      ),
  );

/** A port that refers to a complex impedance needs a run of every port. */
const reactances: Check = ({ project: { solve }, ports, guides, sources }) => {
  const unreal = ports.find((p) => p.reactance);
  const silent = solve.excite && [...ports, ...guides].some((p) => !('load' in p && p.load) && !solve.excite!.includes(p.name));
  if (!unreal || !(sources.length || silent)) return [];
  const [message, fix] = sources.length
    ? [
        'Where the structure is excited from without a port is a resistor, so it cannot have a reactance.',
        'Give it none, and place a lumped element beside it.',
      ]
    : [
        `${unreal.name} refers to a complex impedance, which takes a run of every port, but not all are excited.`,
        'Excite all ports, or give it no reactance.',
      ];
  return [problem('error', 'port.reactance', { part: 'ports', name: unreal.name, chip: 'reactance' }, message, fix)];
};

/** What is looked at in all of a model before its grid is made. */
const checks: readonly Check[] = [closed, sourcesAlone, negativeMargin, unfed, cells, farBesideGuide, outside, flat, tilted, reactances];

/** What stands in the way of a model on a grid. */
export const checkOnGrid = (m: OnGrid): Problem[] => checks.flatMap((check) => check(m));
