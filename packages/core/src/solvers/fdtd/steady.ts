import { ProblemError } from '../../document/index.ts';
import { unstable } from './march.ts';
import type { SolveOnce } from './solveOnce.ts';

/** How often the step is made shorter, and by how much each time. */
const tries = 2;
const shorter = 0.85;

/**
 * Solves with a shorter step where fields grow without end: the step beside cut cells follows from a bound on each that holds for nearly all metal, and what breaks it
 * is found out by the run. What was made until then is lost. The evidence tells.
 */
export const steady =
  (solve: SolveOnce): SolveOnce =>
  async (scene, discrete, options, observe) => {
    let model = discrete;
    for (let n = 0; ; n++)
      try {
        const result = await solve(scene, model, options, observe);
        if (n) result.meta.evidence.shortened = shorter ** n;
        return result;
      } catch (e) {
        const grew = e instanceof ProblemError && e.problems.some((p) => p.code === unstable.code);
        if (!grew || !model.cuts || n === tries) throw e;
        model = model.withStep(shorter * model.dt);
      }
  };
