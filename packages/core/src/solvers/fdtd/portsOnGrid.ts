import { type Problem, problem } from '../../document/index.ts';
import { type Grid, nearestLine } from '../../grid/index.ts';
import type { FrontKernel } from '../../numerics/factors.ts';
import { type GridScene, pointsOf, type SceneGuide, type ScenePort } from '../../scene/index.ts';
import { gapFaults } from './calibrateOnLine.ts';
import { discretise } from './discretise.ts';
import { guideModes, modesUntold } from './guides.ts';
import { pulseFor } from '../../numerics/pulse.ts';
import { gridSource } from './sources/index.ts';
import { waveRoom } from './sources/wave.ts';

/** Cells that are looked at around a port, and on both sides of a guided one's plane. */
const around = 4;

/** A part of a grid; what is cut off is closed by walls. */
function cropped(grid: Grid, from: readonly number[], to: readonly number[]): Grid {
  const outerCells = [...grid.outerCells];
  const lines = grid.lines.map((x, a) => {
    const last = x.length - 1;
    const [low, high] = [Math.max(0, nearestLine(x, from[a]) - around), Math.min(last, nearestLine(x, to[a]) + around)];
    outerCells[2 * a] = Math.max(0, outerCells[2 * a] - low);
    outerCells[2 * a + 1] = Math.max(0, outerCells[2 * a + 1] - (last - high));
    return x.slice(low, high + 1);
  }) as Grid['lines'];
  return { ...grid, lines, outerCells };
}

const lumped = (scene: GridScene, grid: Grid, port: ScenePort): Problem[] =>
  discretise({ ...scene, ports: [port], guides: [], source: null }, cropped(grid, port.min, port.max)).problems;

/** What would keep the gap of a port in its results, although it is to be taken out. */
const gaps = (scene: GridScene, grid: Grid, port: ScenePort, kernel?: FrontKernel): Problem[] =>
  port.line
    ? gapFaults(scene, port, grid, kernel).map(({ message, fix }) =>
        problem('warning', 'port.gap-kept', { part: 'ports', name: port.name, chip: 'gap' }, `The gap cannot be taken out. ${message}`, fix),
      )
    : [];

const thinWall = ({ name }: SceneGuide): Problem =>
  problem(
    'warning',
    'port.thin-wall',
    { part: 'ports', name },
    `A wall of metal that is curved or slanted, and thinner than a cell, crosses the port ${name}: there and everywhere in the model such walls are held to the nearest nodes of the grid, up to half a cell off.`,
    'Make the wall thicker than a cell where nothing depends on it, draw the port within it, or take a finer accuracy.',
  );

function guided(scene: GridScene, grid: Grid, guide: SceneGuide, kernel?: FrontKernel): Problem[] {
  const end = ([0, 1, 2] as const).map((a) => [grid.lines[a][0], grid.lines[a][grid.lines[a].length - 1]]);
  const [from, to] = [0, 1].map((side) => end.map((e, a) => (a === guide.normal ? guide.min[a] : e[side])));
  const d = discretise({ ...scene, ports: [], guides: [guide], source: null }, cropped(grid, from, to));
  const found = guideModes(d, guide, d.guides[0], scene.band, kernel);
  if ('problems' in found) return found.problems;
  const thin = d.cuts?.thinClosed ? [thinWall(guide)] : [];
  return [...thin, ...modesUntold(d, guide, found.found, scene.band, kernel)];
}

/** What a source from without sees of the grid: a wave of all of it, what stands somewhere of that around it. */
function sourced(scene: GridScene, grid: Grid): Problem[] {
  if (scene.source?.kind === 'wave') return waveRoom(scene, scene.source, grid);
  const [at] = pointsOf(scene.source);
  if (!at) return [];
  const d = discretise({ ...scene, ports: [], guides: [] }, cropped(grid, at, at));
  return gridSource(scene.source!, { scene, d, grid: d.grid, pulse: pulseFor(scene.band.from, scene.band.to) }).problems;
}

/**
 * What would stop a run at its start, found before it: lumped ports that the grid's metal shorts or does not reach, guided ones without enough modes, whose
 * modes do not propagate in the band, that see media which they must not, or whose mode is cut at the rim; a plane wave that finds no room, and a dipole where its
 * power has no meaning. Only the grid around each is made.
 */
export function portsOnGrid(scene: GridScene, grid: Grid, kernel?: FrontKernel): Problem[] {
  return [
    ...scene.ports.flatMap((p) => {
      const faults = lumped(scene, grid, p);
      return faults.length ? faults : gaps(scene, grid, p, kernel);
    }),
    ...scene.guides.flatMap((g) => guided(scene, grid, g, kernel)),
    ...sourced(scene, grid),
  ];
}
