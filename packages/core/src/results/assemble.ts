import { coreVersion } from '../version.ts';
import type { Evidence } from '../methods/index.ts';
import type { ResultArray, ResultMeta, ResultSet } from './resultSet.ts';

/** What every solver tells of a result; what it leaves out is not there: no channels, no patterns, nothing recorded. */
export type Told<E extends Evidence> = Pick<ResultMeta<E>, 'solver' | 'recordAt' | 'evidence'> &
  Partial<Omit<ResultMeta<E>, 'format' | 'version' | 'coreVersion'>>;

/** A result of a solver, in the form of today. */
export const resultOf = <E extends Evidence>(told: Told<E>, arrays: Record<string, ResultArray>): ResultSet<E> => ({
  meta: { format: 'jadebell-result', version: 3, coreVersion, ports: [], excitations: [], farField: null, recorded: [], ...told },
  arrays,
});
