// npm test: sets everything up, then type check, lint, and all tests; the last line counts them.
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ensureNpmPackages, ensureProgram, root } from './packages.mjs';

ensureNpmPackages();
ensureProgram(['mariadbd'], 'mariadb-server');
ensureProgram(['chromium', 'chromium-browser'], 'chromium');
const { buildKernels } = await import('./kernels.mjs');
const { buildWeb } = await import('./build.mjs');
buildKernels();
buildWeb();

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

console.log('\n== tests');
const folder = mkdtempSync(join(tmpdir(), 'jadebell-test-'));
const report = join(folder, 'report.json');
const nodeOptions = `${process.env.NODE_OPTIONS ?? ''} --experimental-vm-modules --no-warnings`;
spawnSync(process.execPath, [join(root, 'node_modules/jest/bin/jest.js'), '--runInBand', '--json', `--outputFile=${report}`, ...only], {
  cwd: root,
  stdio: 'inherit',
  env: { ...process.env, NODE_OPTIONS: nodeOptions },
});
try {
  const result = JSON.parse(readFileSync(report, 'utf8'));
  passed += result.numPassedTests;
  // A suite that could not run at all counts as one failure.
  failed += result.numFailedTests + result.numRuntimeErrorTestSuites;
} catch {
  failed++;
}
rmSync(folder, { recursive: true, force: true });
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed ? 1 : 0);
