import { materialGroups, materialSummary } from '@jadebell/core/materials';
import { Button, Dialog, DialogTitle } from '@mui/material';
import { useState } from 'react';
import { useProject } from '../project/store.ts';
import { MaterialCurve } from './MaterialCurve.tsx';
import { MaterialForm } from './MaterialForm.tsx';
import { type Entry, useMaterialEntries } from './useMaterialEntries.ts';
import { Field } from '../kit/Field.tsx';
import { Pick as PickList } from '../kit/Pick.tsx';
import { Tool } from '../kit/Tool.tsx';
import { Message } from '../kit/Message.tsx';
import { TwoPanes } from '../kit/TwoPanes.ts';

/** The library page: every material with its figures, source and curve; own ones in the project or in the library. */
export function MaterialLibrary({ onClose }: { onClose(): void }) {
  const [search, setSearch] = useState('');
  const [at, setAt] = useState('project/');
  const { entries, fault, addNew, ...acts } = useMaterialEntries((origin, name) => setAt(`${origin}/${name}`));
  const key = (e: Entry): string => `${e.origin}/${e.material.name}`;
  const shown = entries.filter((e) => `${e.material.name} ${e.group}`.toLowerCase().includes(search.toLowerCase()));
  const current = entries.find((e) => key(e) === at) ?? shown[0];
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="md" aria-labelledby="library-title">
      <DialogTitle id="library-title" sx={{ fontSize: 17 }}>
        Materials
      </DialogTitle>
      <TwoPanes>
        <nav aria-label="Materials" className="pane-list">
          <Field look="search" width="92%" type="search" label="Find a material" placeholder="find" value={search} onChange={setSearch} />
          <Tool onClick={addNew}>+ New material</Tool>
          <PickList
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
                onChange={(next) => acts.change(current, next)}
              />
            )}
            <Deeds entry={current} {...acts} />
          </section>
        )}
      </TwoPanes>
    </Dialog>
  );
}

const groups = ['In this project', 'My library', ...materialGroups];

type Acts = Pick<ReturnType<typeof useMaterialEntries>, 'toProject' | 'keep' | 'remove'>;

/** What can be done with a material, by whose it is. */
function Deeds({ entry, toProject, keep, remove }: Acts & { entry: Entry }) {
  const { material, origin } = entry;
  const used = useProject((s) => s.document!.lines.some((l) => l.material === material.name));
  return (
    <div className="row" style={{ gap: 8, marginTop: 10, flexWrap: 'wrap' }}>
      {origin !== 'project' && (
        <Button variant="contained" onClick={() => toProject(material)}>
          Copy into the project
        </Button>
      )}
      {origin === 'project' && <Button onClick={() => keep(material)}>Keep in my library</Button>}
      {origin === 'own' && <Button onClick={() => remove(entry)}>Remove from my library</Button>}
      {origin === 'project' && (
        <Button disabled={used} onClick={() => remove(entry)}>
          Remove from the project
        </Button>
      )}
    </div>
  );
}
