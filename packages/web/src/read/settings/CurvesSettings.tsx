import Delete from '@mui/icons-material/Close';
import { termsOfS } from '@jadebell/core/cards';

import type { CardTrace, CurvesCard, Marker, SmithCard } from '@jadebell/core/document';
import { axisUnits, curveForms, freshSpot, quantities, traceLetter } from '@jadebell/core/reading';
import type { ResultMeta } from '@jadebell/core/results';
import { useProject } from '../../project/store.ts';
import { measureOf, Part, Quantity, Row } from './Fields.tsx';
import { useDrawing } from '../cards/useDrawing.ts';
import { PortsTable } from '../../lens/PortsTable.tsx';
import { Tool } from '../../kit/Tool.tsx';
import { Choice } from '../../kit/Choice.tsx';
import { Tick, Mark } from '../../kit/Tick.tsx';
import { TypedField } from '../../kit/Field.tsx';
import { Hint } from '../../kit/Hint.tsx';
import { IconTool } from '../../kit/IconTool.tsx';

interface Props<C> {
  card: C;
  meta: ResultMeta;
  change(next: Partial<C>): void;
}

const groups = { network: 'Network', lines: 'Lines and modes', antenna: 'Antenna', recorded: 'Recorded', time: 'Time' } as const;
const remove = (label: string, act: () => void) => <IconTool label={label} icon={<Delete />} size={15} onClick={act} />;
const add = (label: string, act: () => void, disabled = false) => (
  <Tool onClick={act} disabled={disabled}>
    {label}
  </Tool>
);

