// Builds the interface if its sources are newer than the last build.
import { spawnSync } from 'node:child_process';
import { existsSync, readdirSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './packages.mjs';

function newest(path) {
  const stat = statSync(path);
  if (!stat.isDirectory()) return stat.mtimeMs;
  return Math.max(stat.mtimeMs, ...readdirSync(path).map((f) => newest(join(path, f))));
}

export function buildWeb() {
  const built = join(root, 'packages/web/dist/index.html');
  const sources = ['packages/web/src', 'packages/web/index.html', 'packages/web/vite.config.ts', 'packages/core/src', 'package-lock.json'].map((p) =>
    join(root, p),
  );
  if (existsSync(built) && statSync(built).mtimeMs > Math.max(...sources.map(newest))) return;
  console.log('Building the interface ...');
  const result = spawnSync(process.execPath, [join(root, 'node_modules/vite/bin/vite.js'), 'build', '--logLevel', 'warn'], {
    cwd: join(root, 'packages/web'),
    stdio: 'inherit',
  });
  if (result.status !== 0) throw new Error('The interface could not be built.');
}
