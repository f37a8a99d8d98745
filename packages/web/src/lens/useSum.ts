import { fieldShares, summed } from '@jadebell/core/reading';
import { excitationKey, type IncidentWave } from '@jadebell/core/results';
import { useMemo } from 'react';
import { getArray, type NumberArray } from '../api/client.ts';
import type { Run } from '../api/types.ts';
import { readAhead, useKept } from '../api/useKept.ts';
import { useLens } from './lens.ts';

/** Shares of the excitations of which the lens wants the fields of a run. */
export function useShares(run: Run | undefined): IncidentWave[] {
  const excitation = useLens((s) => s.excitation);
  return useMemo(() => (run ? fieldShares(run.meta!, excitation) : []), [run, excitation]);
}

interface Range {
  from: number;
  count: number;
}
/** Parts of a field array, one of each excitation that takes part. */
interface Parts {
  parts: NumberArray[];
  /** Run, array and length that they are of. */
  of: string;
  shares: readonly IncidentWave[];
  columns: string;
}

const columnsOf = (shares: readonly IncidentWave[]): string => shares.map((s) => s.column).join();
const formOf = (run: Run | undefined, name: string | null, { count }: Range): string => `${run?.id}/${name}/${count}`;

const loading = (run: Run, name: string, range: Range, shares: readonly IncidentWave[]): [key: string, load: () => Promise<Parts>] => [
  `sum ${run.id}/${name}/${range.from}/${range.count} ${columnsOf(shares)}`,
  async () => ({
    parts: await Promise.all(shares.map((s) => getArray(run.id, excitationKey(name, s.column), range))),
    of: formOf(run, name, range),
    shares,
    columns: columnsOf(shares),
  }),
];

/** Begins to read a part of a field array before it is looked at. */
export const readFieldAhead = (run: Run, name: string, range: Range, shares: readonly IncidentWave[]): void =>
  readAhead(...loading(run, name, range, shares));

const none = async (): Promise<Parts> => ({ parts: [], of: '', shares: [], columns: '' });

/** Numbers of a field array for the excitation of the lens: those of each wave read and added up. The last ones stay until the next are there. */
export function useSum(run: Run | undefined, name: string | null, range: Range): { data: Float32Array | Float64Array | null; error?: Error } {
  const shares = useShares(run);
  const [key, load] = run && name && range.count ? loading(run, name, range, shares) : [null, none];
  const { data, error } = useKept(key, load);
  // Those of another run or recorder are of another form; those of other waves stand until theirs are there.
  const mine = data !== null && data.of === formOf(run, name, range);
  const own = mine && data.columns === columnsOf(shares) ? shares : (data?.shares ?? shares);
  const sum = useMemo(() => {
    if (!mine) return null;
    return summed(data.parts.map((p) => p.data as Float32Array), own); // prettier-ignore
  }, [data, mine, own]);
  return { data: sum, error };
}
