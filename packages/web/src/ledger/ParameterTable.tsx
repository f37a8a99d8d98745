import type { Parameter } from '@jadebell/core/document';
import { formatSI } from '@jadebell/core/expressions/format';
import { problemsAt, useModel } from '../project/model.ts';
import { useProject } from '../project/store.ts';
import { Chip } from './Chip.tsx';
import { ParameterName, useParameterRename } from './parameterName.tsx';

/** All parameters at once: name, expression, value, range, group and note. */
export function ParameterTable({ parameters, used }: { parameters: Parameter[]; used: ReadonlySet<string> }) {
  return (
    <div className="table-scroll">
      <table className="figures parameters-table">
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
          {parameters.map((g) => (
            <Row key={g.name} parameter={g} unused={!used.has(g.name)} />
          ))}
        </tbody>
      </table>
    </div>
  );
}

function Row({ parameter, unused }: { parameter: Parameter; unused: boolean }) {
  const edit = useProject((s) => s.edit);
  const value = useModel((s) => s.view.summary[parameter.name]);
  const all = useModel((s) => s.view.problems);
  const problems = problemsAt(all, 'parameters', parameter.name);
  const [fault, rename] = useParameterRename(parameter.name);
  const set = (label: string, change: (g: Parameter) => Parameter): void =>
    edit(`${label} ${parameter.name}`, (d) => ({ ...d, parameters: d.parameters.map((g) => (g.name === parameter.name ? change(g) : g)) }));
  const bound = (end: 'min' | 'max') => (
    <input
      className="plain-input mono"
      aria-label={`${end === 'min' ? 'least' : 'most'} of ${parameter.name}`}
      defaultValue={parameter.dial?.[end] ?? ''}
      key={parameter.dial?.[end] ?? ''}
      style={{ width: 70 }}
      onBlur={(e) => {
        const text = e.target.value.trim();
        if (text === (parameter.dial?.[end] ?? '')) return;
        set('range', ({ dial, ...g }) => {
          const other = dial?.[end === 'min' ? 'max' : 'min'] ?? parameter.expression;
          if (!text) return g;
          return { ...g, dial: end === 'min' ? { min: text, max: other } : { min: other, max: text } };
        });
      }}
    />
  );
  return (
    <tr title={fault ?? problems.map((p) => `${p.message} ${p.fix}`).join(' ')}>
      <td>
        <ParameterName name={parameter.name} onRename={rename} />
      </td>
      <td>
        <Chip
          label={`value of ${parameter.name}`}
          quantity="any"
          value={parameter.expression}
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
          aria-label={`group of ${parameter.name}`}
          defaultValue={parameter.group ?? ''}
          style={{ width: 90 }}
          onBlur={(e) => {
            const group = e.target.value.trim();
            if (group !== (parameter.group ?? '')) set('group', ({ group: _, ...g }) => (group ? { ...g, group } : g));
          }}
        />
      </td>
      <td className="quiet">
        {unused && <span className="unused">unused</span>} {parameter.note}
      </td>
    </tr>
  );
}
