import {
  gatherings,
  type Gathering,
  isSpread,
  type Move,
  moveKinds,
  type Problem,
  pointsSpread,
  quantities,
  type Quantity,
  type Study,
  variesAbout,
} from '@jadebell/core/document';
import { accuracies } from '@jadebell/core/methods';
import type { ReactNode } from 'react';
import { Choice, plainOptions } from '../../kit/Choice.tsx';
import { TypedField } from '../../kit/Field.tsx';
import { IconTool } from '../../kit/IconTool.tsx';
import { Close } from '../../kit/icons.tsx';
import { ToolMenu } from '../../kit/ToolMenu.tsx';
import { Chip } from '../../ledger/Chip.tsx';
import { ListEditor } from '../../ledger/ListEditor.tsx';
import { useProject } from '../../project/store.ts';
import { allToMove, changeStudy, freshMove, movedAs, withMove, withoutMove } from './edits.ts';
import { Links } from './Links.tsx';

/** What measures a quantity that chips know takes as such; anything else is asked for without. */
export const askedFor = (measure: string): Quantity | 'any' =>
  measure === 'plain number' ? 'number' : (quantities as readonly string[]).includes(measure) ? (measure as Quantity) : 'any';

interface MoveProps<M extends Move = Move> {
  move: M;
  /** Its place in the study, for what is said of it. */
  at: string;
  quantity: Quantity | 'any';
  problems: readonly Problem[];
  change(next: M): void;
}

/** A whole number within bounds, typed in a sentence. */
export const Count = ({
  label,
  value,
  least,
  most,
  change,
}: {
  label: string;
  value: number;
  least: number;
  most: number;
  change(n: number): void;
}) => (
  <TypedField
    mono
    label={label}
    width={48}
    value={String(value)}
    check={(t) => (/^\d+$/.test(t) && Number(t) >= least && Number(t) <= most ? null : `${least} to ${most.toLocaleString('en')}`)}
    onChange={(t) => change(Number(t))}
  />
);

/** An expression of a move; `absent` stands where there is none, and emptied it is none. */
function Value<M extends Move>({ field, word, absent, ...p }: MoveProps<M> & { field: keyof M & string; word: string; absent?: string }) {
  const value = p.move[field] as string | undefined;
  return (
    <Chip
      label={`${p.move.parameter} ${word}`}
      quantity={p.quantity}
      value={value ?? ''}
      placeholder={value === undefined ? absent : undefined}
      problems={p.problems.filter((o) => o.place.chip === `${p.at}.${field}`)}
      onChange={(v) => p.change({ ...p.move, [field]: v })}
    />
  );
}

/** About what a parameter varies, and how far that may be moved. */
const About = <M extends Extract<Move, { about?: string }>>(p: MoveProps<M>) => (
  <>
    about <Value {...p} field="about" word="about" absent="its value" /> that may shift by{' '}
    <Value {...p} field="shift" word="shift" absent="nothing" />
    {(p.move.about ?? p.move.shift) !== undefined && (
      <IconTool
        label={`${p.move.parameter} about its value, which stays`}
        icon={<Close />}
        size={14}
        onClick={() => p.change({ ...p.move, about: undefined, shift: undefined })}
      />
    )}
  </>
);

const Ends = <M extends Extract<Move, { from: string; to: string }>>({ join, ...p }: MoveProps<M> & { join: string }) => (
  <>
    <Value {...p} field="from" word="from" /> {join} <Value {...p} field="to" word="to" />
  </>
);

type Editors = { [K in Move['how']]: (p: MoveProps<Extract<Move, { how: K }>>) => ReactNode };
/** How each way of moving is said and changed. */
const editors: Editors = {
  list: ({ move, at, quantity, problems, change }) => (
    <ListEditor
      path={`${at}.values`}
      label="value"
      columns={[{ label: move.parameter, quantity: quantity === 'any' ? 'number' : quantity }]}
      least={1}
      rows={move.values.map((v) => [v])}
      problems={problems.map((p) => ({ ...p, place: { ...p.place, chip: `${p.place.chip}.0` } }))}
      onChange={(rows) => change({ ...move, values: rows.map(([v]) => v) })}
    />
  ),
  count: (p) => (
    <>
      <Ends {...p} join="to" /> in
      <Count
        label={`Points of ${p.move.parameter}`}
        value={p.move.points}
        least={2}
        most={10_000}
        change={(points) => p.change({ ...p.move, points })}
      />
      <Choice
        look="chip"
        label={`Spacing of ${p.move.parameter}`}
        value={p.move.spacing}
        options={[
          { value: 'linear', label: 'points, equally apart' },
          { value: 'logarithmic', label: 'points, by equal ratios' },
        ]}
        onChange={(spacing) => p.change({ ...p.move, spacing })}
      />
    </>
  ),
  step: (p) => (
    <>
      <Ends {...p} join="to" /> by <Value {...p} field="by" word="step" />
    </>
  ),
  range: (p) => <Ends {...p} join="and" />,
  within: (p) => (
    <>
      <Value {...p} field="by" word="by" /> <About {...p} />
    </>
  ),
  normal: (p) => (
    <>
      <Value {...p} field="by" word="by" />
      <Choice
        look="chip"
        label={`Cut of ${p.move.parameter}`}
        value={String(p.move.cut ?? '')}
        options={[{ value: '', label: 'not cut' }, ...cuts.map((c) => ({ value: String(c), label: `cut at ${c} deviations` }))]}
        onChange={(c) => p.change({ ...p.move, cut: c ? Number(c) : undefined })}
      />
      <About {...p} />
    </>
  ),
};
/** Deviations at which a normal spread is cut, where sorting has taken out what is farther off. */
const cuts = [1, 2, 3, 4, 6] as const;

