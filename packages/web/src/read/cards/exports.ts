import type { Run } from '../../api/types.ts';
import { downloadFrom } from '../../ui/download.ts';

/** Files of a run's far field: the server writes them from what is stored. */
export const patternFiles = (run: Run | undefined): { label: string; act(): Promise<void> }[] =>
  run
    ? [
        { label: 'Far field (CSV)', act: () => downloadFrom(`/api/runs/${run.id}/files/pattern`) },
        { label: 'Far field (text, docs/far-field-format.md)', act: () => downloadFrom(`/api/runs/${run.id}/files/farfield`) },
      ]
    : [];
