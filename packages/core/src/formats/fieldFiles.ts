import type { Axis } from '../numerics/axis.ts';
import { type FieldVolume, sampleVolume } from '../reading/index.ts';
import { type VtkArray, writeVti, writeVtr } from './vtk.ts';

const fields = ['e', 'h'] as const;
const [names, units] = [{ e: 'E', h: 'H' }, { e: 'V/m', h: 'A/m' }] as const; // prettier-ignore

/** Real and imaginary parts as three components each, as VTK wants vectors, or as the one that was kept. */
function vectors({ only }: FieldVolume, values: Float32Array, field: 'e' | 'h'): VtkArray[] {
  const kept: readonly Axis[] = only === undefined ? [0, 1, 2] : [only];
  const count = values.length / 6;
  const size = only === undefined ? 3 : 1;
  return (['real', 'imaginary'] as const).map((part, p) => {
    const out = new Float32Array(size * count);
    for (let n = 0; n < count; n++) for (let k = 0; k < size; k++) out[size * n + k] = values[6 * n + 2 * kept[k] + p];
    return { name: `${names[field]}${only === undefined ? '' : 'xyz'[only]} ${part} (${units[field]})`, components: size, values: out };
  });
}

/** A recorded field as a VTK grid, at the places at which it is kept. */
export const fieldVtr = (volume: FieldVolume): string =>
  writeVtr(volume.axes, fields.flatMap((f) => (volume[f] ? vectors(volume, volume[f], f) : []))); // prettier-ignore

/** The same as an image, which needs even steps: the finest of each axis, as far as a few million samples allow. */
export function fieldVti(volume: FieldVolume): string {
  const even = evenAxes(volume.axes);
  const arrays = fields.flatMap((f) => (volume[f] ? vectors(volume, resampled(volume.axes, volume[f], even), f) : []));
  return writeVti(even.size, even.origin, even.spacing, arrays);
}

interface Even {
  size: [number, number, number];
  origin: number[];
  spacing: number[];
}
const most = 4_000_000;

function evenAxes(axes: FieldVolume['axes']): Even {
  const finest = axes.map((a) => Array.from(a).reduce((least, x, i) => (i ? Math.min(least, x - a[i - 1]) : least), Infinity));
  const extent = axes.map((a) => a[a.length - 1] - a[0]);
  const sizeAt = (coarser: number): [number, number, number] => extent.map((e, i) => (axes[i].length === 1 ? 1 : Math.max(2, Math.round(e / (finest[i] * coarser)) + 1))) as [number, number, number]; // prettier-ignore
  let coarser = 1;
  while (sizeAt(coarser).reduce((n, s) => n * s, 1) > most) coarser *= 1.25;
  const size = sizeAt(coarser);
  return { size, origin: axes.map((a) => a[0]), spacing: extent.map((e, i) => (size[i] > 1 ? e / (size[i] - 1) : 1)) };
}

function resampled(axes: FieldVolume['axes'], values: Float32Array, { size, origin, spacing }: Even): Float32Array {
  const out = new Float32Array(6 * size[0] * size[1] * size[2]);
  let at = 0;
  for (let k = 0; k < size[2]; k++)
    for (let j = 0; j < size[1]; j++)
      for (let i = 0; i < size[0]; i++, at += 6)
        sampleVolume(axes, values, [origin[0] + i * spacing[0], origin[1] + j * spacing[1], origin[2] + k * spacing[2]], out, at);
  return out;
}
