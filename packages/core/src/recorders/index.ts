// What records during a run: one module a kind, from its words in the ledger to what it tells. A new kind is a module and a line here.
import { z } from 'zod';
import type { Chip, ChipValues, Fields, SentencePart } from '../entries/index.ts';
import { bodyCurrent } from './bodyCurrent.ts';
import { current } from './current.ts';
import { energy } from './energy.ts';
import { farField } from './farField.ts';
import { fieldBox } from './fieldBox.ts';
import { fieldLine } from './fieldLine.ts';
import { fieldPlane } from './fieldPlane.ts';
import { flux } from './flux.ts';
import { modeWaves } from './modeWaves.ts';
import type { EntryOfKind, PlacedOfKind, RecorderKind, ToldOfKind } from './recorder.ts';
import { signal } from './signal.ts';
import { wireProbe } from './wireProbe.ts';

export { phasorColumns } from './columns.ts';
export * from './faces.ts';
export { directionsOf } from './farField.ts';
export { planeAxes } from './fieldPlane.ts';
export * from './recorder.ts';

/** Every kind of recorder, in the order in which the interface offers them. */
const all = [wireProbe, farField, fieldPlane, fieldLine, flux, current, bodyCurrent, modeWaves, energy, fieldBox, signal] as const;
type Kinds = (typeof all)[number];

/** A recorder as the document has it, in SI, and what a result tells of one. */
export type Recorder = EntryOfKind<Kinds>;
export type PlacedRecorder = PlacedOfKind<Kinds>;
export type RecorderTold = ToldOfKind<Exclude<Kinds, typeof farField | typeof wireProbe>>;
export type RecorderName = Recorder['kind'];
export type Placed<K extends RecorderName> = Extract<PlacedRecorder, { kind: K }>;
export type Told<K extends RecorderTold['kind']> = Extract<RecorderTold, { kind: K }>;

/** A kind as those see it that treat all alike. */
export type AnyRecorderKind = RecorderKind<RecorderName, Fields, object, object>;
export const recorderKinds = all as unknown as readonly AnyRecorderKind[];

type Schemas = [z.core.$ZodTypeDiscriminable, ...z.core.$ZodTypeDiscriminable[]];
export const recorderSchema = z.discriminatedUnion('kind', all.map((r) => r.schema) as unknown as Schemas) as unknown as z.ZodType<Recorder>;

const byKind = new Map(recorderKinds.map((r) => [r.kind, r]));
/**
 * The kind of a recorder, placed or told one too.
 * @throws Error where there is no such kind.
 */
export function recorderKind({ kind }: { kind: string }): AnyRecorderKind {
  const found = byKind.get(kind as RecorderName);
  if (!found) throw new Error(`No recorder of kind ${kind}`);
  return found;
}

/** The chips of a recorder, and its sentence in the ledger. */
export const recorderChips = (recorder: Recorder): Chip[] => recorderKind(recorder).chips(recorder as never);
/** The sentence of a recorder in the ledger. */
export const recorderSentence = (recorder: Recorder): SentencePart[] => recorderKind(recorder).words(recorder as never);

/** Whether a recorder keeps what it records at frequencies. */
export const atFrequencies = (r: { kind: string }): boolean => recorderKind(r).over === 'frequencies';

/** The frequencies of a recorder's own, a row each; none: those of the project. */
export const ownFrequencies = (recorder: Recorder): readonly [string][] => recorder.frequencies ?? [];

/** Values of a recorder's own frequencies, hertz. */
export const ownValues = (recorder: Recorder, values: ChipValues): number[] => ownFrequencies(recorder).map((_, i) => values[`frequencies.${i}.0`]);
