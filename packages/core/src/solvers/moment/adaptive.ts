import { wireAccuracy, type WireEvidence } from '../../methods/index.ts';
import type { ResultSet } from '../../results/index.ts';
import type { WiresScene } from '../../scene/index.ts';
import { solveInPasses } from '../inPasses.ts';
import type { SolveOptions } from '../solver.ts';

/** Passes after which adaptive accuracy ends whatever still changes. */
const mostPasses = 7;
/** How many more segments each pass takes than the one before. */
const growth = 1.5;
/** Unknowns beyond which no further pass is begun. */
const mostUnknowns = 8000;

/** Solves a scene with more and more segments until the result changes by less than is asked for twice in a row. */
export async function solveAdaptive(
  scene: WiresScene,
  options: SolveOptions,
  solve: (scene: WiresScene, options: SolveOptions) => Promise<ResultSet<WireEvidence>>,
): Promise<ResultSet<WireEvidence>> {
  const { result } = await solveInPasses(
    {
      first: scene.details.segmentsPerWavelength ?? wireAccuracy.adaptive.perWavelength / 3,
      most: mostPasses,
      solve: (segmentsPerWavelength, o) => solve({ ...scene, details: { ...scene.details, segmentsPerWavelength } }, o),
      next: (density, { meta }) => (meta.evidence.unknowns * growth > mostUnknowns ? null : density * growth),
    },
    scene.details.change,
    options,
  );
  return result;
}
