import type { Complex } from '@jadebell/core/results';
import { create } from 'zustand';
import type { Axis } from '@jadebell/core/numerics';

/** Which runs are looked at, and how: what every card of a board follows. */
export interface Lens {
  /** The first run; null: the newest that can be read. */
  run: string | null;
  /** Runs beside it, of this project or others. */
  beside: { id: string; project: string }[];
  /** Hertz; null: the middle of what was recorded. */
  frequency: number | null;
  /** Radians. */
  phase: number;
  playing: 'frequency' | 'phase' | null;
  /** Periods a second of the phase; stops a second of the frequency are ten times that. */
  speed: number;
  gaps: 'kept' | 'out' | 'both';
  /** By port or channel, as typed: 50, 50-20j; '' is all of them. */
  references: Record<string, string>;
  /** By port, metres. */
  shifts: Record<string, number>;
  /** Name of the chosen combination of waves; null: as recorded. */
  excitation: Excitation | null;
  /** Cut through boxes that cards without a place of their own show. */
  plane: { axis: Axis; at: number } | null;
  /** Name of the open board; null: the first. */
  board: string | null;
}

/** Waves that run in together: by channel's name an amplitude and a phase in degrees. */
export interface Excitation {
  name: string;
  waves: { channel: string; amplitude: number; phase: number }[];
}

const fresh: Lens = {
  run: null,
  beside: [],
  frequency: null,
  phase: 0,
  playing: null,
  speed: 0.5,
  gaps: 'kept',
  references: {},
  shifts: {},
  excitation: null,
  plane: null,
  board: null,
};

interface State extends Lens {
  project: string | null;
  open(project: string): void;
  set(change: Partial<Lens>): void;
}

const place = (project: string): string => `jadebell.lens.${project}`;

/** The lens of the open project; it is where it was left when the project is opened again. */
export const useLens = create<State>((set, get) => ({
  ...fresh,
  project: null,
  open(project) {
    if (get().project === project) return;
    let kept: Partial<Lens> = {};
    try {
      kept = JSON.parse(localStorage.getItem(place(project)) ?? '{}') as Partial<Lens>;
    } catch {
      // What cannot be read is not worth a message: the lens begins anew.
    }
    set({ ...fresh, ...kept, playing: null, project });
  },
  set(change) {
    set(change);
    const { project, open: _open, set: _set, playing: _playing, ...lens } = get();
    if (project && !('phase' in change && Object.keys(change).length === 1)) localStorage.setItem(place(project), JSON.stringify(lens));
  },
}));

/** A reference impedance as text. */
export const referenceText = ([re, im]: Complex): string => (im ? `${re}${im < 0 ? '-' : '+'}${Math.abs(im)}j` : String(re));
