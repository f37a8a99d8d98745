import { type Problem, problem, ProblemError } from '../../document/index.ts';
import { buildGrid, cellCount, cellsOf, type Grid, mostCellsPerAxis } from '../../grid/index.ts';
import { c0 } from '../../numerics/constants.ts';
import { directionsOf, type PlacedRecorder, recorderKind } from '../../recorders/index.ts';
import { patternCost } from '../../radiation/index.ts';
import { farFieldOf, type GridScene, numbersOf } from '../../scene/index.ts';
import { cellsPerWavelengthOf, fewestPasses, steppingDefaults, type TimeEstimate } from '../../methods/index.ts';
import type { Machine, Plan } from '../solver.ts';
import { timeStep } from './discretise.ts';
import { checkGuides } from './guides.ts';
import { narrow } from './narrow.ts';
import { ringingPeriods } from './ringing.ts';
import { dielectricsOf } from '../../discretisation/media.ts';
import { pulseFor } from '../../numerics/pulse.ts';
import { memoryNeeded } from './simulation.ts';
import type { Axis } from '../../numerics/axis.ts';
import { sameMesh } from '../../numerics/tolerance.ts';

/** Most bytes the kernel can address. */
const addressable = 2 ** 32 - 2 ** 22;
/** A run that is expected to take longer than this is asked about first. */
const longSeconds = 6 * 3600;

/** What the reference line of a port whose gap is taken out costs, modes and all, in excitations of the model: from the mast line. */
const referenceCost = 4;
/** The same of a port at no line's end: two runs of its surroundings, of small models; of large ones they are less. */
const spreadCost = 1;

/** Bytes of what guided ports send and record: sources, lines, two signals a mode or profile. */
const guideBytes = (scene: GridScene, maxSteps: number): number =>
  scene.guides.reduce((sum, g) => sum + g.modes * maxSteps * (g.inhomogeneous ? 4 + 7 * 16 : 4 + 16 + 12), 0);

/** Steps after which a run ends whatever its energy. */
export const stepLimit = (scene: GridScene, dt: number): number => {
  const pulse = pulseFor(scene.band.from, scene.band.to);
  return scene.details.maxSteps ?? Math.ceil((pulse.length + steppingDefaults.periods / pulse.centre) / dt);
};

/** Grid lines of each axis that lie in a box. */
const linesIn = (grid: Grid, min: ArrayLike<number>, max: ArrayLike<number>): [number, number, number] =>
  [0, 1, 2].map((a) => grid.lines[a].filter((x) => x >= min[a] && x <= max[a]).length) as [number, number, number];

/** Floats of all running sums: two for each field sample and frequency of each recorder. */
function sumsOf(scene: GridScene, grid: Grid): number {
  const [nx, ny, nz] = [0, 1, 2].map((a) => cellsOf(grid, a as Axis));
  const sides = [nx * ny, ny * nz, nz * nx] as const;
  const inside = (min: ArrayLike<number>, max: ArrayLike<number>): number => linesIn(grid, min, max).reduce((n, lines) => n * (lines + 2), 1);
  const samples = (r: PlacedRecorder): number => recorderKind(r).samples?.(r, { sides, inside, bodies: scene.bodies }) ?? 0;
  const frequencies = (r: PlacedRecorder): number => ('kept' in r ? r.kept?.length : undefined) ?? scene.recordAt.length;
  return scene.recorders.reduce((sum, r) => sum + 2 * frequencies(r) * samples(r), 0);
}

/** Bytes of what media with memory remember, bodies taken as full as the boxes around them. */
function statesOf(scene: GridScene, grid: Grid): number {
  const media = dielectricsOf(scene, 0);
  return scene.bodies.reduce((sum, { min, max }, n) => {
    const model = media[n]?.model;
    if (!model) return sum;
    const inside = linesIn(grid, min, max);
    const states = model.poles.reduce((s, { p }) => s + (p[1] === 0 ? (p[0] === 0 ? 0 : 1) : 2), 0);
    return sum + 3 * 4 * states * inside[0] * inside[1] * inside[2];
  }, 0);
}

/** How much longer each pass of adaptive accuracy takes than the one before, about: of an inset patch on 0.8 mm the fifth took some 17 times as long as the first. */
const passGrowth = 2;
/** Costs of all passes, of which there are three at least, over that of the first. */
const passesCost = (accuracy: GridScene['accuracy']): number =>
  accuracy === 'adaptive' ? Array.from({ length: fewestPasses }, (_, n) => passGrowth ** n).reduce((a, b) => a + b) : 1;

/** Seconds that a run takes before its first step. */
const startUp = 0.5;
/** Products a second of the near-to-far transform, on one thread. */
const productsPerSecond = 8e8;

