import type { ManifoldToplevel } from 'manifold-3d';
import {
  axes,
  type Boundary,
  type MaterialEntry,
  type Place,
  type Point3,
  type Problem,
  problem,
  type Project,
  type Quantity,
  sides,
} from '../document/index.ts';
import { evaluateExpression } from '../expressions/index.ts';
import { type Body, evaluateModel, type ModelCache } from '../geometry/index.ts';
import { frequencyText, gainOf, modelAt, permittivityAt, polesOf } from '../materials/index.ts';
import { c0 } from '../numerics/constants.ts';
import { endAtGuides, seesSeveral } from './portFilling.ts';
import { resolveBand, withFrequencies } from './band.ts';
import { placePort, pointsOf, portKind, type SceneGuide, type ScenePort } from '../ports/index.ts';
import { type Located, mirrorRecorder, placeRecorder, recorderOutside } from './recorders.ts';
import { resolveSection, type SceneSection } from './sections.ts';
import { type PlacedSource, sourceFaults } from './sources.ts';
import { halveGuide, halvePort, periodFaults, resolveSymmetry, unlikeBodies } from './symmetry.ts';
import type { GridScene, SceneResult } from './types.ts';
import { resolveWires } from './wireModel.ts';

/** How far a table's fit may be off before it is told. */
const roughFit = 0.01;

/**
 * A material as the solver takes it; what it cannot take is told. Formulas stay, beside the largest permittivity (its size) in the
 * band, by which the grid is made.
 */
function solvable(body: Body, centre: number, [from, to]: [number, number], problems: Problem[]): MaterialEntry {
  const m = body.material;
  const place: Place = { part: 'lines', name: body.line, chip: 'material' };
  const tell = (severity: 'error' | 'warning', code: string, message: string, fix: string): void => {
    if (!problems.some((p) => p.code === code && p.message === message)) problems.push(problem(severity, code, place, message, fix));
  };
  if (m.kind === 'dielectric' && (m.permeability !== undefined || m.permeabilityAlong))
    tell('error', 'material.magnetic', `${m.name} is magnetic, which no solver here takes yet.`, 'Choose a material without permeability.');
  if (m.range && (from < m.range[0] * 0.999 || to > m.range[1] * 1.001))
    tell(
      'warning',
      'material.range',
      `The band reaches beyond what the figures of ${m.name} are given for.`,
      'Take the result with care, or choose another material.',
    );
  if (!m.dispersion || !(centre > 0) || !(to > from)) return m;
  const model = polesOf(m.dispersion);
  const gain = gainOf(model, [from, to]);
  if (gain !== null)
    tell(
      'error',
      'material.gain',
      `${m.name} gives power at ${frequencyText(gain)}: with such a medium the fields would grow without end.`,
      'Correct its poles: none may have a positive real part, and the loss may be negative nowhere.',
    );
  const looks = [from, centre, to].map((f) => ({ given: permittivityAt(m, f), taken: modelAt(model, 2 * Math.PI * f) }));
  const off = Math.max(
    ...looks.map(({ given, taken }) => Math.hypot(taken.re - given.re, taken.loss - given.loss) / Math.hypot(given.re, given.loss)),
  );
  if (off > roughFit)
    tell(
      'warning',
      'material.fit',
      `The passive poles that stand for ${m.name} are off by up to ${(100 * off).toPrecision(2)} % in the band.`,
      'Look for a jump or gain in its table; narrow the table to the band.',
    );
  const level = Math.max(1, ...looks.map(({ taken }) => Math.hypot(taken.re, taken.loss)));
  return { ...m, permittivity: level };
}

