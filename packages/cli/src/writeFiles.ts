import { mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { ResultFile } from '@jadebell/core/formats';
import { out } from './print.ts';

/** Writes files of a result into a folder one after the other, and prints their paths. */
export async function writeFiles(folder: string, stem: string, files: readonly ResultFile[], quiet?: boolean): Promise<void> {
  await mkdir(folder, { recursive: true });
  for (const file of files) {
    const path = join(folder, `${stem}${file.ending}`);
    await writeFile(path, await file.write());
    if (!quiet) out(path);
  }
}
