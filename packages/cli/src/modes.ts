import { readFile } from 'node:fs/promises';
import { denseKernel } from '@jadebell/core/solvers/modes';
import { type Problem, problem, readProject } from '@jadebell/core/document';
import { loadGeometryKernel } from '@jadebell/core/geometry';
import { buildScene } from '@jadebell/core/scene';
import { type ModeFigures, prepareSection, sectionCells, sectionOfGuide, solveModes } from '@jadebell/core/solvers/sections';
import { nodeHost } from '@jadebell/node';
import { applyChanges, type Changes } from './load.ts';

/** Modes of one section, as they are printed. */
export interface SectionModes {
  section: string;
  frequency: number;
  cells: number;
  modes: ModeFigures[];
}

/** Solves the sections and guided ports of a project file, or the one of a name. Gives what was solved and what is wrong. */
export async function modesOf(file: string, changes: Changes, only: string | undefined): Promise<{ solved: SectionModes[]; problems: Problem[] }> {
  const reading = readProject(await readFile(file, 'utf8'));
  if (!reading.project) return { solved: [], problems: reading.problems };
  const { project, problems } = applyChanges(reading.project, changes);
  if (problems.length) return { solved: [], problems };
  const { model, sections, guides, scene, problems: found } = buildScene(project, await loadGeometryKernel());
  const all = [...sections, ...(scene ? guides.map((g) => sectionOfGuide(g, scene.band, scene.accuracy)) : [])];
  const wanted = all.filter((s) => only === undefined || s.name === only);
  // Faults of other parts do not concern the sections, nor what only the solvers of whole models cannot take.
  const own = found.filter((p) => ['sections', 'lines', 'parameters'].includes(p.place.part) && !p.code.startsWith('material.'));
  if (!wanted.length) {
    const missing = problem(
      'error',
      'section.none',
      { part: 'sections', ...(only === undefined ? {} : { name: only }) },
      only === undefined ? 'The project has no section and no guided port.' : `There is no section or guided port named ${only} that can be solved.`,
      all.length ? `There are ${all.map((s) => s.name).join(', ')}.` : 'Add a section under Feed.',
    );
    return { solved: [], problems: [...own, missing] };
  }
  const kernel = await denseKernel((await nodeHost(1)).module);
  const solved: SectionModes[] = [];
  for (const s of wanted) {
    const ready = prepareSection(model.bodies, s);
    own.push(...ready.problems);
    if (!('filled' in ready)) continue;
    const { figures } = solveModes(model.bodies, s, ready, s.frequency, kernel);
    solved.push({ section: s.name, frequency: s.frequency, cells: sectionCells(ready.grid), modes: figures });
  }
  return { solved, problems: own };
}

/** One line a mode. */
export const modesText = ({ section, frequency, cells, modes }: SectionModes): string =>
  [
    `${section}: ${cells} cells, ${(frequency / 1e9).toPrecision(6)} GHz`,
    ...modes.map(
      (m, n) =>
        `${String(n + 1).padStart(3)}  ${m.name.padEnd(9)}  ${m.propagates ? `index ${m.index[0].toFixed(6)}` : `cut off, ${m.alpha.toPrecision(5)} Np/m`}` +
        `  loss ${(20 * Math.LOG10E * m.alpha).toPrecision(4)} dB/m${m.groupIndex === null ? '' : `  group index ${m.groupIndex.toFixed(5)}`}` +
        `${m.line ? `  impedance ${m.line.powerCurrent.toFixed(3)} ohm` : ''}`,
    ),
  ].join('\n');
