import type { Port } from '@jadebell/core/document';
import Bell from '@mui/icons-material/NotificationsOutlined';
import Fronts from '@mui/icons-material/WavesOutlined';
import Guide from '@mui/icons-material/LoginOutlined';
import Link from '@mui/icons-material/LinkOutlined';
import Load from '@mui/icons-material/CompressOutlined';
import Moment from '@mui/icons-material/FlareOutlined';
import type { ReactNode } from 'react';

/** What the interface adds to each kind of port; marks on the model are drawn by their family. */
export const portParts: { [K in Port['kind']]: { glyph: ReactNode } } = {
  'wire-port': { glyph: <Bell /> },
  'element-wire': { glyph: <Load /> },
  'element-line': { glyph: <Link /> },
  gap: { glyph: <Bell /> },
  path: { glyph: <Bell /> },
  'element-gap': { glyph: <Load /> },
  'element-path': { glyph: <Load /> },
  'guide-face': { glyph: <Guide /> },
  'guide-plane': { glyph: <Guide /> },
  'plane-wave': { glyph: <Fronts /> },
  'current-dipole': { glyph: <Moment /> },
};
