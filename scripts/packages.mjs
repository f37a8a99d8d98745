// Installs npm and Debian packages that are missing. Plain Node, no dependency.
import { spawnSync } from 'node:child_process';
import { existsSync, readFileSync, statSync } from 'node:fs';
import { delimiter, dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = dirname(dirname(fileURLToPath(import.meta.url)));

/** Full path of a program on PATH or in the system folders, or null. */
export function findProgram(...names) {
  const folders = [...(process.env.PATH ?? '').split(delimiter), '/usr/sbin', '/usr/local/sbin', '/usr/libexec'];
  for (const name of names) for (const folder of folders) if (folder && existsSync(join(folder, name))) return join(folder, name);
  return null;
}

const run = (command, args, options = {}) => {
  const result = spawnSync(command, args, { stdio: 'inherit', cwd: root, ...options });
  if (result.status !== 0) throw new Error(`${command} ${args.join(' ')} failed.`);
};

/** Runs npm install if node_modules is missing or older than the lock file. */
export function ensureNpmPackages() {
  const marker = join(root, 'node_modules/.package-lock.json');
  const lock = join(root, 'package-lock.json');
  if (existsSync(marker) && (statSync(marker).mtimeMs >= statSync(lock).mtimeMs || sameLock(marker, lock))) return;
  console.log('Installing npm packages (once) ...');
  // Not 'npm ci': it refuses a lock file made where the registry lacks the binaries of other platforms.
  run('npm', ['install', '--no-save', '--no-audit', '--no-fund']);
}

// git checkout touches files; what counts is whether the installed versions differ.
function sameLock(marker, lock) {
  const installed = JSON.parse(readFileSync(marker, 'utf8')).packages;
  const wanted = JSON.parse(readFileSync(lock, 'utf8')).packages;
  return Object.entries(wanted).every(([path, p]) => !path || p.link || p.optional || p.peer || installed[path]?.version === p.version);
}

/** Finds a program, or installs the Debian package that has it (as root), or says what to run. */
export function ensureProgram(programs, debianPackage) {
  const found = findProgram(...programs);
  if (found) return found;
  const command = `apt-get install -y --no-install-recommends ${debianPackage}`;
  if (process.getuid?.() !== 0 || !findProgram('apt-get')) {
    console.error(`${programs[0]} is not installed. Run this once, then start again:\n\n  sudo apt-get update && sudo ${command}\n`);
    process.exit(1);
  }
  console.log(`Installing Debian's ${debianPackage} (once) ...`);
  // The packaged service must not start: the project runs a server of its own.
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive', RUNLEVEL: '1' };
  const quiet = { stdio: ['ignore', 'ignore', 'inherit'], env };
  run('apt-get', ['update', '-qq'], quiet);
  run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', debianPackage], quiet);
  const now = findProgram(...programs);
  if (!now) throw new Error(`${debianPackage} was installed, but ${programs[0]} is not there.`);
  return now;
}