/** The waves whose fields are asked for together; tells those that are not excited. */
function resolveCombination(
  { solve }: Project,
  ports: readonly (ScenePort | SceneGuide)[],
  value: (text: string, quantity: Quantity, place: Place) => number,
  problems: Problem[],
): GridScene['combine'] {
  if (!solve.combine) return undefined;
  const tell = (code: string, chip: string, message: string, fix: string): void =>
    void problems.push(problem('error', code, { part: 'solve', chip }, message, fix));
  const out = solve.combine.map(({ port, mode, amplitude, phase }, i) => {
    const at = ports.find((p) => p.name === port && !('load' in p && p.load));
    if (!at) tell('combine.unknown', `combine.${i}`, `Fields are asked for of ${port}, which is no port.`, 'Remove it from the combination.');
    else if ('modes' in at && mode > at.modes)
      tell(
        'combine.mode',
        `combine.${i}`,
        `${port} has ${at.modes} modes, but mode ${mode} is to be combined.`,
        'Ask the port for more modes, or take another.',
      );
    if (solve.excite && !solve.excite.includes(port))
      tell(
        'combine.not-excited',
        `combine.${i}`,
        `Fields are asked for of ${port}, which is not excited.`,
        'Excite it, or remove it from the combination.',
      );
    return {
      port,
      mode,
      amplitude: value(amplitude, 'number', { part: 'solve', chip: `combine.${i}.amplitude` }),
      phase: value(phase, 'angle', { part: 'solve', chip: `combine.${i}.phase` }),
    };
  });
  if (!out.some((e) => e.amplitude !== 0))
    tell('combine.nothing', 'combine.0.amplitude', 'All waves whose fields are asked for have amplitude zero.', 'Give one of them an amplitude.');
  return out;
}

