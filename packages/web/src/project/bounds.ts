import { previewSI } from './model.ts';
import { useProject } from './store.ts';

/** Bounds of a dial in SI, or null if they have no value. */
export async function previewBounds(min: string, max: string): Promise<[number, number] | null> {
  const { document } = useProject.getState();
  if (!document) return null;
  const [a, b] = await Promise.all([previewSI(document, min), previewSI(document, max)]);
  return a !== null && b !== null && a < b ? [a, b] : null;
}
