import { turnName } from '@jadebell/core/results';
import { useMemo } from 'react';
import { getArray, type NumberArray } from '../../api/client.ts';
import { useLoaded } from '../../api/useLoaded.ts';
import type { Run } from '../../api/types.ts';
import { useLens } from '../lens/lens.ts';
import { fieldShares, summed, type Wave } from '../lens/waves.ts';

/** Shares of the excitations of which the lens wants the fields of a run. */
export function useShares(run: Run | undefined): Wave[] {
  const excitation = useLens((s) => s.excitation);
  return useMemo(() => (run ? fieldShares(run, excitation) : []), [run, excitation]);
}

const key = (run: string, name: string, range: { from: number; count: number }): string => `${run}/${name}/${range.from}/${range.count}`;
const known = new Map<string, Promise<NumberArray>>();
/** Parts of arrays are read once; the oldest are let go when they are many. */
export function readPart(run: string, name: string, range: { from: number; count: number }): Promise<NumberArray> {
  const k = key(run, name, range);
  let own = known.get(k);
  if (!own) {
    own = getArray(run, name, range);
    own.catch(() => known.delete(k));
    known.set(k, own);
    if (known.size > 400) known.delete(known.keys().next().value!);
  }
  return own;
}

/** Numbers of a field array for the excitation of the lens: those of each wave read and added up. The last ones stay until the next are there. */
export function useSum(
  run: Run | undefined,
  name: string | null,
  range: { from: number; count: number },
): { data: Float32Array | Float64Array | null; error?: Error } {
  const shares = useShares(run);
  const columns = shares.map((s) => s.column).join();
  const wanted = run && name && range.count ? `sum ${key(run.id, name, range)} ${columns}` : null;
  const { data, error } = useLoaded(wanted, async () => ({
    parts: await Promise.all(shares.map((s) => readPart(run!.id, turnName(name!, s.column), range))),
    of: `${run!.id}/${name}/${range.count}`,
    shares,
    columns,
  }));
  // Those of another run or recorder are of another form.
  const mine = data !== null && data.of === `${run?.id}/${name}/${range.count}`;
  const same = mine && data.columns === columns;
  return {
    data: useMemo(
      () =>
        mine
          ? summed(
              data.parts.map((p) => p.data as Float32Array),
              same ? shares : data.shares,
            )
          : null,
      [data, mine, same, shares],
    ),
    error,
  };
}
