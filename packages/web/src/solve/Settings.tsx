import type { Project } from '@jadebell/core/document';
import { accuracies, methodOf, methods, suitedTo } from '@jadebell/core/methods';
import { useState } from 'react';
import { plainOptions } from '../kit/Choice.tsx';
import { TypedField } from '../kit/Field.tsx';
import { Stops } from '../kit/Stops.tsx';
import { Tool } from '../kit/Tool.tsx';
import { Chip } from '../ledger/Chip.tsx';
import { problemsAt, useModel } from '../project/model.ts';
import { useProject } from '../project/store.ts';
import { DetailRows } from './DetailRows.tsx';
import { Message } from '../kit/Message.tsx';
import { SettingList } from '../kit/SettingList.ts';

const pointsFault = (text: string): string | null => {
  const n = Number(text);
  return Number.isInteger(n) && n >= 2 && n <= 10001 ? null : '2 to 10001';
};

/** The solver, the band, how accurate, and what is set by hand. */
export function Settings() {
  const settings = useProject((s) => s.document!.solve);
  const { edit } = useProject.getState();
  const problems = useModel((s) => s.view.problems);
  const bodies = useModel((s) => s.view.bodies);
  const [open, setOpen] = useState(!!settings.details);
  const method = methodOf(settings.solver);
  const advice = suitedTo(bodies);
  const solve = (label: string, change: Partial<Project['solve']>): void => edit(label, (d) => ({ ...d, solve: { ...d.solve, ...change } }));
  return (
    <section aria-label="Settings">
      <header>
        <h2>Settings</h2>
      </header>
      <SettingList>
        <dt>solver</dt>
        <dd>
          <Stops
            label="solver"
            value={settings.solver}
            options={methods.map(({ name, title, about }) => ({ value: name, label: title, about }))}
            onChange={(solver) => solve('solver', { solver })}
          />
          <span className="quiet">
            {method.about}. {advice && (advice.solver === settings.solver ? `Suits this model: ${advice.reason}` : '')}
          </span>
          {advice && advice.solver !== settings.solver && (
            <Message tone="warn" role="note">
              {methodOf(advice.solver).title} would suit this model: {advice.reason}
            </Message>
          )}
        </dd>
        <dt>band</dt>
        <dd>
          <Chip
            label="lowest frequency"
            quantity="frequency"
            value={settings.from}
            problems={problemsAt(problems, 'band', undefined, 'from')}
            onChange={(from) => solve('band', { from })}
          />
          to
          <Chip
            label="highest frequency"
            quantity="frequency"
            value={settings.to}
            problems={problemsAt(problems, 'band', undefined, 'to')}
            onChange={(to) => solve('band', { to })}
          />
          in
          <TypedField
            width={52}
            label="number of frequencies"
            value={String(settings.points)}
            check={pointsFault}
            onChange={(t) => solve('points', { points: Number(t) })}
          />
          points
        </dd>
        <dt>accuracy</dt>
        <dd>
          <Stops
            label="accuracy"
            value={settings.accuracy}
            options={plainOptions(accuracies)}
            onChange={(accuracy) => solve('accuracy', { accuracy })}
          />
          <span className="quiet">{method.accuracy[settings.accuracy]}</span>
        </dd>
        <dt>by hand</dt>
        <dd>
          <Tool aria-expanded={open} onClick={() => setOpen(!open)}>
            {open ? 'Fold' : 'Show'} details
          </Tool>
        </dd>
        {open && <DetailRows details={method.details} given={settings.details} onChange={(details, key) => solve(`detail ${key}`, { details })} />}
      </SettingList>
    </section>
  );
}
