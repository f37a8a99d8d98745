import { writeCsv } from '@jadebell/core/csv';
import type { CardOf } from '@jadebell/core/document';
import { formatSI } from '@jadebell/core/format';
import type { PatternFigures, ScatterFigures } from '@jadebell/core/results';
import { useContext } from 'react';
import type { Run } from '../../api/types.ts';
import { Card } from '../../charts/Card.tsx';
import { download } from '../../ui/download.ts';
import { CardContext } from '../board/CardContext.ts';
import { useLens } from '../lens/lens.ts';
import { TypedField } from '../lens/PortsLens.tsx';
import { stemOf } from './stem.ts';
import { useCardRuns } from './useCardRuns.ts';
import { useFarField } from './useFarField.ts';

const db = (v: number): string => (10 * Math.log10(v)).toFixed(2);
const percent = (v: number): string => (100 * v).toFixed(1);
const degrees = (v: number): string => `${Math.round((180 * v) / Math.PI)}°`;
const fine = (v: number | null): string => (v === null ? '–' : `${((180 * v) / Math.PI).toFixed(1)}°`);

/** Figures of the far field: at a glance where the lens is, and over the recorded frequencies. */
export function FiguresCard({ card }: { card: CardOf<'figures'> }) {
  const [shown] = useCardRuns();
  if (!shown?.run.meta!.farField && !shown?.run.meta!.scattered)
    return (
      <Card title={card.title ?? 'Antenna figures'} about={shown?.label} file="figures">
        <p className="quiet pad">This run has no far field.</p>
      </Card>
    );
  return shown.run.meta!.farField ? <Antenna card={card} run={shown.run} /> : <Scatterer card={card} run={shown.run} />;
}

function Antenna({ card, run }: { card: CardOf<'figures'>; run: Run }) {
  const board = useContext(CardContext)!;
  const { figures } = run.meta!.farField!;
  const { far } = useFarField(run);
  const g = far?.glance ?? null;
  const eirp = g === null || g.realised === null ? null : g.realised + 10 * Math.log10(card.power);
  const now: [string, string][] = g
    ? [
        ['peak at theta, phi', `${degrees(g.theta)}, ${degrees(g.phi)}`],
        ...g.planes.map(({ name, figures: f }): [string, string] => [`${name} plane: width, 10 dB width`, `${fine(f.width3)}, ${fine(f.width10)}`]),
        ...g.planes.map(({ name, figures: f }): [string, string] => [
          `${name} plane: side lobe, front to back`,
          `${f.sideLobe ? `−${f.sideLobe.below.toFixed(1)} dB` : 'none'}, ${f.frontToBack.toFixed(1)} dB`,
        ]),
        ['squint of the lobe’s middle (E, H)', g.planes.map((p) => fine(p.figures.middle === null ? null : wrapped(p.figures.middle))).join(', ')],
        ['axial ratio at the peak, straight up', `${told(g.axialRatio)}, ${told(g.boresight)}`],
        ['polarisation at the peak', g.sense === 'linear' ? `linear, ${fine(g.tilt)} from theta` : `${g.sense}-hand`],
        ['EIRP', eirp === null ? '–' : `${eirp.toFixed(2)} dBW, ${(eirp + 30).toFixed(2)} dBm`],
      ]
    : [];
  const columns: [string, (f: PatternFigures) => string][] = [
    ['directivity (dBi)', (f) => db(f.directivity)],
    ['gain (dBi)', (f) => db(f.gain)],
    ['realised gain (dBi)', (f) => db(f.realisedGain)],
    ['peak at theta, phi', (f) => `${degrees(f.theta)}, ${degrees(f.phi)}`],
    ['radiation efficiency (%)', (f) => percent(f.radiationEfficiency)],
    ['total efficiency (%)', (f) => percent(f.totalEfficiency)],
    ['accepted (W)', (f) => f.accepted.toFixed(4)],
    ['radiated (W)', (f) => f.radiated.toFixed(4)],
    ['lost in materials (W)', (f) => f.lost.toExponential(2)],
    ...(figures[0]?.lostInMetal ?? []).map(({ line }): [string, (f: PatternFigures) => string] => [
      `of that in ${line} (W)`,
      (f) => (f.lostInMetal?.find((m) => m.line === line)?.power ?? 0).toExponential(2),
    ]),
  ];
  const csv = (): void =>
    csvOf(run, card.title, figures, ['frequency', 'directivity', 'gain', 'realisedGain', 'theta', 'phi', 'radiationEfficiency', 'totalEfficiency', 'accepted', 'radiated', 'lost']); // prettier-ignore
  return (
    <FigureTable
      title={card.title ?? 'Antenna figures'}
      about={`run ${run.number}, 1 W incident`}
      {...{ run, figures, columns, csv, now }}
      tools={
        <label className="row" title="Watts that run into the port, for the radiated power">
          <span className="quiet">power</span>
          <TypedField
            label="Power for EIRP"
            width={52}
            value={String(card.power)}
            check={(t) => (Number(t) > 0 ? null : 'watts above zero')}
            onChange={(t) => board.change({ power: Number(t) } as Partial<CardOf<'figures'>>)}
          />
          W
        </label>
      }
    />
  );
}

