import type { Problem, Project } from '@jadebell/core/document';
import type { ConvergencePass, SweepStep } from '@jadebell/core/solvers/sections';
import { create } from 'zustand';
import { ProjectSender } from '../workers/sentProject.ts';
import type { FoundModes, Prepared, SectionReply, SectionRequest, SectionTask } from '../workers/section.protocol.ts';

/** Sections of no more cells are solved as soon as something changes. */
export const promptCells = 25_000;

interface SectionState {
  /** Section or guided port whose cross-section is open, by name. */
  open: string | null;
  prepared: Prepared | null;
  modes: FoundModes | null;
  sweep: SweepStep[];
  passes: ConvergencePass[];
  problems: Problem[];
  fault: string | null;
  /** What is under way, and how much of it is done. */
  busy: { task: SectionTask['task']; done: number; of: number } | null;
  chosen: number;
}

const empty = { prepared: null, modes: null, sweep: [], passes: [], problems: [], fault: null, busy: null, chosen: 0 };

/** The cross-section that is open in place of the stage view. */
export const useSection = create<SectionState>(() => ({ open: null, ...empty }));

let worker: Worker | null = null;
let sender = new ProjectSender();
let ticket = 0;
/** The project as it was last asked about. */
let latest: Project | null = null;

function stop(): void {
  worker?.terminate();
  worker = null;
  sender = new ProjectSender();
}

export function openSection(name: string): void {
  if (useSection.getState().open !== name) useSection.setState({ open: name, ...empty });
}
export function closeSection(): void {
  stop();
  useSection.setState({ open: null, ...empty });
}
/** Ends what is under way; what was found so far stays. */
export function stopSection(): void {
  stop();
  useSection.setState({ busy: null });
}

/** Asks for something of the open section. What is under way is ended. */
export function askSection(document: Project, task: SectionTask): void {
  const { open, busy } = useSection.getState();
  if (!open) return;
  latest = document;
  if (busy) stop();
  useSection.setState({
    busy: { task: task.task, done: 0, of: task.task === 'sweep' ? task.points : 0 },
    fault: null,
    ...(task.task === 'sweep' ? { sweep: [] } : task.task === 'converge' ? { passes: [] } : {}),
  });
  if (!worker) {
    worker = new Worker(new URL('../workers/section.worker.ts', import.meta.url), { type: 'module' });
    worker.onmessage = ({ data }: MessageEvent<SectionReply>) => take(data);
    worker.onerror = (event) => useSection.setState({ busy: null, fault: event.message || 'The section could not be solved.' });
  }
  const request: SectionRequest = { ticket: ++ticket, project: sender.pack(document), name: open, ...task };
  worker.postMessage(request);
}

function take(reply: SectionReply): void {
  if (reply.ticket !== ticket) return;
  const state = useSection.getState();
  if ('prepared' in reply) {
    const { prepared, problems } = reply;
    const prompt = state.busy?.task === 'prepare' && prepared.cells <= promptCells;
    useSection.setState({ prepared, problems, modes: null, busy: state.busy?.task === 'modes' ? state.busy : null });
    if (prompt && latest) {
      useSection.setState({ busy: null });
      askSection(latest, { task: 'modes' });
    }
  } else if ('modes' in reply)
    useSection.setState({ modes: reply.modes, busy: null, chosen: Math.min(state.chosen, Math.max(0, reply.modes.figures.length - 1)) });
  else if ('step' in reply)
    useSection.setState({ sweep: [...state.sweep, reply.step], busy: { task: 'sweep', done: state.sweep.length + 1, of: reply.of } });
  else if ('pass' in reply)
    useSection.setState({ passes: [...state.passes, reply.pass], busy: { task: 'converge', done: state.passes.length + 1, of: 0 } });
  else if ('problems' in reply)
    useSection.setState({
      problems: reply.problems,
      busy: null,
      ...(state.busy?.task === 'prepare' || state.busy?.task === 'modes' ? { prepared: null, modes: null } : {}),
    });
  else if ('fault' in reply) useSection.setState({ fault: reply.fault, busy: null });
  else useSection.setState({ busy: null });
}
