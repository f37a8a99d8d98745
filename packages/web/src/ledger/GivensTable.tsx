import type { Given } from '@jadebell/core/document';
import { formatSI } from '@jadebell/core/format';
import { problemsAt, useModel } from '../project/model.ts';
import { useProject } from '../project/store.ts';
import { Chip } from './Chip.tsx';
import { GivenName, useGivenRename } from './givenName.tsx';

/** All givens at once: name, expression, value, range, group and note. */
export function GivensTable({ givens, used }: { givens: Given[]; used: ReadonlySet<string> }) {
  return (
    <div className="table-scroll">
      <table className="figures givens-table">
        <thead>
          <tr>
            <th>name</th>
            <th>expression</th>
            <th>value</th>
            <th>least</th>
            <th>most</th>
            <th>group</th>
            <th>note</th>
          </tr>
        </thead>
        <tbody>
          {givens.map((g) => (
            <Row key={g.name} given={g} unused={!used.has(g.name)} />
          ))}
        </tbody>
      </table>
    </div>
  );
}

function Row({ given, unused }: { given: Given; unused: boolean }) {
  const edit = useProject((s) => s.edit);
  const value = useModel((s) => s.view.summary[given.name]);
  const all = useModel((s) => s.view.problems);
  const problems = problemsAt(all, 'givens', given.name);
  const [fault, rename] = useGivenRename(given.name);
  const set = (label: string, change: (g: Given) => Given): void =>
    edit(`${label} ${given.name}`, (d) => ({ ...d, givens: d.givens.map((g) => (g.name === given.name ? change(g) : g)) }));
  const bound = (end: 'min' | 'max') => (
    <input
      className="plain-input mono"
      aria-label={`${end === 'min' ? 'least' : 'most'} of ${given.name}`}
      defaultValue={given.dial?.[end] ?? ''}
      key={given.dial?.[end] ?? ''}
      style={{ width: 70 }}
      onBlur={(e) => {
        const text = e.target.value.trim();
        if (text === (given.dial?.[end] ?? '')) return;
        set('range', ({ dial, ...g }) => {
          const other = dial?.[end === 'min' ? 'max' : 'min'] ?? given.expression;
          if (!text) return g;
          return { ...g, dial: end === 'min' ? { min: text, max: other } : { min: other, max: text } };
        });
      }}
    />
  );
  return (
    <tr title={fault ?? problems.map((p) => `${p.message} ${p.fix}`).join(' ')}>
      <td>
        <GivenName name={given.name} onRename={rename} />
      </td>
      <td>
        <Chip
          label={`value of ${given.name}`}
          quantity="any"
          value={given.expression}
          problems={problems}
          onChange={(expression) => set('value', (g) => ({ ...g, expression }))}
        />
      </td>
      <td className="mono">{value ? formatSI(value.si, value.measure) : <span className="bad">{fault ?? 'fails'}</span>}</td>
      <td>{bound('min')}</td>
      <td>{bound('max')}</td>
      <td>
        <input
          className="plain-input"
          aria-label={`group of ${given.name}`}
          defaultValue={given.group ?? ''}
          style={{ width: 90 }}
          onBlur={(e) => {
            const group = e.target.value.trim();
            if (group !== (given.group ?? '')) set('group', ({ group: _, ...g }) => (group ? { ...g, group } : g));
          }}
        />
      </td>
      <td className="quiet">
        {unused && <span className="unused">unused</span>} {given.note}
      </td>
    </tr>
  );
}
