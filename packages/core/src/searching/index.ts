// How the best values of parameters are sought: methods that ask for points and are told what came of them.
export { cmaEs, normalOf } from './cmaEs.ts';
export { differentialEvolution } from './differentialEvolution.ts';
export { type Foretold, GaussianProcess } from './gaussianProcess.ts';
export { leastSquares } from './leastSquares.ts';
export { type Method, methods, suiting } from './methods.ts';
export { nelderMead } from './nelderMead.ts';
export { latinHypercube, mostDimensions, randomOf, sobol } from './sequences.ts';
export { normalBelow } from './normal.ts';
export { quasiNewton } from './quasiNewton.ts';
export { type Found, type Search, searchFunction, type Task, type Told } from './search.ts';
export { fewestPoints, type Influence, influenceOf, type Shares, sobolIndices } from './sensitivity.ts';
export { between, canLink, drawing, endsOf, type Link, movedSpread, type Spread } from './spreads.ts';
export { surrogate } from './surrogate.ts';
export { type FigureSpread, type Kept, type Tolerance, toleranceOf, type ToleranceTask } from './tolerance.ts';
