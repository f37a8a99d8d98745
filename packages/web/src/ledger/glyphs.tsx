import Crop from '@mui/icons-material/CropLandscapeOutlined';
import Inventory from '@mui/icons-material/ViewInArOutlined';
import Guide from '@mui/icons-material/LoginOutlined';
import Load from '@mui/icons-material/CompressOutlined';
import Fronts from '@mui/icons-material/WavesOutlined';
import SectionGlyph from '@mui/icons-material/CropFreeOutlined';
import Bell from '@mui/icons-material/NotificationsOutlined';
import Gesture from '@mui/icons-material/GestureOutlined';
import CallSplit from '@mui/icons-material/CallSplitOutlined';
import Wire from '@mui/icons-material/ShowChartOutlined';
import Link from '@mui/icons-material/LinkOutlined';
import Layers from '@mui/icons-material/LayersOutlined';
import OpenWith from '@mui/icons-material/OpenWithOutlined';
import ViewModule from '@mui/icons-material/ViewModuleOutlined';
import { shapes, type ShapeGroup } from '@jadebell/core/document';
import type { ReactNode } from 'react';
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
  gap: <Bell />,
  path: <Bell />,
  'element-gap': <Load />,
  'element-path': <Load />,
  'wire-port': <Bell />,
  'element-wire': <Load />,
  'element-line': <Link />,
  'plane-wave': <Fronts />,
  'guide-face': <Guide />,
  'guide-plane': <Guide />,
};

/** A glyph per kind of entry: lines have that of their group. */
export const glyphOf = (kind: string): ReactNode => {
  const shape = shapes.find((s) => s.kind === kind);
  return shape ? ofGroup[shape.group] : (others[kind] ?? recorderParts[kind as keyof typeof recorderParts]?.glyph);
};
