import { lineSchema } from '@jadebell/core/document';
import { clip, type Clipping, paste, removeLines } from '../project/edits.ts';
import { useProject } from '../project/store.ts';

/** Text of the last copy, for browsers that do not give the clipboard away. */
let last = '';

/** Copies lines, with the parameters, materials and parts they use, as text. */
export async function copyLines(names: ReadonlySet<string>, uses: (text: string) => string[]): Promise<void> {
  const { document } = useProject.getState();
  if (!document || !names.size) return;
  last = JSON.stringify(clip(document, names, uses));
  try {
    await navigator.clipboard.writeText(last);
  } catch {
    // The copy stays good within this page.
  }
}

/** Copies lines and removes them. */
export async function cutLines(names: ReadonlySet<string>, uses: (text: string) => string[]): Promise<void> {
  await copyLines(names, uses);
  useProject.getState().edit('cut lines', (d) => removeLines(d, names));
}

/** Lines in a text from the clipboard, or null where it holds none. */
export function readClipping(text: string): Clipping | null {
  try {
    const data = JSON.parse(text) as Clipping;
    if (data.format !== 'jadebell-lines' || !Array.isArray(data.lines)) return null;
    if (!data.lines.every((l) => lineSchema.safeParse(l).success)) return null;
    return { ...data, parameters: data.parameters ?? [], materials: data.materials ?? [], parts: data.parts ?? [] };
  } catch {
    return null;
  }
}

/** Adds the lines of a text; names of the new lines, or null where the text holds none. */
export function pasteLines(text: string): string[] | null {
  const clipping = readClipping(text || last);
  if (!clipping) return null;
  let made: string[] = [];
  useProject.getState().edit('paste lines', (d) => {
    const result = paste(d, clipping);
    made = result.made;
    return result.project;
  });
  return made;
}
