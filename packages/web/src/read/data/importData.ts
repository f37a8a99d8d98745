import type { DataSet } from '@jadebell/core/document';
import { readData } from '@jadebell/core/formats/data';
import { useProject } from '../../project/store.ts';
import type { NewCard } from '@jadebell/core/cards';

const largest = 12_000_000;
const most = 60;

/** Reads files as data to compare with, puts them into the project, and gives a card that shows them; what went wrong is told. */
export async function importData(files: readonly File[]): Promise<{ text: string; bad: boolean; card?: NewCard }> {
  const read: DataSet[] = [];
  const faults: string[] = [];
  const known = (): readonly DataSet[] => useProject.getState().document?.data ?? [];
  for (const file of files) {
    try {
      if (file.size > largest) throw new Error(`it has ${Math.round(file.size / 1e6)} MB; at most ${largest / 1e6} can be read.`);
      if (known().length + read.length >= most) throw new Error(`a project keeps at most ${most} sets of data. Remove some first.`);
      const set = readData(await file.text(), file.name);
      // Bringing in the same file once more replaces it.
      read.push(set);
    } catch (error) {
      faults.push(`${file.name}: ${(error as Error).message}`);
    }
  }
  if (read.length)
    useProject
      .getState()
      .edit('bring in data', (d) => ({ ...d, data: [...(d.data ?? []).filter((o) => !read.some((r) => r.name === o.name)), ...read] }));
  const traces = read.flatMap((set) =>
    set.columns.slice(0, 4).map((c) => ({ quantity: 'data', of: `${set.name}/${c.name}`, axis: 'left' as const })),
  );
  return {
    text: [...(read.length ? [`${read.map((r) => r.name).join(', ')} brought in.`] : []), ...faults].join(' '),
    bad: faults.length > 0,
    ...(traces.length ? { card: { kind: 'curves' as const, title: read[0].name, traces } } : {}),
  };
}
