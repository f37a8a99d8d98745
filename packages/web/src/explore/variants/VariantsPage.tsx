import { type Project, type Variant, variantChanges, withVariant } from '@jadebell/core/document';
import type { Read } from '@jadebell/core/exploring';
import { Button } from '@mui/material';
import { useMemo, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { sendJson } from '../../api/client.ts';
import { useRuns, useVariants } from '../../api/hooks.ts';
import { mutate } from '../../api/mutate.ts';
import { Card } from '../../charts/Card.tsx';
import { type Column, DataTable } from '../../kit/DataTable.tsx';
import { TypedField } from '../../kit/Field.tsx';
import { Message } from '../../kit/Message.tsx';
import { Tool } from '../../kit/Tool.tsx';
import { Chip } from '../../ledger/Chip.tsx';
import { useLens } from '../../lens/lens.ts';
import { useProject } from '../../project/store.ts';
import { changeVariant, keepVariant, removeVariant, switchTo } from '../../project/variants.ts';
import { StudyFrame } from '../ExploreFrame.ts';
import { nameFaultOf } from '../study/edits.ts';
import { readText } from '../study/figures.ts';
import { Measures } from '../study/Measures.tsx';

const none: readonly Variant[] = [];

/** The expression that a variant gives a parameter. */
const valueOf = (v: Variant, name: string): string | undefined => v.values.find((x) => x.parameter === name)?.expression;

/** Parameters that are not the same in all variants and the project as it stands. */
const differing = (project: Project, variants: readonly Variant[]): string[] =>
  project.parameters
    .filter(({ name, expression }) => new Set([expression, ...variants.flatMap((v) => valueOf(v, name) ?? [])]).size > 1)
    .map((p) => p.name);

/** All variants with what they differ in, their figures, and what can be done with them. */
export function VariantsPage({ project: id }: { project: string }) {
  const project = useProject((s) => s.document!);
  const saved = useProject((s) => s.saved === 'saved');
  const revision = useProject((s) => s.revision);
  const runs = useRuns(id).data;
  const navigate = useNavigate();
  const [fault, setFault] = useState<string | null>(null);
  const variants = project.variants ?? none;
  const states = (runs ?? []).map((r) => `${r.number}${r.state}`).join();
  const { data, error } = useVariants(id, saved ? revision : 0, states);
  const meta = runs?.find((r) => r.meta)?.meta ?? undefined;
  const names = useMemo(() => differing(project, variants), [project, variants]);
  const known = new Map((data ?? []).map((v) => [v.name, v]));
  const solve = (v: Variant): void => {
    setFault(null);
    sendJson('POST', `/projects/${id}/runs`, { document: withVariant(project, v) })
      .then(() => mutate(`/projects/${id}/runs`))
      .catch((e: Error) => setFault(`${v.name}: ${e.message}`));
  };
  const set = (v: Variant, name: string, expression: string): void =>
    changeVariant(v.name, (old) => ({ ...old, values: [...old.values.filter((x) => x.parameter !== name), { parameter: name, expression }] }));
  const done = variants.flatMap((v) => {
    const run = known.get(v.name)?.run;
    return run?.state === 'done' && run.projectId === id ? [run.id] : [];
  });
  const beside = (): void => {
    const { open, set: look } = useLens.getState();
    open(id);
    look({ run: done[0], beside: done.slice(1).map((run) => ({ id: run, project: id })) });
    void navigate(`/project/${id}/read?run=${done[0]}`);
  };
  const columns: Column<Variant>[] = [
    {
      title: 'variant',
      value: (v) => v.name,
      cell: (v) => (
        <TypedField
          look="chip"
          label={`Name of ${v.name}`}
          width={130}
          value={v.name}
          check={(t) => nameFaultOf(variants, v.name, t)}
          onChange={(name) => changeVariant(v.name, (old) => ({ ...old, name }))}
        />
      ),
    },
    ...names.map((name): Column<Variant> => ({
      title: name,
      value: (v) => valueOf(v, name),
      cell: (v) => (
        <Chip
          label={`${name} of ${v.name}`}
          quantity="any"
          value={valueOf(v, name) ?? ''}
          placeholder={valueOf(v, name) ? undefined : 'as it is'}
          onChange={(e) => set(v, name, e)}
        />
      ),
    })),
    ...(variants.some((v) => v.muted.length) ? [{ title: 'muted', value: (v: Variant) => v.muted.join(', ') }] : []),
    ...(project.measures ?? []).map((m): Column<Variant> => {
      const read = (v: Variant): Read | undefined => known.get(v.name)?.measures.find((r) => r.name === m.name) as Read | undefined;
      return { title: m.name, value: (v) => read(v)?.value, mono: true, cell: (v) => <span title={read(v)?.why}>{readText(read(v))}</span> };
    }),
    {
      title: 'run',
      value: (v) => known.get(v.name)?.run?.state,
      cell: (v) => {
        const run = known.get(v.name)?.run;
        if (run?.state === 'done') return <Link to={`/project/${run.projectId}/read?run=${run.id}`}>run {run.number}</Link>;
        if (run?.state === 'queued' || run?.state === 'running')
          return <span className="quiet">{run.state === 'queued' ? 'waits' : 'under way'}</span>;
        return <Tool onClick={() => solve(v)}>Run</Tool>;
      },
    },
    {
      title: '',
      cell: (v) => {
        const changes = variantChanges(project, v);
        return (
          <span className="row" style={{ gap: 4, justifyContent: 'flex-end' }}>
            {changes.length ? (
              <Tool hint={changes.join('\n')} onClick={() => switchTo(v)}>
                Switch to it
              </Tool>
            ) : (
              <span className="good">as it stands</span>
            )}
            <Tool aria-label={`Remove ${v.name}`} onClick={() => removeVariant(v.name)}>
              Remove
            </Tool>
          </span>
        );
      },
    },
  ];
  return (
    <StudyFrame>
      <div className="told">
        <section aria-label="What variants are">
          <header>
            <h2>Variants</h2>
            <span className="grow" />
            <Button variant="contained" onClick={() => keepVariant()}>
              Keep it as it stands
            </Button>
          </header>
          <p className="quiet" style={{ paddingTop: 8 }}>
            A variant keeps the values of parameters, formulas left aside, and which lines are muted. It is switched to here or at the top of the
            ledger in Shape.
          </p>
        </section>
        <section aria-label="What is read">
          <header>
            <h2>Read from each</h2>
          </header>
          <Measures meta={meta} />
        </section>
      </div>
      {(fault ?? error) && <Message>{fault ?? error?.message}</Message>}
      {variants.length > 0 && (
        <Card title="What they differ in" file="variants" tools={done.length > 1 && <Tool onClick={beside}>Read {done.length} side by side</Tool>}>
          <div className="scroll">
            <DataTable label="Variants of the project" columns={columns} rows={variants} keyOf={(v) => v.name} />
          </div>
        </Card>
      )}
    </StudyFrame>
  );
}
