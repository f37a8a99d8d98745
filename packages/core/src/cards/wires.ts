import { z } from 'zod';
import { defineCard } from './card.ts';

/** Currents in wires: on the model, or along them. */
export const wires = defineCard({
  kind: 'wires',
  title: 'Current in wires',
  about: 'on the model, or along each wire',
  fields: {
    view: z.enum(['model', 'along']).default('model'),
    form: z.enum(['peak', 'instant', 'phase']).default('peak').describe('size, at the phase of the lens, or the phase itself'),
    db: z.boolean().default(false),
    span: z.number().min(1).max(200).default(40).describe('dB'),
    of: z.array(z.string().max(80)).max(64).default([]).describe('Wires that are told along their length; none: the first few'),
  },
  fresh: (meta) => (meta.wires && meta.recordAt.length ? { h: 7 } : null),
});
export type WiresCard = z.infer<typeof wires.schema>;
