import { z } from 'zod';
import { recordedOf, type ResultMeta } from '../results/index.ts';
import { defineCard } from './card.ts';

const fieldQuantities = ['E', 'H', 'S', 'D', 'B', 'J', 'loss'] as const;
export type FieldQuantity = (typeof fieldQuantities)[number];
const fieldParts = ['size', 'x', 'y', 'z', 'normal', 'tangential'] as const;
const fieldForms = ['peak', 'instant', 'phase', 'mean'] as const;

/** How a field is told: of which quantity and part, at which moment, on which scale. */
const fieldReading = {
  recorder: z.string().min(1).max(80),
  quantity: z.enum(fieldQuantities).default('E'),
  part: z.enum(fieldParts).default('size'),
  form: z.enum(fieldForms).default('peak').describe('peak over the phase, at the phase of the lens, or the phase itself'),
  db: z.boolean().default(true),
  range: z.enum(['most', 'all', 'fixed']).default('most').describe('up to the 99.5th percentile, up to the largest, or as given'),
  top: z.number().optional(),
  span: z.number().min(1).max(200).default(50).describe('dB'),
};

/** The first recorder of a run that kept a field on a plane, or in a box that can be cut. */
const firstField = ({ recorded }: ResultMeta): string | null =>
  (['field-plane', 'field-box'] as const).map((kind) => recorded.find((r) => r.kind === kind)?.name).find((name) => name) ?? null;

/** A field on a plane. */
export const field = defineCard({
  kind: 'field',
  title: 'Field on a plane',
  about: 'a recorded plane, or a cut through a box',
  fields: {
    ...fieldReading,
    across: z.enum(['x', 'y', 'z', 'tilted']).optional().describe('Axis that a cut through a box stands across'),
    at: z.number().optional().describe('Its place, metres'),
    theta: z.number().default(0).describe('Normal of a tilted cut, radians'),
    phi: z.number().default(0),
    smooth: z.boolean().default(true),
    grid: z.boolean().default(false),
    outlines: z.boolean().default(true),
    arrows: z.enum(['none', 'arrows', 'streamlines']).default('none'),
  },
  fresh: (meta) => {
    const recorder = firstField(meta);
    return recorder ? { recorder, h: 7 } : null;
  },
});
export type FieldCard = z.infer<typeof field.schema>;

/** A field on the faces of bodies or where it has one size, in three dimensions. */
export const volume = defineCard({
  kind: 'volume',
  title: 'Field in space',
  about: 'on the faces of bodies, as a surface of one level, currents on metal',
  fields: {
    ...fieldReading,
    on: z.enum(['faces', 'level', 'currents']).default('faces').describe('faces of bodies, a surface of one level, or currents on metal'),
    level: z.number().min(0).max(1).default(0.3).describe('Part of the scale'),
    arrows: z.boolean().default(true),
  },
  fresh: (meta) => {
    const [box] = recordedOf(meta, 'field-box');
    return box ? { recorder: box.name, quantity: box.electric ? ('E' as const) : ('H' as const), h: 7 } : null;
  },
});
export type VolumeCard = z.infer<typeof volume.schema>;

/** What a recorder kept, in the form that suits it: lines, signals, powers, currents, waves, energies. */
export const recorder = defineCard({
  kind: 'recorder',
  title: 'Recorder',
  about: 'what a recorder kept',
  fields: { recorder: z.string().min(1).max(80) },
  fresh: () => null,
});

/** A field along a line that was drawn on a field card. */
export const along = defineCard({
  kind: 'along',
  title: 'Along a line',
  about: 'drawn on a field',
  fields: {
    recorder: fieldReading.recorder,
    quantity: fieldReading.quantity,
    from: z.tuple([z.number(), z.number(), z.number()]).describe('Metres'),
    to: z.tuple([z.number(), z.number(), z.number()]),
    form: fieldReading.form,
  },
  fresh: () => null,
});
export type AlongCard = z.infer<typeof along.schema>;
