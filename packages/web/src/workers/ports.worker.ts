import { ProblemError, type Problem, type Project } from '@jadebell/core/document';
import { ModelCache } from '@jadebell/core/geometry';
import { buildScene } from '@jadebell/core/scene';
import { type Machine, solverOf } from '@jadebell/core/solvers';
import type { PortsReply, PortsRequest } from './ports.protocol.ts';
import { loadDense, loadGeometry } from './kernels.ts';
import { ProjectReceiver } from './sentProject.ts';

const geometry = loadGeometry();
const dense = loadDense();
const cache = new ModelCache();
const receiver = new ProjectReceiver();

async function look(project: Project, machine: Machine): Promise<Problem[]> {
  const { scene } = buildScene(project, await geometry, cache);
  if (!scene) return [];
  const { plan, checkOnMesh } = solverOf(scene);
  const { ready } = plan(scene, machine);
  return ready ? (checkOnMesh?.(scene, ready.mesh, await dense) ?? []) : [];
}

self.onmessage = async ({ data: { ticket, project, machine } }: MessageEvent<PortsRequest>) => {
  const answer = (reply: PortsReply): void => postMessage(reply);
  try {
    answer({ ticket, problems: await look(receiver.unpack(project), machine) });
  } catch (error) {
    answer(error instanceof ProblemError ? { ticket, problems: error.problems } : { ticket, fault: (error as Error).message });
  }
};
