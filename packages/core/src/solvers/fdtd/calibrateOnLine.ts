import { type Problem, problem, ProblemError } from '../../document/index.ts';
import { type Fold, foldedBodies, mirrorOf } from '../../geometry/index.ts';
import { type Grid, nearestLine } from '../../grid/index.ts';
import type { PortGap } from '../../results/index.ts';
import { lineDepth, type GridScene, type SceneGuide, type ScenePort } from '../../scene/index.ts';
import type { FrontKernel } from '../../numerics/factors.ts';
import { denseKernel, uniformPermittivity } from '../modes/index.ts';
import type { SolveOptions } from '../solver.ts';
import { discretise } from './discretise.ts';
import { fitGap } from './gapFit.ts';
import { guideModes } from './guides.ts';
import { portAlone } from './portAlone.ts';
import type { SolveOnce } from './solveOnce.ts';
import { guidePlane } from './portPlane.ts';
import type { PortMode } from './modeTypes.ts';
import type { Discrete } from './discrete.ts';
import { guideSection } from './guideSection.ts';
import { sameNumber } from '../../numerics/tolerance.ts';

/**
 * Length of the straight stretch between both ports, in gaps and in widths of the port and in distances between walls, whichever is most: what does not
 * propagate must have died out, between walls by exp(-pi) each distance.
 */
const stretch = { gaps: 12, widths: 6, walls: 1.6 };
/** Cells of the stretch grow from those at the port by this. */
const growth = 1.2;
/** Frequencies of the fit. */
const points = 21;

/** The reference: the port's own surroundings on their own grid, the line behind it drawn out, and the image of both at its end. */
function reference(scene: GridScene, port: ScenePort, grid: Grid): { scene: GridScene; grid: Grid; length: number; middle: number } {
  const { axis, inward } = port.line!;
  const x = grid.lines[axis];
  const gap = port.max[port.axis] - port.min[port.axis];
  const plane = (port.min[axis] + port.max[axis]) / 2;
  // The cut lies within a cell, where no face is.
  const at = [nearestLine(x, plane) + 3 * inward, nearestLine(x, plane + inward * lineDepth * gap)].reduce((p, q) => (inward * (q - p) > 0 ? q : p));
  const step = Math.abs(x[at] - x[at - inward]);
  const walls = [0, 1, 2].map((a) =>
    a !== axis && scene.boundaries[2 * a] !== 'open' && scene.boundaries[2 * a + 1] !== 'open' ? scene.max[a] - scene.min[a] : 0,
  );
  const half = Math.max(stretch.gaps * gap, stretch.widths * (port.max[port.across] - port.min[port.across]), stretch.walls * Math.max(...walls)) / 2;
  const inside = x.slice(grid.outerCells[2 * axis], x.length - grid.outerCells[2 * axis + 1]);
  const largest = inside.reduce((m, v, i) => (i ? Math.max(m, v - inside[i - 1]) : m), step);
  const depths = [0];
  for (let size = step; depths[depths.length - 1] < half; size = Math.min(largest, size * growth)) depths.push(depths[depths.length - 1] + size);
  const cut = x[at] - (inward * step) / 2;
  const middle = x[at] + inward * depths[depths.length - 1];
  const fold: Fold = { axis, at: cut, inward, length: 2 * Math.abs(middle - cut) };
  const outer = Array.from(x).filter((v) => inward * (v - x[at]) < -sameNumber * step);
  const before = [...outer, ...depths.map((d) => x[at] + inward * d)];
  const all = [...before, ...before.map((v) => mirrorOf(fold, v)).filter((v) => inward * (v - middle) > sameNumber * step)].sort((p, q) => p - q);
  const side = 2 * axis + (inward > 0 ? 0 : 1);
  const twice = <T>(list: readonly T[]): T[] => list.map((v, s) => (s >> 1 === axis ? list[side] : v));
  const lines = grid.lines.map((l, a) => (a === axis ? Float64Array.from(all) : l)) as Grid['lines'];
  const beyond = (p: readonly number[]): number[] => p.map((v, a) => (a === axis ? mirrorOf(fold, v) : v));
  const [end, far] = [inward > 0 ? scene.min : scene.max, inward > 0 ? scene.max : scene.min].map((p) => [...p]);
  far[axis] = mirrorOf(fold, end[axis]);
  const [min, max] = (inward > 0 ? [end, far] : [far, end]) as [GridScene['min'], GridScene['max']];
  const alone = portAlone(scene, port, points);
  const image: ScenePort = { ...alone.ports[0], name: `${port.name}'`, order: port.order + 1 };
  [image.min, image.max] = [beyond(port.min), beyond(port.max)] as [GridScene['min'], GridScene['max']];
  return {
    length: Math.abs(mirrorOf(fold, plane) - plane),
    middle,
    grid: {
      ...grid,
      lines,
      outerCells: twice(grid.outerCells),
      unsnapped: grid.unsnapped.map((l, a) => (a === axis ? [...l, ...l.map((v) => mirrorOf(fold, v))] : l)) as Grid['unsnapped'],
    },
    scene: {
      ...alone,
      bodies: foldedBodies(scene.bodies, fold),
      ports: [...alone.ports, image],
      boundaries: twice(scene.boundaries),
      min,
      max,
    },
  };
}

