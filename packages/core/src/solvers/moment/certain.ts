import { wireAccuracy } from '../../grid/index.ts';
import { isSettled, type Pass, type ResultSet, type WireEvidence } from '../../results/index.ts';
import type { WiresScene } from '../../scene/index.ts';
import { changeBetween, defaultChange } from '../change.ts';
import type { SolveOptions } from '../solver.ts';

const mostPasses = 7;
/** How many more segments each pass takes than the one before. */
const growth = 1.5;
/** Unknowns beyond which no further pass is begun. */
const mostUnknowns = 8000;

/** Solves a scene with more and more segments until the result changes by less than is asked for twice in a row. */
export async function solveCertain(
  scene: WiresScene,
  options: SolveOptions,
  solve: (scene: WiresScene, options: SolveOptions) => Promise<ResultSet<WireEvidence>>,
): Promise<ResultSet<WireEvidence>> {
  const asked = scene.details.change ?? defaultChange;
  const passes: Pass[] = [];
  let last: ResultSet<WireEvidence> | null = null;
  let seconds = 0;
  let density = scene.details.segmentsPerWavelength ?? wireAccuracy.certain.perWavelength / 3;
  for (let pass = 1; ; pass++) {
    const change = passes.at(-1)?.change ?? null;
    const result: ResultSet<WireEvidence> = await solve(
      { ...scene, details: { ...scene.details, segmentsPerWavelength: density } },
      { ...options, onProgress: options.onProgress && ((p) => options.onProgress!({ ...p, pass, change })) },
    );
    seconds += result.meta.evidence.seconds;
    const stopped = options.signal?.aborted ?? false;
    // Half a pass is worth less than the whole one before it.
    if (stopped && last) break;
    const { unknowns } = result.meta.evidence;
    passes.push({ cells: unknowns, change: last && changeBetween(last, result) });
    last = result;
    if (stopped || pass >= mostPasses || isSettled(passes, asked)) break;
    if (unknowns * growth > mostUnknowns) break;
    density *= growth;
  }
  return { ...last, meta: { ...last.meta, evidence: { ...last.meta.evidence, seconds, passes, asked } } };
}
