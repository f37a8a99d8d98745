import { parentPort } from 'node:worker_threads';
import { denseKernel } from '@jadebell/core/solvers/modes';
import { evaluateModel, loadGeometryKernel, ModelCache, pictureOf } from '@jadebell/core/geometry';
import { influenceOf, toleranceOf } from '@jadebell/core/searching';
import { checkProject } from '@jadebell/core/solvers';
import { nodeHost, thisMachine } from '@jadebell/node';
import type { Answer, Question } from './service.ts';

const geometry = loadGeometryKernel();
/** What was built of the projects that were asked about last. */
const cache = new ModelCache();

async function answer(question: Question): Promise<Answer> {
  if (question.kind === 'influence') return { influence: influenceOf(question.x, question.y, question.spreads) };
  if (question.kind === 'tolerance') return { tolerance: toleranceOf(question.task) };
  const { kind, cellsPerSecond, document: project } = question;
  if (kind === 'check') {
    const kernel = async () => denseKernel((await nodeHost(1)).module);
    const { problems, ready } = await checkProject(project, thisMachine(cellsPerSecond), await geometry, kernel, cache);
    return { problems, seconds: ready?.estimate.seconds ?? null };
  }
  try {
    return { picture: pictureOf(evaluateModel(project, await geometry, cache).bodies) };
  } catch {
    // A model that cannot be drawn has no picture.
    return { picture: '' };
  }
}

parentPort!.on('message', (question: Question) => {
  void answer(question)
    .catch((error: Error): Answer => ({ fault: error.message }))
    .then((found) => parentPort!.postMessage({ ticket: question.ticket, ...found }));
});
