import type { Problem } from '../../../document/index.ts';
import type { Complex } from '../../../numerics/complex.ts';
import type { Grid } from '../../../grid/index.ts';
import type { Probe } from '../../../recorders/index.ts';
import type { ResultArray, ResultMeta } from '../../../results/index.ts';
import type { GridScene } from '../../../scene/index.ts';
import type { Discrete } from '../discrete.ts';
import type { TotalBox } from '../discreteWave.ts';
import type { FarReading } from '../farReading.ts';
import type { Injection } from '../injection.ts';
import type { Pulse } from '../../../numerics/pulse.ts';

/** What of a result only a source of its kind tells, beside fields and patterns. */
export type SourceTold = Pick<ResultMeta, 'wave' | 'dipole' | 'scattered' | 'farField'>;

/** A run that a source from without has excited, at its end. */
export interface Heard {
  /** Samples of the source's probes, by their number. */
  probe(n: number): ArrayLike<number>;
  /** Factor by which spectra of samples over time must be multiplied to be those of its sums over `every` steps. */
  every: number;
}

/** A source from without on a grid: what it adds to the fields, and how a run is read that it has excited. */
export interface GridSource {
  /** What stands in its way on this grid. */
  problems: Problem[];
  /** The box within which fields are those of source and structure; absent: everywhere. */
  box?: TotalBox;
  injection: Injection;
  probes: Probe[];
  /** How a run is read. */
  read(heard: Heard): {
    /** Complex factor of the sums at each recorded frequency, by which fields come out for what the source is told for. */
    scales: Complex[];
    /** Facts and balance of power, from the far field at each of its frequencies where one was asked for. */
    tell(far: { name: string; step: number; readings: FarReading[] } | null): { told: SourceTold; balance: number[] | null };
    arrays: Record<string, ResultArray>;
  };
}

/** What a source is planned on. */
export interface SourceGround {
  scene: GridScene;
  d: Discrete;
  grid: Grid;
  pulse: Pulse;
}