/** The line's mode of the section half way between both ports, or what stands in its way. */
function modeOf(d: Discrete, scene: GridScene, port: ScenePort, middle: number, kernel?: FrontKernel): { found: PortMode } | { problems: Problem[] } {
  const { axis } = port.line!;
  const mirrors = scene.mirrors?.filter((m) => m) ?? [];
  const on = (p: readonly number[]): SceneGuide['min'] => p.map((v, a) => (a === axis ? middle : v)) as SceneGuide['min'];
  const guide: SceneGuide = {
    name: port.name,
    order: 0,
    normal: axis,
    into: 1,
    min: on(scene.min),
    max: on(scene.max),
    modes: 1,
    shift: 0,
    images: 2 ** mirrors.length,
    wholeImpedance: mirrors.reduce((z, m) => z * (m!.wall === 'electric' ? 2 : 0.5), 1),
    magnetic: scene.boundaries.map((b, s) => b === 'magnetic' && s >> 1 !== axis),
  };
  const plane = guidePlane(guide, d.grid, scene.boundaries);
  guide.inhomogeneous = uniformPermittivity(guideSection(d, plane)) === null;
  const result = guideModes(d, guide, plane, scene.band, kernel, { part: 'ports', noun: 'line of the port' });
  return 'found' in result ? { found: result.found.modes[0] } : result;
}

/** A plane of symmetry across the line; null where there is none. */
const acrossLine = (scene: GridScene, port: ScenePort): Problem | null =>
  scene.mirrors?.[port.line!.axis]
    ? problem(
        'error',
        'port.line-symmetry',
        { part: 'ports', name: port.name },
        'A plane of symmetry lies across the line at whose end the port stands.',
        'Remove that plane, or keep the gap.',
      )
    : null;

/** Lines of the grid on both sides of the middle of a reference that are looked at before the run. */
const looked = 3;

/** Why the gap of a port at a line's end could not be taken out, as far as it can be told before the run; none: nothing stands in the way. */
export function gapFaults(scene: GridScene, port: ScenePort, grid: Grid, kernel?: FrontKernel): Problem[] {
  const across = acrossLine(scene, port);
  if (across) return [across];
  const { axis } = port.line!;
  const aux = reference(scene, port, grid);
  const x = aux.grid.lines[axis];
  const at = nearestLine(x, aux.middle);
  const lines = aux.grid.lines.map((l, a) => (a === axis ? l.slice(Math.max(0, at - looked), at + looked + 1) : l)) as Grid['lines'];
  const outerCells = aux.grid.outerCells.map((n, s) => (s >> 1 === axis ? 0 : n));
  const d = discretise({ ...aux.scene, ports: [] }, { ...aux.grid, lines, outerCells });
  const mode = modeOf(d, aux.scene, port, aux.middle, kernel);
  return 'problems' in mode ? mode.problems : [];
}

/**
 * What a lumped port's gap adds to the line at whose end it stands: a capacitance across the port and an inductance in series, from a reference run
 * of that line with the same port at both ends, on the same grid, against the line's own mode (after the numerical calibration of
 * ports by Zhu and Wu, IEEE Trans. MTT 47, 1589 (1999), with a line between two ports in place of their open and short).
 */
export async function calibrateOnLine(scene: GridScene, port: ScenePort, grid: Grid, options: SolveOptions, solve: SolveOnce): Promise<PortGap> {
  const across = acrossLine(scene, port);
  if (across) throw new ProblemError([across]);
  const aux = reference(scene, port, grid);
  const d = discretise(aux.scene, aux.grid);
  if (d.problems.length) throw new ProblemError(d.problems);
  const solved = modeOf(d, aux.scene, port, aux.middle, await denseKernel(options.host.module));
  if ('problems' in solved) throw new ProblemError(solved.problems);
  const mode = solved.found;
  const { arrays } = await solve(aux.scene, d, { ...options, onProgress: undefined });
  return fitGap(arrays.frequency.data, arrays.s.data, port.resistance, {
    length: aux.length,
    // Of more than two conductors, as where a floor of finite width stands in the open, it has no one meaning; the fit starts somewhere then.
    impedance: mode.impedance ?? port.resistance,
    beta: (f) => mode.at(f).beta[0],
  });
}
