import type { Problem, Project } from '@jadebell/core/document';
import type { Machine } from '@jadebell/core/solvers';
import type { PortsReply, PortsRequest } from '../workers/ports.protocol.ts';
import { ProjectSender } from '../workers/sentProject.ts';

/** Milliseconds of quiet before ports are looked at on the grid, which may take seconds. */
const settle = 400;

let worker: Worker | null = null;
let sender = new ProjectSender();
let timer: ReturnType<typeof setTimeout> | undefined;
let ticket = 0;
let busy = false;

/** Ends a look that waits or is under way. */
export function endLook(): void {
  clearTimeout(timer);
  ticket++;
  if (!busy) return;
  worker?.terminate();
  worker = null;
  sender = new ProjectSender();
  busy = false;
}

/** Looks at a project's ports on their grid in a worker of its own, after a while of quiet, and tells what stands in the way; an older look ends. */
export function lookAtPorts(project: Project, machine: Machine, done: (problems: Problem[]) => void): void {
  endLook();
  const own = ticket;
  timer = setTimeout(() => {
    worker ??= new Worker(new URL('../workers/ports.worker.ts', import.meta.url), { type: 'module' });
    busy = true;
    // A fault of the look itself is no fault of the model: the run tells what it finds.
    worker.onerror = () => {
      endLook();
      done([]);
    };
    worker.onmessage = ({ data }: MessageEvent<PortsReply>) => {
      if (data.ticket !== own || own !== ticket) return;
      busy = false;
      done('problems' in data ? data.problems : []);
    };
    const request: PortsRequest = { ticket: own, project: sender.pack(project), machine };
    worker.postMessage(request);
  }, settle);
}
