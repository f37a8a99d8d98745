import type { Part } from '@jadebell/core/document';
import type { LengthUnit } from '@jadebell/core/formats/import';
import type { ViewBody } from './protocol.ts';
import type { Axis } from '@jadebell/core/numerics';

/** A part or layer of a file, as the dialog lists it. Sizes in the file's unit. */
export interface FoundPart {
  index: number;
  kind: 'mesh' | 'outlines';
  name: string;
  size: number[];
  /** Triangles, or corners of outlines. */
  count: number;
  /** A body that closes, after mending where it could be mended; outlines always do. */
  closed: boolean;
  /** Sentences on what was found and mended. */
  remarks: string[];
}
export interface Found {
  unit: LengthUnit | null;
  parts: FoundPart[];
  notes: string[];
}
export type ExchangeRequest =
  | { kind: 'read'; file: File }
  | { kind: 'take'; indices: number[]; scale: number; source: string }
  | { kind: 'outlines'; bodies: ViewBody[]; normal: Axis; offset: number };
export type ExchangeReply =
  | { kind: 'progress'; text: string; fraction: number }
  | { kind: 'found'; found: Found }
  | { kind: 'taken'; parts: Part[] }
  | { kind: 'outlines'; layers: { name: string; loops: [number, number][][] }[] }
  | { kind: 'fault'; text: string };
