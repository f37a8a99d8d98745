// Database and server together, for the start command and the interface tests.
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { buildNode, nodeBuild } from './build.mjs';
import { startDatabase } from './database.mjs';
import { root } from './packages.mjs';

/** Starts both; gives the address and a function that stops both. `onEnd` is called if the server ends by itself. */
export async function startService({ folder, port, databasePort, demo = true, onEnd = () => undefined }) {
  await buildNode();
  const database = await startDatabase(folder, databasePort);
  const env = {
    ...process.env,
    JADEBELL_PORT: String(port),
    JADEBELL_DB_PORT: String(database.port),
    JADEBELL_DB_PASSWORD: database.password,
    JADEBELL_WEB: join(root, 'packages/web/dist'),
    ...(demo ? { JADEBELL_DEMO: join(root, 'demo') } : {}),
  };
  const server = spawn(process.execPath, ['--enable-source-maps', join(nodeBuild, 'server.mjs')], {
    cwd: root,
    env,
    stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
    detached: true,
  });
  let ended = false;
  let stopping = false;
  const gone = new Promise((resolve) => server.once('exit', () => ((ended = true), resolve())));
  const stop = async () => {
    stopping = true;
    if (!ended) server.kill('SIGTERM');
    await gone;
    await database.stop();
  };
  try {
    const address = await new Promise((resolve, reject) => {
      server.once('message', (message) => resolve(message.address));
      void gone.then(() => reject(new Error('The server did not start.')));
    });
    void gone.then(() => stopping || onEnd());
    return { address, database, stop };
  } catch (error) {
    await stop();
    throw error;
  }
}
