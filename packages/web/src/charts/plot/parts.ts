/** A curve of a plot; x ascends. */
export interface PlotTrace {
  name: string;
  color: string;
  dash?: string;
  x: ArrayLike<number>;
  y: ArrayLike<number>;
  axis: 'left' | 'right';
  /** Drawn with its points, where they are few. */
  points?: boolean;
  /** Its points stand by themselves, without a line. */
  loose?: boolean;
}

export interface PlotAxis {
  label: string;
  min?: number;
  max?: number;
  log?: boolean;
  /** Ticks at parts of a turn: values are degrees. */
  angles?: boolean;
  /** Size of the unit that ticks are told in. */
  size: number;
}

/** Something that stands at a place of the plot. */
export interface PlotMark {
  x: number;
  y: number;
  axis: 'left' | 'right';
  color: string;
  label: string;
  kind: 'marker' | 'note';
  /** Stands on this trace, and goes with it. */
  on?: PlotTrace;
}
export interface PlotLimit {
  from: { x: number; y: number };
  to: { x: number; y: number };
  side: 'below' | 'above';
  ok: boolean | null;
}

/** An axis that is laid out: its ends and ticks in SI. */
export interface Laid {
  min: number;
  max: number;
  log: boolean;
  ticks: number[];
}

/** How all words of charts are written. */
export const chartText = { fontSize: 11.5, fill: 'var(--faint)' };
