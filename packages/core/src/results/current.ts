import type { RecorderTold } from '../recorders/index.ts';
import type { ResultMeta } from './resultSet.ts';

/** Lists by which results up to version 2 told of recorders, and the kind of each. */
const lists = {
  fieldPlanes: 'field-plane',
  fieldLines: 'field-line',
  fieldBoxes: 'field-box',
  fluxes: 'flux',
  currents: 'current',
  modeWaves: 'mode',
  energies: 'energy',
  signals: 'signal',
} as const;
type Listed = Partial<Record<keyof typeof lists, Omit<RecorderTold, 'kind'>[]>>;

/** Facts of a result that an earlier version stored: version 1 has one excitation, versions 1 and 2 a list for each kind of recorder. */
export type StoredMeta =
  | ResultMeta
  | (Omit<ResultMeta, 'version' | 'recorded' | 'others'> &
      Listed & { version: 1 | 2; excited?: string; others?: (Listed & { turn: number; figures: never })[] });

/** Takes the lists out of facts and gives them as one, each with its kind. */
function gathered<T extends Listed>(meta: T): Omit<T, keyof Listed> & { recorded: RecorderTold[] } {
  const rest: Record<string, unknown> = { ...meta };
  const recorded = Object.entries(lists).flatMap(([list, kind]) => {
    delete rest[list];
    return (meta[list as keyof Listed] ?? []).map((told) => ({ kind, ...told }) as RecorderTold);
  });
  return { ...rest, recorded } as never;
}

/** Facts of a result as they are now, from those that an earlier version stored. */
export function currentMeta(meta: StoredMeta): ResultMeta {
  if (meta.version !== 1 && meta.version !== 2) return meta as ResultMeta;
  const { excited, others, version, ...rest } = gathered(meta);
  const index = Math.max(0, rest.ports.findIndex((p) => p.name === excited)); // prettier-ignore
  return {
    ...rest,
    version: 3,
    ...(version === 1 ? { excitations: [index], evidence: { ...rest.evidence, asymmetry: null } } : {}),
    ...(others ? { others: others.map(gathered) } : {}),
  } as ResultMeta;
}
