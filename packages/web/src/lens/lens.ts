import { type Combination, combinationSchema, type Project } from '@jadebell/core/document';
import type { Complex } from '@jadebell/core/results';
import { z } from 'zod';
import { create } from 'zustand';
import type { Axis } from '@jadebell/core/numerics';
import { useProject } from '../project/store.ts';

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
  playing: 'frequency' | 'phase' | 'point' | null;
  /** Periods a second of the phase; stops a second of the frequency are ten times that, points of a study four times. */
  speed: number;
  gaps: 'kept' | 'out' | 'both';
  /** By port or channel, as typed: 50, 50-20j; '' is all of them. */
  references: Record<string, string>;
  /** By port, metres. */
  shifts: Record<string, number>;
  /** The waves that run in; null: as recorded. */
  excitation: Excitation | null;
  /** Combinations of waves that have names. */
  combinations: Excitation[];
  /** Cut through boxes that cards without a place of their own show. */
  plane: { axis: Axis; at: number } | null;
  /** Name of the open board; null: the first. */
  board: string | null;
}

export type Excitation = Combination;

/** What of the lens is kept with the project; the rest is kept by the browser. */
const shared = ['run', 'beside', 'gaps', 'references', 'shifts', 'excitation', 'combinations'] as const satisfies readonly (keyof NonNullable<
  Project['lens']
> &
  keyof Lens)[];
type Shared = Pick<Lens, (typeof shared)[number]>;

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
  combinations: [],
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
  excitation: combinationSchema.nullable(),
  combinations: z.array(combinationSchema),
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

/** What the browser keeps: where each person looks. */
const personal = ['frequency', 'phase', 'speed', 'plane', 'board'] as const satisfies readonly (keyof Lens)[];

/** What the open project says of its lens; of one that says nothing, what this browser kept of it until now stands. */
function ofProject(project: string): Partial<Shared> {
  const { id, document } = useProject.getState();
  return id === project ? (document?.lens ?? {}) : {};
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
    set({ ...fresh, ...lens, ...ofProject(project), lost, project });
  },
  set(change) {
    set(change);
    const now = get();
    if (!now.project) return;
    const own = Object.fromEntries(personal.map((k) => [k, now[k]]));
    if (!('phase' in change && Object.keys(change).length === 1)) localStorage.setItem(place(now.project), JSON.stringify(own));
    if (shared.some((k) => k in change)) {
      const lens = Object.fromEntries(shared.map((k) => [k, now[k]])) as Shared;
      if (useProject.getState().id === now.project) useProject.getState().edit('lens', (d) => ({ ...d, lens }));
    }
  },
}));

// The project's part follows the project: it comes with it, and goes back and forth with undo.
useProject.subscribe((now, before) => {
  const { project } = useLens.getState();
  if (now.id !== project || now.document?.lens === before.document?.lens) return;
  const base = Object.fromEntries(shared.map((k) => [k, fresh[k]])) as unknown as Shared;
  // A project that said nothing and is only now read leaves what this browser kept.
  if (now.document?.lens || before.document) useLens.setState({ ...base, ...now.document?.lens });
});

/** A reference impedance as text. */
export const referenceText = ([re, im]: Complex): string => (im ? `${re}${im < 0 ? '-' : '+'}${Math.abs(im)}j` : String(re));
