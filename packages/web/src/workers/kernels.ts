import kernelsAddress from '@jadebell/core/kernels/kernels.wasm?url';
import { denseKernel } from '@jadebell/core/solvers/modes';
import { loadGeometryKernel } from '@jadebell/core/geometry';
import kernelAddress from 'manifold-3d/manifold.wasm?url';

/** The geometry kernel of a worker. */
export const loadGeometry = (): ReturnType<typeof loadGeometryKernel> => loadGeometryKernel(() => kernelAddress);

/** The compiled direct solver of a worker. */
export const loadDense = (): ReturnType<typeof denseKernel> =>
  fetch(kernelsAddress)
    .then((r) => r.arrayBuffer())
    .then((bytes) => WebAssembly.compile(bytes))
    .then(denseKernel);
