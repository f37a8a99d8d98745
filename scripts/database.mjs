// A MariaDB server of the project's own: loopback, own port, own data folder, password in a file only its owner can read.
import { spawn, spawnSync } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, mkdtempSync, openSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { connect, createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { ensureProgram, findProgram } from './packages.mjs';

const free = (port) =>
  new Promise((resolve) => {
    const probe = createServer()
      .once('error', () => resolve(false))
      .once('listening', () => probe.close(() => resolve(true)))
      .listen(port, '127.0.0.1');
  });

/** The first free port on loopback from `port` on. */
export async function freePort(port) {
  for (let p = port; p < port + 200; p++) if (await free(p)) return p;
  throw new Error(`No free port from ${port} to ${port + 200}.`);
}

function passwordIn(folder) {
  const file = join(folder, 'password');
  if (!existsSync(file)) writeFileSync(file, randomBytes(24).toString('hex'), { mode: 0o600 });
  return readFileSync(file, 'utf8').trim();
}

/** Ends a database server that an earlier start of ours left on this very data folder (a start that was killed). */
async function endLeftover(data) {
  let pid;
  try {
    pid = Number(readFileSync(join(data, 'own.pid'), 'utf8'));
    if (!readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes(`--datadir=${data}`)) return;
  } catch {
    return;
  }
  process.kill(pid, 'SIGTERM');
  for (let i = 0; i < 200 && existsSync(`/proc/${pid}`); i++) await sleep(100);
}

const answers = (port) =>
  new Promise((resolve) => {
    const socket = connect(port, '127.0.0.1');
    socket.once('data', () => (socket.destroy(), resolve(true)));
    socket.once('error', () => resolve(false));
    socket.setTimeout(1000, () => (socket.destroy(), resolve(false)));
  });

/**
 * Starts the server on `folder`, at `port` or the next free one. Gives port, password and a function that stops it and
 * waits until it is gone.
 */
export async function startDatabase(folder, port) {
  const server = ensureProgram(['mariadbd'], 'mariadb-server');
  const data = join(folder, 'mysql');
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  const password = passwordIn(folder);
  const asRoot = process.getuid?.() === 0 ? ['--user=root'] : [];
  if (!existsSync(join(data, 'mysql'))) {
    rmSync(data, { recursive: true, force: true });
    const made = spawnSync(
      findProgram('mariadb-install-db'),
      ['--no-defaults', `--datadir=${data}`, '--skip-test-db', '--auth-root-authentication-method=normal', ...asRoot],
      { encoding: 'utf8' },
    );
    if (made.status !== 0) throw new Error(`The database could not be set up: ${made.stderr || made.stdout}`);
  }
  await endLeftover(data);
  const chosen = await freePort(port);
  const sockets = mkdtempSync(join(tmpdir(), 'jadebell-'));
  const init = join(folder, 'init.sql');
  writeFileSync(
    init,
    [
      'CREATE DATABASE IF NOT EXISTS jadebell CHARACTER SET utf8mb4 COLLATE utf8mb4_bin;',
      `CREATE USER IF NOT EXISTS 'jadebell'@'127.0.0.1' IDENTIFIED BY '${password}';`,
      `ALTER USER 'jadebell'@'127.0.0.1' IDENTIFIED BY '${password}';`,
      "GRANT ALL ON jadebell.* TO 'jadebell'@'127.0.0.1';",
      `ALTER USER 'root'@'localhost' IDENTIFIED BY '${password}';`,
      '',
    ].join('\n'),
    { mode: 0o600 },
  );
  const log = openSync(join(folder, 'database.log'), 'a', 0o600);
  const options = [
    '--no-defaults',
    `--datadir=${data}`,
    `--port=${chosen}`,
    '--bind-address=127.0.0.1',
    `--socket=${join(sockets, 's')}`,
    `--pid-file=${join(data, 'own.pid')}`,
    `--init-file=${init}`,
    '--skip-name-resolve',
    '--skip-log-bin',
    '--max-allowed-packet=64M',
    '--innodb-buffer-pool-size=128M',
    '--innodb-flush-log-at-trx-commit=2',
    '--performance-schema=OFF',
    ...asRoot,
  ];
  // In a group of its own, so that Ctrl-C in the terminal reaches it only through us.
  const child = spawn(server, options, { stdio: ['ignore', log, log], detached: true });
  let ended = false;
  const gone = new Promise((resolve) => child.once('exit', () => ((ended = true), resolve())));
  for (let i = 0; ; i++) {
    if (ended || i > 300) throw new Error(`The database did not start. ${join(folder, 'database.log')} has the cause.`);
    if (await answers(chosen)) break;
    await sleep(100);
  }
  return {
    port: chosen,
    password,
    async stop() {
      if (!ended) child.kill('SIGTERM');
      await gone;
      rmSync(sockets, { recursive: true, force: true });
    },
  };
}
