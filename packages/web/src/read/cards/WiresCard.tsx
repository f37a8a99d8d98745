import { toldFor } from '@jadebell/core/results';
import { writeCsv } from '@jadebell/core/formats/csv';
import type { WiresCard as WiresCardData } from '@jadebell/core/document';
import { formatSI, withPrefix } from '@jadebell/core/expressions/format';
import { alongWire, largestCurrent, readWireCurrents, wireColumns, wireTubes } from '@jadebell/core/reading';
import { useContext, useMemo } from 'react';
import { useArray } from '../../api/hooks.ts';
import { Card } from '../../charts/Card.tsx';
import { paint } from '../../charts/colours.ts';
import { SurfaceView } from '../../charts/SurfaceView.tsx';
import { traceStyle } from '../../charts/traces.ts';
import { frameOf } from '../../space/frameOf.ts';
import { download } from '../../ui/download.ts';
import { useDark } from '../../ui/useDark.ts';
import { CardContext } from '../../charts/CardContext.ts';
import { nearestRecorded, useFrequency, usePhase } from '../../lens/useFrequency.ts';
import { Plot } from '../../charts/plot/Plot.tsx';
import { stemOf } from './stem.ts';
import { unitOfAxis } from '@jadebell/core/reading';
import { useCardRuns } from './useCardRuns.ts';
import { useModelBodies } from '../../lens/useModelBodies.ts';
import { useSum } from '../../lens/useSum.ts';
import { Choice } from '../../kit/Choice.tsx';

/** Wires that are told along their length where none were chosen. */
const few = 6;
/** Radius of a drawn wire over the size of the model, at least. */
const leastDrawn = 0.006;

const words = { peak: 'size', instant: 'at the phase of the lens', phase: 'phase' } as const;

/** Currents in wires, coloured on the model or over the way along each. */
export function WiresCard({ card }: { card: WiresCardData }) {
  const board = useContext(CardContext)!;
  const [shown] = useCardRuns();
  const run = shown?.run;
  const meta = run?.meta;
  const id = meta?.wires ? run!.id : null;
  const segments = useArray(id, 'wire:segments').data?.data;
  const along = useArray(id, 'wire:along').data?.data;
  const frequency = useFrequency();
  const at = meta ? nearestRecorded(meta.recordAt, frequency) : 0;
  const count = segments ? segments.length / 2 : 0;
  const { data: currents } = useSum(id ? run : undefined, 'wire:current', { from: at * count, count });
  const phase = usePhase();
  const values = useMemo(() => currents && readWireCurrents(currents, card.form, card.form === 'instant' ? phase : 0), [currents, card.form, phase]);
  const title = card.title ?? (card.view === 'model' ? 'Current in wires' : 'Current along wires');
  const stem = stemOf(shown, title);
  const table = (): string => writeCsv(wireColumns(meta!.wires!, currents!, along!, segments!));
  const ready = meta?.wires && segments && along && currents && values;
  return (
    <Card
      title={title}
      about={meta ? `${words[card.form]}, for ${toldFor(meta)}, ${shown.label}, ${formatSI(meta.recordAt[at] ?? 0, 'frequency')}` : undefined}
      file={stem}
      flush={card.view === 'model'}
      tools={
        <Choice
          label="Current told as"
          value={card.form}
          options={[
            { value: 'peak', label: 'size' },
            { value: 'instant', label: 'instant' },
            { value: 'phase', label: 'phase' },
          ]}
          onChange={(form) => board.change({ form } as Partial<WiresCardData>)}
        />
      }
      exports={meta?.wires ? [{ label: 'Values (CSV)', act: () => download(`${stem}.csv`, table(), 'text/csv') }] : []}
      waiting={!ready}
    >
      {!ready ? (
        <p className="quiet pad">{meta && !meta.wires ? 'This run solved no wires.' : 'Reading the currents …'}</p>
      ) : card.view === 'model' ? (
        <OnModel card={card} segments={segments} values={values} top={largestCurrent(currents) || 1} run={run!} />
      ) : (
        <AlongWires card={card} segments={segments} along={along} values={values} wires={meta.wires!} />
      )}
    </Card>
  );
}

type Numbers = ArrayLike<number>;

function OnModel({
  card,
  segments,
  values,
  top,
  run,
}: {
  card: WiresCardData;
  segments: Numbers;
  values: Float64Array;
  top: number;
  run: Parameters<typeof useModelBodies>[0];
}) {
  const bodies = useModelBodies(run);
  const tubes = useMemo(() => wireTubes(segments, leastDrawn * frameOf(bodies).size), [segments, bodies]);
  const map = card.form === 'phase' ? 'cyclic' : card.form === 'instant' ? 'signed' : 'size';
  const colours = useMemo(() => {
    const out = new Float32Array(3 * tubes.ends.length);
    const scale = { top, db: card.db, span: card.span, perDecade: 20 };
    tubes.ends.forEach((end, n) => paint(map, values[end], scale, out, 3 * n));
    return out;
  }, [tubes, values, map, top, card.db, card.span]);
  const told = withPrefix(top, 'A', 3);
  const [upper, lower] = map === 'cyclic' ? ['180°', '−180°'] : [told, map === 'signed' ? `−${told}` : card.db ? `−${card.span} dB` : '0'];
  return <SurfaceView corners={tubes.corners} colours={colours} arrows={null} bodies={bodies} solid upper={upper} lower={lower} map={map} />;
}

interface AlongProps {
  card: WiresCardData;
  segments: Numbers;
  along: Numbers;
  values: Float64Array;
  wires: readonly { name: string; first: number; count: number }[];
}
function AlongWires({ card, segments, along, values, wires }: AlongProps) {
  const dark = useDark();
  const chosen = useMemo(() => {
    const own = wires.filter((w) => card.of.includes(w.name));
    return own.length ? own : wires.slice(0, few);
  }, [wires, card.of]);
  const traces = useMemo(
    () =>
      chosen.map((w, n) => ({
        name: w.name,
        color: traceStyle(n + 1, dark).color,
        dash: traceStyle(n + 1, dark).dash,
        ...alongWire(values, along, segments, w),
        axis: 'left' as const,
      })),
    [chosen, values, along, segments, dark],
  );
  const degrees = card.form === 'phase';
  const most = traces.reduce((m, t) => t.y.reduce((n, v) => Math.max(n, Math.abs(v)), m), 0);
  const left = useMemo(() => {
    if (degrees) return { label: 'phase (°)', size: 1, angles: true };
    const { size, unit } = unitOfAxis('A', most || 1);
    return { label: `current (${unit})`, size };
  }, [degrees, most]);
  const x = useMemo(() => {
    const { size, unit } = unitOfAxis('m', Math.max(...traces.map((t) => t.x[t.x.length - 1]), 1e-9));
    return { label: `way along the wire (${unit})`, size };
  }, [traces]);
  return (
    <div style={{ display: 'flex', flexDirection: 'column', height: '100%' }}>
      <div style={{ flex: 1, minHeight: 0 }}>
        <Plot
          label="Current along wires"
          x={x}
          left={left}
          traces={traces}
          tell={(_, __, y) => (degrees ? `${y.toFixed(1)}°` : withPrefix(y, 'A'))}
          tellX={(v) => formatSI(v, 'length', 4)}
        />
      </div>
    </div>
  );
}
