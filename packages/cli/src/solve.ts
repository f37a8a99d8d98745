import { mkdir } from 'node:fs/promises';
import { basename } from 'node:path';
import { formatSI } from '@jadebell/core/expressions';
import { exportKinds, type ResultFile } from '@jadebell/core/formats';
import { cautionsOf } from '@jadebell/core/reading';
import { knowsGaps, packResult } from '@jadebell/core/results';
import { nodeHost } from '@jadebell/node';
import { exit } from './exit.ts';
import type { Loaded } from './load.ts';
import { type Options, UsageError } from './options.ts';
import { err } from './print.ts';
import { stopSignal } from './stopSignal.ts';
import { writeFiles } from './writeFiles.ts';

/** Files that every run writes at once; the rest is made of the kept result. */
const written = exportKinds.filter((k) => ['touchstone', 'curves', 'pattern', 'summary'].includes(k.key));
const touchstone = exportKinds.find((k) => k.key === 'touchstone')!;

/** Solves a project and writes its result; gives the exit code. */
export async function solve({ project, scene, solver }: Loaded, file: string, options: Options): Promise<number> {
  if (!options.out) throw new UsageError('solve needs --out DIR.');
  await mkdir(options.out, { recursive: true });
  const signal = stopSignal();
  const host = await nodeHost(options.threads);
  const result = await solver.solve(scene, {
    host,
    signal,
    onProgress: options.quiet
      ? undefined
      : (p) =>
          err(
            `${(100 * p.fraction).toFixed(0).padStart(3)} %  ${p.pass ? `pass ${p.pass}${typeof p.change !== 'number' ? '' : ` (the last changed S by ${p.change.toPrecision(2)})`}  ` : ''}${p.turns > 1 ? `excitation ${p.turn + 1} of ${p.turns}  ` : ''}step ${p.step}${p.energy === undefined ? '' : `  energy ${p.energy.toExponential(1)}`}${p.secondsLeft === null ? '' : `  about ${Math.ceil(p.secondsLeft)} s left`}`,
          ),
  });
  const stem = basename(file).replace(/\.json$/i, '');
  const asked = { result, title: project.title, view: {} };
  const gaps: ResultFile[] = knowsGaps(result.meta)
    ? touchstone.files({ ...asked, view: { gaps: 'out' } }).map((f) => ({ ...f, ending: `-without-gaps${f.ending}` }))
    : [];
  const kept: ResultFile = { ending: '-result.zip', write: () => packResult(result, project) };
  const files = [...written.flatMap((k) => k.files(asked)), ...gaps, kept];
  await writeFiles(options.out, stem, files, options.quiet);
  if (!options.quiet)
    for (const f of result.meta.farField?.figures ?? [])
      err(
        `${formatSI(f.frequency, 'frequency')}: directivity ${(10 * Math.log10(f.directivity)).toFixed(2)} dBi, gain ${(10 * Math.log10(f.gain)).toFixed(2)} dBi, realised gain ${(10 * Math.log10(f.realisedGain)).toFixed(2)} dBi`,
      );
  const areas = (v: number): string => `${(10 * Math.log10(v)).toFixed(2)} dBsm`;
  if (!options.quiet)
    for (const f of result.meta.scattered?.figures ?? [])
      err(`${formatSI(f.frequency, 'frequency')}: radar cross-section back ${areas(f.back)}, largest ${areas(f.largest)}, scattering ${f.scattering.toPrecision(4)} m², absorption ${f.absorption.toPrecision(3)} m²`); // prettier-ignore
  for (const caution of cautionsOf(result.meta)) err(`warning: ${caution}`);
  return result.meta.evidence.ended === 'stopped' ? exit.stopped : exit.good;
}
