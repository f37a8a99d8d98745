import type { StudyCardOf } from '@jadebell/core/document';
import { formatSI } from '@jadebell/core/expressions/format';
import { writeCsv } from '@jadebell/core/formats/csv';
import { pointText } from '@jadebell/core/exploring';
import { axisUnits, curveForms, overUnit, quantities, valueText } from '@jadebell/core/reading';
import { useMemo } from 'react';
import { useStudyCurves } from '../../api/hooks.ts';
import { Card } from '../../charts/Card.tsx';
import { ColourScale, lineMaps } from '../../charts/ColourScale.tsx';
import { Plot } from '../../charts/plot/Plot.tsx';
import type { PlotTrace } from '../../charts/plot/parts.ts';
import { Choice, plainOptions } from '../../kit/Choice.tsx';
import { Message } from '../../kit/Message.tsx';
import { download } from '../../ui/download.ts';
import { useDark } from '../../ui/useDark.ts';
import { figureAxis, movedOf } from '../study/figures.ts';
import { quantityOptions, termOptions } from '../study/Measures.tsx';
import type { StudyRow } from '../study/useStudyData.ts';
import { AxisTools } from './AxisTools.tsx';
import { ManyLines, NearestLine } from './ManyLines.tsx';
import type { StudyCardProps } from './registry.tsx';
import { shareOf, spanOf } from './shares.ts';

/** A curve of each point, in the colour of a parameter's value. */
export function CurvesOfPoints({ card, data, meta, picked, pick, change, last }: StudyCardProps<StudyCardOf<'curves'>>) {
  const map = useDark() ? 'lineDark' : 'line';
  const by = movedOf(data, card.by, 0);
  const query = new URLSearchParams({ quantity: card.quantity, of: card.of, ...(card.form ? { form: card.form } : {}) }).toString();
  const { data: found, error } = useStudyCurves(data.path, query, data.done);
  const span = useMemo(() => spanOf(by?.values.map((v) => v.si) ?? []), [by]);
  const { traces, rows } = useMemo(() => {
    const known = new Map(data.rows.map((r) => [r.digest, r]));
    const rows: StudyRow[] = [];
    const traces = (found?.curves ?? []).flatMap(({ digest, x, y }): PlotTrace[] => {
      const row = known.get(digest);
      if (!row || !by) return [];
      rows.push(row);
      return [{ name: digest, color: lineMaps[map](shareOf(row.values[by.parameter], span)), x, y: y.map((v) => v ?? NaN), axis: 'left' }];
    });
    return { traces, rows };
  }, [found, data.rows, by, span, map]);
  const kind = quantities[card.quantity];
  if (!by || !kind) return null;
  const terms = termOptions(meta, card);
  const of = terms.find((t) => t.value === card.of) ?? terms[0];
  const name = [kind.title, of?.label].filter(Boolean).join(' ');
  const form = curveForms[card.form ?? kind.forms[0]];
  const title = card.title ?? `${name} of all points`;
  const x = figureAxis(card.x, found?.over ?? '', overUnit[kind.over], traces.flatMap((t) => [t.x[0], t.x[t.x.length - 1]])); // prettier-ignore
  const y = figureAxis(card.y, `${of?.label ?? kind.title}${form.unit === null ? `, ${form.label}` : ''}`, found?.unit ?? '', traces.flatMap((t) => Array.from(t.y))); // prettier-ignore
  const csv = (): void => {
    const columns = traces.flatMap((t, n) => [
      { title: `${pointText(rows[n].values, data.moved)}: ${found!.over} (${overUnit[found!.over]})`, values: Array.from(t.x) },
      { title: `${name} (${found!.unit})`, values: Array.from(t.y) },
    ]);
    const long = Math.max(0, ...columns.map((c) => c.values.length));
    const filled = columns.map((c) => ({ ...c, values: Array.from({ length: long }, (_, i) => c.values[i] ?? ('' as unknown as number)) }));
    download(`${data.name}-curves.csv`, writeCsv(filled), 'text/csv');
  };
  const [low, high] = span.map((v) => formatSI(v, by.measure, 4));
  return (
    <Card
      title={title}
      file={`${data.name}-curves`}
      exports={[{ label: 'Curves (CSV)', act: csv }]}
      waiting={!found}
      tools={
        <>
          <Choice
            look="tool"
            label="Quantity of the curves"
            value={card.quantity}
            options={quantityOptions(meta, card.quantity)}
            onChange={(quantity) => change({ ...card, quantity, of: '', form: undefined, y: {} })}
          />
          {terms.length > 1 && (
            <Choice
              look="tool"
              label="Which curve of it"
              value={card.of || terms[0].value}
              options={terms}
              onChange={(t) => change({ ...card, of: t })}
            />
          )}
          {kind.forms.length > 1 && (
            <Choice
              look="tool"
              label="Form of the curves"
              value={card.form ?? kind.forms[0]}
              options={kind.forms.map((f) => ({ value: f, label: curveForms[f].label }))}
              onChange={(form) => change({ ...card, form, y: {} })}
            />
          )}
          {data.moved.length > 1 && (
            <Choice
              look="tool"
              label="Coloured by"
              value={by.parameter}
              options={plainOptions(data.moved.map((m) => m.parameter))}
              onChange={(p) => change({ ...card, by: p })}
            />
          )}
          <AxisTools
            card={title}
            title={card.title}
            setTitle={(t) => change({ ...card, title: t })}
            sides={[
              { word: 'across', settings: card.x, size: x.size, units: axisUnits(overUnit[kind.over]), change: (s) => change({ ...card, x: s }) },
              { word: 'up', settings: card.y, size: y.size, units: axisUnits(found?.unit ?? ''), change: (s) => change({ ...card, y: s }) },
            ]}
          />
          {last}
        </>
      }
    >
      {error && <Message>{error.message}</Message>}
      {traces.length ? (
        <div style={{ display: 'flex', height: '100%' }}>
          <div style={{ flex: 1, minWidth: 0 }}>
            <Plot
              label={title}
              x={x}
              left={y}
              traces={none}
              room={traces}
              tell={(_, __, v) => valueText(v, found!.unit)}
              tellX={(v) => valueText(v, overUnit[kind.over], 6)}
              onZoom={(range) => change({ ...card, x: { ...card.x, min: range?.min, max: range?.max } })}
              pointer={(holder) => (
                <NearestLine
                  traces={traces}
                  holder={holder}
                  tell={(n, at) => [
                    pointText(rows[n].values, data.moved),
                    `${valueText(at.y, found!.unit)} at ${valueText(at.x, overUnit[kind.over], 6)}`,
                  ]}
                  onPick={(n) => pick(rows[n].digest)}
                />
              )}
            >
              <ManyLines traces={traces} chosen={rows.findIndex((r) => r.digest === picked)} />
            </Plot>
          </div>
          <div style={{ alignSelf: 'center' }}>
            <div className="quiet">{by.parameter}</div>
            <ColourScale map={map} top={high} bottom={low} />
          </div>
        </div>
      ) : (
        <p className="quiet pad">{found ? (found.missing[0]?.why ?? 'No point is solved yet.') : 'Reading the curves …'}</p>
      )}
    </Card>
  );
}

const none: readonly never[] = [];
