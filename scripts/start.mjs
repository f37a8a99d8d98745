// npm start: sets everything up and runs it until Ctrl-C.
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ensureNpmPackages, root } from './packages.mjs';

const folder = join(root, '.data');
const lock = join(folder, 'running.json');

/** Another start on this checkout that is still alive. */
function other() {
  try {
    const { pid, address } = JSON.parse(readFileSync(lock, 'utf8'));
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('start.mjs') ? { pid, address } : null;
  } catch {
    return null;
  }
}

const running = other();
if (running) {
  console.log(`Jade Bell is running already${running.address ? ` at ${running.address}` : ''} (process ${running.pid}).`);
  process.exit(0);
}
mkdirSync(folder, { recursive: true, mode: 0o700 });
writeFileSync(lock, JSON.stringify({ pid: process.pid }));

let service = null;
let stopping = false;
async function stop(code) {
  if (stopping) return;
  stopping = true;
  if (service) {
    console.log('\nStopping ...');
    await service.stop();
  }
  if (existsSync(lock)) rmSync(lock);
  process.exit(code);
}
let asked = false;
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'])
  process.on(signal, () => {
    asked = true;
    if (service) void stop(0);
  });

try {
  ensureNpmPackages();
  const { buildKernels } = await import('./kernels.mjs');
  const { buildWeb } = await import('./build.mjs');
  const { startService } = await import('./service.mjs');
  buildKernels();
  buildWeb();
  service = await startService({ folder, port: Number(process.env.JADEBELL_PORT ?? 4470), databasePort: 4471, onEnd: () => void stop(1) });
  writeFileSync(lock, JSON.stringify({ pid: process.pid, address: service.address }));
  if (asked) await stop(0);
  console.log(`\nJade Bell is at ${service.address}\nCtrl-C stops it and everything it started.`);
} catch (error) {
  console.error(error.message);
  await stop(1);
}
