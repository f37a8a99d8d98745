import { averageEarth, type Place, type Point3, type Problem, problem, type Project } from '../document/index.ts';
import type { Body, Model } from '../geometry/index.ts';
import { c0 } from '../numerics/constants.ts';
import { type Evaluate, resolveBand, withFrequencies } from './band.ts';
import { recorderKind } from '../recorders/index.ts';
import { type Located, placeRecorder } from './recorders.ts';
import type { SceneResult, WiresScene } from './types.ts';
import { resolveSection, type SceneSection } from './sections.ts';
import { type PlacedSource, sourceFaults } from './sources.ts';
import { failing, type Ground, placeOn, placePort, pointsOf, portKind, type SceneWire, type WireProbe, type WireScene } from '../ports/index.ts';

/** A body as a wire; what is none is told. */
function wireOf(body: Body, problems: Problem[]): SceneWire | null {
  const place: Place = { part: 'lines', name: body.line };
  if (!body.wire) {
    problems.push(
      problem(
        'error',
        'solver.no-wire',
        place,
        `${body.name} is no round wire, which is all that the solver of wires takes.`,
        'Build it of wires or cylinders, mute it, or choose the time-domain solver under Solve.',
      ),
    );
    return null;
  }
  const { material } = body;
  if (material.kind !== 'conductor') {
    problems.push(
      problem(
        'error',
        'solver.wire-material',
        { ...place, chip: 'material' },
        `${body.name} is not of metal.`,
        'Give it a conductor; a dielectric around it is its coat.',
      ),
    );
    return null;
  }
  const { radius, points, closed, coat } = body.wire;
  const perfect = body.conductor.perfect || !material.conductivity;
  return {
    name: body.name,
    line: body.line,
    points: [...points],
    closed,
    radius,
    metal: perfect ? null : { conductivity: material.conductivity!, permeability: material.permeability ?? 1 },
    coat: coat ? { radius: coat.radius, permittivity: [coat.permittivity, 0] } : null,
  };
}

/** The ground of a project; null for none. */
function resolveGround({ ground }: Project, value: Evaluate, problems: Problem[]): Ground | null {
  if (!ground) return null;
  const chip = (key: string): Place => ({ part: 'boundaries', chip: `ground.${key}` });
  const at = value(ground.at, 'length', chip('at'));
  if (ground.kind === 'perfect') return { kind: 'perfect', at };
  const permittivity = value(ground.permittivity ?? averageEarth.permittivity, 'number', chip('permittivity'));
  const conductivity = value(ground.conductivity ?? averageEarth.conductivity, 'conductivity', chip('conductivity'));
  if (permittivity < 1)
    problems.push(
      problem('error', 'ground.permittivity', chip('permittivity'), 'The permittivity of the ground is below 1.', 'Soil has 3 to 40, water 80.'),
    );
  if (conductivity < 0)
    problems.push(
      problem(
        'error',
        'ground.conductivity',
        chip('conductivity'),
        'The conductivity of the ground is negative.',
        'Soil has 0.0001 to 0.03 S/m, sea water 5 S/m.',
      ),
    );
  return { kind: 'earth', at, permittivity, conductivity };
}

