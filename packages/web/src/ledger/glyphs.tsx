import Apps from '@mui/icons-material/GridOnOutlined';
import Crop from '@mui/icons-material/CropLandscapeOutlined';
import Inventory from '@mui/icons-material/ViewInArOutlined';
import Radar from '@mui/icons-material/TrackChangesOutlined';
import Guide from '@mui/icons-material/LoginOutlined';
import Load from '@mui/icons-material/CompressOutlined';
import Fronts from '@mui/icons-material/WavesOutlined';
import SectionGlyph from '@mui/icons-material/CropFreeOutlined';
import Bell from '@mui/icons-material/NotificationsOutlined';
import East from '@mui/icons-material/EastOutlined';
import Bolt from '@mui/icons-material/BoltOutlined';
import LinearScale from '@mui/icons-material/LinearScaleOutlined';
import Box from '@mui/icons-material/Grid3x3Outlined';
import BothWays from '@mui/icons-material/SyncAltOutlined';
import Stored from '@mui/icons-material/BatteryChargingFullOutlined';
import Timeline from '@mui/icons-material/TimelineOutlined';
import Gesture from '@mui/icons-material/GestureOutlined';
import CallSplit from '@mui/icons-material/CallSplitOutlined';
import Wire from '@mui/icons-material/ShowChartOutlined';
import Link from '@mui/icons-material/LinkOutlined';
import Layers from '@mui/icons-material/LayersOutlined';
import OpenWith from '@mui/icons-material/OpenWithOutlined';
import ViewModule from '@mui/icons-material/ViewModuleOutlined';
import { shapes, type ShapeGroup } from '@jadebell/core/document';
import type { ReactNode } from 'react';

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
  'wire-probe': <Bolt />,
  'plane-wave': <Fronts />,
  'guide-face': <Guide />,
  'guide-plane': <Guide />,
  'far-field': <Radar />,
  'field-plane': <Apps />,
  flux: <East />,
  current: <Bolt />,
  'field-line': <LinearScale />,
  signal: <Timeline />,
  'field-box': <Box />,
  mode: <BothWays />,
  energy: <Stored />,
};

/** A glyph per kind of entry: lines have that of their group. */
export const glyphOf = (kind: string): ReactNode => {
  const shape = shapes.find((s) => s.kind === kind);
  return shape ? ofGroup[shape.group] : others[kind];
};
