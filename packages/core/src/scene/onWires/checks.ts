import { type Problem, problem, type Project } from '../../document/index.ts';
import type { WireScene } from '../../ports/index.ts';
import type { PlacedRecorder } from '../../recorders/index.ts';
import { type PlacedSource, sourceFaults } from '../sources.ts';

/** All of a project as it would stand in wires, to be looked at. */
export interface OnWires {
  project: Project;
  wires: WireScene;
  sources: readonly PlacedSource[];
  recorders: readonly PlacedRecorder[];
  /** Names of the ports to excite; null: all. */
  excited: readonly string[] | null;
}

type Check = (m: OnWires) => Problem[];

const unfed: Check = ({ wires: { ports }, sources, excited }) => [
  ...(!ports.length && !sources.length
    ? [
        problem(
          'error',
          'port.none',
          { part: 'ports' },
          'Nothing feeds the wires.',
          'Add a port in a wire, or a source such as a plane wave, under Feed.',
        ),
      ]
    : []),
  ...(excited && !sources.length && !excited.length
    ? [problem('error', 'port.none', { part: 'ports' }, 'No port is excited.', 'Choose one under Feed.')]
    : []),
];

const symmetry: Check = ({ project }) =>
  project.symmetry
    ? [
        problem(
          'warning',
          'boundary.symmetry',
          { part: 'boundaries' },
          'The solver of wires computes the whole structure: planes of symmetry are left out.',
          'Draw the whole, not a half.',
        ),
      ]
    : [];

/** Ports, loads and probes are told apart by their names in the results. */
const names: Check = ({ wires: { ports, loads, probes } }) => {
  const all = [...ports, ...loads, ...probes].map((p) => p.name);
  return all
    .filter((n, i) => all.indexOf(n) !== i)
    .map((name) =>
      problem(
        'error',
        'probe.name',
        { part: 'recorders', name },
        `${name} is the name of a port and of a recorder.`,
        'Give one of them another name.',
      ),
    );
};

const sourcesAlone: Check = ({ wires: { wires, ground }, sources }) => sourceFaults(sources, (s) => s.kind.onWires?.(s.placed, { wires, ground }));

const overEarth: Check = ({ wires: { ground }, recorders }) =>
  ground?.kind === 'earth'
    ? recorders
        .filter((r) => r.kind !== 'far-field')
        .map((r) =>
          problem(
            'warning',
            'recorder.over-earth',
            { part: 'recorders', name: r.name },
            `${r.name} is left out: over real earth far fields, currents and voltages are told, but no fields close by.`,
            'Remove it, or take a perfect ground.',
          ),
        )
    : [];

/** What is looked at in all wires before they are cut into segments. */
const checks: readonly Check[] = [unfed, symmetry, names, sourcesAlone, overEarth];

/** What stands in the way of a scene of wires, and what it leaves out. */
export const checkOnWires = (m: OnWires): Problem[] => checks.flatMap((check) => check(m));