const wrapped = (a: number): number => (a > Math.PI ? a - 2 * Math.PI : a);
const told = (ratio: number): string => (ratio >= 40 ? 'above 40 dB' : `${ratio.toFixed(2)} dB`);

function Scatterer({ card, run }: { card: CardOf<'figures'>; run: Run }) {
  const { figures } = run.meta!.scattered!;
  const area = (v: number): string => (v > 0 && v < 1e-3 ? v.toExponential(2) : v.toPrecision(4));
  const columns: [string, (f: ScatterFigures) => string][] = [
    ['radar cross-section back (dBsm)', (f) => db(f.back)],
    ['largest (dBsm)', (f) => db(f.largest)],
    ['at theta, phi', (f) => `${degrees(f.theta)}, ${degrees(f.phi)}`],
    ['scattering cross-section (m²)', (f) => area(f.scattering)],
    ['absorption cross-section (m²)', (f) => area(f.absorption)],
    ['extinction, from the field ahead (m²)', (f) => area(f.extinction)],
  ];
  const { name, theta, phi } = run.meta!.wave!;
  return (
    <FigureTable
      title={card.title ?? 'Cross-sections'}
      about={`run ${run.number}, ${name} from theta ${degrees(theta)}, phi ${degrees(phi)}`}
      {...{ run, figures, columns, now: [] }}
      csv={() => csvOf(run, card.title, figures, ['frequency', 'back', 'largest', 'theta', 'phi', 'scattering', 'absorption', 'extinction'])}
    />
  );
}

function csvOf<F>(run: Run, title: string | undefined, figures: readonly F[], keys: readonly (keyof F & string)[]): void {
  const columns = keys.map((key) => ({ title: key, values: figures.map((f) => f[key] as number) }));
  download(`${stemOf({ run, label: '', tint: 1, differs: '' }, title ?? 'figures')}.csv`, writeCsv(columns), 'text/csv');
}

interface TableProps<F> {
  title: string;
  about: string;
  run: Run;
  figures: readonly F[];
  columns: readonly [string, (f: F) => string][];
  now: readonly [string, string][];
  tools?: React.ReactNode;
  csv(): void;
}

/** A row for each figure, a column for each frequency, whose head moves the lens there; below, what is read where the lens is. */
function FigureTable<F extends { frequency: number }>({ title, about, run, figures, columns, now, tools, csv }: TableProps<F>) {
  const { set } = useLens();
  const { far } = useFarField(run);
  return (
    <Card
      title={title}
      about={about}
      file={stemOf({ run, label: '', tint: 1, differs: '' }, title)}
      tools={tools}
      exports={[{ label: 'Table (CSV)', act: csv }]}
    >
      <div className="scroll">
        <table className="figures">
          <thead>
            <tr>
              <th>frequency</th>
              {figures.map((f, i) => (
                <th key={f.frequency} style={i === far?.at ? { color: 'var(--plum)' } : undefined}>
                  <button
                    type="button"
                    className="plain-input"
                    style={{ cursor: 'pointer', fontWeight: 'inherit', width: 'auto' }}
                    onClick={() => set({ frequency: f.frequency })}
                  >
                    {formatSI(f.frequency, 'frequency')}
                  </button>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {columns.map(([what, text]) => (
              <tr key={what}>
                <td>{what}</td>
                {figures.map((f) => (
                  <td key={f.frequency} className="mono">
                    {text(f)}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
          {now.length > 0 && far && (
            <tbody>
              <tr>
                <th colSpan={figures.length + 1} style={{ textAlign: 'left', paddingTop: 8 }}>
                  at {formatSI(far.source.frequency, 'frequency')}
                </th>
              </tr>
              {now.map(([what, text]) => (
                <tr key={what}>
                  <td>{what}</td>
                  <td className="mono" colSpan={figures.length}>
                    {text}
                  </td>
                </tr>
              ))}
            </tbody>
          )}
        </table>
      </div>
    </Card>
  );
}
