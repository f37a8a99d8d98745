import { channelKeys } from '@jadebell/core/results';
import type { Run } from '../../api/types.ts';
import { downloadFrom } from '../../ui/download.ts';
import { useLens } from '../../lens/lens.ts';

/** Touchstone files of a run as the lens sees its ports: the server writes them from what is stored. */
export function TouchstoneExports(run: Run): { label: string; act(): Promise<void> }[] {
  const { ports, excitations } = run.meta!;
  if (!excitations.length) return [];
  const n = excitations.length === ports.length ? ports.length : 1;
  const file = (version: '1' | '2') => (): Promise<void> => {
    const { references, shifts, gaps } = useLens.getState();
    const names = channelKeys(ports);
    const query = new URLSearchParams({ version });
    names.forEach((name, c) => {
      const z = references[name];
      if (z) query.append('reference', `${name}:${z}`);
      const l = shifts[ports[c].name];
      if (l && ports.findIndex((p) => p.name === ports[c].name) === c) query.append('shift', `${ports[c].name}:${l}`);
    });
    if (gaps === 'out') query.set('gaps', 'out');
    return downloadFrom(`/api/runs/${run.id}/files/touchstone?${query.toString()}`);
  };
  return [
    { label: `Touchstone (.s${n}p)`, act: file('1') },
    { label: 'Touchstone 2.0 (.ts)', act: file('2') },
  ];
}
