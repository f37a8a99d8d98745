import { createContext } from 'react';
import type { Run } from '../api/types.ts';

/** Runs of the project that have a result: a card can be pinned to any of them. */
export const PinnableContext = createContext<readonly Run[]>([]);
