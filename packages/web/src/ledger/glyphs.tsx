import { CallSplit, Crop, Gesture, Inventory, Layers, OpenWith, SectionGlyph, ViewModule, Wire } from '../kit/icons.tsx';
import { shapes, type ShapeGroup } from '@jadebell/core/document';
import type { ReactNode } from 'react';
import { portParts } from '../ports/registry.tsx';
import { recorderParts } from '../recorders/registry.tsx';

const ofGroup: Record<ShapeGroup, ReactNode> = {
  Solids: <Inventory />,
  Wires: <Wire />,
  Flat: <Crop />,
  Curves: <Gesture />,
  'From other lines': <Layers />,
  Combine: <CallSplit />,
  Place: <OpenWith />,
  Patterns: <ViewModule />,
  Order: null,
};
const others: Record<string, ReactNode> = {
  section: <SectionGlyph />,
  ...Object.fromEntries(Object.entries({ ...portParts, ...recorderParts }).map(([kind, { glyph }]) => [kind, glyph])),
};

/** A glyph per kind of entry: lines have that of their group. */
export const glyphOf = (kind: string): ReactNode => {
  const shape = shapes.find((s) => s.kind === kind);
  return shape ? ofGroup[shape.group] : others[kind];
};
