// One more thread for the kernels: instantiates them on the shared memory it is given and runs on request.
import { performance } from 'node:perf_hooks';
import { parentPort, workerData } from 'node:worker_threads';

const { module, memory } = workerData;
const abort = () => {
  throw new Error('The time-domain kernel stopped.');
};
const instance = await WebAssembly.instantiate(module, { env: { memory, now: () => performance.now(), abort } });
parentPort.on('message', ({ name, args }) => {
  instance.exports[name](...args);
  parentPort.postMessage('done');
});
parentPort.postMessage('ready');
