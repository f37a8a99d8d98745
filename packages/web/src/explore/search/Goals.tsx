import { type Aim, aims, type Goal, isFormula, type Problem } from '@jadebell/core/document';
import { unitOfMeasure } from '@jadebell/core/exploring';
import { measureOfUnit } from '@jadebell/core/reading';
import { Choice, plainOptions } from '../../kit/Choice.tsx';
import { TypedField } from '../../kit/Field.tsx';
import { IconTool } from '../../kit/IconTool.tsx';
import { Close } from '../../kit/icons.tsx';
import { ToolMenu } from '../../kit/ToolMenu.tsx';
import { Chip } from '../../ledger/Chip.tsx';
import { useProject } from '../../project/store.ts';
import { askedFor } from '../study/Moves.tsx';
import { freshGoal } from './edits.ts';

interface Props {
  goals: readonly Goal[];
  problems: readonly Problem[];
  /** What adds one. */
  adds: string;
  /** Goals are weighed against each other. */
  weighed?: boolean;
  change(goals: Goal[]): void;
}

/** The sentences of what measures should be. */
export function Goals({ goals, problems, adds, weighed, change }: Props) {
  const project = useProject((s) => s.document!);
  const measures = project.measures ?? [];
  return (
    <>
      {goals.map((goal, n) => {
        const measure = measures.find((m) => m.name === goal.measure);
        const unit = (measure && unitOfMeasure(measure, project)) ?? '';
        const quantity = unit === 'deg' ? 'any' : askedFor(measureOfUnit(unit) ?? 'plain number');
        const at = (field: string): Problem[] => problems.filter((p) => p.place.chip === `goals.${n}.${field}`);
        const set = (next: Partial<Goal>): void => change(goals.map((g, i) => (i === n ? { ...g, ...next } : g)));
        const told = unit && !measureOfUnit(unit) && unit !== 'deg' ? ` ${unit}` : '';
        return (
          <div className="statement" key={n} role="group" aria-label={`Goal ${n + 1}`}>
            <Choice
              look="chip"
              label={`Measure of goal ${n + 1}`}
              value={goal.measure}
              failing={at('measure').length > 0}
              options={plainOptions([...new Set([goal.measure, ...measures.map((m) => m.name)])])}
              onChange={(name) => {
                const other = measures.find((m) => m.name === name);
                if (other) set({ ...freshGoal(project, other), within: undefined });
              }}
            />
            is to be
            <Choice
              look="chip"
              label={`Aim of goal ${n + 1}`}
              value={goal.aim}
              options={Object.entries(aims).map(([value, label]) => ({ value: value as Aim, label }))}
              onChange={(aim) => set({ aim })}
            />
            <Chip
              label={`Value of goal ${n + 1}`}
              quantity={quantity}
              value={goal.value}
              problems={at('value')}
              onChange={(value) => set({ value })}
            />
            {told}
            {(weighed || goal.aim === 'equal') && (
              <>
                {' within '}
                <Chip
                  label={`Within of goal ${n + 1}`}
                  quantity={quantity}
                  value={goal.within ?? ''}
                  placeholder={goal.within === undefined ? (told ? '1' : '1 %') : undefined}
                  problems={at('within')}
                  onChange={(within) => set({ within })}
                />
                {told}
              </>
            )}
            {weighed && (
              <>
                , weight
                <TypedField
                  mono
                  label={`Weight of goal ${n + 1}`}
                  width={44}
                  value={String(goal.weight)}
                  check={(t) => (Number(t) > 0 && Number.isFinite(Number(t)) ? null : 'above zero')}
                  onChange={(t) => set({ weight: Number(t) })}
                />
              </>
            )}
            <IconTool label={`Leave goal ${n + 1} out`} icon={<Close />} size={14} onClick={() => change(goals.filter((_, i) => i !== n))} />
          </div>
        );
      })}
      <div className="statement">
        <ToolMenu
          label={adds}
          items={() =>
            measures.map((m) => ({
              title: m.name,
              about: isFormula(m) ? m.formula : m.quantity,
              act: () => change([...goals, freshGoal(project, m)]),
            }))
          }
        />
      </div>
    </>
  );
}
