// Writes both sides of the kernels' interface from its one description, and builds the AssemblyScript kernels if they are missing or older than their sources.
import { execFileSync } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';
import { hostLayout, kernelLayout } from '../packages/core/kernels/layout.mjs';

const root = dirname(dirname(fileURLToPath(import.meta.url)));
const sources = join(root, 'packages/core/kernels/assembly');
const target = join(root, 'packages/core/kernels/build/kernels.wasm');

/** Files that are made from kernels/layout.mjs, and what must stand in them. */
export const layouts = [
  [join(sources, 'layout.ts'), kernelLayout],
  [join(root, 'packages/core/src/solvers/layout.ts'), hostLayout],
];

export function buildKernels() {
  for (const [file, make] of layouts) {
    const text = make();
    if (!existsSync(file) || readFileSync(file, 'utf8') !== text) writeFileSync(file, text);
  }
  const newest = Math.max(...readdirSync(sources).map((f) => statSync(join(sources, f)).mtimeMs));
  if (existsSync(target) && statSync(target).mtimeMs >= newest) return;
  mkdirSync(dirname(target), { recursive: true });
  const asc = join(dirname(createRequire(import.meta.url).resolve('assemblyscript/package.json')), 'bin/asc.js');
  const flags = '-O3 --noAssert --runtime stub --enable simd --enable threads --sharedMemory --importMemory --initialMemory 2 --maximumMemory 65536';
  execFileSync(process.execPath, [asc, join(sources, 'index.ts'), '-o', target, ...flags.split(' ')], { stdio: 'inherit', cwd: root });
}

if (process.argv[1] && import.meta.url === pathToFileURL(process.argv[1]).href) buildKernels();
