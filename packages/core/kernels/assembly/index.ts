export { backward, eliminate, eliminateComplex, forward } from './dense';
export { run } from './fdtd';
export { bare, triad } from './bare';
export { product } from './product';
export { momentFactor, momentFactorSymmetric, momentFill } from './moment';
export { echo } from './layout';

/** First byte that is not the kernels' own. */
export function ownBytes(): usize {
  return __heap_base;
}