/** Seconds that the far field takes at all frequencies that it is kept at. */
function farSeconds(scene: GridScene, grid: Grid): number {
  const far = farFieldOf(scene);
  if (!far) return 0;
  const { nTheta, nPhi } = directionsOf(far.step);
  const cells = [0, 1, 2].map((a) => cellsOf(grid, a as Axis));
  const half = grid.lines.map((x) => (x[x.length - 1] - x[0]) / 2);
  const walls = scene.boundaries.filter((b) => b === 'electric' || b === 'magnetic').length;
  const products = numbersOf(far.kept, scene.recordAt.length).reduce((sum, f) => {
    const k = (2 * Math.PI * scene.recordAt[f]) / c0;
    return sum + patternCost(cells, half.map((h) => k * h), nTheta, nPhi); // prettier-ignore
  }, 0);
  return (2 ** walls * products) / productsPerSecond;
}

/** Cost of a scene on its grid: cells, bytes, steps, of adaptive accuracy those of its first pass; seconds, of adaptive accuracy those of as many passes as it takes at least. */
function estimateScene(scene: GridScene, grid: Grid, machine: Machine): TimeEstimate {
  const cells = [cellsOf(grid, 0), cellsOf(grid, 1), cellsOf(grid, 2)] as [number, number, number];
  const dt = timeStep(grid, scene);
  const pulse = pulseFor(scene.band.from, scene.band.to);
  const maxSteps = stepLimit(scene, dt);
  const steps = Math.min(maxSteps, Math.ceil((pulse.length + ringingPeriods(scene) / pulse.centre) / dt));
  const excited = (name: string): boolean => !scene.excite || scene.excite.includes(name);
  const excitations = scene.source
    ? 1
    : scene.ports.filter((p) => !p.load && excited(p.name)).length + scene.guides.reduce((n, g) => n + (excited(g.name) ? g.modes : 0), 0);
  const points = scene.recorders.filter((r) => recorderKind(r).over === 'time').length;
  const bytes =
    memoryNeeded(cells, grid.outerCells, 0, sumsOf(scene, grid)) + maxSteps * 12 * (1 + points) + statesOf(scene, grid) + guideBytes(scene, maxSteps);
  const references = scene.ports.reduce((n, p) => n + (p.line ? referenceCost : p.spread ? spreadCost : 0), 0);
  const run = (turns: number): number => (passesCost(scene.accuracy) * turns * cellCount(grid) * steps) / machine.cellsPerSecond;
  const kept = scene.keepEach ? excitations : 1;
  const parts = { steps: run(excitations), fields: kept * farSeconds(scene, grid), gaps: run(references) / passesCost(scene.accuracy) };
  return {
    solver: 'fdtd',
    cells,
    bytes,
    timeStep: dt,
    steps,
    maxSteps,
    excitations,
    ...(scene.accuracy === 'adaptive' ? { passes: fewestPasses } : {}),
    seconds: parts.steps + parts.fields + parts.gaps + startUp,
    parts,
    cellsPerWavelength: grid.cellsPerWavelength,
  };
}

const gigabytes = (bytes: number): string => `${(bytes / 1e9).toPrecision(3)} GB`;

/**
 * What a specialist would point out before the run, its grid and its cost.
 * @throws what is no fault of the model.
 */
export function planScene(scene: GridScene, machine: Machine): Plan<Grid, TimeEstimate> {
  const problems: Problem[] = checkGuides(scene);
  const limit = Math.min(machine.memory, addressable);
  // A lower bound before any grid is made, so that an absurd model is refused at once.
  const rough = roughCells(scene);
  const cells = rough[0] * rough[1] * rough[2];
  if (cells * 24 > limit || Math.max(...rough) > mostCellsPerAxis)
    return {
      problems: [
        tooLarge(
          `The model would need at least ${rough.map((n) => n.toPrecision(3)).join(' × ')} cells, ${gigabytes(cells * 24)}; ${gigabytes(limit)} can be used here.`,
        ),
      ],
    };
  problems.push(...betweenWalls(scene), ...filaments(scene), ...wideBand(scene));
  let grid: Grid;
  try {
    grid = buildGrid(scene);
  } catch (error) {
    if (error instanceof ProblemError) return { problems: error.problems };
    throw error;
  }
  const estimate = estimateScene(scene, grid, machine);
  problems.push(...sliver(scene, grid), ...narrow(scene, grid), ...tooMuch(estimate, limit));
  return problems.some((p) => p.severity === 'error') ? { problems } : { problems, ready: { mesh: grid, estimate } };
}