/** What a card of curves shows: traces, axes, markers, limits, bandwidth, statistics, notes. */
export function CurvesSettings({ card, meta, change }: Props<CurvesCard>) {
  const parameters = useProject((s) => s.document?.parameters) ?? [];
  const unitX =
    card.over === 'wavelength'
      ? 'm'
      : card.over !== 'own'
        ? ''
        : ({ time: 's', angle: 'deg', frequency: 'Hz' } as const)[quantities[card.traces[0]?.quantity]?.over ?? 'frequency'];
  const measure = measureOf(unitX);
  const { drawing } = useDrawing(card);
  const fresh = (): ReturnType<typeof freshSpot> => freshSpot(drawing.drawn);
  const freshLimit = (): CurvesCard['limits'][number] => {
    const { from, to, y } = fresh();
    return { from: { x: from, y }, to: { x: to, y }, side: 'below' };
  };
  /** Units that an axis can be told in, where all its curves measure the same. */
  const unitsOf = (side: 'x' | 'left' | 'right'): string[] => {
    if (side === 'x') return axisUnits(unitX);
    const units = new Set(card.traces.filter((t) => t.axis === side).map((t) => quantities[t.quantity]?.unit ?? ''));
    return units.size === 1 ? axisUnits([...units][0]) : [];
  };
  const set = <T,>(list: readonly T[], i: number, next: Partial<T>): T[] => list.map((t, k) => (k === i ? { ...t, ...next } : t));
  const without = <T,>(list: readonly T[], i: number): T[] => list.filter((_, k) => k !== i);
  const marker = (i: number, next: Partial<Marker>): void => change({ markers: set(card.markers, i, next) });
  const traceOptions = card.traces.map((t, i) => ({ value: String(i), label: `${traceLetter(i)}: ${t.name ?? (t.of || t.quantity)}` }));
  return (
    <>
      <Part
        title="Curves"
        action={add('Add a curve', () => change({ traces: [...card.traces, freshTrace(meta, card.traces)] }), card.traces.length >= 64)}
      >
        {card.traces.map((t, i) => (
          <TraceRow
            key={i}
            letter={traceLetter(i)}
            trace={t}
            meta={meta}
            change={(next) => change({ traces: set(card.traces, i, next) })}
            remove={() =>
              change({
                traces: without(card.traces, i),
                markers: card.markers.filter((m) => m.trace !== i).map((m) => (m.trace > i ? { ...m, trace: m.trace - 1 } : m)),
              })
            }
          />
        ))}
        <Row label="runs beside">
          <Tick label="as differences from the first" value={card.differences} onChange={(differences) => change({ differences })} />
        </Row>
      </Part>
      <Part title="Axes">
        <Row label="over">
          <Choice
            label="Curves over"
            value={card.over}
            options={[
              { value: 'own', label: 'frequency or time' },
              { value: 'wavelength', label: 'wavelength' },
              ...parameters.map((g) => ({ value: g.name, label: `${g.name}, over the runs` })),
            ]}
            onChange={(over) => change({ over, x: {} })}
          />
        </Row>
        {(['x', 'left', 'right'] as const).map((side) =>
          side === 'right' && !card.traces.some((t) => t.axis === 'right') ? null : (
            <Row key={side} label={side === 'x' ? 'across' : side}>
              <Quantity
                label={`${side} axis from`}
                optional
                value={card[side].min}
                measure={side === 'x' ? measure : 'number'}
                onChange={(min) => change({ [side]: { ...card[side], min } })}
              />
              to
              <Quantity
                label={`${side} axis to`}
                optional
                value={card[side].max}
                measure={side === 'x' ? measure : 'number'}
                onChange={(max) => change({ [side]: { ...card[side], max } })}
              />
              <Tick label="log" value={!!card[side].log} onChange={(log) => change({ [side]: { ...card[side], log } })} />
              {unitsOf(side).length > 1 && (
                <Choice
                  label={`Unit of the ${side} axis`}
                  value={card[side].unit ?? ''}
                  options={[{ value: '', label: 'unit' }, ...unitsOf(side).map((u) => ({ value: u, label: u }))]}
                  onChange={(unit) => change({ [side]: { ...card[side], unit: unit || undefined } })}
                />
              )}
              <TypedField
                label={`Title of the ${side} axis`}
                width={110}
                value={card[side].title ?? ''}
                placeholder="title"
                check={(v) => (v.length > 60 ? 'at most 60 characters' : null)}
                onChange={(title) => change({ [side]: { ...card[side], title: title || undefined } })}
              />
            </Row>
          ),
        )}
      </Part>
      <Part
        title="Markers"
        action={add('Add a marker', () => change({ markers: [...card.markers, { kind: 'dip', trace: 0, nth: 1 }] }), !card.traces.length)}
      >
        {card.markers.map((m, i) => (
          <Row key={i} label={`${i + 1}`}>
            <Choice
              label={`Marker ${i + 1} follows`}
              value={m.kind}
              options={[
                { value: 'at', label: 'a place' },
                { value: 'peak', label: 'a peak' },
                { value: 'dip', label: 'a dip' },
                { value: 'level', label: 'a level' },
              ]}
              onChange={(kind) => marker(i, { kind })}
            />
            <Choice
              label={`Curve of marker ${i + 1}`}
              value={String(m.trace)}
              options={traceOptions}
              onChange={(t) => marker(i, { trace: Number(t) })}
            />
            {m.kind === 'at' && (
              <Quantity label={`Place of marker ${i + 1}`} value={m.x} measure={measure} optional onChange={(x) => marker(i, { x })} />
            )}
            {m.kind === 'level' && (
              <Quantity
                label={`Level of marker ${i + 1}`}
                value={m.level}
                measure="number"
                width={56}
                optional
                placeholder="0"
                onChange={(level) => marker(i, { level })}
              />
            )}
            {m.kind !== 'at' && (
              <Quantity
                label={`Which one marker ${i + 1} takes`}
                value={m.nth}
                measure="number"
                width={34}
                check={(v) => (Number.isInteger(v) && v >= 1 && v <= 50 ? null : '1 to 50')}
                onChange={(nth) => marker(i, { nth: nth ?? 1 })}
              />
            )}
            <Hint text="The other markers are told against this one">
              <Mark text="Δ" label={`Differences from marker ${i + 1}`} on={card.base === i} onChange={() => change({ base: i })} />
            </Hint>
            {remove(`Remove marker ${i + 1}`, () =>
              change({
                markers: without(card.markers, i),
                base: card.base === undefined || card.base === i ? undefined : card.base > i ? card.base - 1 : card.base,
              }),
            )}
          </Row>
        ))}
      </Part>
      <Part title="Limits" action={add('Add a limit', () => change({ limits: [...card.limits, freshLimit()] }))}>
        {card.limits.map((l, i) => {
          const end = (which: 'from' | 'to') => (
            <>
              <Quantity
                label={`Limit ${i + 1} ${which}`}
                value={l[which].x}
                measure={measure}
                onChange={(x) => change({ limits: set(card.limits, i, { [which]: { ...l[which], x: x ?? 0 } }) })}
              />
              <Quantity
                label={`Level of limit ${i + 1} ${which}`}
                width={56}
                value={l[which].y}
                measure="number"
                onChange={(y) => change({ limits: set(card.limits, i, { [which]: { ...l[which], y: y ?? 0 } }) })}
              />
            </>
          );
          return (
            <Row key={i} label={`${i + 1}`}>
              <Choice
                label={`Side of limit ${i + 1}`}
                value={l.side}
                options={[
                  { value: 'below', label: 'stay below' },
                  { value: 'above', label: 'stay above' },
                ]}
                onChange={(side) => change({ limits: set(card.limits, i, { side }) })}
              />
              from {end('from')} to {end('to')}
              {remove(`Remove limit ${i + 1}`, () => change({ limits: without(card.limits, i) }))}
            </Row>
          );
        })}
      </Part>
      <Part title="Figures">
        <Row label="bandwidth">
          <Tick
            label="tell where it is"
            value={!!card.bandwidth}
            onChange={(on) => change({ bandwidth: on ? { level: -10, side: 'below' } : undefined })}
          />
          {card.bandwidth && (
            <>
              <Choice
                label="Side of the level"
                value={card.bandwidth.side}
                options={[
                  { value: 'below', label: 'below' },
                  { value: 'above', label: 'above' },
                ]}
                onChange={(side) => change({ bandwidth: { ...card.bandwidth!, side } })}
              />
              <Quantity
                label="Level of the bandwidth"
                width={56}
                value={card.bandwidth.level}
                measure="number"
                onChange={(level) => change({ bandwidth: { ...card.bandwidth!, level: level ?? 0 } })}
              />
            </>
          )}
        </Row>
        <Row label="statistics">
          <Tick label="min, max, mean" value={!!card.statistics} onChange={(on) => change({ statistics: on ? {} : undefined })} />
          {card.statistics && (
            <>
              <Quantity
                label="Statistics from"
                optional
                placeholder="start"
                value={card.statistics.from}
                measure={measure}
                onChange={(from) => change({ statistics: { ...card.statistics, from } })}
              />
              to
              <Quantity
                label="Statistics to"
                optional
                placeholder="end"
                value={card.statistics.to}
                measure={measure}
                onChange={(to) => change({ statistics: { ...card.statistics, to } })}
              />
            </>
          )}
        </Row>
      </Part>
      <Part title="Notes" action={add('Add a note', () => change({ notes: [...card.notes, { x: fresh().from, y: fresh().y, text: 'note' }] }))}>
        {card.notes.map((n, i) => (
          <Row key={i} label={`${i + 1}`}>
            <TypedField
              label={`Text of note ${i + 1}`}
              width={130}
              value={n.text}
              check={(t) => (t.length > 200 ? 'at most 200 characters' : null)}
              onChange={(text) => change({ notes: set(card.notes, i, { text }) })}
            />
            at
            <Quantity
              label={`Place of note ${i + 1}`}
              value={n.x}
              measure={measure}
              onChange={(x) => change({ notes: set(card.notes, i, { x: x ?? 0 }) })}
            />
            <Quantity
              label={`Height of note ${i + 1}`}
              width={56}
              value={n.y}
              measure="number"
              onChange={(y) => change({ notes: set(card.notes, i, { y: y ?? 0 }) })}
            />
            {remove(`Remove note ${i + 1}`, () => change({ notes: without(card.notes, i) }))}
          </Row>
        ))}
      </Part>
    </>
  );
}

