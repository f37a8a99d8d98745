import { detailForm, type Details, methodOf, readDetail, type SolverName } from '../methods/index.ts';

/** What stands before a setting of Solve where a parameter could stand: no parameter has such a name. */
const before = 'solve.';
/** Values of settings that nothing was said of, as far as they have any that moves can begin at. */
const usual: Partial<Record<keyof Details, number>> = { finer: 1 };

/** The key of a setting of Solve that moves like a parameter, by what a move calls it; null where that is a parameter. */
export const settingOf = (name: string): keyof Details | null => (name.startsWith(before) ? (name.slice(before.length) as keyof Details) : null);

/** Why a setting cannot have a value; null where it can. */
export function settingFault(solver: SolverName, key: keyof Details, value: number): string | null {
  const read = readDetail(methodOf(solver).details[key], String(value));
  return 'fault' in read ? read.fault : null;
}

/** The settings of a solver that can move, numbers all of them, by what moves call them, with their words and their values now. */
export const settingsToMove = (solver: SolverName, details: Details = {}): { name: string; label: string; value: number }[] =>
  Object.entries(methodOf(solver).details).flatMap(([key, detail]) => {
    const value = (details[key as keyof Details] ?? usual[key as keyof Details]) as number | undefined;
    return detailForm(detail) === 'number' && value !== undefined ? [{ name: before + key, label: detail.label, value }] : [];
  });
