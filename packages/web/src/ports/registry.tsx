import { Bell, Fronts, Guide, Link, Load, Moment } from '../kit/icons.tsx';
import type { Port } from '@jadebell/core/document';
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
