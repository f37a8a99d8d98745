import Apps from '@mui/icons-material/GridOnOutlined';
import Crop from '@mui/icons-material/CropLandscapeOutlined';
import Inventory from '@mui/icons-material/ViewInArOutlined';
import Pentagon from '@mui/icons-material/PentagonOutlined';
import Radar from '@mui/icons-material/TrackChangesOutlined';
import Tube from '@mui/icons-material/PanoramaVerticalOutlined';
import Bell from '@mui/icons-material/NotificationsOutlined';
import type { ReactNode } from 'react';

/** A glyph per kind of entry. */
export const glyphs: Record<string, ReactNode> = {
  box: <Inventory />,
  rectangle: <Crop />,
  polygon: <Pentagon />,
  cylinder: <Tube />,
  gap: <Bell />,
  path: <Bell />,
  'far-field': <Radar />,
  'field-plane': <Apps />,
};
