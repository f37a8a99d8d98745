import { type Imported, ImportFault, type Importer, mostTriangles, nothing, tooManyTriangles } from './importer.ts';

interface StepMesh {
  name: string;
  attributes: { position: { array: number[] } };
  index: { array: number[] };
}
interface Reader {
  ReadStepFile(bytes: Uint8Array, settings: object): { success: boolean; meshes: StepMesh[] };
  ReadIgesFile(bytes: Uint8Array, settings: object): { success: boolean; meshes: StepMesh[] };
}
let loading: Promise<Reader> | null = null;
const load = (locate?: string): Promise<Reader> => {
  loading ??= import('occt-import-js').then((m) =>
    (m.default as unknown as (o?: object) => Promise<Reader>)(locate ? { locateFile: () => locate } : undefined),
  );
  return loading;
};

/** Chords of curved faces: share of the size, and angle. */
const fineness = { linearUnit: 'millimeter', linearDeflectionType: 'bounding_box_ratio', linearDeflection: 0.0008, angularDeflection: 0.2 };

const reader = (
  title: string,
  endings: string[],
  mark: RegExp,
  read: (r: Reader, b: Uint8Array) => { success: boolean; meshes: StepMesh[] },
): Importer => ({
  endings,
  title,
  async read(bytes, tools): Promise<Imported> {
    const head = String.fromCharCode(...bytes.subarray(0, 400));
    if (!mark.test(head)) throw new ImportFault(`This is not a ${title} file.`, 'Check that it is the right file.');
    const occt = await load(tools.stepReader);
    let result: { success: boolean; meshes: StepMesh[] };
    try {
      result = read(occt, bytes);
    } catch {
      // The reader is spoiled after a crash; the next file gets a new one.
      loading = null;
      throw new ImportFault('The file could not be read to its end.', 'It may be damaged or cut off; export it again.');
    }
    if (!result.success) throw new ImportFault('The file could not be read.', 'It may be damaged; export it again.');
    const total = result.meshes.reduce((n, m) => n + m.index.array.length / 3, 0);
    if (total > mostTriangles) throw tooManyTriangles(total);
    const meshes = result.meshes
      .filter((m) => m.index.array.length)
      .map((m, i) => ({
        name: m.name || `part ${i + 1}`,
        mesh: { positions: Float32Array.from(m.attributes.position.array), triangles: Uint32Array.from(m.index.array) },
      }));
    if (!meshes.length) throw nothing('solids');
    // The reader converts to millimetres whatever the file's unit.
    return { meshes, layers: [], unit: 'mm', notes: [] };
  },
});

export const step = reader('STEP', ['.step', '.stp'], /ISO-10303-21/, (r, b) => r.ReadStepFile(b, fineness));
export const iges = reader('IGES', ['.iges', '.igs'], /S\s*1\s*$/m, (r, b) => r.ReadIgesFile(b, fineness));
