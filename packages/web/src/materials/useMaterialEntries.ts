import type { MaterialEntry } from '@jadebell/core/document';
import { library } from '@jadebell/core/materials';
import { useMemo, useState } from 'react';
import { sendJson } from '../api/client.ts';
import { useOwnMaterials } from '../api/hooks.ts';
import { useProject } from '../project/store.ts';

/** A material on the library page, and whose it is. */
export interface Entry {
  material: MaterialEntry;
  origin: 'project' | 'own' | 'library';
  group: string;
}

const clean = ({ group: _, ...m }: MaterialEntry & { group?: string }): MaterialEntry => m;

/** All materials that there are, and what can be done with them; what goes into the project or my library is told to `onMade`. */
export function useMaterialEntries(onMade: (origin: Entry['origin'], name: string) => void) {
  const materials = useProject((s) => s.document!.materials);
  const edit = useProject((s) => s.edit);
  const { data: own = [], mutate } = useOwnMaterials();
  const [fault, setFault] = useState<string | null>(null);
  const entries = useMemo(
    (): Entry[] => [
      ...materials.map((material): Entry => ({ material, origin: 'project', group: 'In this project' })),
      ...own.map((material): Entry => ({ material, origin: 'own', group: 'My library' })),
      ...library.map((material): Entry => ({ material, origin: 'library', group: material.group })),
    ],
    [materials, own],
  );
  const saveOwn = async (next: MaterialEntry[]): Promise<void> => {
    try {
      await sendJson('PUT', '/materials', next);
      setFault(null);
      void mutate(next, { revalidate: false });
    } catch (error) {
      setFault((error as Error).message);
    }
  };
  const free = (name: string): string => {
    const taken = new Set(entries.map((e) => e.material.name));
    if (!taken.has(name)) return name;
    for (let n = 2; ; n++) if (!taken.has(`${name} ${n}`)) return `${name} ${n}`;
  };
  const toProject = (material: MaterialEntry): void => {
    const name = materials.some((m) => m.name === material.name) ? free(material.name) : material.name;
    edit('add material', (d) => ({ ...d, materials: [...d.materials, { ...clean(material), name }] }));
    onMade('project', name);
  };
  return {
    entries,
    fault,
    toProject,
    addNew: () => toProject({ name: free('Material'), kind: 'dielectric', permittivity: 2.2, lossTangent: 0.001, atFrequency: 1e10 }),
    change({ material: old, origin }: Entry, next: MaterialEntry): void {
      if (origin === 'project')
        edit(`material ${old.name}`, (d) => ({
          ...d,
          materials: d.materials.map((m) => (m.name === old.name ? next : m)),
          lines: d.lines.map((l) => (l.material === old.name && next.name !== l.material ? { ...l, material: next.name } : l)),
        }));
      else void saveOwn(own.map((m) => (m.name === old.name ? next : m)));
      onMade(origin, next.name);
    },
    keep: (material: MaterialEntry) => void saveOwn([...own.filter((m) => m.name !== material.name), clean(material)]),
    remove({ material, origin }: Entry): void {
      if (origin === 'own') void saveOwn(own.filter((m) => m !== material));
      else edit('remove material', (d) => ({ ...d, materials: d.materials.filter((m) => m.name !== material.name) }));
    },
  };
}
