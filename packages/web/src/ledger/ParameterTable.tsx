import type { Parameter } from '@jadebell/core/document';
import { formatSI } from '@jadebell/core/expressions/format';
import { problemsAt, useModel } from '../project/model.ts';
import { useProject } from '../project/store.ts';
import { Chip } from './Chip.tsx';
import { ParameterName, useParameterRename } from './parameterName.tsx';
import { Figures } from '../kit/Figures.tsx';
import { TableHead, TableRow, TableCell, TableBody } from '@mui/material';
import { TypedField } from '../kit/Field.tsx';

/** All parameters at once: name, expression, value, range, group and note. */
export function ParameterTable({ parameters, used }: { parameters: Parameter[]; used: ReadonlySet<string> }) {
  return (
    <div className="table-scroll">
      <Figures>
        <TableHead>
          <TableRow>
            <TableCell>name</TableCell>
            <TableCell>expression</TableCell>
            <TableCell>value</TableCell>
            <TableCell>least</TableCell>
            <TableCell>most</TableCell>
            <TableCell>group</TableCell>
            <TableCell>note</TableCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {parameters.map((g) => (
            <Row key={g.name} parameter={g} unused={!used.has(g.name)} />
          ))}
        </TableBody>
      </Figures>
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
    <TypedField
      look="plain"
      mono
      width={70}
      label={`${end === 'min' ? 'least' : 'most'} of ${parameter.name}`}
      value={parameter.dial?.[end] ?? ''}
      onChange={(text) =>
        set('range', ({ dial, ...g }) => {
          const other = dial?.[end === 'min' ? 'max' : 'min'] ?? parameter.expression;
          if (!text) return g;
          return { ...g, dial: end === 'min' ? { min: text, max: other } : { min: other, max: text } };
        })
      }
    />
  );
  return (
    <TableRow title={fault ?? problems.map((p) => `${p.message} ${p.fix}`).join(' ')}>
      <TableCell>
        <ParameterName name={parameter.name} onRename={rename} />
      </TableCell>
      <TableCell>
        <Chip
          label={`value of ${parameter.name}`}
          quantity="any"
          value={parameter.expression}
          problems={problems}
          onChange={(expression) => set('value', (g) => ({ ...g, expression }))}
        />
      </TableCell>
      <TableCell className="mono">{value ? formatSI(value.si, value.measure) : <span className="bad">{fault ?? 'fails'}</span>}</TableCell>
      <TableCell>{bound('min')}</TableCell>
      <TableCell>{bound('max')}</TableCell>
      <TableCell>
        <TypedField
          look="plain"
          width={90}
          label={`group of ${parameter.name}`}
          value={parameter.group ?? ''}
          onChange={(group) => set('group', ({ group: _, ...g }) => (group ? { ...g, group } : g))}
        />
      </TableCell>
      <TableCell className="quiet">
        {unused && <span className="unused">unused</span>} {parameter.note}
      </TableCell>
    </TableRow>
  );
}
