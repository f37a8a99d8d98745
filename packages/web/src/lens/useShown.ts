import { createContext, useContext } from 'react';
import type { ShownRun } from './shown.ts';

/** The runs of the open board, the first of them looked at. */
export const ShownContext = createContext<readonly ShownRun[]>([]);
export const useShown = (): readonly ShownRun[] => useContext(ShownContext);
