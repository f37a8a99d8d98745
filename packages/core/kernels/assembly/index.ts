export { backward, eliminate, eliminateComplex, forward } from './dense';
export { run } from './fdtd';
export { bare, triad } from './bare';
export { momentFactor, momentFactorSymmetric, momentFill } from './moment';
