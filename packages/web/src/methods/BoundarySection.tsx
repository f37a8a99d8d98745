import { axes, type Boundary, sides } from '@jadebell/core/document';
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
  const document = useProject((s) => s.document)!;
  const edit = useProject((s) => s.edit);
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
              {[sides[2 * a], sides[2 * a + 1]].map((s, i) =>
                !i && document.symmetry?.[axis] ? (
                  <span key={s} className="quiet">
                    low: mirror
                  </span>
                ) : (
                  <span key={s} className="row" style={{ gap: 4 }}>
                    {sideNames[s].split(' ')[0]}
                    <Choice
                      look="chip"
                      label={`boundary at ${sideNames[s]}`}
                      value={document.boundaries[s]}
                      options={boundaryOptions}
                      onChange={(v) => edit('boundary', (d) => withBoundary(d, s, v as Boundary))}
                    />
                  </span>
                ),
              )}
            </dd>
          </Fragment>
        ))}
        <dt>mirror</dt>
        <dd>
          {axes.map((axis) => {
            const plane = document.symmetry?.[axis];
            return (
              <span key={axis} className="row" style={{ gap: 4 }}>
                {`across ${axis}${plane ? ' =' : ''}`}
                {plane && (
                  <>
                    <Chip
                      label={`plane of symmetry across ${axis}`}
                      quantity="length"
                      value={plane.at}
                      problems={problemsAt(problems, 'boundaries', undefined, `symmetry.${axis}.at`)}
                      onChange={(at) => edit('symmetry', (d) => withSymmetry(d, axis, { ...plane, at }))}
                    />
                  </>
                )}
                <Choice
                  look="chip"
                  label={`symmetry across ${axis}`}
                  value={plane?.wall ?? 'none'}
                  options={symmetryOptions}
                  onChange={(v) =>
                    edit('symmetry', (d) =>
                      withSymmetry(d, axis, v === 'none' ? null : { wall: v as 'electric', at: d.symmetry?.[axis]?.at ?? '0 mm' }),
                    )
                  }
                />
              </span>
            );
          })}
        </dd>
        <dt>distance</dt>
        <dd>
          {document.margin ? (
            <>
              <Chip
                label="distance to the boundary"
                quantity="length"
                value={document.margin}
                problems={problemsAt(problems, 'boundaries', undefined, 'margin')}
                onChange={(margin) => edit('margin', (d) => ({ ...d, margin }))}
              />
              <Tool onClick={() => edit('margin', ({ margin: _, ...d }) => d)}>Automatic</Tool>
            </>
          ) : (
            <>
              a quarter of the longest wavelength
              <Tool onClick={() => edit('margin', (d) => ({ ...d, margin: '80 mm' }))}>Set</Tool>
            </>
          )}
        </dd>
      </SettingList>
      {document.symmetry && <p className="quiet pad">Only the half towards larger coordinates is computed; results are those of the whole.</p>}
      {told.map((p) => (
        <Message key={`${p.code} ${p.place.chip}`} style={{ padding: '0 14px' }}>
          {p.message} {p.fix}
        </Message>
      ))}
    </section>
  );
}
