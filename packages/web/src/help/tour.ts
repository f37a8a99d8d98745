import { emptyProject, type Project } from '@jadebell/core/document';
import { starters } from '@jadebell/core/starters';
import { create } from 'zustand';
import type { StagePath } from '../ui/stages.ts';

/** One stop of the tour: what it is about stands at `anchor`. */
export interface Stop {
  stage: StagePath;
  anchor: string;
  title: string;
  text: string;
}

export const stops: readonly Stop[] = [
  { stage: 'shape', anchor: '.course', title: 'Five stages', text: 'From left to right: shape the model, feed it, solve it, read what came out, and explore by changing it. Keys 1 to 5 go there; a dot says that a stage is ready.' },
  { stage: 'shape', anchor: '.ledger', title: 'The model is a list of sentences', text: 'Each body is a line. Click a value to change it: an expression with units, of parameters where you like. Bodies are added from the menus over the view and placed with the pointer.' },
  { stage: 'shape', anchor: '.dials', title: 'Turn it', text: 'Parameters with a dial stand here. Turn one and the model follows: all values are expressions of them.' },
  { stage: 'feed', anchor: '.ledger', title: 'Feed it', text: 'Ports send waves in, recorders keep fields and patterns, and around the model stand its boundaries.' },
  { stage: 'solve', anchor: '.ledger', title: 'Solve it', text: 'Checks and cost are told before the run. Press Run: this example takes a few seconds.' },
  { stage: 'read', anchor: '.board, .read', title: 'Read it', text: 'Cards stand on boards and all follow the frequency, the runs and the waves in the bar above. Click a curve for a marker, drag for a closer look.' },
  { stage: 'explore', anchor: 'main', title: 'Explore', text: 'Runs stand side by side with what differs between them. Press ? at any time: the guide opens at what you look at.' },
]; // prettier-ignore

const seenKey = 'jadebell.tour';

interface Tour {
  /** Number of the stop; null: not on tour. */
  at: number | null;
  /** The tour was taken or declined in this browser. */
  seen: boolean;
  start(): void;
  go(by: number): void;
  end(): void;
}

/** Where the tour is. */
export const useTour = create<Tour>((set, get) => {
  const seen = (): void => localStorage.setItem(seenKey, 'seen');
  return {
    at: null,
    seen: localStorage.getItem(seenKey) !== null,
    start() {
      seen();
      set({ at: 0, seen: true });
    },
    go(by) {
      const next = (get().at ?? 0) + by;
      set({ at: next >= stops.length ? null : Math.max(0, next) });
    },
    end() {
      seen();
      set({ at: null, seen: true });
    },
  };
});

/** An antenna that is solved in seconds. */
export function example(): Project {
  const starter = starters.find((s) => s.kind === 'wire-array')!;
  const project = starter.build(Object.fromEntries(starter.inputs.map((i) => [i.name, i.otherwise])));
  return { ...emptyProject(''), ...project, title: 'First antenna', solve: { ...project.solve, accuracy: 'draft' } };
}
