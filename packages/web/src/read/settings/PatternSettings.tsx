import type { CardFrame, CutCard, PatternCard, PhaseCentreCard } from '@jadebell/core/document';
import type { ResultMeta } from '@jadebell/core/results';
import { partOptions, quantityOptions } from '../cards/patternOptions.ts';
import { Part, Quantity, Row } from './Fields.tsx';
import { Tool } from '../../kit/Tool.tsx';
import { Choice } from '../../kit/Choice.tsx';
import { Tick } from '../../kit/Tick.tsx';

interface Props<C> {
  card: C;
  meta: ResultMeta;
  change(next: Partial<C>): void;
}

/** What a pattern is told as; the same for cuts. */
function Reading<C extends PatternCard | CutCard>({ card, meta, change }: Props<C>) {
  const set = change as (next: Partial<PatternCard>) => void;
  return (
    <>
      {meta.farField && (
        <Row label="quantity">
          <Choice
            label="Quantity"
            value={card.quantity}
            options={quantityOptions as { value: PatternCard['quantity']; label: string }[]}
            onChange={(quantity) => set({ quantity })}
          />
        </Row>
      )}
      <Row label="part">
        <Choice
          label="Part of the field"
          value={card.part}
          options={partOptions as { value: PatternCard['part']; label: string }[]}
          onChange={(part) => set({ part })}
        />
      </Row>
      <Row label="co-polar along">
        <Quantity
          label="Direction of co-polar"
          value={card.reference}
          measure="angle"
          width={64}
          onChange={(reference) => set({ reference: reference ?? 0 })}
        />
        <span className="quiet">from phi = 0</span>
      </Row>
      <Row label="floor">
        <Quantity
          label="Floor"
          value={card.floor}
          measure="number"
          width={48}
          check={(v) => (v >= 3 && v <= 100 ? null : '3 to 100 dB')}
          onChange={(floor) => set({ floor: floor ?? 30 })}
        />{' '}
        dB below the top
      </Row>
    </>
  );
}

export const PatternSettings = ({ card, meta, change }: Props<PatternCard>) => (
  <Part title="Pattern">
    <Reading card={card} meta={meta} change={change} />
    <Row label="shape">
      <Tick label="linear" value={card.linear} onChange={(linear) => change({ linear })} />
      <Tick label="around the model" value={card.model} onChange={(model) => change({ model })} />
    </Row>
  </Part>
);

const plainFrame: CardFrame = { origin: [0, 0, 0], theta: 0, phi: 0, roll: 0 };

export function CutSettings({ card, meta, change }: Props<CutCard>) {
  const angle = (label: string, value: number, key: 'at' | 'through' | 'tilt') => (
    <>
      {label}
      <Quantity label={`Cut ${key}`} value={value} measure="angle" width={64} onChange={(v) => change({ [key]: v ?? 0 })} />
    </>
  );
  const frame = card.frame ?? plainFrame;
  const turned = (next: Partial<CardFrame>): void => change({ frame: { ...frame, ...next } });
  return (
    <>
      <Part title="Path">
        <Row label="cut">
          <Choice
            label="Path of the cut"
            value={card.path}
            options={[
              { value: 'phi', label: 'one phi, over theta' },
              { value: 'theta', label: 'one theta, over phi' },
              { value: 'great', label: 'a great circle' },
              ...(meta.wave ? [{ value: 'wave' as const, label: 'the phi of the wave' }] : []),
            ]}
            onChange={(path) => change({ path })}
          />
        </Row>
        {card.path !== 'wave' && (
          <Row label="at">
            {card.path === 'great' ? (
              <>
                {angle('theta', card.at, 'at')}
                {angle('phi', card.through, 'through')}
                {angle('leaving at', card.tilt, 'tilt')}
              </>
            ) : (
              angle(card.path, card.at, 'at')
            )}
          </Row>
        )}
      </Part>
      <Part title="Reading">
        <Reading card={card} meta={meta} change={change} />
        <Row label="with it">
          <Choice
            label="Second part"
            value={card.also ?? 'none'}
            options={[{ value: 'none' as const, label: 'nothing more' }, ...(partOptions as { value: PatternCard['part']; label: string }[])]}
            onChange={(v) => change({ also: v === 'none' ? undefined : v })}
          />
        </Row>
        <Row label="plot">
          <Tick label="straight axes" value={card.cartesian} onChange={(cartesian) => change({ cartesian })} />
          <Tick label="normalised" value={card.normalised} onChange={(normalised) => change({ normalised })} />
        </Row>
      </Part>
      <Part title="Local frame">
        <Row label="z towards">
          theta
          <Quantity label="Frame theta" value={frame.theta} measure="angle" width={60} onChange={(theta) => turned({ theta: theta ?? 0 })} />
          phi
          <Quantity label="Frame phi" value={frame.phi} measure="angle" width={60} onChange={(phi) => turned({ phi: phi ?? 0 })} />
          turned by
          <Quantity label="Frame roll" value={frame.roll} measure="angle" width={60} onChange={(roll) => turned({ roll: roll ?? 0 })} />
        </Row>
        <Row label="origin">
          {[0, 1, 2].map((i) => (
            <Quantity
              key={i}
              label={`Origin ${'xyz'[i]}`}
              value={frame.origin[i]}
              measure="length"
              width={70}
              onChange={(v) => turned({ origin: frame.origin.map((o, k) => (k === i ? (v ?? 0) : o)) as [number, number, number] })}
            />
          ))}
          {card.frame && <Tool onClick={() => change({ frame: undefined })}>Global frame</Tool>}
        </Row>
      </Part>
    </>
  );
}

export const PhaseCentreSettings = ({ card, change }: Props<PhaseCentreCard>) => (
  <Part title="Phase centre">
    <Row label="component">
      <Choice
        label="Component"
        value={card.part}
        options={(['co', 'cross', 'right', 'left'] as const).map(
          (value) => partOptions.find((o) => o.value === value) as { value: PhaseCentreCard['part']; label: string },
        )}
        onChange={(part) => change({ part })}
      />
      along
      <Quantity
        label="Direction of co-polar"
        optional
        placeholder="the field"
        value={card.reference}
        measure="angle"
        width={72}
        onChange={(reference) => change({ reference })}
      />
    </Row>
    <Row label="axis at">
      theta
      <Quantity
        label="Axis theta"
        optional
        placeholder="peak"
        value={card.theta}
        measure="angle"
        width={64}
        onChange={(theta) => change({ theta })}
      />
      phi
      <Quantity label="Axis phi" optional placeholder="peak" value={card.phi} measure="angle" width={64} onChange={(phi) => change({ phi })} />
    </Row>
    <Row label="out to">
      <Quantity
        label="Half angle"
        value={card.half}
        measure="angle"
        width={64}
        check={(v) => (v > 0.01 && v < 3.1 ? null : 'between 1 and 175 degrees')}
        onChange={(half) => change({ half: half ?? Math.PI / 6 })}
      />
    </Row>
    <Row label="only the plane at">
      <Quantity label="Plane" optional placeholder="a cone" value={card.plane} measure="angle" width={72} onChange={(plane) => change({ plane })} />
    </Row>
  </Part>
);
