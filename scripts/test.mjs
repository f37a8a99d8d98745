// npm test: sets everything up, then type check, lint, and all tests; the last line counts them.
import { spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { availableParallelism, setPriority, tmpdir } from 'node:os';
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
/** Priority of what runs beside the interface. */
const background = 5;
let passed = 0;
let failed = 0;
let left = 0;
/** Runs a program and tells what it printed once it is done. */
const check = (title, command, args) =>
  new Promise((done) => {
    const child = spawn(command, args, { cwd: root });
    setPriority(child.pid, background);
    let text = '';
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (part) => (text += part));
    child.on('close', (code) => {
      console.log(`\n== ${title}\n${text}`);
      if (code === 0) passed++;
      else failed++;
      done();
    });
  });
/** With it the tests that take long are made too. */
const thorough = '--thorough';
const only = process.argv.slice(2).filter((a) => a !== thorough);
if (process.argv.includes(thorough)) process.env.JADEBELL_THOROUGH = '1';
const checks = async () => {
  await check('lint', bin('oxlint'), ['-c', 'oxlint.config.mjs']);
  await check('format', bin('oxfmt'), ['--check']);
  // One thread each: more of them look at much of the same twice.
  const types = (title, config) => check(title, bin('tsc'), ['-p', config, '--singleThreaded']);
  await Promise.all([types('types', 'tsconfig.json'), types('types of the interface', 'packages/web/tsconfig.json')]);
};

const folder = mkdtempSync(join(tmpdir(), 'jadebell-test-'));
const nodeOptions = `${process.env.NODE_OPTIONS ?? ''} --experimental-vm-modules --no-warnings`;
/** Runs tests; with `after`, what they print is held back until that is done. */
async function jest(title, args, { env = {}, niceness = 0, after } = {}) {
  const report = join(folder, `${title.replaceAll(' ', '-')}.json`);
  const child = spawn(process.execPath, [join(root, 'node_modules/jest/bin/jest.js'), '--json', `--outputFile=${report}`, ...args], {
    cwd: root,
    env: { ...process.env, NODE_OPTIONS: nodeOptions, JADEBELL_TEST_FOLDER: folder, ...env },
  });
  setPriority(child.pid, niceness);
  let text = `\n== ${title}\n`;
  let open = !after;
  const print = (part) => (open ? process.stdout.write(part) : (text += part));
  if (open) process.stdout.write(text);
  for (const stream of [child.stdout, child.stderr]) stream.on('data', print);
  const ended = new Promise((done) => child.on('close', done));
  void after?.then(() => {
    process.stdout.write(text);
    open = true;
  });
  await ended;
  await after;
  try {
    const result = JSON.parse(readFileSync(report, 'utf8'));
    passed += result.numPassedTests;
    left += result.numPendingTests;
    // A suite that could not run at all counts as one failure.
    failed += result.numFailedTests + result.numRuntimeErrorTestSuites;
  } catch {
    failed++;
  }
}
if (only.length) await jest('tests', ['--runInBand', ...only]);
else {
  // Solvers on one thread each, as many of them as the machine runs at once, are done sooner than one after the other on all. Pages and their pictures wait
  // often: two suites of them at a time, and all else fills what is left of the machine and gives way where both want it.
  const others = checks().then(
    () =>
    jest('unit tests', ['--selectProjects', 'unit', 'pages', `--maxWorkers=${availableParallelism()}`], { env: { JADEBELL_THREADS: '1' }, niceness: background }), // prettier-ignore
  );
  await jest('tests of the server and the interface', ['--selectProjects', 'server', 'e2e', '--maxWorkers=2'], { after: others });
}
rmSync(folder, { recursive: true, force: true });
if (left && !only.length) console.log(`\n${left} tests that take long are left to npm run thorough.`);
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed ? 1 : 0);
