import { type Problem, problem } from '../../document/index.ts';
import { detailsFor } from '../../methods/index.ts';
import { placePort, portKind, type SceneGuide, type ScenePort } from '../../ports/index.ts';
import type { Mirrors } from '../../yee/index.ts';
import { withFrequencies } from '../band.ts';
import { type Located, mirrorRecorder, placeRecorder } from '../recorders.ts';
import type { Built, Resolving } from '../resolving.ts';
import type { PlacedSource } from '../sources.ts';
import type { GridScene } from '../types.ts';
import { checkOnGrid } from './checks.ts';
import { resolveCombination } from './combination.ts';
import { solvableBodies } from './materials.ts';
import { endAtGuides, isInhomogeneous } from './portFilling.ts';
import { boundariesOf, marginOf, magneticSides, regionAround, unpaired, wholeOf } from './region.ts';
import { halveGuide, halvePort, resolveSymmetry, unlikeBodies } from './symmetry.ts';

/** What is kept of a thing that planes of symmetry cut; what stands against it is told. */
function kept<T>(half: { kept: T | null } | { problem: Problem }, problems: Problem[]): T[] {
  if ('problem' in half) problems.push(half.problem);
  else if (half.kept) return [half.kept];
  return [];
}

/** The ports, guided ports and sources of a project in their places, the half of each that is computed. `mirrors` is null where nothing is to be cut. */
function placePorts({ project, scope, bodies, problems }: Resolving, mirrors: Mirrors | null) {
  const ports: ScenePort[] = [];
  const guides: SceneGuide[] = [];
  const sources: PlacedSource[] = [];
  for (const [order, port] of project.ports.entries()) {
    if (!portKind(port).solvers.includes('fdtd')) {
      problems.push(
        problem(
          'warning',
          'port.on-wire',
          { part: 'ports', name: port.name },
          `${port.name} stands in a wire, which only the solver of wires takes; this one leaves it out.`,
          'Choose the solver of wires under Solve, or feed by a port across a gap.',
        ),
      );
      continue;
    }
    const found = placePort(port, scope, { order, bodies, wires: [] }, problems);
    if (found?.family === 'source') sources.push({ kind: portKind(port), placed: found.placed });
    else if (found?.family === 'lumped') ports.push(...kept(mirrors ? halvePort(found.placed, mirrors) : { kept: found.placed }, problems));
    else if (found?.family === 'guided') guides.push(...kept(mirrors ? halveGuide(found.placed, mirrors) : { kept: found.placed }, problems));
  }
  return { ports, guides, sources };
}

/** The recorders of a project in their places, the half of each that is computed. */
function placeRecorders({ project, scope, bodies, problems }: Resolving, mirrors: Mirrors | null): Located[] {
  return project.recorders.flatMap((recorder) => {
    const result = placeRecorder(recorder, scope, bodies);
    if ('problems' in result) {
      problems.push(...result.problems);
      return [];
    }
    const half = mirrors ? mirrorRecorder(result.recorder, mirrors) : { kept: result.recorder };
    return kept(half, problems).map((r) => ({ ...result, recorder: r }));
  });
}

/** The scene of a project for a solver on a grid. */
export function buildOnGrid(resolving: Resolving): Built {
  const { project, bodies, value, band, problems } = resolving;
  const { from, to } = band;
  const { solve } = project;

  const before = problems.length;
  const mirrors = resolveSymmetry(project, (text, place) => value(text, 'length', place));
  const symmetric = mirrors.some((m) => m);
  if (symmetric && bodies.length) problems.push(...unlikeBodies(bodies, mirrors));
  const cut = symmetric && problems.length === before ? mirrors : null;

  const placed = placePorts(resolving, cut);
  const { ports, sources } = placed;
  const { recorders, recordAt } = withFrequencies(placeRecorders(resolving, cut), band, problems);

  const boundaries = boundariesOf(project, mirrors);
  problems.push(...unpaired(boundaries, mirrors));
  const margin = marginOf(project, band, sources, value);
  const around = regionAround({ bodies, ...placed }, boundaries, margin, mirrors);
  const guides = placed.guides.map((g): SceneGuide => {
    const bounded = { ...g, ...magneticSides(g, around) };
    if (isInhomogeneous(bounded, bodies, [from, to])) return { ...bounded, inhomogeneous: true };
    // In one medium a mode goes on in a line of its own, and metal stands behind the port in any case.
    return { ...bounded, ends: undefined };
  });
  const { region, problems: atGuides } = endAtGuides(guides, bodies, [...ports, ...guides], around);
  const whole = wholeOf(region, mirrors);
  const solved = solvableBodies(bodies, [from, to]);
  problems.push(
    ...atGuides,
    ...checkOnGrid({ project, bodies, ports, guides, sources, recorders, margin, mirrors, around, region, whole }),
    ...solved.problems,
  );

  const combine = resolveCombination(project, [...ports, ...guides], value, problems);
  const { smallestCell, ...details } = detailsFor('fdtd', solve.details);
  const source = sources[0]?.placed ?? null;
  const scene: GridScene = {
    solver: 'fdtd',
    bodies: solved.bodies,
    ports,
    guides,
    source,
    excite: solve.excite ?? null,
    ...(combine ? { combine } : solve.keep === 'each' ? { keepEach: true } : {}),
    ...region,
    ...(symmetric ? { mirrors } : {}),
    band: { from, to, points: solve.points },
    recorders,
    recordAt,
    accuracy: solve.accuracy,
    details: {
      ...details,
      ...(smallestCell ? { smallestCell: value(smallestCell, 'length', { part: 'solve', chip: 'details.smallestCell' }) } : {}),
    },
  };
  return { ports, guides, source, recorders, scene };
}