/** The sentences of what moves, and how points are made of it. */
export function Moves({ study, problems, measures }: { study: Study; problems: readonly Problem[]; measures: ReadonlyMap<string, string> }) {
  const project = useProject((s) => s.document!);
  const change = (next: Partial<Study>, what: string): void => changeStudy(study.name, (s) => ({ ...s, ...next }), what);
  const names = allToMove(project).map((p) => p.name);
  const free = (also?: string): string[] => names.filter((n) => n === also || !study.moves.some((m) => m.parameter === n));
  return (
    <>
      {study.moves.map((move, n) => {
        const at = `moves.${n}`;
        const own = problems.filter((p) => p.place.chip?.startsWith(`${at}.`));
        const set = (next: Move): void => changeStudy(study.name, (s) => withMove(s, n, next), at);
        const Editor = editors[move.how] as (p: MoveProps) => ReactNode;
        const failing = own.some((p) => p.place.chip === `${at}.parameter`);
        return (
          <div className="statement" key={n} role="group" aria-label={`Move ${move.parameter}`}>
            <span>{n ? (variesAbout(move) ? 'and let' : 'and') : variesAbout(move) ? 'Let' : 'Move'}</span>
            <Choice
              look="chip"
              label={`Parameter ${n + 1}`}
              value={move.parameter}
              failing={failing}
              options={plainOptions([...new Set([move.parameter, ...free()])])}
              onChange={(parameter) => set(freshMove(project, parameter))}
            />
            <Choice
              look="chip"
              label={`How ${move.parameter} moves`}
              value={move.how}
              shows={moveKinds[move.how].word}
              options={Object.values(moveKinds).map((k) => ({ value: k.how as Move['how'], label: k.title }))}
              onChange={(how) => set(movedAs(move, how, project))}
            />
            <Editor move={move} at={at} quantity={askedFor(measures.get(move.parameter) ?? '')} problems={own} change={set} />
            {study.moves.length > 1 && (
              <IconTool
                label={`Let ${move.parameter} stay`}
                icon={<Close />}
                size={14}
                onClick={() => changeStudy(study.name, (s) => withoutMove(s, move.parameter), 'moves')}
              />
            )}
          </div>
        );
      })}
      <Links study={study} problems={problems} />
      <div className="statement">
        {(study.moves.length > 1 || isSpread(study.together)) && (
          <>
            Take
            {isSpread(study.together) && (
              <Count
                label="Points that are spread"
                value={study.points ?? pointsSpread}
                least={2}
                most={10_000}
                change={(points) => change({ points }, 'points')}
              />
            )}
            <Choice
              look="chip"
              label="How values come together"
              value={study.together}
              failing={problems.some((p) => p.place.chip === 'together')}
              options={Object.entries(gatherings).map(([value, label]) => ({ value: value as Gathering, label }))}
              onChange={(together) => change({ together }, 'together')}
            />
            {isSpread(study.together) && (study.moves.some(variesAbout) || study.checks) && (
              <>
                and
                <Count
                  label="Points kept for the check"
                  value={study.checks ?? 0}
                  least={0}
                  most={1000}
                  change={(checks) => change({ checks: checks || undefined }, 'checks')}
                />
                as they may come, to check,{' '}
              </>
            )}
          </>
        )}
        {study.moves.length === 1 && !isSpread(study.together) ? 'At' : 'at'}
        <Choice
          look="chip"
          label="Accuracy of the study"
          value={study.accuracy ?? ''}
          options={[{ value: '', label: `the project’s accuracy (${project.solve.accuracy})` }, ...plainOptions(accuracies)]}
          onChange={(a) => change({ accuracy: a || undefined }, 'accuracy')}
        />
        {study.moves.length < 20 && free().length > 0 && (
          <ToolMenu
            label="Move another"
            items={() =>
              allToMove(project)
                .filter((p) => free().includes(p.name))
                .map(({ name, about }) => ({ title: name, about, act: () => change({ moves: [...study.moves, freshMove(project, name)] }, 'moves') }))
            }
          />
        )}
      </div>
    </>
  );
}
