// Parts of the solver of wires by themselves, for benchmark, verification and tests.
export { circuitOf } from './circuit.ts';
export { earthPermittivity, reflections } from './earth/halfSpace.ts';
export { WireSystem } from './system.ts';
