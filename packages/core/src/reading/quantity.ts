import type { CurveForm } from '../document/index.ts';
import type { IncidentWave, PatternFigures, ResultArray, ResultMeta } from '../results/index.ts';
import type { Numbers } from './forms.ts';
import type { ViewedNetwork } from './view.ts';

/** A run as curves are taken from it. */
export interface RunReading {
  meta: ResultMeta;
  /** Hertz, of S; empty where no port was excited. */
  frequency: ArrayLike<number>;
  network: ViewedNetwork | null;
  /** Waves of the chosen excitation by its column in S. */
  waves: readonly IncidentWave[];
  array(name: string): ResultArray | undefined;
  /** Figures of the far field at the recorded frequencies where they are not of what was recorded, but of other waves. */
  figures?: readonly PatternFigures[];
}

export interface QuantityCurve extends Numbers {
  x: ArrayLike<number>;
}

/** What a curve can be of. */
export interface QuantityKind {
  title: string;
  group: 'network' | 'lines' | 'antenna' | 'recorded' | 'time';
  /** Angles in degrees. */
  over: 'frequency' | 'time' | 'angle';
  unit: string;
  forms: readonly CurveForm[];
  /** Terms that a run has, first those that one looks at first. */
  terms(meta: ResultMeta): { key: string; label: string }[];
  /** Arrays that it is made of, besides S. */
  needs?(meta: ResultMeta, of: string): string[];
  /** How a term is written in a legend. */
  named?(of: string): string;
  curve(run: RunReading, of: string): QuantityCurve | null;
}
