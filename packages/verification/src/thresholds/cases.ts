const wires = ['wire-dipoles', 'wire-mutual', 'wire-array', 'wire-reciprocity', 'wire-pick-up', 'wire-earth'];
const sections = ['microstrip-modes', 'stripline-modes', 'copper-loss', 'leaky-slab', 'surface-wave', 'tensor-slab', 'bent-slab', 'lossy-filling'];
const grid = ['cavity', 'symmetry', 'microstrip-ports'];

/** Cases that thresholds of a file are tried on: the first line that fits counts. They take seconds, so that each threshold can be moved both ways. */
const tried: readonly (readonly [of: RegExp, cases: readonly string[]])[] = [
  [/^radiation\/(condense|boxPattern|resample)/, ['open-guide']],
  [/^solvers\/moment\/|^ports\/wires|^radiation\//, wires],
  [/^solvers\/(modes|sections)\/|^numerics\/(fronts|arnoldi|complexEigen)/, sections],
  [/^solvers\/fdtd\/pml/, ['pml']],
  [/^solvers\/fdtd\/(ending|excite|extrapolate|transit|ringing)|^numerics\/(exponentials|symmetricEigen)/, ['near-cutoff']],
  [/^solvers\/fdtd\/calibrateOnSpread/, ['port-spread']],
  [/^solvers\/fdtd\/(calibrate|portsOnGrid)|^ports\/portLine/, ['port-gaps']],
  [/^discretisation\/immittance|^materials\//, ['lossy-guide']],
  [/^discretisation\/(split|stableStep)/, ['tilted-box']],
  [/^discretisation\/(sheet|edge|outline|enlarge|cuts)|^grid\/slanted/, ['turned-sheets']],
  [/^discretisation\/subpixel/, ['cavity', 'dielectric-sphere']],
  [/^solvers\/fdtd\/(recorders|sources|discreteWave)/, ['plane-wave']],
  [/^(solvers\/fdtd|grid|discretisation|numerics|scene|methods)\//, grid],
];

/** Names of the cases that a threshold is tried on; none where it is not a matter of what is solved. */
export const casesFor = (file: string): readonly string[] => tried.find(([of]) => of.test(file))?.[1] ?? [];

/** Whether a name is of the layout of a table, which is no threshold. */
export const isLayout = (name: string): boolean => /(Parts|Bytes|Rows)$/.test(name);
