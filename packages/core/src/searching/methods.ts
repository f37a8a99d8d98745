import { cmaEs } from './cmaEs.ts';
import { differentialEvolution } from './differentialEvolution.ts';
import { leastSquares } from './leastSquares.ts';
import { nelderMead } from './nelderMead.ts';
import { quasiNewton } from './quasiNewton.ts';
import type { Search, Task } from './search.ts';
import { surrogate } from './surrogate.ts';

interface MethodKind {
  title: string;
  /** When one takes it. */
  about: string;
  begin(task: Task): Search;
}

/** All methods of searching. A new one is an entry here. */
export const methods = {
  surrogate: { title: 'Gaussian process', about: 'dear points: a model of all of them says which is tried next', begin: surrogate },
  'nelder-mead': { title: 'simplex (Nelder-Mead)', about: 'few parameters, near a good start', begin: nelderMead },
  'quasi-newton': { title: 'quasi-Newton (BFGS)', about: 'few parameters, smooth figures, near a good start', begin: quasiNewton },
  'least-squares': { title: 'least squares (Levenberg-Marquardt)', about: 'several goals that ask for values', begin: leastSquares },
  'cma-es': { title: 'covariance evolution (CMA-ES)', about: 'many parameters, hundreds of cheap points', begin: cmaEs },
  evolution: { title: 'differential evolution', about: 'many parameters, figures with many hollows', begin: differentialEvolution },
} as const satisfies Record<string, MethodKind>;
export type Method = keyof typeof methods;

/** Parameters up to which a Gaussian process is the first choice. */
const fewForProcess = 8;

/** The method that suits so many parameters. */
export const suiting = (parameters: number): Method => (parameters <= fewForProcess ? 'surrogate' : 'cma-es');
