import { ProblemError, type Problem, type Project } from '@jadebell/core/document';
import { ModelCache } from '@jadebell/core/geometry';
import { buildScene } from '@jadebell/core/scene';
import { solverOf } from '@jadebell/core/solvers';
import type { PortsReply, PortsRequest } from './ports.protocol.ts';
import { loadDense, loadGeometry } from './kernels.ts';
import { ProjectReceiver } from './sentProject.ts';

const geometry = loadGeometry();
const dense = loadDense();
const cache = new ModelCache();
const receiver = new ProjectReceiver();

async function look(project: Project): Promise<Problem[]> {
  const { scene } = buildScene(project, await geometry, cache);
  return scene ? (solverOf(scene).look?.(scene, await dense) ?? []) : [];
}

self.onmessage = async ({ data: { ticket, project } }: MessageEvent<PortsRequest>) => {
  const answer = (reply: PortsReply): void => postMessage(reply);
  try {
    answer({ ticket, problems: await look(receiver.unpack(project)) });
  } catch (error) {
    answer(error instanceof ProblemError ? { ticket, problems: error.problems } : { ticket, fault: (error as Error).message });
  }
};
