import { create } from 'zustand';
import type { PlacingStep } from '@jadebell/core/document';
import type { Axis } from '@jadebell/core/numerics';

/** What a click in the stage view picks. */
export const pickModes = ['bodies', 'faces', 'edges', 'points'] as const;
export type PickMode = (typeof pickModes)[number];

/** Something of the model under the pointer or picked. */
export interface Hit {
  kind: 'body' | 'face' | 'edge' | 'point';
  /** Body or curve it belongs to. */
  body: string;
  face?: number;
  /** Number of the edge segment. */
  segment?: number;
  /** Where on it, metres. */
  point: [number, number, number];
}

export const sameHit = (a: Hit | null, b: Hit | null): boolean =>
  a === b ||
  (!!a &&
    !!b &&
    a.kind === b.kind &&
    a.body === b.body &&
    a.face === b.face &&
    a.segment === b.segment &&
    (a.kind !== 'point' || a.point.join() === b.point.join()));

/** A chip that is open and takes references from the stage view. */
export interface ChipEditor {
  insert(text: string): void;
  /** Coordinate that the chip is, 0 to 2, or null. */
  axis: number | null;
}

/** A line that is being placed and sized with the pointer. */
export interface Placing {
  line: string;
  step: number;
  /** Normal of what it stands on. */
  up: [number, number, number];
  /** The step as it was when the pointer first pulled, with the values then. */
  base: PlacingStep | null;
  start?: Record<string, number>;
  /** The point of what it stands on, and how high the body was when the pointer first pulled; metres. */
  on?: [number, number, number];
  /** How far its own place lies above its lowest point. */
  foot?: number;
  tall?: number;
}

export type Showing = 'shown' | 'faint' | 'hidden';

interface StageState {
  mode: PickMode;
  hit: Hit | null;
  /** How bodies are shown that are not shown plainly. */
  showing: Record<string, Showing>;
  section: { axis: Axis; at: number; flipped: boolean } | null;
  /** Null while not measuring, else what was picked to measure. */
  measuring: Hit[] | null;
  editor: ChipEditor | null;
  placing: Placing | null;
  set(change: Partial<Pick<StageState, 'mode' | 'hit' | 'section' | 'measuring' | 'editor' | 'placing'>>): void;
  show(names: readonly string[], how: Showing): void;
  showAll(): void;
}

/** How the stage view shows the model and what is picked in it; not part of the project. */
export const useStage = create<StageState>((set) => ({
  mode: 'bodies',
  hit: null,
  showing: {},
  section: null,
  measuring: null,
  editor: null,
  placing: null,
  set: (change) => set(change),
  show: (names, how) =>
    set((s) => {
      const showing = { ...s.showing };
      for (const n of names)
        if (how === 'shown') delete showing[n];
        else showing[n] = how;
      return { showing };
    }),
  showAll: () => set({ showing: {} }),
}));

const after: Record<Showing, Showing> = { shown: 'faint', faint: 'hidden', hidden: 'shown' };
/** Shows bodies the next way: plainly, faintly, not at all. */
export function cycleShowing(names: readonly string[]): void {
  const { showing, show } = useStage.getState();
  show(names, after[showing[names[0]] ?? 'shown']);
}
