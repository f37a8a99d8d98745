import type { MaterialEntry } from '@jadebell/core/document';
import { formatSI } from '@jadebell/core/expressions/format';
import { curvesOf, library, materialCurves, materialGroups, materialSummary } from '@jadebell/core/materials';
import { Box, Button, Dialog, DialogTitle } from '@mui/material';
import { useMemo, useState } from 'react';
import { sendJson } from '../api/client.ts';
import { useOwnMaterials } from '../api/hooks.ts';
import { Lines } from '../charts/Lines.tsx';
import { traceStyle } from '../charts/traces.ts';
import { useProject } from '../project/store.ts';
import { useDark } from '../ui/useDark.ts';
import { MaterialForm } from './MaterialForm.tsx';
import { Field } from '../kit/Field.tsx';
import { Pick } from '../kit/Pick.tsx';
import { Tool } from '../kit/Tool.tsx';
import { Stops } from '../kit/Stops.tsx';
import { Message } from '../kit/Message.tsx';
import { TwoPanes } from '../kit/TwoPanes.ts';

type Origin = 'project' | 'own' | 'library';
interface Entry {
  material: MaterialEntry;
  origin: Origin;
  group: string;
}

const c0 = 299792458;

/** The library page: every material with its figures, source and curve; own ones in the project or in the library. */
export function MaterialLibrary({ onClose }: { onClose(): void }) {
  const document = useProject((s) => s.document)!;
  const edit = useProject((s) => s.edit);
  const { data: own = [], mutate } = useOwnMaterials();
  const [search, setSearch] = useState('');
  const [at, setAt] = useState<string>('project/');
  const [fault, setFault] = useState<string | null>(null);
  const entries = useMemo(
    (): Entry[] => [
      ...document.materials.map((material): Entry => ({ material, origin: 'project', group: 'In this project' })),
      ...own.map((material): Entry => ({ material, origin: 'own', group: 'My library' })),
      ...library.map((material): Entry => ({ material, origin: 'library', group: material.group })),
    ],
    [document.materials, own],
  );
  const key = (e: Entry): string => `${e.origin}/${e.material.name}`;
  const shown = entries.filter((e) => `${e.material.name} ${e.group}`.toLowerCase().includes(search.toLowerCase()));
  const current = entries.find((e) => key(e) === at) ?? shown[0];
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
  const clean = ({ group: _, ...m }: MaterialEntry & { group?: string }): MaterialEntry => m;
  const toProject = (material: MaterialEntry): void => {
    const name = document.materials.some((m) => m.name === material.name) ? free(material.name) : material.name;
    edit('add material', (d) => ({ ...d, materials: [...d.materials, { ...clean(material), name }] }));
    setAt(`project/${name}`);
  };
  const change = (entry: Entry, next: MaterialEntry): void => {
    if (entry.origin === 'project')
      edit(`material ${entry.material.name}`, (d) => ({
        ...d,
        materials: d.materials.map((m) => (m.name === entry.material.name ? next : m)),
        lines: d.lines.map((l) => (l.material === entry.material.name && next.name !== l.material ? { ...l, material: next.name } : l)),
      }));
    else void saveOwn(own.map((m) => (m.name === entry.material.name ? next : m)));
    setAt(`${entry.origin}/${next.name}`);
  };
  const groups = ['In this project', 'My library', ...materialGroups];
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="md" aria-labelledby="library-title">
      <DialogTitle id="library-title" sx={{ fontSize: 17 }}>
        Materials
      </DialogTitle>
      <TwoPanes>
        <nav aria-label="Materials" className="pane-list">
          <Field look="search" width="92%" type="search" label="Find a material" placeholder="find" value={search} onChange={setSearch} />
          <Tool onClick={() => toProject({ name: free('Material'), kind: 'dielectric', permittivity: 2.2, lossTangent: 0.001, atFrequency: 1e10 })}>
            + New material
          </Tool>
          <Pick
            label="Materials"
            groups={groups.map((title) => ({
              title,
              items: shown.filter((e) => e.group === title).map((e) => ({ value: key(e), label: e.material.name })),
            }))}
            value={current && key(current)}
            onChange={setAt}
          />
        </nav>
        {current && (
          <section className="pane" aria-label={current.material.name}>
            <h3 style={{ fontSize: 15 }}>{current.material.name}</h3>
            <p>{materialSummary(current.material)}</p>
            {current.material.source && <p className="quiet source">{current.material.source}</p>}
            {current.material.note && <p className="quiet">{current.material.note}</p>}
            {fault && <Message>{fault}</Message>}
            <MaterialCurve material={current.material} />
            {current.origin !== 'library' && (
              <MaterialForm
                key={key(current)}
                material={current.material}
                taken={entries.filter((e) => e.origin === current.origin && e !== current).map((e) => e.material.name)}
                onChange={(next) => change(current, next)}
              />
            )}
            <div className="row" style={{ gap: 8, marginTop: 10, flexWrap: 'wrap' }}>
              {current.origin !== 'project' && (
                <Button variant="contained" onClick={() => toProject(current.material)}>
                  Copy into the project
                </Button>
              )}
              {current.origin === 'project' && (
                <Button onClick={() => void saveOwn([...own.filter((m) => m.name !== current.material.name), clean(current.material)])}>
                  Keep in my library
                </Button>
              )}
              {current.origin === 'own' && (
                <Button onClick={() => void saveOwn(own.filter((m) => m !== current.material))}>Remove from my library</Button>
              )}
              {current.origin === 'project' && (
                <Button
                  disabled={document.lines.some((l) => l.material === current.material.name)}
                  onClick={() => edit('remove material', (d) => ({ ...d, materials: d.materials.filter((m) => m.name !== current.material.name) }))}
                >
                  Remove from the project
                </Button>
              )}
            </div>
          </section>
        )}
      </TwoPanes>
    </Dialog>
  );
}

