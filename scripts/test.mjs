// npm test: sets everything up, then type check, lint, and all tests; the last line counts them.
import { spawn, spawnSync } from 'node:child_process';
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
/** Runs a program and tells what it printed once it is done. */
const check = (title, command, args) =>
  new Promise((done) => {
    const child = spawn(command, args, { cwd: root });
    let text = '';
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (part) => (text += part));
    child.on('close', (code) => {
      console.log(`\n== ${title}\n${text}`);
      if (code === 0) passed++;
      else failed++;
      done();
    });
  });
const only = process.argv.slice(2);
if (!only.length) {
  // Two beside each other, the longest with the shortest.
  await Promise.all([
    check('lint', bin('eslint'), ['.']),
    check('types', bin('tsc'), ['-p', 'tsconfig.json'])
      .then(() => check('types of the interface', bin('tsc'), ['-p', 'packages/web/tsconfig.json']))
      .then(() => check('format', bin('prettier'), ['--check', '--log-level', 'warn', '.'])),
  ]);
}

const folder = mkdtempSync(join(tmpdir(), 'jadebell-test-'));
const nodeOptions = `${process.env.NODE_OPTIONS ?? ''} --experimental-vm-modules --no-warnings`;
const jest = (title, args, env = {}) => {
  console.log(`\n== ${title}`);
  const report = join(folder, 'report.json');
  spawnSync(process.execPath, [join(root, 'node_modules/jest/bin/jest.js'), '--json', `--outputFile=${report}`, ...args], {
    cwd: root,
    stdio: 'inherit',
    env: { ...process.env, NODE_OPTIONS: nodeOptions, JADEBELL_TEST_FOLDER: folder, ...env },
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
  // A page, its picture and the solver behind it keep two cores busy: two beside each other were no sooner done.
  jest('tests of the server and the interface', ['--selectProjects', 'server', 'e2e', '--runInBand']);
}
rmSync(folder, { recursive: true, force: true });
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed ? 1 : 0);
