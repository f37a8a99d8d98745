import type { Problem, Project, Quantity } from '@jadebell/core/document';
import type { Machine } from '@jadebell/core/solvers';
import { create } from 'zustand';
import { ProjectSender } from '../workers/sentProject.ts';
import type { Preview, Reply, Request, SentView, View, ViewBody } from '../workers/protocol.ts';

const empty: View = {
  bodies: [],
  curves: [],
  frames: [],
  kinds: {},
  values: {},
  ports: [],
  guides: [],
  wave: null,
  recorders: [],
  summary: {},
  problems: [],
  region: null,
  estimate: null,
  wires: null,
  nodes: null,
  grid: null,
};

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
const sender = new ProjectSender();
let ticket = 0;
let newest = 0;
const waiting = new Map<number, (value: Preview) => void>();
const waitingBodies = new Map<number, (bodies: ViewBody[]) => void>();

/** Geometry of the bodies of the last view that came, by their id. */
let held = new Map<number, ViewBody>();

/** Completes a view whose known bodies came without their geometry. */
function withGeometry(sent: SentView): View {
  const bodies = sent.bodies.map((b): ViewBody => {
    if ('positions' in b) return b;
    const old = held.get(b.id)!;
    // The same object while nothing changed, so that drawings stay as they are.
    return old.name === b.name && old.order === b.order && old.material === b.material ? old : { ...old, ...b };
  });
  held = new Map(bodies.map((b) => [b.id, b]));
  return { ...sent, bodies };
}

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
      const received = withGeometry(data.view);
      if (data.ticket !== newest) return;
      const { view } = useModel.getState();
      // Until the second answer the old estimate and grid stand.
      const next = data.whole ? received : { ...received, estimate: view.estimate, grid: view.grid, nodes: view.nodes };
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
  post({ kind: 'evaluate', ticket: newest, project: sender.pack(project), machine, wantGrid });
}

/** Forgets the model when another project is opened. */
export const forgetModel = (): void => useModel.setState({ view: empty, ready: false, fault: null });

/** Value of an expression as it is being typed. */
export function previewExpression(text: string, quantity: Quantity | 'any', sampled = false): Promise<Preview> {
  return new Promise((resolve) => {
    const own = ++ticket;
    waiting.set(own, resolve);
    post({ kind: 'expression', ticket: own, text, quantity, sampled });
  });
}

/** Value of an expression in SI, or null if it has none. */
export const previewSI = async (text: string): Promise<number | null> => (await previewExpression(text, 'any')).si;

/** Bodies of any project, beside the open one. */
export function bodiesOf(project: Project): Promise<ViewBody[]> {
  return new Promise((resolve) => {
    const own = ++ticket;
    waitingBodies.set(own, resolve);
    post({ kind: 'bodies', ticket: own, project });
  });
}

/** Problems at a place. */
export const problemsAt = (problems: Problem[], part: string, name?: string, chip?: string): Problem[] =>
  problems.filter((p) => p.place.part === part && (name === undefined || p.place.name === name) && (chip === undefined || p.place.chip === chip));