/** A further trace: the next term of the last one's quantity that is not there yet. */
function freshTrace(meta: ResultMeta, traces: readonly CardTrace[]): CardTrace {
  const last = traces[traces.length - 1];
  const quantity = last && quantities[last.quantity]?.terms(meta).length ? last.quantity : 's';
  const free = quantities[quantity].terms(meta).find((t) => !traces.some((o) => o.quantity === quantity && o.of === t.key));
  return { quantity, of: free?.key ?? quantities[quantity].terms(meta)[0]?.key ?? '', axis: 'left', ...(last?.form ? { form: last.form } : {}) };
}

function TraceRow({
  letter,
  trace,
  meta,
  change,
  remove: drop,
}: {
  letter: string;
  trace: CardTrace;
  meta: ResultMeta;
  change(next: Partial<CardTrace>): void;
  remove(): void;
}) {
  const data = useProject((s) => s.document?.data) ?? [];
  const kind = quantities[trace.quantity];
  const terms = kind?.terms(meta) ?? [];
  const columns = data.flatMap((d) => d.columns.map((c) => ({ value: `${d.name}/${c.name}`, label: `${d.name}: ${c.name}`, complex: c.complex })));
  const forms =
    kind?.forms ??
    (trace.quantity === 'data'
      ? columns.find((c) => c.value === trace.of)?.complex
        ? (['db', 'magnitude', 'real', 'imaginary', 'phase', 'unwrapped', 'vswr'] as const)
        : (['plain'] as const)
      : []);
  const byGroup = Object.entries(groups).map(([group, title]) => ({
    title,
    all: Object.entries(quantities).filter(([, q]) => q.group === group && q.terms(meta).length),
  }));
  const pick = (quantity: string): void => {
    const first = quantity === 'formula' ? 'a' : quantity === 'data' ? (columns[0]?.value ?? '') : (quantities[quantity].terms(meta)[0]?.key ?? '');
    change({ quantity, of: first, form: undefined });
  };
  return (
    <div className="settings-trace">
      <b className="mono">{letter}</b>
      <Choice
        label={`Quantity of curve ${letter}`}
        value={trace.quantity}
        options={[
          ...byGroup.filter((g) => g.all.length).flatMap((g) => [{ heading: g.title }, ...g.all.map(([value, q]) => ({ value, label: q.title }))]),
          { heading: 'Other' },
          { value: 'formula', label: 'Formula of curves' },
          ...(columns.length ? [{ value: 'data', label: 'Data brought in' }] : []),
          ...(!kind && trace.quantity !== 'formula' && !(trace.quantity === 'data' && columns.length)
            ? [{ value: trace.quantity, label: trace.quantity }]
            : []),
        ]}
        onChange={pick}
      />
      {trace.quantity === 'formula' ? (
        <TypedField
          label={`Formula of curve ${letter}`}
          width={130}
          value={trace.of}
          check={(t) => (t ? null : 'such as a - b')}
          onChange={(of) => change({ of })}
        />
      ) : trace.quantity === 'data' ? (
        <Choice label={`Data of curve ${letter}`} value={trace.of} options={columns} onChange={(of) => change({ of, form: undefined })} />
      ) : (
        terms.length > 1 && (
          <Choice
            label={`Term of curve ${letter}`}
            value={trace.of}
            options={terms.map((t) => ({ value: t.key, label: t.label }))}
            onChange={(of) => change({ of })}
          />
        )
      )}
      {forms.length > 1 && (
        <Choice
          label={`Form of curve ${letter}`}
          value={trace.form ?? forms[0]}
          options={forms.map((f) => ({ value: f, label: curveForms[f].label }))}
          onChange={(form) => change({ form })}
        />
      )}
      <Choice
        label={`Axis of curve ${letter}`}
        value={trace.axis}
        options={[
          { value: 'left', label: 'left' },
          { value: 'right', label: 'right' },
        ]}
        onChange={(axis) => change({ axis })}
      />
      <TypedField
        label={`Name of curve ${letter}`}
        width={86}
        value={trace.name ?? ''}
        placeholder="name"
        check={(t) => (t.length > 60 ? 'at most 60 characters' : null)}
        onChange={(name) => change({ name: name || undefined })}
      />
      {remove(`Remove curve ${letter}`, drop)}
    </div>
  );
}