/** What a run takes beyond what there is, of memory and of patience. */
function tooMuch(estimate: TimeEstimate, limit: number): Problem[] {
  if (estimate.bytes > limit)
    return [tooLarge(`The model needs ${gigabytes(estimate.bytes)} for ${estimate.cells.join(' × ')} cells; ${gigabytes(limit)} can be used here.`)];
  if (estimate.seconds <= longSeconds) return [];
  return [
    problem(
      'warning',
      'machine.time',
      { part: 'machine' },
      `The run is expected to take ${(estimate.seconds / 3600).toPrecision(2)} hours.`,
      'Look for a very small gap or strip, or take a coarser accuracy.',
    ),
  ];
}

function wideBand({ band }: GridScene): Problem[] {
  if (band.to <= 20 * band.from) return [];
  return [
    problem(
      'warning',
      'band.wide',
      { part: 'band' },
      'The band spans more than 20 to 1: the margin follows the lowest frequency and the cells the highest.',
      'Narrow the band if you can.',
    ),
  ];
}

/** Cells of the shortest wavelength over the smallest one from which on the time step is absurdly short. */
const sliverRatio = 150;

/** A cell so small that it alone makes the time step absurdly short, with its place and what stands there. */
function sliver(scene: GridScene, grid: Grid): Problem[] {
  const coarsest = c0 / scene.band.to / cellsPerWavelengthOf(scene.accuracy, scene.details);
  let least = { size: Infinity, axis: 0, from: 0 };
  grid.lines.forEach((x, axis) => {
    for (let i = 1; i < x.length; i++) if (x[i] - x[i - 1] < least.size) least = { size: x[i] - x[i - 1], axis, from: x[i - 1] };
  });
  const ratio = coarsest / least.size;
  if (!(ratio > sliverRatio)) return [];
  const { axis, from, size } = least;
  const near = scene.bodies.filter((b) => [b.min[axis], b.max[axis], ...b.planes[axis]].some((x) => x > from - size && x < from + 2 * size));
  const names = [...new Set(near.map((b) => b.name))].slice(0, 3).join(', ');
  const text = (x: number): string => `${Number((1e3 * x).toPrecision(4))} mm`;
  return [
    problem(
      'warning',
      'grid.sliver',
      near.length ? { part: 'lines', name: near[0].line } : { part: 'solve' },
      `One cell is only ${text(size)} along ${'xyz'[axis]}, at ${'xyz'[axis]} = ${text(from)}${names ? ` (${names})` : ''}: it makes the time step ${Math.round(ratio)} times shorter than the wavelength needs.`,
      'Look for a sliver between two faces there and bring them together, or set a larger smallest cell under details.',
    ),
  ];
}

/** Lumped ports that reach from one electric wall to the other: the walls carry their current, whatever body ends there as well. */
function betweenWalls({ ports, boundaries, min, max }: GridScene): Problem[] {
  return ports.flatMap((p) => {
    const slack = sameMesh * (p.max[p.axis] - p.min[p.axis]);
    const held = [0, 1].every(
      (side) => boundaries[2 * p.axis + side] === 'electric' && Math.abs((side ? p.max : p.min)[p.axis] - (side ? max : min)[p.axis]) <= slack,
    );
    if (!held || p.halved?.[p.axis]) return [];
    const axis = 'xyz'[p.axis];
    return [
      problem(
        'warning',
        'port.between-walls',
        { part: 'ports', name: p.name },
        `The port ${p.name} reaches from the electric wall at low ${axis} to the one at high ${axis}, which are metal: it feeds the walls.`,
        `Open one of the two sides, or draw a body that keeps the wall away, such as a box of air.`,
      ),
    ];
  });
}

/** Lumped ports of no width on grids that get finer from pass to pass: a filament is as thin as the cells, so its inductance grows with each. */
const filaments = ({ ports, accuracy }: GridScene): Problem[] =>
  accuracy === 'adaptive'
    ? ports.flatMap((p) =>
        !p.load && p.max[p.across] - p.min[p.across] <= 0
          ? [
              problem(
                'warning',
                'port.no-width',
                { part: 'ports', name: p.name, chip: 'width' },
                `${p.name} has no width: it is as thin as the cells, so its inductance grows with each pass, which may keep them from settling.`,
                'Give it the width of the strip that it feeds, or of its wire.',
              ),
            ]
          : [],
      )
    : [];

const tooLarge = (message: string): Problem =>
  problem(
    'error',
    'machine.memory',
    { part: 'machine' },
    message,
    'Look for a dimension or a frequency with the wrong unit; otherwise take a coarser accuracy, a lower band or a smaller margin.',
  );

/** Cells per axis if all had the largest size. */
function roughCells(scene: GridScene): number[] {
  const step = c0 / scene.band.to / cellsPerWavelengthOf(scene.accuracy, scene.details);
  return [0, 1, 2].map((a) => Math.max(1, (scene.max[a] - scene.min[a]) / step));
}
