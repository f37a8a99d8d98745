// Runs a developer's task of the command-line package: bench, verify or demo.
import { spawnSync } from 'node:child_process';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { buildKernels } from './kernels.mjs';

const root = dirname(dirname(fileURLToPath(import.meta.url)));
buildKernels();
const result = spawnSync(process.execPath, ['--import', 'tsx', join(root, 'packages/cli/src/tasks.ts'), ...process.argv.slice(2)], {
  stdio: 'inherit',
  cwd: root,
});
process.exit(result.status ?? 1);
