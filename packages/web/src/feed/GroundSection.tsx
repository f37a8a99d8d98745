import { Chip } from '../ledger/Chip.tsx';
import { ChoiceChip } from '../ledger/ChoiceChip.tsx';
import { problemsAt, useModel } from '../project/model.ts';
import { useProject } from '../project/store.ts';

const options = [
  { value: 'none', label: 'none: empty space all around' },
  { value: 'perfect', label: 'a perfect plane without end' },
];

/** What lies under the wires. */
export function GroundSection() {
  const { ground } = useProject((s) => s.document)!;
  const edit = useProject((s) => s.edit);
  const problems = useModel((s) => s.view.problems);
  return (
    <section aria-label="Ground">
      <header>
        <h2>Ground</h2>
      </header>
      <dl className="settings">
        <dt>ground</dt>
        <dd>
          <ChoiceChip
            label="ground"
            value={ground?.kind ?? 'none'}
            options={options}
            onChange={(v) =>
              edit('ground', ({ ground: old, ...d }) => (v === 'none' ? d : { ...d, ground: { kind: v as 'perfect', at: old?.at ?? '0 mm' } }))
            }
          />
          {ground && (
            <>
              at z =
              <Chip
                label="height of the ground"
                quantity="length"
                value={ground.at}
                problems={problemsAt(problems, 'boundaries', undefined, 'ground.at')}
                onChange={(at) => edit('ground', (d) => ({ ...d, ground: { ...d.ground!, at } }))}
              />
            </>
          )}
        </dd>
      </dl>
      <p className="quiet pad">Wires radiate into open space: there is no region to close. A wire whose end stands on the plane is joined to it.</p>
    </section>
  );
}
