import { formatSI } from '@jadebell/core/expressions/format';
import type { ModeFigures } from '@jadebell/core/solvers/sections';
import { crossover, lossText } from './display.ts';
import { type Column, DataTable } from '../kit/DataTable.tsx';
import { Tool } from '../kit/Tool.tsx';
import { SettingList } from '../kit/SettingList.ts';

interface Props {
  figures: readonly ModeFigures[];
  chosen: number;
  axes: string;
  onChoose(n: number): void;
}

const ohms = (z: number): string => formatSI(z, 'resistance', 4);
const areaText = (a: number): string => (a < 1e-9 ? `${(a * 1e12).toPrecision(3)} µm²` : `${(a * 1e6).toPrecision(3)} mm²`);
const decibels = (d: number): string => (d < 1e-3 ? `${d.toExponential(1)} dB` : `${d.toPrecision(3)} dB`);
/** Digits that a converged index has. */
const indexText = (n: number): string => n.toFixed(6);

/** Modes of a section, one a row; choosing one shows its fields. */
export function ModeTable({ figures, chosen, axes, onChoose }: Props) {
  const line = figures.some((f) => f.line);
  const bend = figures.some((f) => f.quarterTurn !== null);
  const impedance = (f: ModeFigures): number | null => f.line?.powerCurrent ?? (f.propagates ? f.waveImpedance[0] : null);
  const columns: Column<ModeFigures>[] = [
    {
      title: 'mode',
      cell: (_, n) => (
        <Tool bare aria-pressed={n === chosen} aria-label={`Mode ${n + 1}`} onClick={() => onChoose(n)}>
          {n + 1}
        </Tool>
      ),
    },
    { title: 'kind', value: (f) => f.name, cell: (f) => (f.propagates ? f.name : `${f.name}, cut off`) },
    { title: 'index', value: (f) => (f.propagates ? f.index[0] : -f.index[1]), mono: true, cell: (f) => (f.propagates ? indexText(f.index[0]) : `−j ${f.index[1].toPrecision(4)}`) }, // prettier-ignore
    { title: 'loss', value: (f) => f.alpha, mono: true, cell: (f) => lossText(f.alpha) },
    ...(bend ? [{ title: 'quarter turn', value: (f: ModeFigures) => f.quarterTurn, mono: true, cell: (f: ModeFigures) => (f.quarterTurn === null ? '' : decibels(f.quarterTurn)) }] : []), // prettier-ignore
    { title: 'group index', value: (f) => f.groupIndex, mono: true, cell: (f) => f.groupIndex?.toFixed(4) },
    {
      title: line ? 'impedance 2P/I²' : 'wave impedance',
      value: impedance,
      mono: true,
      cell: (f) => (impedance(f) === null ? '' : ohms(impedance(f)!)),
    },
    { title: 'area', value: (f) => f.area, mono: true, cell: (f) => areaText(f.area) },
    { title: `E along ${axes[0]}`, value: (f) => f.alongFirst, mono: true, cell: (f) => `${(100 * f.alongFirst).toFixed(1)} %` },
  ];
  return (
    <div className="mode-table">
      <DataTable
        label="Modes"
        columns={columns}
        rows={figures}
        keyOf={(_, n) => n}
        rowProps={(f) => ({ className: f === figures[chosen] ? 'selected' : '', onClick: () => onChoose(figures.indexOf(f)) })}
      />
    </div>
  );
}

/** What else is known of one mode. */
export function ModeDetails({ figures, chosen }: { figures: readonly ModeFigures[]; chosen: number }) {
  const f = figures[chosen];
  if (!f) return null;
  // The partner of a pair: the nearest index among modes with E in the same direction.
  const partner = figures
    .map((g, n) => ({ g, n }))
    .filter(
      ({ g, n }) =>
        n !== chosen && g.propagates && f.propagates && Math.abs(g.alongFirst - f.alongFirst) < 0.5 && Math.abs(g.beta - f.beta) < 0.1 * f.beta,
    )
    .sort((a, b) => Math.abs(a.g.beta - f.beta) - Math.abs(b.g.beta - f.beta))[0];
  return (
    <SettingList className="mode-details">
      <dt>phase constant</dt>
      <dd className="mono">{f.propagates ? `${f.beta.toPrecision(7)} rad/m` : `cut off, ${f.alpha.toPrecision(5)} Np/m`}</dd>
      {f.cutoff !== null && f.kind !== 'TEM' && (
        <>
          <dt>cutoff</dt>
          <dd className="mono">{formatSI(f.cutoff, 'frequency', 5)}</dd>
        </>
      )}
      {f.line && (
        <>
          <dt>impedance</dt>
          <dd className="mono">
            {ohms(f.line.powerCurrent)} by 2P/I², {ohms(f.line.powerVoltage)} by V²/2P, {ohms(f.line.voltageCurrent)} by V/I
          </dd>
        </>
      )}
      {f.wall > 0 && (
        <>
          <dt>loss in metal</dt>
          <dd className="mono">{lossText(f.wall)}</dd>
        </>
      )}
      {f.confinement.length > 0 && (
        <>
          <dt>power within</dt>
          <dd>
            {f.confinement.map(({ body, share }) => (
              <span key={body}>
                {body} <span className="mono">{(100 * share).toFixed(2)} %</span>
              </span>
            ))}
          </dd>
        </>
      )}
      {partner && Math.abs(partner.g.beta - f.beta) > 1e-9 * f.beta && (
        <>
          <dt>crossover length</dt>
          <dd>
            <span className="mono">{formatSI(crossover(f, partner.g), 'length', 5)}</span>
            <span className="quiet">with mode {partner.n + 1}: power goes over to a second, equal guide</span>
          </dd>
        </>
      )}
    </SettingList>
  );
}
