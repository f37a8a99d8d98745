import kernelsAddress from '@jadebell/core/kernels/kernels.wasm?url';
import { denseKernel } from '@jadebell/core/dense';
import { ProblemError, type Problem, type Project } from '@jadebell/core/document';
import { loadGeometryKernel, ModelCache } from '@jadebell/core/geometry';
import { buildScene } from '@jadebell/core/scene';
import { solvers } from '@jadebell/core/solvers';
import kernelAddress from 'manifold-3d/manifold.wasm?url';
import type { PortsReply, PortsRequest } from './ports.protocol.ts';
import { ProjectReceiver } from './sentProject.ts';

const geometry = loadGeometryKernel(() => kernelAddress);
const dense = fetch(kernelsAddress)
  .then((r) => r.arrayBuffer())
  .then((bytes) => WebAssembly.compile(bytes))
  .then(denseKernel);
const cache = new ModelCache();
const receiver = new ProjectReceiver();

async function look(project: Project): Promise<Problem[]> {
  const { scene } = buildScene(project, await geometry, cache);
  const solver = solvers[project.solve.solver];
  return scene && 'look' in solver ? (solver.look?.(scene, await dense) ?? []) : [];
}

self.onmessage = async ({ data: { ticket, project } }: MessageEvent<PortsRequest>) => {
  const answer = (reply: PortsReply): void => postMessage(reply);
  try {
    answer({ ticket, problems: await look(receiver.unpack(project)) });
  } catch (error) {
    answer(error instanceof ProblemError ? { ticket, problems: error.problems } : { ticket, fault: (error as Error).message });
  }
};
