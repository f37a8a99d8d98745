import type { CurvesCard } from '@jadebell/core/document';
import {
  bandLines,
  type Drawing,
  type JudgedLimit,
  limitText,
  type MarkerRow,
  overUnit,
  statisticsLines,
  valueText as told,
} from '@jadebell/core/reading';
import type { PlotTrace } from '../../charts/plot/parts.ts';
import { Figures } from '../../kit/Figures.tsx';
import { TableBody, TableRow, TableCell } from '@mui/material';

/** Where the markers of a card stand, in figures. */
export function MarkerTable({
  rows,
  drawing: { drawn, over },
  traces,
}: {
  rows: readonly MarkerRow[];
  drawing: Drawing;
  traces: readonly PlotTrace[];
}) {
  const unitX = overUnit[over];
  const against = rows.some((r) => r.isBase);
  if (!rows.length) return null;
  return (
    <div className="readout">
      <Figures loose aria-label="Markers">
        <TableBody>
          {rows.map(({ marker, curve, spot, isBase, apart }) => (
            <TableRow key={`${marker}-${curve}`}>
              <TableCell>
                <i className="swatch" style={{ background: traces[curve].color }} /> {marker + 1}
                {isBase ? ' (from here)' : ''}
              </TableCell>
              <TableCell>{traces[curve].name}</TableCell>
              <TableCell className="mono">{told(spot.x, unitX, 6)}</TableCell>
              <TableCell className="mono">{told(spot.y, drawn[curve].unit)}</TableCell>
              {against && (
                <>
                  <TableCell className="mono">{apart ? `Δ ${told(apart.x, unitX, 5)}` : ''}</TableCell>
                  <TableCell className="mono">{apart && apart.y !== null ? `Δ ${told(apart.y, drawn[curve].unit)}` : ''}</TableCell>
                </>
              )}
            </TableRow>
          ))}
        </TableBody>
      </Figures>
    </div>
  );
}

interface Lines {
  card: CurvesCard;
  drawing: Drawing;
  limits: readonly JudgedLimit[];
  traces: readonly PlotTrace[];
}
/** What limits, bandwidth and statistics of a card come to, a line each. */
export function CurveLines({ card, drawing, limits, traces }: Lines) {
  const names = traces.map((t) => t.name);
  return (
    <>
      {limits.map((l, i) => {
        const text = limitText(l, i + 1, drawing.drawn[0]?.unit ?? '', drawing.over);
        return (
          text && (
            <p key={i} className={`small-line ${l.ok ? 'good' : 'bad'}`} role="status">
              {text}
            </p>
          )
        );
      })}
      {[...bandLines(card, drawing, names), ...statisticsLines(card, drawing, names)].map((text, n) => (
        <p key={n} className="small-line">
          {text}
        </p>
      ))}
    </>
  );
}
