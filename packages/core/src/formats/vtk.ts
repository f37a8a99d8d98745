/** A point field for VTK XML files: name and values, components side by side. */
export interface VtkArray {
  name: string;
  components: 1 | 3;
  values: Float32Array | Float64Array;
}

const base64 = (bytes: Uint8Array): string => {
  let text = '';
  for (let i = 0; i < bytes.length; i += 0x8000) text += String.fromCharCode(...bytes.subarray(i, i + 0x8000));
  return btoa(text);
};

/** Inline binary data: the number of bytes as UInt32 before them, both base64 in one run (VTK file formats, XML, inline encoding). */
function dataArray({ name, components, values }: VtkArray): string {
  const bytes = new Uint8Array(4 + values.byteLength);
  new DataView(bytes.buffer).setUint32(0, values.byteLength, true);
  bytes.set(new Uint8Array(values.buffer, values.byteOffset, values.byteLength), 4);
  const type = values instanceof Float32Array ? 'Float32' : 'Float64';
  return `<DataArray type="${type}" Name="${name.replaceAll('&', '&amp;').replaceAll('"', '&quot;').replaceAll('<', '&lt;')}" NumberOfComponents="${components}" format="binary">${base64(bytes)}</DataArray>`;
}

const file = (type: string, attributes: string, pieces: string, extent: string): string =>
  `<?xml version="1.0"?>\n<VTKFile type="${type}" version="1.0" byte_order="LittleEndian" header_type="UInt32">\n<${type} WholeExtent="${extent}"${attributes}>\n<Piece Extent="${extent}">\n${pieces}\n</Piece>\n</${type}>\n</VTKFile>\n`;

const points = (arrays: readonly VtkArray[]): string => `<PointData>\n${arrays.map(dataArray).join('\n')}\n</PointData>`;

/** A VTK XML rectilinear grid (.vtr): point values at [z][y][x] on axes in metres. */
export function writeVtr(axes: readonly [ArrayLike<number>, ArrayLike<number>, ArrayLike<number>], arrays: readonly VtkArray[]): string {
  const extent = axes.map((a) => `0 ${a.length - 1}`).join(' ');
  const coordinates = axes.map((a, i) => dataArray({ name: 'xyz'[i], components: 1, values: Float64Array.from(a) })).join('\n');
  return file('RectilinearGrid', '', `${points(arrays)}\n<Coordinates>\n${coordinates}\n</Coordinates>`, extent);
}

/** A VTK XML image (.vti): point values at [z][y][x] on an even grid from `origin` in steps `spacing`, metres. */
export function writeVti(
  size: readonly [number, number, number],
  origin: readonly number[],
  spacing: readonly number[],
  arrays: readonly VtkArray[],
): string {
  const extent = size.map((n) => `0 ${n - 1}`).join(' ');
  return file('ImageData', ` Origin="${origin.join(' ')}" Spacing="${spacing.join(' ')}"`, points(arrays), extent);
}

/**
 * Reads the point data and axes of what writeVtr and writeVti write, for checks: not a reader of all VTK files.
 * @throws Error on other text.
 */
export function readVtk(text: string): {
  kind: 'RectilinearGrid' | 'ImageData';
  extent: number[];
  arrays: Map<string, Float32Array | Float64Array>;
  origin: number[];
  spacing: number[];
} {
  const kind = /<VTKFile type="(RectilinearGrid|ImageData)"/.exec(text)?.[1] as 'RectilinearGrid' | 'ImageData' | undefined;
  const numbers = (name: string): number[] => (new RegExp(` ${name}="([^"]*)"`).exec(text)?.[1] ?? '').split(' ').filter(Boolean).map(Number); // prettier-ignore
  if (!kind) throw new Error('This is no VTK XML file of a rectilinear grid or an image.');
  const arrays = new Map<string, Float32Array | Float64Array>();
  for (const [, type, name, data] of text.matchAll(/<DataArray type="(Float32|Float64)" Name="([^"]*)"[^>]*format="binary">([^<]*)</g)) {
    const bytes = Uint8Array.from(atob(data), (c) => c.charCodeAt(0));
    const length = new DataView(bytes.buffer).getUint32(0, true);
    if (length !== bytes.length - 4) throw new Error(`The array ${name} has ${bytes.length - 4} bytes and says ${length}.`);
    const own = bytes.slice(4).buffer;
    arrays.set(name, type === 'Float32' ? new Float32Array(own) : new Float64Array(own));
  }
  return { kind, extent: numbers('WholeExtent'), arrays, origin: numbers('Origin'), spacing: numbers('Spacing') };
}
