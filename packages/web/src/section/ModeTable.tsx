import { formatSI } from '@jadebell/core/expressions/format';
import type { ModeFigures } from '@jadebell/core/solvers/sections';
import { crossover, lossText } from './display.ts';
import { Figures } from '../kit/Figures.tsx';
import { Tool } from '../kit/Tool.tsx';
import { TableHead, TableRow, TableCell, TableBody } from '@mui/material';
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
  return (
    <Figures className="mode-table">
      <TableHead>
        <TableRow>
          <TableCell aria-label="mode" />
          <TableCell>kind</TableCell>
          <TableCell>index</TableCell>
          <TableCell>loss</TableCell>
          {bend && <TableCell>quarter turn</TableCell>}
          <TableCell>group index</TableCell>
          <TableCell>{line ? 'impedance 2P/I²' : 'wave impedance'}</TableCell>
          <TableCell>area</TableCell>
          <TableCell>E along {axes[0]}</TableCell>
        </TableRow>
      </TableHead>
      <TableBody>
        {figures.map((f, n) => (
          <TableRow key={n} className={n === chosen ? 'selected' : ''} onClick={() => onChoose(n)}>
            <TableCell>
              <Tool bare aria-pressed={n === chosen} aria-label={`Mode ${n + 1}`} onClick={() => onChoose(n)}>
                {n + 1}
              </Tool>
            </TableCell>
            <TableCell>{f.propagates ? f.name : `${f.name}, cut off`}</TableCell>
            <TableCell className="mono">{f.propagates ? indexText(f.index[0]) : `−j ${f.index[1].toPrecision(4)}`}</TableCell>
            <TableCell className="mono">{lossText(f.alpha)}</TableCell>
            {bend && <TableCell className="mono">{f.quarterTurn === null ? '' : decibels(f.quarterTurn)}</TableCell>}
            <TableCell className="mono">{f.groupIndex === null ? '' : f.groupIndex.toFixed(4)}</TableCell>
            <TableCell className="mono">{f.line ? ohms(f.line.powerCurrent) : f.propagates ? ohms(f.waveImpedance[0]) : ''}</TableCell>
            <TableCell className="mono">{areaText(f.area)}</TableCell>
            <TableCell className="mono">{(100 * f.alongFirst).toFixed(1)} %</TableCell>
          </TableRow>
        ))}
      </TableBody>
    </Figures>
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
