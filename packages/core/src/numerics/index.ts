// What other packages take of the numerics; the core itself imports each file by its name.
export { type Affine, apply, compose, identity, invert, rotation, translation } from './affine.ts';
export * from './axis.ts';
export * from './complex.ts';
export { complexEigen } from './complexEigen.ts';
export { fewestMeshes, type Limit, richardson, sizeFor } from './richardson.ts';
export { rightDivide } from './complexSolve.ts';
export * from './constants.ts';
export { type FrontKernel, plainKernel } from './factors.ts';
export { Fronts } from './fronts.ts';
export { gauss } from './gauss.ts';
export { plainProducts, type ProductKernel } from './product.ts';
export { pulseAt, pulseFor } from './pulse.ts';
export * from './vector.ts';
