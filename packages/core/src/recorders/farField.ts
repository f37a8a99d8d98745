import { angle } from '../entries/index.ts';
import { defineRecorder } from './recorder.ts';
import { sameNumber } from '../numerics/tolerance.ts';

/** Finest and coarsest step of a pattern, radians. */
const [finest, coarsest] = [Math.PI / 360, Math.PI / 6];

/** Directions at which a far field is told for an angular step (radians): theta from 0 to pi, phi around without its end. */
export function directionsOf(step: number): { nTheta: number; nPhi: number; step: number } {
  const nTheta = Math.max(7, Math.round(Math.PI / step) + 1);
  return { nTheta, nPhi: 2 * (nTheta - 1), step: Math.PI / (nTheta - 1) };
}

/** The far field: each solver tells it with figures of its own, so that results hold it apart from other recorders. */
export const farField = defineRecorder<{ step: number }, object>()({
  kind: 'far-field',
  title: 'far field',
  stem: 'pattern',
  solvers: ['fdtd', 'moment'],
  over: 'frequencies',
  single: true,
  fields: { step: angle('angular step', '5 deg', { positive: true, about: 'Angular step of the pattern' }) },
  sentence: 'Far field {name} · every {step}',
  resolve: (_, { step }) =>
    step < finest || step > coarsest + sameNumber
      ? { code: 'recorder.step', chip: 'step', fault: 'The angular step must lie between 0.5 deg and 30 deg.', fix: 'Take 5 deg if in doubt.' }
      : { step },
  samples: (_, { sides }) => 8 * (sides[0] + sides[1] + sides[2]),
});
