// npm test: sets everything up, then type check, lint, and all tests; the last line counts them.
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { availableParallelism, tmpdir } from 'node:os';
import { join } from 'node:path';
import { ensureNpmPackages, ensureProgram, root } from './packages.mjs';

ensureNpmPackages();
ensureProgram(['mariadbd'], 'mariadb-server');
ensureProgram(['chromium', 'chromium-browser'], 'chromium');
const { buildKernels } = await import('./kernels.mjs');
const { buildNode, buildWeb } = await import('./build.mjs');
buildKernels();
buildWeb();
await buildNode();

const bin = (name) => join(root, 'node_modules/.bin', name);
let passed = 0;
let failed = 0;
const check = (title, command, args) => {
  console.log(`\n== ${title}`);
  const good = spawnSync(command, args, { cwd: root, stdio: 'inherit' }).status === 0;
  if (good) passed++;
  else failed++;
};
const only = process.argv.slice(2);
if (!only.length) {
  check('types', bin('tsc'), ['-p', 'tsconfig.json']);
  check('types of the interface', bin('tsc'), ['-p', 'packages/web/tsconfig.json']);
  check('lint', bin('eslint'), ['.']);
  check('format', bin('prettier'), ['--check', '--log-level', 'warn', '.']);
}

const folder = mkdtempSync(join(tmpdir(), 'jadebell-test-'));
const nodeOptions = `${process.env.NODE_OPTIONS ?? ''} --experimental-vm-modules --no-warnings`;
const jest = (title, args, env = {}) => {
  console.log(`\n== ${title}`);
  const report = join(folder, 'report.json');
  spawnSync(process.execPath, [join(root, 'node_modules/jest/bin/jest.js'), '--json', `--outputFile=${report}`, ...args], {
    cwd: root,
    stdio: 'inherit',
    env: { ...process.env, NODE_OPTIONS: nodeOptions, ...env },
  });
  try {
    const result = JSON.parse(readFileSync(report, 'utf8'));
    passed += result.numPassedTests;
    // A suite that could not run at all counts as one failure.
    failed += result.numFailedTests + result.numRuntimeErrorTestSuites;
  } catch {
    failed++;
  }
  rmSync(report, { force: true });
};
if (only.length) jest('tests', ['--runInBand', ...only]);
else {
  // Solvers on one thread each, as many of them as the machine runs at once, are done sooner than one after the other on all.
  jest('unit tests', ['--selectProjects', 'unit', `--maxWorkers=${availableParallelism()}`], { JADEBELL_THREADS: '1' });
  // Browsers wait for answers: one at a time.
  jest('tests of the server and the interface', ['--selectProjects', 'server', 'e2e', '--runInBand']);
}
rmSync(folder, { recursive: true, force: true });
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed ? 1 : 0);
