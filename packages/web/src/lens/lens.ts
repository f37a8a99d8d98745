import type { Complex } from '@jadebell/core/results';
import { z } from 'zod';
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

const axis: z.ZodType<Axis> = z.union([z.literal(0), z.literal(1), z.literal(2)]);
/** What the browser may hold of a lens. */
const kept = {
  run: z.string().nullable(),
  beside: z.array(z.object({ id: z.string(), project: z.string() })),
  frequency: z.number().positive().nullable(),
  phase: z.number(),
  speed: z.number().positive(),
  gaps: z.enum(['kept', 'out', 'both']),
  references: z.record(z.string(), z.string()),
  shifts: z.record(z.string(), z.number()),
  excitation: z.object({ name: z.string(), waves: z.array(z.object({ channel: z.string(), amplitude: z.number(), phase: z.number() })) }).nullable(),
  plane: z.object({ axis, at: z.number() }).nullable(),
  board: z.string().nullable(),
} satisfies { [K in Exclude<keyof Lens, 'playing'>]: z.ZodType<Lens[K]> };

const words: Partial<Record<keyof typeof kept, string>> = { beside: 'runs beside', references: 'reference impedances', shifts: 'planes of ports', excitation: 'waves' }; // prettier-ignore

/** A lens as it was stored, in what of it can be read, and what cannot, in words. */
export function readLens(text: string | null): { lens: Partial<Lens>; lost: string[] } {
  let stored: unknown;
  try {
    stored = JSON.parse(text ?? '{}');
  } catch {
    return { lens: {}, lost: ['all of it'] };
  }
  if (typeof stored !== 'object' || stored === null) return { lens: {}, lost: ['all of it'] };
  const lens: Record<string, unknown> = {};
  const lost: string[] = [];
  for (const [key, schema] of Object.entries(kept)) {
    if (!(key in stored)) continue;
    const part = schema.safeParse((stored as Record<string, unknown>)[key]);
    if (part.success) lens[key] = part.data;
    else lost.push(words[key as keyof typeof kept] ?? key);
  }
  return { lens, lost };
}

interface State extends Lens {
  project: string | null;
  /** What of the stored lens could not be read, in words, until that has been seen. */
  lost: string[];
  open(project: string): void;
  set(change: Partial<Lens>): void;
}

const place = (project: string): string => `jadebell.lens.${project}`;

/** The lens of the open project; it is where it was left when the project is opened again. */
export const useLens = create<State>((set, get) => ({
  ...fresh,
  project: null,
  lost: [],
  open(project) {
    if (get().project === project) return;
    const { lens, lost } = readLens(localStorage.getItem(place(project)));
    set({ ...fresh, ...lens, lost, project });
  },
  set(change) {
    set(change);
    const { project, lost: _lost, open: _open, set: _set, playing: _playing, ...lens } = get();
    if (project && !('phase' in change && Object.keys(change).length === 1)) localStorage.setItem(place(project), JSON.stringify(lens));
  },
}));

/** A reference impedance as text. */
export const referenceText = ([re, im]: Complex): string => (im ? `${re}${im < 0 ? '-' : '+'}${Math.abs(im)}j` : String(re));
