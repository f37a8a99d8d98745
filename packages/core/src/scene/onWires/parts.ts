import { averageEarth, type Place, type Problem, problem, type Project } from '../../document/index.ts';
import type { Body } from '../../geometry/index.ts';
import { failing, type Ground, placeOn, placePort, portKind, type SceneWire, type WireProbe, type WireScene } from '../../ports/index.ts';
import { recorderKind } from '../../recorders/index.ts';
import { type Located, placeRecorder } from '../recorders.ts';
import type { Evaluate, Resolving } from '../resolving.ts';
import type { PlacedSource } from '../sources.ts';

/** A body as a wire; what is none is told. */
export function wireOf(body: Body, problems: Problem[]): SceneWire | null {
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
export function resolveGround({ ground }: Project, value: Evaluate, problems: Problem[]): Ground | null {
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

/** The ports, loads and lines of a project in its wires, and its sources. */
export function placePorts(
  { project, scope, bodies, problems }: Resolving,
  wires: readonly SceneWire[],
): Pick<WireScene, 'ports' | 'loads' | 'lines'> & { sources: PlacedSource[] } {
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
  return { ...parts, sources };
}

/** The recorders of a project around its wires, and the probes in them. */
export function placeRecorders(
  { project, scope, bodies, problems }: Resolving,
  wires: readonly SceneWire[],
): { placed: Located[]; probes: WireProbe[] } {
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
  return { placed, probes };
}
