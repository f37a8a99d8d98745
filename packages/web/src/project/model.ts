import type { Problem, Project, Quantity } from '@jadebell/core/document';
import type { Body } from '@jadebell/core/geometry';
import type { Machine } from '@jadebell/core/solvers';
import { create } from 'zustand';
import type { Preview, Reply, Request, View } from '../workers/protocol.ts';

const empty: View = { bodies: [], ports: [], summary: {}, problems: [], region: null, estimate: null, grid: null };

interface ModelState {
  view: View;
  /** False until the first evaluation has come. */
  ready: boolean;
  /** A fault of the evaluation itself. */
  fault: string | null;
}
/** The evaluated model of the open project. */
export const useModel = create<ModelState>(() => ({ view: empty, ready: false, fault: null }));

let worker: Worker | null = null;
let ticket = 0;
let newest = 0;
const waiting = new Map<number, (value: Preview) => void>();
const waitingBodies = new Map<number, (bodies: Body[]) => void>();

function start(): Worker {
  const made = new Worker(new URL('../workers/model.worker.ts', import.meta.url), { type: 'module' });
  made.onmessage = ({ data }: MessageEvent<Reply>) => {
    if ('value' in data) {
      waiting.get(data.ticket)?.(data.value);
      waiting.delete(data.ticket);
    } else if ('bodies' in data) {
      waitingBodies.get(data.ticket)?.(data.bodies);
      waitingBodies.delete(data.ticket);
    } else if ('view' in data) {
      if (data.ticket !== newest) return;
      const { view } = useModel.getState();
      // Until the second answer the old estimate and grid stand.
      const next = data.whole ? data.view : { ...data.view, estimate: view.estimate, grid: view.grid };
      useModel.setState({ view: next, ready: true, fault: null });
    } else useModel.setState({ fault: data.fault });
  };
  made.onerror = (event) => useModel.setState({ fault: event.message || 'The model could not be evaluated.' });
  return made;
}

const post = (request: Request): void => (worker ??= start()).postMessage(request);

/** Asks for the model of a project; the newest request wins. */
export function evaluateProject(project: Project, machine: Machine | null, wantGrid: boolean): void {
  newest = ++ticket;
  post({ kind: 'evaluate', ticket: newest, project, machine, wantGrid });
}

/** Forgets the model when another project is opened. */
export const forgetModel = (): void => useModel.setState({ view: empty, ready: false, fault: null });

/** Value of an expression as it is being typed. */
export function previewExpression(project: Project, text: string, quantity: Quantity | 'any'): Promise<Preview> {
  return new Promise((resolve) => {
    const own = ++ticket;
    waiting.set(own, resolve);
    post({ kind: 'expression', ticket: own, project, text, quantity });
  });
}

/** Value of an expression in SI, or null if it has none. */
export const previewSI = async (project: Project, text: string): Promise<number | null> => (await previewExpression(project, text, 'any')).si;

/** Bodies of any project, beside the open one. */
export function bodiesOf(project: Project): Promise<Body[]> {
  return new Promise((resolve) => {
    const own = ++ticket;
    waitingBodies.set(own, resolve);
    post({ kind: 'bodies', ticket: own, project });
  });
}

/** Problems at a place. */
export const problemsAt = (problems: Problem[], part: string, name?: string, chip?: string): Problem[] =>
  problems.filter((p) => p.place.part === part && (name === undefined || p.place.name === name) && (chip === undefined || p.place.chip === chip));
