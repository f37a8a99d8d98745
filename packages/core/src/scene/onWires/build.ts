import type { Point3 } from '../../document/index.ts';
import { detailsFor } from '../../methods/index.ts';
import { c0 } from '../../numerics/constants.ts';
import { pointsOf, type SceneWire } from '../../ports/index.ts';
import { withFrequencies } from '../band.ts';
import type { Built, Resolving } from '../resolving.ts';
import type { PlacedSource } from '../sources.ts';
import type { WiresScene } from '../types.ts';
import { checkOnWires } from './checks.ts';
import { placePorts, placeRecorders, resolveGround, wireOf } from './parts.ts';

/** Corners of what is shown: all wires and what excites them from without, the margin around them, down to the ground. */
function shown(
  wires: readonly SceneWire[],
  sources: readonly PlacedSource[],
  margin: number,
  ground: number | undefined,
): { min: Point3; max: Point3 } {
  const points = [...wires.flatMap((w) => w.points), ...sources.flatMap(({ placed }) => pointsOf(placed))];
  const min = [0, 1, 2].map((a) => Math.min(...points.map((p) => p[a])) - margin) as Point3;
  const max = [0, 1, 2].map((a) => Math.max(...points.map((p) => p[a])) + margin) as Point3;
  return { min: ground === undefined ? min : [min[0], min[1], ground], max };
}

/** The scene of a project for the solver of wires. */
export function buildOnWires(resolving: Resolving): Built {
  const { project, bodies, value, band, problems } = resolving;
  const { from, to } = band;
  const { solve } = project;
  // What is of air is there for other lines to build on.
  const real = bodies.filter((b) => b.material.kind === 'conductor' || (b.material.permittivity ?? 1) > 1.001 || b.material.dispersion);
  const wires = real.map((b) => wireOf(b, problems)).filter((w): w is SceneWire => w !== null);
  const { sources, ...parts } = placePorts(resolving, wires);
  const { placed, probes } = placeRecorders(resolving, wires);
  const { recorders, recordAt } = withFrequencies(placed, band, problems);
  const ground = resolveGround(project, value, problems);
  const scene = { wires, ...parts, probes, ground };
  const excited = solve.excite?.filter((name) => parts.ports.some((p) => p.name === name)) ?? null;
  problems.push(...checkOnWires({ project, wires: scene, sources, recorders, excited }));
  const margin = project.margin ? value(project.margin, 'length', { part: 'boundaries', chip: 'margin' }) : c0 / (from + to) / 2;
  const source = sources[0]?.placed ?? null;
  const built: WiresScene = {
    solver: 'moment',
    wires: scene,
    source,
    excite: excited,
    ...shown(wires, sources, margin, ground?.at),
    band: { from, to, points: solve.points },
    recorders: ground?.kind === 'earth' ? recorders.filter((r) => r.kind === 'far-field') : recorders,
    recordAt,
    accuracy: solve.accuracy,
    details: detailsFor('moment', solve.details),
  };
  return { ports: [], guides: [], source, recorders, wires: scene, scene: built };
}
