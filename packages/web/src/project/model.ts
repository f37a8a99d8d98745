import type { Problem, Project, Quantity } from '@jadebell/core/document';
import type { Machine } from '@jadebell/core/solvers';
import { create } from 'zustand';
import { useShallow } from 'zustand/react/shallow';
import { kept } from './kept.ts';
import { endLook, lookAtPorts } from './portLook.ts';
import { withFaces } from '../workers/packedFaces.ts';
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
  source: null,
  recorders: [],
  summary: {},
  problems: [],
  region: null,
  estimate: null,
  wires: null,
  mesh: null,
};

interface ModelState {
  view: View;
  /** False until the first evaluation has come. */
  ready: boolean;
  /** The checks of the project as it stands have come; ports on their grid may still be looked at. */
  checked: boolean;
  looking: boolean;
  /** A fault of the evaluation itself. */
  fault: string | null;
}
const unknown = { ready: false, checked: false, looking: false, fault: null };

/** The evaluated model of the open project. */
export const useModel = create<ModelState>(() => ({ view: empty, ...unknown }));

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
    if ('positions' in b) return withFaces(b);
    const old = held.get(b.id)!;
    // The same object while nothing changed, so that drawings stay as they are.
    return old.name === b.name && old.order === b.order && old.material === b.material ? old : { ...old, ...b };
  });
  held = new Map(bodies.map((b) => [b.id, b]));
  return { ...sent, bodies };
}

/** The next view with what stays the same of the old one. Bodies are known by their ids: one that is another object has changed. */
function keptView(old: View, next: View): View {
  const view = kept(old, { ...next, bodies: old.bodies });
  const same = next.bodies.length === old.bodies.length && next.bodies.every((b, i) => b === old.bodies[i]);
  return same ? view : { ...view, bodies: next.bodies };
}

function start(): Worker {
  const made = new Worker(new URL('../workers/model.worker.ts', import.meta.url), { type: 'module' });
  made.onmessage = ({ data }: MessageEvent<Reply>) => {
    if ('value' in data) {
      waiting.get(data.ticket)?.(data.value);
      waiting.delete(data.ticket);
    } else if ('bodies' in data) {
      waitingBodies.get(data.ticket)?.(data.bodies.map(withFaces));
      waitingBodies.delete(data.ticket);
    } else if ('view' in data) {
      const received = withGeometry(data.view);
      if (data.ticket !== newest) return;
      const { view } = useModel.getState();
      // Until the second answer the old estimate and grid stand.
      const next = data.whole ? received : { ...received, estimate: view.estimate, mesh: view.mesh };
      useModel.setState({ view: keptView(view, next), ready: true, checked: data.whole, fault: null });
      if (data.whole) look(received);
    } else useModel.setState({ fault: data.fault });
  };
  made.onerror = (event) => useModel.setState({ fault: event.message || 'The model could not be evaluated.' });
  return made;
}

const post = (request: Request): void => (worker ??= start()).postMessage(request);

/** The project that was asked for last, whether its ports are to be looked at, and what was found in the one looked at last. */
let asked: { project: Project; machine: Machine | null; look: boolean } | null = null;
let found: { project: Project; problems: Problem[] } | null = null;

/** Looks at the ports and the source of a sound model, and adds what is found to its problems; what is known of the same project is not sought again. */
function look(view: View): void {
  if (!asked || !(view.ports.length || view.guides.length || view.source) || view.problems.some((p) => p.severity === 'error')) return;
  const { project, machine } = asked;
  const own = newest;
  const tell = (problems: Problem[]): void => {
    found = { project, problems };
    if (own !== newest) return;
    const now = useModel.getState().view;
    useModel.setState({ looking: false, ...(problems.length ? { view: { ...now, problems: [...now.problems, ...problems] } } : {}) });
  };
  if (found?.project === project) return tell(found.problems);
  if (!asked.look || !machine) return;
  useModel.setState({ looking: true });
  lookAtPorts(project, machine, tell);
}

/** Asks for the model of a project, with its grid, and with a look at its ports on it, where they are wanted; the newest request wins. */
export function evaluateProject(project: Project, machine: Machine | null, wantMesh: boolean, wantLook: boolean): void {
  newest = ++ticket;
  endLook();
  asked = { project, machine, look: wantLook };
  useModel.setState({ checked: false, looking: false });
  post({ kind: 'evaluate', ticket: newest, project: sender.pack(project), machine, wantMesh });
}

/** Forgets the model when another project is opened. */
export function forgetModel(): void {
  endLook();
  useModel.setState({ view: empty, ...unknown });
}

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

/** Problems with an entry, the same list while they stay the same. */
export const useProblemsOf = (part: string, name: string): Problem[] => useModel(useShallow((s) => problemsAt(s.view.problems, part, name)));

/** Problems at a place. */
export const problemsAt = (problems: Problem[], part: string, name?: string, chip?: string): Problem[] =>
  problems.filter((p) => p.place.part === part && (name === undefined || p.place.name === name) && (chip === undefined || p.place.chip === chip));
