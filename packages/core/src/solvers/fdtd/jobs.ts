import type { RecorderTold } from '../../recorders/index.ts';
import type { ResultArray } from '../../results/index.ts';
import { coreVersion } from '../../version.ts';
import type { Job } from '../solver.ts';
import type { Channel, ChannelSpectra } from './channels.ts';
import type { RecordedFields } from './fieldSum.ts';
import type { SteppedRun } from './march.ts';

/** What one excitation left behind. */
export interface Excitation extends SteppedRun {
  excited: number;
  /** Waves of all channels over the band. */
  spectra: Pick<ChannelSpectra, 'waves'>;
  /** How the ringing after its end was carried on. */
  rest?: { error: number; resonances: { frequency: number; q: number }[] };
  /** By how much waves of series that are faded as the recorded fields are differ from those carried on. */
  fieldsOff?: number;
  steps: number;
}

/** What goes with the excitation whose fields are recorded, and with the first one, which has the signals of points; null of others. */
export interface Recordings {
  recorded: RecordedFields | null;
  signals: RecorderTold[] | null;
}

interface Facts extends Pick<Excitation, 'excited' | 'residual' | 'ended' | 'rest' | 'fieldsOff' | 'steps'> {
  version: string;
  channels: number;
  recordings: Recordings;
}

const waveTable = 'job:waves';
const energyTable = 'job:energies';

/** An excitation as a job of its own, with the arrays that it adds to the result. */
export function jobOf(run: Excitation, channels: readonly Channel[], points: number, own: Record<string, ResultArray>, recordings: Recordings): Job {
  const n = channels.length;
  const waves = new Float64Array(4 * points * n);
  for (let f = 0; f < points; f++)
    for (let c = 0; c < n; c++) {
      const { a, b } = run.spectra.waves(c, f);
      waves.set([...a, ...b], 4 * (f * n + c));
    }
  const { excited, residual, ended, rest, fieldsOff, steps } = run;
  const facts: Facts = { version: coreVersion, channels: n, excited, residual, ended, rest, fieldsOff, steps, recordings };
  return {
    excited,
    facts,
    arrays: {
      ...own,
      [waveTable]: { shape: [points, n, 4], data: waves },
      [energyTable]: { shape: [run.energies.length, 2], data: Float64Array.from(run.energies.flat()) },
    },
  };
}

/** Takes up a job that was done before; null where it is of another program or another model. */
export function fromJob(
  job: Job,
  channels: readonly Channel[],
  points: number,
): { run: Excitation; own: Record<string, ResultArray>; recordings: Recordings } | null {
  const facts = job.facts as Facts;
  const { [waveTable]: waves, [energyTable]: energies, ...own } = job.arrays;
  const n = channels.length;
  if (facts.version !== coreVersion || facts.channels !== n || waves.shape[0] !== points || waves.shape[1] !== n) return null;
  const { data } = waves;
  const run: Excitation = {
    excited: facts.excited,
    residual: facts.residual,
    ended: facts.ended,
    rest: facts.rest,
    fieldsOff: facts.fieldsOff,
    steps: facts.steps,
    energies: Array.from({ length: energies.shape[0] }, (_, i) => [energies.data[2 * i], energies.data[2 * i + 1]]),
    spectra: {
      waves: (c, f) => {
        const at = 4 * (f * n + c);
        return { a: [data[at], data[at + 1]], b: [data[at + 2], data[at + 3]] };
      },
    },
  };
  return { run, own, recordings: facts.recordings };
}
