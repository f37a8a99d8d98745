import { memo } from 'react';
import { findMaterial, materialSummary } from '@jadebell/core/materials';
import { showDialog } from '../ui/dialogs.ts';
import { useProject } from '../project/store.ts';
import { Tool } from '../kit/Tool.tsx';

/** Materials in use, and the way to the library. */
export const Materials = memo(function Materials() {
  const lines = useProject((s) => s.document!.lines);
  const materials = useProject((s) => s.document!.materials);
  const used = new Set(lines.flatMap((l) => l.material ?? []));
  const names = [...new Set([...materials.map((m) => m.name), ...used])];
  return (
    <section aria-label="Materials">
      <header>
        <h2>Materials</h2>
        <span className="grow" />
        <Tool onClick={() => showDialog('materials')}>Library</Tool>
      </header>
      {names.map((name) => {
        const m = findMaterial({ materials }, name);
        return (
          <div key={name} style={{ padding: '1px 14px' }}>
            {name} <span className="quiet">{m ? materialSummary(m) : 'not in the library'}</span>
            {!used.has(name) && <span className="unused"> unused</span>}
          </div>
        );
      })}
    </section>
  );
});
