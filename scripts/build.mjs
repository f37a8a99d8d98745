// Builds the interface, and what runs in Node, if their sources are newer than the last build.
import { spawnSync } from 'node:child_process';
import { existsSync, readdirSync, statSync, utimesSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './packages.mjs';

function newest(path) {
  const stat = statSync(path);
  if (!stat.isDirectory()) return stat.mtimeMs;
  return Math.max(stat.mtimeMs, ...readdirSync(path).map((f) => newest(join(path, f))));
}

/** Whether a built file is there and newer than all that it is made of. */
const isFresh = (built, sources) => existsSync(built) && statSync(built).mtimeMs > Math.max(...sources.map((p) => newest(join(root, p))));

export function buildWeb() {
  const built = join(root, 'packages/web/dist/index.html');
  if (
    isFresh(built, [
      'packages/web/src',
      'packages/web/index.html',
      'packages/web/vite.config.ts',
      'packages/core/src',
      'packages/api/src',
      'package-lock.json',
    ])
  )
    return;
  console.log('Building the interface ...');
  const result = spawnSync(process.execPath, [join(root, 'node_modules/vite/bin/vite.js'), 'build', '--logLevel', 'warn'], {
    cwd: join(root, 'packages/web'),
    stdio: 'inherit',
  });
  if (result.status !== 0) throw new Error('The interface could not be built.');
}

/** Where what runs in Node is built: beside the sources that name other files by their own place. */
export const nodeBuild = join(root, 'packages/node/dist');
/** What is started by itself: the command line, the server, and its threads. */
const entries = {
  cli: 'packages/cli/src/main.ts',
  server: 'packages/server/src/main.ts',
  worker: 'packages/server/src/queue/worker.ts',
  thread: 'packages/server/src/model/thread.ts',
  helper: 'packages/node/src/helper.mjs',
};
/** Packages that bring files or code of their own which cannot be put into one file. */
const external = [
  'manifold-3d',
  'occt-import-js',
  'h5wasm',
  'sequelize',
  'mariadb',
  'umzug',
  'pino',
  'express',
  'express-rate-limit',
  'helmet',
  'compression',
];

/** Compiles the command line, the server and its threads, each into one file and what they share. */
export async function buildNode() {
  const sources = ['core', 'api', 'node', 'cli', 'server'].map((p) => `packages/${p}/src`);
  const built = join(nodeBuild, 'cli.mjs');
  if (isFresh(built, [...sources, 'package-lock.json', 'scripts/build.mjs'])) return;
  const { build } = await import('esbuild');
  await build({
    entryPoints: Object.fromEntries(Object.entries(entries).map(([name, file]) => [name, join(root, file)])),
    outdir: nodeBuild,
    outExtension: { '.js': '.mjs' },
    bundle: true,
    splitting: true,
    format: 'esm',
    platform: 'node',
    target: 'node20',
    sourcemap: true,
    // Read in at each start of the command line: a tenth of a second less.
    minifyWhitespace: true,
    minifySyntax: true,
    external,
    logLevel: 'warning',
  });
  // A file that came out as it was is not written: without this each start would build anew.
  utimesSync(built, new Date(), new Date());
}