/** The scene of a project for the solver of wires. */
export function resolveWires(project: Project, model: Model, value: Evaluate, problems: Problem[]): SceneResult {
  const { scope, bodies } = model;
  const band = resolveBand(project, value, problems);
  const { from, to } = band;
  // What is of air is there for other lines to build on.
  const real = bodies.filter((b) => b.material.kind === 'conductor' || (b.material.permittivity ?? 1) > 1.001 || b.material.dispersion);
  const wires = real.map((b) => wireOf(b, problems)).filter((w): w is SceneWire => w !== null);
  const parts: Pick<WireScene, 'ports' | 'loads' | 'lines'> = { ports: [], loads: [], lines: [] };
  const sources: PlacedSource[] = [];
  const { excite } = project.solve;
  for (const [order, port] of project.ports.entries()) {
    const kind = portKind(port);
    // Where excited things are named, a source that is not among them is off.
    if (kind.role === 'source' && excite && !excite.includes(port.name)) continue;
    if (!kind.solvers.includes('moment')) {
      problems.push(
        problem(
          'warning',
          'port.off-wires',
          { part: 'ports', name: port.name },
          `${port.name} stands in no wire, so the solver of wires leaves it out.`,
          'Feed a wire by a port in it, or choose the time-domain solver under Solve.',
        ),
      );
      continue;
    }
    const found = placePort(port, scope, { order, bodies, wires }, problems);
    if (found?.family === 'source') sources.push({ kind, placed: found.placed });
    else if (found?.family === 'wire') {
      const { placed } = found;
      if ('port' in placed) parts.ports.push(placed.port);
      else if ('load' in placed) parts.loads.push(placed.load);
      else parts.lines.push(placed.line);
    }
  }
  if (!parts.ports.length && !sources.length)
    problems.push(
      problem(
        'error',
        'port.none',
        { part: 'ports' },
        'Nothing feeds the wires.',
        'Add a port in a wire, or a source such as a plane wave, under Feed.',
      ),
    );
  if (!bodies.length && !model.problems.length)
    problems.push(problem('error', 'model.empty', { part: 'lines' }, 'The model has no body.', 'Add a wire under Shape.'));
  if (project.symmetry)
    problems.push(
      problem(
        'warning',
        'boundary.symmetry',
        { part: 'boundaries' },
        'The solver of wires computes the whole structure: planes of symmetry are left out.',
        'Draw the whole, not a half.',
      ),
    );

  const placed: Located[] = [];
  const probes: WireProbe[] = [];
  for (const recorder of project.recorders) {
    const result = placeRecorder(recorder, scope, bodies);
    if ('problems' in result) problems.push(...result.problems);
    else if (!recorderKind(recorder).solvers.includes('moment'))
      problems.push(
        problem(
          'warning',
          'recorder.not-kept',
          { part: 'recorders', name: recorder.name },
          `${recorder.name} is not kept by the solver of wires.`,
          'Remove it, or choose the time-domain solver.',
        ),
      );
    else if (result.recorder.kind === 'wire-probe') {
      const { name, wire, share } = result.recorder;
      const at = placeOn({ wires, fail: failing(name, problems, 'recorders') }, wire, share);
      if (at) probes.push({ name, place: at });
    } else placed.push(result);
  }
  const { recorders, recordAt } = withFrequencies(placed, band, problems);
  const twice = [...parts.ports, ...parts.loads, ...probes].map((p) => p.name);
  for (const name of twice.filter((n, i) => twice.indexOf(n) !== i))
    problems.push(
      problem(
        'error',
        'probe.name',
        { part: 'recorders', name },
        `${name} is the name of a port and of a recorder.`,
        'Give one of them another name.',
      ),
    );

  const sections: SceneSection[] = [];
  for (const entry of project.sections) {
    const result = resolveSection(entry, scope);
    if ('section' in result) sections.push(result.section);
    else problems.push(...result.problems);
  }
  const ground = resolveGround(project, value, problems);
  problems.push(...sourceFaults(sources, (s) => s.kind.onWires?.(s.placed, { wires, ground })));
  if (ground?.kind === 'earth')
    for (const r of recorders.filter((x) => x.kind !== 'far-field'))
      problems.push(
        problem(
          'warning',
          'recorder.over-earth',
          { part: 'recorders', name: r.name },
          `${r.name} is left out: over real earth far fields, currents and voltages are told, but no fields close by.`,
          'Remove it, or take a perfect ground.',
        ),
      );
  const margin = project.margin ? value(project.margin, 'length', { part: 'boundaries', chip: 'margin' }) : c0 / (from + to) / 2;
  const points = sources.flatMap(({ placed }) => pointsOf(placed));
  const ends = (pick: (...v: number[]) => number, sign: number): Point3 =>
    [0, 1, 2].map((a) => pick(...wires.flatMap((w) => w.points.map((p) => p[a])), ...points.map((p) => p[a])) + sign * margin) as Point3;
  const min = ends(Math.min, -1);
  if (ground) min[2] = ground.at;
  const excited = excite?.filter((name) => parts.ports.some((p) => p.name === name));
  if (excite && !sources.length && !excited!.length)
    problems.push(problem('error', 'port.none', { part: 'ports' }, 'No port is excited.', 'Choose one under Feed.'));
  const { change, segmentsPerWavelength, eachFrequency } = project.solve.details ?? {};
  const wireScene = { wires, ...parts, probes, ground };
  const scene: WiresScene = {
    solver: 'moment',
    wires: wireScene,
    source: sources[0]?.placed ?? null,
    excite: excited ?? null,
    min,
    max: ends(Math.max, 1),
    band: { from, to, points: project.solve.points },
    recorders: ground?.kind === 'earth' ? recorders.filter((r) => r.kind === 'far-field') : recorders,
    recordAt,
    accuracy: project.solve.accuracy,
    details: { change, segmentsPerWavelength, eachFrequency },
  };
  const stopped = problems.some((p) => p.severity === 'error' && p.place.part !== 'sections');
  return {
    model,
    ports: [],
    guides: [],
    source: sources[0]?.placed ?? null,
    sections,
    recorders,
    wires: wireScene,
    scene: stopped ? null : scene,
    problems,
  };
}
