// Parts of the time-domain solver by themselves, for benchmark, verification and tests.
export { calibratePorts } from './calibrate.ts';
export { coefficients, type Discrete, isMetal } from './discrete.ts';
export { planWave } from './discreteWave.ts';
export { discretise, timeStep } from './discretise.ts';
export { fitGap, halfLine } from './gapFit.ts';
export { facingColumns, fitSpread } from './calibrateOnSpread.ts';
export { columnEdges } from './portEdges.ts';
export { PortSpectrum } from './portSpectrum.ts';
export { planRecording } from './recorders.ts';
export { Simulation, type SimulationPlan } from './simulation.ts';
export { costsOf, type PlaneLoads, rebalanced, slabsOf } from './slabs.ts';
export { solveScene } from './solve.ts';
export { steady } from './steady.ts';
export { samplesPerPeriod } from './stepping.ts';
export { Space } from './transit.ts';
