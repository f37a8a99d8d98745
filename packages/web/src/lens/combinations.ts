import { freeName } from '../charts/layout.ts';
import type { Excitation } from './lens.ts';

type Wave = Excitation['waves'][number];

/** A name that no combination and no channel has. */
export const freshName = (combinations: readonly Excitation[], channels: readonly string[]): string =>
  freeName([...combinations.map((c) => c.name), ...channels], 'together');

/** Waves with one of them changed, in the order of the channels; those of no amplitude are left out. */
export function withWave(waves: readonly Wave[], channels: readonly string[], channel: string, part: Partial<Wave>): Wave[] {
  const next = { channel, amplitude: 0, phase: 0, ...waves.find((w) => w.channel === channel), ...part };
  const all = [...waves.filter((w) => w.channel !== channel), next].filter((w) => w.amplitude !== 0);
  return channels.flatMap((c) => all.filter((w) => w.channel === c));
}

/** Combinations with one added, or put in the place of that which had the name `was`. */
export const withCombination = (combinations: readonly Excitation[], next: Excitation, was = next.name): Excitation[] =>
  combinations.some((c) => c.name === was)
    ? combinations.map((c) => (c.name === was ? next : c)).filter((c, i, all) => all.findIndex((o) => o.name === c.name) === i)
    : [...combinations, next];
