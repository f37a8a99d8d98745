import { ProblemError } from '../../document/index.ts';
import { type Grid } from '../../grid/index.ts';
import type { PortGap, ResultSet } from '../../results/index.ts';
import type { GridScene } from '../../scene/index.ts';
import type { SolveOptions } from '../solver.ts';
import { calibrateOnLine } from './calibrateOnLine.ts';
import { calibrateOnSpread } from './calibrateOnSpread.ts';
import type { SolveOnce } from './solveOnce.ts';
import type { TimeEvidence } from '../../methods/index.ts';

/** Largest difference of a reference line from an ideal one with which what it tells of a gap is believed. */
const worstLine = 0.1;

/**
 * Calibrates the lumped ports whose gap is to be taken out, by reference runs on the same grid: what each gap adds stands with its port in the result, and of
 * those for which it could not be told the reason stands in the evidence. A stage above the solver, which only solves.
 */
export async function calibratePorts(
  scene: GridScene,
  grid: Grid,
  result: ResultSet<TimeEvidence>,
  { host, signal }: SolveOptions,
  solve: SolveOnce,
): Promise<ResultSet<TimeEvidence>> {
  const wanted = scene.ports.filter((p) => p.line || p.spread);
  if (!wanted.length || signal?.aborted) return result;
  const started = host.now();
  const gaps = new Map<string, PortGap>();
  const gapsKept: { name: string; why: string }[] = [];
  for (const port of wanted) {
    if (signal?.aborted) break;
    try {
      const gap = await (port.line ? calibrateOnLine : calibrateOnSpread)(scene, port, grid, { host, signal }, solve);
      // Of a reference that was stopped nothing is known.
      if (signal?.aborted) gapsKept.push({ name: port.name, why: 'The run was stopped before its reference was solved.' });
      else if (gap.after < worstLine) gaps.set(port.name, gap);
      else {
        const [what, cause] = port.line ? ['line', 'more than one mode may run there'] : ['run', 'an inductance is at work'];
        gapsKept.push({ name: port.name, why: `The reference ${what} is off by ${gap.after.toPrecision(2)} even without it: ${cause}.` });
      }
    } catch (error) {
      // What was solved is worth keeping without it.
      if (!(error instanceof ProblemError)) throw error;
      gapsKept.push({ name: port.name, why: error.problems[0].message });
    }
  }
  const { meta } = result;
  const ports = meta.ports.map((p) => (gaps.has(p.name) ? { ...p, gap: gaps.get(p.name)! } : p));
  const took = host.now() - started;
  const evidence = {
    ...meta.evidence,
    seconds: meta.evidence.seconds + took,
    spent: { ...meta.evidence.spent, gaps: took },
    ...(gapsKept.length ? { gapsKept } : {}),
  };
  return { ...result, meta: { ...meta, ports, evidence } };
}