/** What a material does over frequency, or over wavelength for an optical one. */
function MaterialCurve({ material }: { material: MaterialEntry }) {
  const dark = useDark();
  const kinds = curvesOf(material);
  const [chosen, setChosen] = useState(0);
  const optical = !!material.range && material.range[1] > 1e13;
  const kind = kinds[Math.min(chosen, kinds.length - 1)];
  const data = useMemo(() => {
    if (!kind) return null;
    const [low, high] =
      material.range ?? (material.kind === 'conductor' ? [1e8, 1e11] : [(material.atFrequency ?? 1e9) / 10, (material.atFrequency ?? 1e9) * 10]);
    const f = Array.from({ length: 160 }, (_, i) => low * (high / low) ** (i / 159));
    const points = f.map((v) => ({ x: optical ? c0 / v : v, y: materialCurves[kind].at(material, v) }));
    return points.sort((a, b) => a.x - b.x);
  }, [material, kind, optical]);
  if (!data || !kind) return null;
  return (
    <>
      {kinds.length > 1 && (
        <Box sx={{ my: 0.75 }}>
          <Stops
            label="Curve"
            value={kind}
            options={kinds.map((k) => ({ value: k, label: materialCurves[k].label }))}
            onChange={(k) => setChosen(kinds.indexOf(k))}
          />
        </Box>
      )}
      <div style={{ height: 200 }}>
        <Lines
          x={{ label: optical ? 'vacuum wavelength' : 'frequency', unit: optical ? 'length' : 'frequency', values: data.map((p) => p.x) }}
          y={{ label: materialCurves[kind].label }}
          traces={[{ name: material.name, color: traceStyle(1, dark).color, values: data.map((p) => p.y) }]}
        />
      </div>
      {material.range && (
        <p className="quiet">
          given from {optical ? formatSI(c0 / material.range[1], 'length', 3) : formatSI(material.range[0], 'frequency', 3)} to{' '}
          {optical ? formatSI(c0 / material.range[0], 'length', 3) : formatSI(material.range[1], 'frequency', 3)}
        </p>
      )}
      {!material.dispersion && material.kind === 'dielectric' && (
        <p className="quiet">
          {material.lossTangent ? 'Solved as the causal medium whose loss tangent is level over the band.' : 'Constant over frequency.'}
        </p>
      )}
    </>
  );
}
