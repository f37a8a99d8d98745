// What feeds, loads and lights a structure: one module a family, one definition a kind. A new kind is a definition and a line here.
import { z } from 'zod';
import type { Chip, Fields, Problem, SentencePart } from '../entries/index.ts';
import { evaluateChips, type Scope } from '../expressions/index.ts';
import { currentDipole } from './dipole.ts';
import { gapElement, gapPort } from './gaps.ts';
import { facePort, planePort } from './guidedPorts.ts';
import { wireElement, wireLine, wirePort } from './onWire.ts';
import { pathElement, pathPort } from './paths.ts';
import { type EntryOfPort, failing, type Families, type Family, type Placing, type PortKind } from './port.ts';
import { planeWave } from './wave.ts';

export * from './types.ts';
export { placeOn } from './onWire.ts';
export { failing, type Families, type Family, type PortSurroundings } from './port.ts';
export { facesEnd, lineDepth, portLine } from './portLine.ts';
export { waveOf } from './wave.ts';
export * from './wires.ts';

/** Every kind of port, in the order in which the interface offers them. */
const all = [wirePort, wireElement, wireLine, gapPort, pathPort, gapElement, pathElement, facePort, planePort, planeWave, currentDipole] as const;

/** A port, load or source as the document has it. */
export type Port = EntryOfPort<(typeof all)[number]>;
export type AnyPortKind = PortKind<Port['kind'], Fields, Family>;
export const portKinds = all as unknown as readonly AnyPortKind[];

type Schemas = [z.core.$ZodTypeDiscriminable, ...z.core.$ZodTypeDiscriminable[]];
export const portSchema = z.discriminatedUnion('kind', all.map((p) => p.schema) as unknown as Schemas) as unknown as z.ZodType<Port>;

const byKind = new Map(portKinds.map((p) => [p.kind, p]));
/**
 * The kind of a port.
 * @throws Error where there is no such kind.
 */
export function portKind({ kind }: { kind: string }): AnyPortKind {
  const found = byKind.get(kind as Port['kind']);
  if (!found) throw new Error(`No port of kind ${kind}`);
  return found;
}

/** The chips of a port, and its sentence in the ledger. */
export const portChips = (port: Port): Chip[] => portKind(port).chips(port as never);
/** The sentence of a port in the ledger. */
export const portSentence = (port: Port): SentencePart[] => portKind(port).words(port as never);

/** A port in SI with its family; null where it cannot be placed, which is told among the problems. */
export type PlacedPort = { [Y in Family]: { family: Y; placed: Families[Y] } }[Family];
/** Places a port in SI; null where it cannot be, which is told among `problems`. */
export function placePort(port: Port, scope: Scope, placing: Omit<Placing, 'fail'>, problems: Problem[]): PlacedPort | null {
  const kind = portKind(port);
  const { values, problems: found } = evaluateChips(port, portChips(port), scope, { part: 'ports', name: port.name });
  problems.push(...found);
  const placed = values && kind.resolve(port as never, values, { ...placing, fail: failing(port.name, problems) });
  return placed && ({ family: kind.family, placed } as PlacedPort);
}
