import { z } from 'zod';
import { defineCard } from './card.ts';

/** Where a run can be held against itself. */
export const evidence = defineCard({
  kind: 'evidence',
  title: 'Evidence',
  about: 'balance, passivity, reciprocity, convergence',
  fields: {},
  fresh: () => ({}),
});
/** Modes of guided ports. */
export const modes = defineCard({
  kind: 'modes',
  title: 'Port modes',
  about: 'their fields and constants',
  fields: {},
  fresh: (meta) => (meta.ports.some((p) => p.mode !== undefined) ? {} : null),
});
/** Waves whose fields were combined. */
export const waves = defineCard({
  kind: 'waves',
  title: 'Waves together',
  about: 'active reflection of what was combined',
  fields: {},
  fresh: (meta) => (meta.combined ? {} : null),
});
/** Solution data per frequency. */
export const table = defineCard({
  kind: 'table',
  title: 'Table',
  about: 'S, modes, figures, differences of runs',
  fields: {
    what: z.enum(['s', 'modes', 'figures', 'runs']).default('s'),
  },
  fresh: (meta) => ({ what: meta.excitations.length ? ('s' as const) : ('figures' as const) }),
});
export type TableCard = z.infer<typeof table.schema>;
export const note = defineCard({
  kind: 'note',
  title: 'Note',
  about: 'words of your own',
  fields: { text: z.string().max(5000).default('') },
  fresh: () => ({ w: 4, h: 4 }),
});
export type NoteCard = z.infer<typeof note.schema>;
