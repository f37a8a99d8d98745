import { writeCsv } from '@jadebell/core/formats/csv';
import { formatSI } from '@jadebell/core/expressions/format';
import { belowText } from '@jadebell/core/reading';
import { type PatternFigures, type ScatterFigures, toldFor } from '@jadebell/core/results';
import { useContext, useMemo } from 'react';
import type { Run } from '../../api/types.ts';
import { Card } from '../../charts/Card.tsx';
import { download } from '../../ui/download.ts';
import { CardContext } from '../../charts/CardContext.ts';
import { useLens } from '../../lens/lens.ts';
import { stemOf } from './stem.ts';
import { useCardRuns } from './useCardRuns.ts';
import { type FarField, useEveryFarField, useFarField, useMixedFigures } from './useFarField.ts';
import type { CardOf } from '@jadebell/core/cards';
import { Figures } from '../../kit/Figures.tsx';
import { TableHead, TableRow, TableCell, TableBody } from '@mui/material';
import { TypedField } from '../../kit/Field.tsx';
import { Tool } from '../../kit/Tool.tsx';
import { Scroll } from '../../kit/Scroll.tsx';

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
  const recorded = run.meta!.farField!.figures;
  const mixed = useMixedFigures(
    useMemo(() => [run], [run]),
    true,
  ).get(run.id);
  const figures: readonly PatternFigures[] = mixed ?? recorded;
  const all = useEveryFarField(run, mostGlances);
  const now = all.length ? readings(all[0]).map(([what], row): [string, string[]] => [what, all.map((far) => readings(far)[row][1])]) : [];
  /** What is read from a pattern, not told by the run. */
  function readings({ glance: g }: FarField): [string, string][] {
    const eirp = g.realised === null ? null : g.realised + 10 * Math.log10(card.power);
    return [
      ...g.planes.map(({ name, figures: f }): [string, string] => [`${name} plane: width, 10 dB width`, `${fine(f.width3)}, ${fine(f.width10)}`]),
      ...g.planes.map(({ name, figures: f }): [string, string] => [
        `${name} plane: next lobe below, front to back`,
        `${f.sideLobe ? belowText(f.sideLobe.below) : 'none'}, ${belowText(f.frontToBack)}`,
      ]),
      ['squint of the lobe’s middle (E, H)', g.planes.map((p) => fine(p.figures.middle === null ? null : wrapped(p.figures.middle))).join(', ')],
      ['axial ratio at the peak, straight up (dB)', `${told(g.axialRatio)}, ${told(g.boresight)}`],
      ['polarisation at the peak', g.sense === 'linear' ? `linear, ${fine(g.tilt)}` : g.sense],
      ['EIRP (dBW)', eirp === null ? '–' : eirp.toFixed(2)],
    ];
  }
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
      about={`run ${run.number}, ${run.meta!.dipole ? toldFor(run.meta!) : '1 W incident'}${mixed ? ', for the waves of the lens' : ''}`}
      {...{ run, figures, columns, csv, now }}
      tools={
        <span className="row" title="Watts that run into the port, for the radiated power">
          <span className="quiet">power</span>
          <TypedField
            label="Power for EIRP"
            width={52}
            value={String(card.power)}
            check={(t) => (Number(t) > 0 ? null : 'watts above zero')}
            onChange={(t) => board.change({ power: Number(t) } as Partial<CardOf<'figures'>>)}
          />
          W
        </span>
      }
    />
  );
}

const wrapped = (a: number): number => (a > Math.PI ? a - 2 * Math.PI : a);
const told = (ratio: number): string => (ratio >= 40 ? '> 40' : ratio.toFixed(2));
/** Frequencies up to which patterns are read at each of them. */
const mostGlances = 6;

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
  /** What is read from the patterns: at each frequency, or where the lens is. */
  now: readonly [string, readonly string[]][];
  tools?: React.ReactNode;
  csv(): void;
}

/** A row for each figure, a column for each frequency, whose head moves the lens there; below, what is read where the lens is. */
function FigureTable<F extends { frequency: number }>({ title, about, run, figures, columns, now, tools, csv }: TableProps<F>) {
  const { set } = useLens.getState();
  const { far } = useFarField(run);
  return (
    <Card
      title={title}
      about={about}
      file={stemOf({ run, label: '', tint: 1, differs: '' }, title)}
      tools={tools}
      exports={[{ label: 'Table (CSV)', act: csv }]}
    >
      <Scroll label={title}>
        <Figures>
          <TableHead>
            <TableRow>
              <TableCell>frequency</TableCell>
              {figures.map((f, i) => (
                <TableCell key={f.frequency} style={i === far?.at ? { color: 'var(--plum)' } : undefined}>
                  <Tool bare onClick={() => set({ frequency: f.frequency })}>
                    {formatSI(f.frequency, 'frequency')}
                  </Tool>
                </TableCell>
              ))}
            </TableRow>
          </TableHead>
          <TableBody>
            {columns.map(([what, text]) => (
              <TableRow key={what}>
                <TableCell>{what}</TableCell>
                {figures.map((f) => (
                  <TableCell key={f.frequency} className="mono">
                    {text(f)}
                  </TableCell>
                ))}
              </TableRow>
            ))}
          </TableBody>
          {now.length > 0 && far && (
            <TableBody>
              {now[0][1].length < figures.length && (
                <TableRow>
                  <TableCell colSpan={figures.length + 1} style={{ textAlign: 'left', paddingTop: 8 }}>
                    at {formatSI(far.source.frequency, 'frequency')}
                  </TableCell>
                </TableRow>
              )}
              {now.map(([what, texts]) => (
                <TableRow key={what}>
                  <TableCell>{what}</TableCell>
                  {texts.map((text, i) => (
                    <TableCell key={i} className="mono">
                      {text}
                    </TableCell>
                  ))}
                </TableRow>
              ))}
            </TableBody>
          )}
        </Figures>
      </Scroll>
    </Card>
  );
}