/** Document to scene: evaluates everything and gathers what is wrong. Never throws on bad input. */
export function buildScene(project: Project, kernel: ManifoldToplevel, cache?: ModelCache): SceneResult {
  const model = evaluateModel(project, kernel, cache);
  const { scope, bodies } = model;
  const problems = [...model.problems];
  const value = (text: string, quantity: Quantity, place: Place): number => {
    const result = evaluateExpression(text, quantity, scope, place);
    if ('si' in result) return result.si;
    problems.push(result.problem);
    return NaN;
  };

  if (project.solve.solver === 'moment') return resolveWires(project, model, value, problems);

  const mirrors = resolveSymmetry(project, (text, place) => value(text, 'length', place));
  const symmetric = mirrors.some((m) => m);
  const problemsBefore = problems.length;
  if (symmetric && bodies.length) problems.push(...unlikeBodies(bodies, mirrors));
  const whole = symmetric && problems.length === problemsBefore;

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
    else if (found?.family === 'lumped') {
      const half = whole ? halvePort(found.placed, mirrors) : { kept: found.placed };
      if ('problem' in half) problems.push(half.problem);
      else if (half.kept) ports.push(half.kept);
    } else if (found?.family === 'guided') {
      const half = whole ? halveGuide(found.placed, mirrors) : { kept: found.placed };
      if ('problem' in half) problems.push(half.problem);
      else if (half.kept) guides.push(half.kept);
    }
  }

  const sections: SceneSection[] = [];
  for (const entry of project.sections) {
    const result = resolveSection(entry, scope);
    if ('section' in result) sections.push(result.section);
    else problems.push(...result.problems);
  }

  const band = resolveBand(project, value, problems);
  const { from, to } = band;
  const placed: Located[] = [];
  for (const recorder of project.recorders) {
    const result = placeRecorder(recorder, scope, bodies);
    if ('problems' in result) {
      problems.push(...result.problems);
      continue;
    }
    const half = whole ? mirrorRecorder(result.recorder, mirrors) : { kept: result.recorder };
    if ('problem' in half) problems.push(half.problem);
    else placed.push({ ...result, recorder: half.kept });
  }
  const { recorders, recordAt } = withFrequencies(placed, band, problems);

  const boundaries = sides.map((s, i): Boundary => (i % 2 ? project.boundaries[s] : (mirrors[i >> 1]?.wall ?? project.boundaries[s])));
  const fault = axes.findIndex((_, a) => (boundaries[2 * a] === 'periodic') !== (boundaries[2 * a + 1] === 'periodic'));
  if (fault >= 0)
    problems.push(
      problem(
        'error',
        'boundary.periodic',
        { part: 'boundaries' },
        mirrors[fault]
          ? `Across ${axes[fault]} there is a plane of symmetry, so that axis cannot be periodic.`
          : `Across ${axes[fault]} only one side is periodic.`,
        mirrors[fault] ? 'Take walls in place of the periodic sides, or remove the symmetry.' : 'Make both sides of that axis periodic.',
      ),
    );
  // A wall on one side of an axis has an image, so a far field can be told; between two walls there is none.
  const closed = axes.some((_, a) => boundaries[2 * a + 1] !== 'open' && (boundaries[2 * a] !== 'open' || boundaries[2 * a + 1] === 'periodic'));
  if (recorders.some((r) => r.kind === 'far-field') && closed)
    problems.push(
      problem(
        'error',
        'recorder.closed',
        { part: 'recorders' },
        'A far field needs an open boundary on at least one side of each axis.',
        'Open the boundaries, or remove the far field.',
      ),
    );

  problems.push(...sourceFaults(sources, (s) => s.kind.onGrid?.(s.placed, { boundaries, symmetric })));
  if (sources.length && guides.length)
    problems.push(
      problem(
        'error',
        'source.guided',
        { part: 'ports', name: sources[0].placed.name },
        `${sources[0].placed.name} excites the structure from without, which cannot be combined with guided ports yet.`,
        'Remove the guided ports, or the source.',
      ),
    );
  const asked = project.margin ? value(project.margin, 'length', { part: 'boundaries', chip: 'margin' }) : c0 / from / 4;
  const cell = c0 / to / Math.min(12, project.solve.details?.cellsPerWavelength ?? 12);
  const room = sources[0]?.kind.room ?? 0;
  const margin = asked >= 0 ? Math.max(asked, room * cell) : asked;
  if (margin < 0)
    problems.push(problem('error', 'value.not-positive', { part: 'boundaries', chip: 'margin' }, 'The margin is negative.', 'Give zero or more.'));
  if (!bodies.length && !model.problems.length)
    problems.push(problem('error', 'model.empty', { part: 'lines' }, 'The model has no body.', 'Add a line under Shape.'));
  if (
    !ports.some((p) => !p.load) &&
    !guides.length &&
    !sources.length &&
    project.ports.every((p) => portKind(p).role === 'load' || !portKind(p).solvers.includes('fdtd'))
  )
    problems.push(problem('error', 'port.none', { part: 'ports' }, 'Nothing feeds the model.', 'Add a port under Feed.'));

  const points = sources.flatMap(({ placed }) => pointsOf(placed));
  const min = [0, 1, 2].map(
    (a) =>
      Math.min(...bodies.map((b) => b.min[a]), ...[...ports, ...guides].map((p) => p.min[a]), ...points.map((p) => p[a])) -
      (boundaries[2 * a] === 'open' ? margin : 0),
  ) as Point3;
  const max = [0, 1, 2].map(
    (a) =>
      Math.max(...bodies.map((b) => b.max[a]), ...[...ports, ...guides].map((p) => p.max[a]), ...points.map((p) => p[a])) +
      (boundaries[2 * a + 1] === 'open' ? margin : 0),
  ) as Point3;
  const full = { min: [...min] as Point3, max };
  mirrors.forEach((m, a) => {
    if (!m) return;
    min[a] = m.at;
    full.min[a] = 2 * m.at - max[a];
  });
  const region = { min, max, boundaries };
  if (bodies.length) problems.push(...periodFaults(bodies, [...ports, ...guides], region));
  for (const g of guides) {
    const slack = 1e-9 * Math.max(...max.map((m, a) => m - min[a]));
    const onSide = (s: number): boolean => Math.abs((s & 1 ? g.max : g.min)[s >> 1] - (s & 1 ? max : min)[s >> 1]) <= slack;
    const magnetic = boundaries.map((b, s) => b === 'magnetic' && s >> 1 !== g.normal && onSide(s));
    if (magnetic.includes(true)) g.magnetic = magnetic;
  }
  for (const g of guides) if (seesSeveral(g, bodies, [from, to])) g.mixed = true;
  problems.push(...endAtGuides(guides, bodies, [...ports, ...guides], region));
  const open = guides.find((g) => g.mixed);
  if (open && recorders.some((r) => r.kind === 'far-field'))
    problems.push(
      problem(
        'error',
        'recorder.port',
        { part: 'recorders' },
        `A far field cannot be taken while the guided port ${open.name} sees several media: the model goes on behind it.`,
        'Remove the far field, or feed with a lumped port.',
      ),
    );
  for (const r of recorders) {
    const outside = bodies.length ? recorderOutside(r, full.min, max) : null;
    if (outside) problems.push(outside);
  }
  if (bodies.length && [0, 1, 2].some((a) => !(max[a] > min[a])))
    problems.push(
      problem(
        'error',
        'model.flat',
        { part: 'boundaries' },
        'The computed region has no extent along one axis.',
        'Give a margin above zero, or a body with height.',
      ),
    );

  for (const b of bodies)
    if (b.shape.form === 'tilted sheet')
      problems.push(
        problem(
          'error',
          'solver.tilted-sheet',
          { part: 'lines', name: b.line },
          `${b.name} is a sheet that stands across none of the axes, which this solver cannot follow.`,
          'Thicken it to a solid, or turn the model so that it stands across an axis.',
        ),
      );

  // Bodies of one material share what the solver makes of it.
  const known = new Map<MaterialEntry, MaterialEntry>();
  const solved = bodies.map((b) => {
    let material = known.get(b.material);
    if (!material) known.set(b.material, (material = solvable(b, (from + to) / 2, [from, to], problems)));
    return { ...b, material };
  });

  const unreal = ports.find((p) => p.reactance);
  if (
    unreal &&
    (sources.length ||
      (project.solve.excite && [...ports, ...guides].some((p) => !('load' in p && p.load) && !project.solve.excite!.includes(p.name))))
  )
    problems.push(
      problem(
        'error',
        'port.reactance',
        { part: 'ports', name: unreal.name, chip: 'reactance' },
        sources.length
          ? 'Where the structure is excited from without a port is a resistor, so it cannot have a reactance.'
          : `${unreal.name} refers to a complex impedance, which takes a run of every port, but not all are excited.`,
        sources.length ? 'Give it none, and place a lumped element beside it.' : 'Excite all ports, or give it no reactance.',
      ),
    );
  const combine = resolveCombination(project, [...ports, ...guides], value, problems);
  const { smallestCell, segmentsPerWavelength: _, eachFrequency: __, ...details } = project.solve.details ?? {};
  const scene: GridScene = {
    solver: 'fdtd',
    bodies: solved,
    ports,
    guides,
    source: sources[0]?.placed ?? null,
    excite: project.solve.excite ?? null,
    ...(combine ? { combine } : project.solve.keep === 'each' ? { keepEach: true } : {}),
    boundaries,
    ...(symmetric ? { mirrors } : {}),
    min,
    max,
    band: { from, to, points: project.solve.points },
    recorders,
    recordAt,
    accuracy: project.solve.accuracy,
    details: {
      ...details,
      ...(smallestCell ? { smallestCell: value(smallestCell, 'length', { part: 'solve', chip: 'details.smallestCell' }) } : {}),
    },
  };
  const stopped = problems.some((p) => p.severity === 'error' && p.place.part !== 'sections');
  return { model, ports, guides, source: sources[0]?.placed ?? null, sections, recorders, scene: stopped ? null : scene, problems };
}