/** What a Smith chart shows. */
export function SmithSettings({ card, meta, change }: Props<SmithCard>) {
  const terms = termsOfS(meta);
  const reflections = terms.filter((t) => t.to === meta.excitations[t.from]);
  const shown = card.terms.length ? card.terms : terms.slice(0, 1).map((t) => t.key);
  return (
    <>
      <Part title="Reflections">
        <div className="row" style={{ flexWrap: 'wrap' }}>
          {[...reflections, ...terms.filter((t) => !reflections.includes(t))].slice(0, 40).map((t) => (
            <Tick
              key={t.key}
              label={t.label}
              value={shown.includes(t.key)}
              onChange={(on) => change({ terms: on ? [...shown, t.key] : shown.filter((k) => k !== t.key) })}
            />
          ))}
        </div>
      </Part>
      <Part title="Ports, for all cards">
        <PortsTable meta={meta} />
      </Part>
      <Part title="Lines">
        <Row label="grid">
          <Choice
            label="Lines of the chart"
            value={card.grid}
            options={[
              { value: 'impedance', label: 'impedance' },
              { value: 'admittance', label: 'admittance' },
              { value: 'both', label: 'both' },
            ]}
            onChange={(grid) => change({ grid })}
          />
        </Row>
        <Row label="standing wave ratios">
          <TypedField
            label="Circles of standing wave ratio"
            width={120}
            value={card.ratios.join(', ')}
            placeholder="1.5, 2, 3"
            check={(t) =>
              t
                .split(/[,; ]+/)
                .filter(Boolean)
                .every((v) => Number(v) >= 1 && Number(v) <= 100) && t.split(/[,; ]+/).filter(Boolean).length <= 10
                ? null
                : 'up to ten numbers from 1 to 100'
            }
            onChange={(t) =>
              change({
                ratios: t
                  .split(/[,; ]+/)
                  .filter(Boolean)
                  .map(Number),
              })
            }
          />
        </Row>
      </Part>
      <Part title="Markers" action={add('Add a marker', () => change({ markers: [...card.markers, meta.recordAt[0] ?? 1e9] }))}>
        {card.markers.map((f, i) => (
          <Row key={i} label={`${i + 1}`}>
            <Quantity
              label={`Frequency of marker ${i + 1}`}
              width={110}
              value={f}
              measure="frequency"
              onChange={(v) => change({ markers: card.markers.map((m, k) => (k === i ? (v ?? m) : m)) })}
            />
            {remove(`Remove marker ${i + 1}`, () => change({ markers: card.markers.filter((_, k) => k !== i) }))}
          </Row>
        ))}
      </Part>
    </>
  );
}
