import { z } from 'zod';
import type { NetworkChannel } from '../network/types.ts';
import type { Pass } from './passes.ts';

/** How exact a run is to be. */
export const accuracies = ['draft', 'normal', 'fine', 'adaptive'] as const;
export type Accuracy = (typeof accuracies)[number];

/** A setting by hand, which overrides what the accuracy implies. */
export interface Detail<S extends z.ZodType = z.ZodType> {
  schema: S;
  label: string;
  /** What a number counts, where the label does not say so. */
  unit?: string;
  /** What yes means, where yes and no are the choice. */
  choice?: string;
  /** What is taken where nothing is given, or what to give. */
  hint?: string;
}

/** Change of the result from pass to pass at which adaptive accuracy ends, where nothing else is asked for. */
export const defaultChange = 0.01;
/** The settings of every method that goes on in passes. */
export const passDetails = {
  change: {
    schema: z.number().min(1e-4).max(0.5).describe('Of adaptive accuracy: change of S from pass to pass at which it ends'),
    label: 'change of S',
    unit: 'of adaptive accuracy',
    hint: `${defaultChange} if empty`,
  },
};

/** The setting of every method by which a result is held against the same on a finer mesh. */
export const finerDetail = {
  finer: {
    schema: z.number().min(0.25).max(8).describe('All cells and segments are so many times smaller than the accuracy makes them'),
    label: 'all finer by',
    unit: 'times',
    hint: '1 if empty; a study moves it to see what a result comes to',
  },
};

/** Settings by hand as a schema's shape has them: all may be absent. */
export type DetailShape<D extends Record<string, Detail>> = { [K in keyof D]: z.ZodOptional<D[K]['schema']> };
/** The part of a schema that settings by hand make. */
export const shapeOf = <D extends Record<string, Detail>>(details: D): DetailShape<D> =>
  Object.fromEntries(Object.entries(details).map(([key, { schema }]) => [key, schema.optional()])) as DetailShape<D>;

/** What is known of the cost of a run before it, whatever the method. */
export interface CommonEstimate {
  bytes: number;
  /** Channels that are excited, one after the other. */
  excitations: number;
  /** Expected wall seconds on the machine. */
  seconds: number;
  /** Of adaptive accuracy: how many passes the seconds are for, while all else is that of the first; absent: for the first alone. */
  passes?: number;
}

/** What every method tells of a run after it. */
export interface CommonEvidence {
  /** (accepted - radiated - lost) / accepted per recorded frequency, of a plane wave (extinction - scattering - absorption) / extinction; null without a far field. */
  powerBalance: number[] | null;
  /** Largest root of the power that comes out of the ports for power 1 into one; above 1 would be active. */
  largestReflection: number;
  /** Largest difference of S and its transpose; null where no pair of channels was excited both ways. */
  asymmetry: number | null;
  /** Why the run ended; 'stopped' by the user. */
  ended: string;
  /** Wall seconds of the run. */
  seconds: number;
  threads: number;
  bytes: number;
  /** Of adaptive accuracy: its passes, and the change, twice in a row, at which they were to end. */
  passes?: Pass[];
  asked?: number;
}

/** What is told of a run, as rows of words and figures. */
export type Rows = [what: string, value: string][];

/** What a method looks at to tell whether it suits a model. */
export interface SuitedBody {
  name: string;
  /** Absent or null: no round wire. */
  wire?: unknown;
  material: { kind: string };
}

/**
 * A numerical method, as those know it who choose it, set it by hand, wait for it and judge what it found: its words, settings and figures. The solver of the
 * same name (folder solvers) does the work, and the scene builder of the same name (folder scene) says what it is given.
 */
export interface Method<E extends CommonEvidence = CommonEvidence, C extends CommonEstimate = CommonEstimate> {
  name: string;
  title: string;
  /** What the name stands for, for the document's reference. */
  meaning: string;
  /** What it solves, what it takes and what it costs, in a line. */
  about: string;
  /** What each accuracy means to it. */
  accuracy: Record<Accuracy, string>;
  details: Record<string, Detail>;
  /** What the size of its models is counted in. */
  unit: string;
  /** Why it is the one for the bodies of a model; null where it is not. */
  suits(bodies: readonly SuitedBody[]): string | null;
  /** A cost in words, but for the time that it takes. */
  costText(cost: C): string;
  /** Cells or unknowns of a run that was. */
  size(evidence: E): number;
  /** What a run did, in words. */
  effortText(evidence: E): string;
  /** Where a run can be held against itself. */
  rows(evidence: E, channels: readonly (NetworkChannel & { name: string })[]): Rows;
  /** What those who read its results should bear in mind, each in a sentence; absent: nothing. */
  cautions?(evidence: E): string[];
  /** Cell updates a second in the time domain, if the run showed how fast the machine is. */
  speed?(evidence: E): number | undefined;
  /** Why no power balance can be told of a run although its far field is known; absent or null: it can. */
  unbalanced?(evidence: E): string | null;
}

/** Bytes as text. */
export const megabytes = (bytes: number): string => `${Math.max(1, bytes / 1e6).toFixed(0)} MB`;
/** Threads as text. */
export const threadsText = (n: number): string => `${n} ${n === 1 ? 'thread' : 'threads'}`;
