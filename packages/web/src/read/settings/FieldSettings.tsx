import type { FieldCard, VolumeCard } from '@jadebell/core/document';
import { fieldKinds } from '@jadebell/core/reading';
import { type ResultMeta, recordedOf } from '@jadebell/core/results';
import { Part, Quantity, Row, Span } from './Fields.tsx';
import { Choice } from '../../kit/Choice.tsx';
import { Tick } from '../../kit/Tick.tsx';

interface Props<C> {
  card: C;
  meta: ResultMeta;
  change(next: Partial<C>): void;
}

const option = <T extends string>(value: T, label: string = value): { value: T; label: string } => ({ value, label });

/** Which field, and how it is told. */
function Reading<C extends FieldCard | VolumeCard>({ card, meta, change }: Props<C>) {
  const set = change as (next: Partial<FieldCard>) => void;
  const boxes = recordedOf(meta, 'field-box').map((b) => option(b.name));
  const recorders = card.kind === 'field' ? [...recordedOf(meta, 'field-plane').map((p) => option(p.name)), ...boxes] : boxes;
  const box = recordedOf(meta, 'field-box').some((b) => b.name === card.recorder);
  const known = recorders.some((r) => r.value === card.recorder) ? recorders : [option(card.recorder), ...recorders];
  return (
    <>
      <Row label="recorder">
        <Choice label="Recorder" value={card.recorder} options={known} onChange={(recorder) => set({ recorder })} />
      </Row>
      <Row label="field">
        <Choice
          label="Quantity"
          value={card.quantity}
          options={(box ? (['E', 'H', 'S', 'D', 'B', 'J', 'loss'] as const) : (['E'] as const)).map((q) => option(q, `${q}, ${fieldKinds[q].title}`))}
          onChange={(quantity) => set({ quantity })}
        />
        <Choice
          label="Part"
          value={card.part}
          options={[
            option('size', 'magnitude'),
            option('x'),
            option('y'),
            option('z'),
            option('normal', 'across the plane'),
            option('tangential', 'in the plane'),
          ]}
          onChange={(part) => set({ part })}
        />
        <Choice
          label="Moment"
          value={card.form}
          options={[option('peak', 'peak over the phase'), option('instant', 'at the phase of the lens'), option('mean', 'mean'), option('phase')]}
          onChange={(form) => set({ form })}
        />
      </Row>
      <Row label="scale">
        <Choice
          label="Scale"
          value={card.db ? 'db' : 'linear'}
          options={[option('db', 'dB'), option('linear')]}
          onChange={(v) => set({ db: v === 'db' })}
        />
        {card.db && <Span value={card.span} otherwise={50} onChange={(span) => set({ span })} />}
      </Row>
      <Row label="top">
        <Choice
          label="Top of the scale"
          value={card.range}
          options={[option('most', 'of 99.5 %'), option('all', 'the largest'), option('fixed', 'as given')]}
          onChange={(range) => set({ range })}
        />
        {card.range === 'fixed' && (
          <Quantity
            label="Top value"
            value={card.top}
            measure="number"
            optional
            placeholder="value"
            check={(v) => (v > 0 ? null : 'above zero')}
            onChange={(top) => set({ top })}
          />
        )}
      </Row>
    </>
  );
}

export function FieldSettings({ card, meta, change }: Props<FieldCard>) {
  const box = recordedOf(meta, 'field-box').some((b) => b.name === card.recorder);
  return (
    <>
      <Part title="Field">
        <Reading card={card} meta={meta} change={change} />
      </Part>
      {box && (
        <Part title="Cut">
          <Row label="across">
            <Choice
              label="Cut across"
              value={card.across ?? 'lens'}
              options={[option('lens', 'as the lens says'), option('x'), option('y'), option('z'), option('tilted', 'a tilted direction')]}
              onChange={(v) => change({ across: v === 'lens' ? undefined : v, at: undefined })}
            />
            {card.across && (
              <>
                {card.across === 'tilted' ? 'off the middle by' : 'at'}
                <Quantity
                  label="Place of the cut typed"
                  optional
                  placeholder="middle"
                  value={card.at}
                  measure="length"
                  onChange={(at) => change({ at })}
                />
              </>
            )}
          </Row>
          {card.across === 'tilted' && (
            <Row label="normal">
              theta
              <Quantity label="Normal theta" value={card.theta} measure="angle" width={60} onChange={(theta) => change({ theta: theta ?? 0 })} />
              phi
              <Quantity label="Normal phi" value={card.phi} measure="angle" width={60} onChange={(phi) => change({ phi: phi ?? 0 })} />
            </Row>
          )}
        </Part>
      )}
      <Part title="Picture">
        <Row label="flow">
          <Choice
            label="Arrows"
            value={card.arrows}
            options={[option('none', 'no arrows'), option('arrows'), option('streamlines')]}
            onChange={(arrows) => change({ arrows })}
          />
        </Row>
        <Row label="drawn">
          <Tick label="smooth" value={card.smooth} onChange={(smooth) => change({ smooth })} />
          <Tick label="grid" value={card.grid} onChange={(grid) => change({ grid })} />
          <Tick label="outlines" value={card.outlines} onChange={(outlines) => change({ outlines })} />
        </Row>
      </Part>
    </>
  );
}

export const VolumeSettings = ({ card, meta, change }: Props<VolumeCard>) => (
  <Part title="Field in space">
    <Reading card={card} meta={meta} change={change} />
    <Row label="shown on">
      <Choice
        label="Shown on"
        value={card.on}
        options={[option('faces', 'faces of bodies'), option('level', 'a surface of one level'), option('currents', 'metal, as currents')]}
        onChange={(on) => change({ on })}
      />
    </Row>
    {card.on === 'level' && (
      <Row label="level">
        <Quantity
          label="Level of the surface"
          value={card.level}
          measure="number"
          width={56}
          check={(v) => (v > 0 && v < 1 ? null : 'between 0 and 1')}
          onChange={(level) => change({ level: level ?? 0.3 })}
        />{' '}
        of the top
      </Row>
    )}
    {card.on !== 'level' && (
      <Row label="arrows">
        <Tick label="along the faces" value={card.arrows} onChange={(arrows) => change({ arrows })} />
      </Row>
    )}
  </Part>
);
