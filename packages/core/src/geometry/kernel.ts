import Module, { type ManifoldToplevel } from 'manifold-3d';

export type Kernel = ManifoldToplevel;
let loading: Promise<Kernel> | null = null;

/** Loads the solid kernel once. `locate` gives the address of its WebAssembly file where the default does not serve. */
export function loadGeometryKernel(locate?: () => string): Promise<Kernel> {
  loading ??= Module(locate ? { locateFile: locate } : undefined).then((wasm) => {
    wasm.setup();
    return wasm;
  });
  return loading;
}
