import type { Bound, Problem, SearchPlan } from '@jadebell/core/document';
import { accuracies } from '@jadebell/core/methods';
import { type Method, methods, suiting } from '@jadebell/core/searching';
import { Choice, plainOptions } from '../../kit/Choice.tsx';
import { IconTool } from '../../kit/IconTool.tsx';
import { Close } from '../../kit/icons.tsx';
import { Tool } from '../../kit/Tool.tsx';
import { ToolMenu } from '../../kit/ToolMenu.tsx';
import { Chip } from '../../ledger/Chip.tsx';
import { useProject } from '../../project/store.ts';
import { parametersToMove } from '../study/edits.ts';
import { askedFor, Count } from '../study/Moves.tsx';
import { changeSearch, freshBound } from './edits.ts';

interface Props {
  search: SearchPlan;
  problems: readonly Problem[];
  /** What each parameter measures. */
  measures: ReadonlyMap<string, string>;
}

/** The sentences of what may move, what has to be kept, and how is sought. */
export function Bounds({ search, problems, measures }: Props) {
  const project = useProject((s) => s.document!);
  const change = (next: Partial<SearchPlan>, what: string): void => changeSearch(search.name, (s) => ({ ...s, ...next }), what);
  const names = project.parameters.map((p) => p.name);
  const free = names.filter((n) => !search.bounds.some((b) => b.parameter === n));
  const keep = search.keep ?? [];
  return (
    <>
      {search.bounds.map((bound, n) => {
        const at = (field: string): Problem[] => problems.filter((p) => p.place.chip === `bounds.${n}.${field}`);
        const set = (next: Bound): void => change({ bounds: search.bounds.map((b, i) => (i === n ? next : b)) }, `bounds.${n}`);
        const value = (field: 'from' | 'to' | 'start') => (
          <Chip
            label={`${bound.parameter} ${field}`}
            quantity={askedFor(measures.get(bound.parameter) ?? '')}
            value={bound[field] ?? ''}
            placeholder={bound[field] === undefined ? 'its value' : undefined}
            problems={at(field)}
            onChange={(v) => set({ ...bound, [field]: v })}
          />
        );
        return (
          <div className="statement" key={n} role="group" aria-label={`Bounds of ${bound.parameter}`}>
            <span>{n ? 'and' : 'Let'}</span>
            <Choice
              look="chip"
              label={`Parameter ${n + 1}`}
              value={bound.parameter}
              failing={at('parameter').length > 0}
              options={plainOptions([...new Set([bound.parameter, ...free])])}
              onChange={(parameter) => set(freshBound(project, parameter))}
            />
            be between {value('from')} and {value('to')}, start at {value('start')}
            {search.bounds.length > 1 && (
              <IconTool
                label={`Let ${bound.parameter} stay`}
                icon={<Close />}
                size={14}
                onClick={() => change({ bounds: search.bounds.filter((_, i) => i !== n) }, 'bounds')}
              />
            )}
          </div>
        );
      })}
      {keep.map((text, n) => (
        <div className="statement" key={n}>
          where
          <Chip
            label={`Kept ${n + 1}`}
            quantity="any"
            value={text}
            problems={problems.filter((p) => p.place.chip === `keep.${n}`)}
            onChange={(v) => change({ keep: keep.map((k, i) => (i === n ? v : k)) }, 'keep')}
          />
          is not below zero
          <IconTool
            label={`Keep ${text} no more`}
            icon={<Close />}
            size={14}
            onClick={() => change({ keep: keep.filter((_, i) => i !== n) }, 'keep')}
          />
        </div>
      ))}
      <div className="statement">
        by
        <Choice
          look="chip"
          label="Method"
          value={search.method ?? ''}
          options={[
            { value: '', label: `what suits (${methods[suiting(search.bounds.length)].title})` },
            ...Object.entries(methods).map(([value, m]) => ({ value: value as Method, label: `${m.title}: ${m.about}` })),
          ]}
          shows={search.method ? methods[search.method].title : `what suits (${methods[suiting(search.bounds.length)].title})`}
          onChange={(m) => change({ method: m || undefined }, 'method')}
        />
        in at most
        <Count label="Most points" value={search.points} least={1} most={10_000} change={(points) => change({ points }, 'points')} />
        points,
        <Count label="Points at once" value={search.together} least={1} most={16} change={(together) => change({ together }, 'together')} />
        at once, at
        <Choice
          look="chip"
          label="Accuracy of the search"
          value={search.accuracy ?? ''}
          options={[{ value: '', label: `the project’s accuracy (${project.solve.accuracy})` }, ...plainOptions(accuracies)]}
          onChange={(a) => change({ accuracy: a || undefined }, 'accuracy')}
        />
      </div>
      <div className="statement">
        {search.bounds.length < 20 && free.length > 0 && (
          <ToolMenu
            label="Let another move"
            items={() =>
              parametersToMove(project)
                .filter((p) => free.includes(p.name))
                .map(({ name, about }) => ({
                  title: name,
                  about,
                  act: () => change({ bounds: [...search.bounds, freshBound(project, name)] }, 'bounds'),
                }))
            }
          />
        )}
        <Tool onClick={() => change({ keep: [...keep, search.bounds[0].parameter] }, 'keep')}>Keep something</Tool>
      </div>
    </>
  );
}
