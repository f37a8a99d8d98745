import { axes, type Boundary, type Problem, sides } from '@jadebell/core/document';
import { Fragment } from 'react';
import { Chip } from '../ledger/Chip.tsx';
import { problemsAt, useModel } from '../project/model.ts';
import { useProject } from '../project/store.ts';
import { boundaryNames, mirrorNames, sideNames, withBoundary, withSymmetry } from '../project/boundaries.ts';
import { Tool } from '../kit/Tool.tsx';
import { Choice } from '../kit/Choice.tsx';
import { Message } from '../kit/Message.tsx';
import { SettingList } from '../kit/SettingList.ts';

const boundaryOptions = Object.entries(boundaryNames).map(([value, label]) => ({ value, label }));
const symmetryOptions = [{ value: 'none', label: 'none' }, ...Object.entries(mirrorNames).map(([value, label]) => ({ value, label }))];

/** Sides of the computed region, planes of symmetry, and how far the region reaches. */
export function BoundarySection() {
  const symmetry = useProject((s) => s.document!.symmetry);
  const problems = useModel((s) => s.view.problems);
  const told = problems.filter((p) => p.place.part === 'boundaries');
  return (
    <section aria-label="Boundaries">
      <header>
        <h2>Boundaries</h2>
      </header>
      <SettingList>
        {axes.map((axis, a) => (
          <Fragment key={axis}>
            <dt>along {axis}</dt>
            <dd>
              {symmetry?.[axis] ? <span className="quiet">low: mirror</span> : <Side side={sides[2 * a]} />}
              <Side side={sides[2 * a + 1]} />
            </dd>
          </Fragment>
        ))}
        <dt>mirror</dt>
        <dd>
          {axes.map((axis) => (
            <Mirror key={axis} axis={axis} problems={problems} />
          ))}
        </dd>
        <dt>distance</dt>
        <dd>
          <Distance problems={problems} />
        </dd>
      </SettingList>
      {symmetry && <p className="quiet pad">Only the half towards larger coordinates is computed; results are those of the whole.</p>}
      {told.map((p) => (
        <Message key={`${p.code} ${p.place.chip}`} style={{ padding: '0 14px' }}>
          {p.message} {p.fix}
        </Message>
      ))}
    </section>
  );
}

/** What a side of the region does with the field. */
function Side({ side }: { side: (typeof sides)[number] }) {
  const boundary = useProject((s) => s.document!.boundaries[side]);
  const edit = useProject((s) => s.edit);
  return (
    <span className="row" style={{ gap: 4 }}>
      {sideNames[side].split(' ')[0]}
      <Choice
        look="chip"
        label={`boundary at ${sideNames[side]}`}
        value={boundary}
        options={boundaryOptions}
        onChange={(v) => edit('boundary', (d) => withBoundary(d, side, v as Boundary))}
      />
    </span>
  );
}

/** Whether the model mirrors across a plane of an axis, where, and as which wall. */
function Mirror({ axis, problems }: { axis: (typeof axes)[number]; problems: Problem[] }) {
  const plane = useProject((s) => s.document!.symmetry?.[axis]);
  const edit = useProject((s) => s.edit);
  return (
    <span className="row" style={{ gap: 4 }}>
      {`across ${axis}${plane ? ' =' : ''}`}
      {plane && (
        <Chip
          label={`plane of symmetry across ${axis}`}
          quantity="length"
          value={plane.at}
          problems={problemsAt(problems, 'boundaries', undefined, `symmetry.${axis}.at`)}
          onChange={(at) => edit('symmetry', (d) => withSymmetry(d, axis, { ...plane, at }))}
        />
      )}
      <Choice
        look="chip"
        label={`symmetry across ${axis}`}
        value={plane?.wall ?? 'none'}
        options={symmetryOptions}
        onChange={(v) =>
          edit('symmetry', (d) => withSymmetry(d, axis, v === 'none' ? null : { wall: v as 'electric', at: d.symmetry?.[axis]?.at ?? '0 mm' }))
        }
      />
    </span>
  );
}

/** How far the region reaches beyond the bodies. */
function Distance({ problems }: { problems: Problem[] }) {
  const margin = useProject((s) => s.document!.margin);
  const edit = useProject((s) => s.edit);
  const give = (margin: string): void => edit('margin', (d) => ({ ...d, margin }));
  if (!margin)
    return (
      <>
        a quarter of the longest wavelength
        <Tool onClick={() => give('80 mm')}>Set</Tool>
      </>
    );
  return (
    <>
      <Chip
        label="distance to the boundary"
        quantity="length"
        value={margin}
        problems={problemsAt(problems, 'boundaries', undefined, 'margin')}
        onChange={give}
      />
      <Tool onClick={() => edit('margin', ({ margin: _, ...d }) => d)}>Automatic</Tool>
    </>
  );
}
