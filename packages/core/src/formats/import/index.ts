import { csvOutlines, dxf } from './drawings.ts';
import { gltf } from './gltf.ts';
import { type Imported, ImportFault, type Importer, type ImportTools } from './importer.ts';
import { obj, stl } from './meshes.ts';
import { iges, step } from './step.ts';
import { threeMf } from './mesh3mf.ts';

export * from './importer.ts';
export { repairMesh, type Repair } from './repair.ts';
export { closeOutlines } from './drawings.ts';

/** What files can be taken, by their endings. */
export const importers: readonly Importer[] = [dxf, stl, obj, threeMf, gltf, step, iges, csvOutlines];

/** Largest file that is read, bytes. */
export const largestFile = 250_000_000;

/** Reads a file by the ending of its name. Throws an ImportFault with a sentence for the user. */
export async function readFileFor(name: string, bytes: Uint8Array, tools: ImportTools = {}): Promise<Imported> {
  if (bytes.length > largestFile) throw new ImportFault(`The file is larger than ${largestFile / 1e6} MB.`, 'Simplify it where it was made.');
  if (!bytes.length) throw new ImportFault('The file is empty.', 'Export it again.');
  const importer = importers.find((i) => i.endings.some((e) => name.toLowerCase().endsWith(e)));
  if (!importer)
    throw new ImportFault(`Files like ${name.slice(-40)} cannot be read.`, `Take one of ${importers.flatMap((i) => i.endings).join(', ')}.`);
  return importer.read(bytes, tools);
}
