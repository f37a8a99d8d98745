import { previewSI } from './model.ts';

/** Bounds of a dial in SI, or null if they have no value. */
export async function previewBounds(min: string, max: string): Promise<[number, number] | null> {
  const [a, b] = await Promise.all([previewSI(min), previewSI(max)]);
  return a !== null && b !== null && a < b ? [a, b] : null;
}
