import type { Form } from '../../shapes/index.ts';
import { curve, frame, frameOnFace, sheet, simple, strokes, sweep, trace, wire } from './basic.ts';
import { common, container, copyFace, cut, edge, extrudeFace, imprint, join, offset, outline, section, split, thicken } from './combining.ts';
import { drawing, imported } from './importing.ts';
import type { Maker } from './maker.ts';
import { alongCurve, place } from './placing.ts';

export type { BuildContext, BuildResult } from './maker.ts';
export { placed } from './placing.ts';
export { closedBody } from './importing.ts';

/** Forms whose makers build in world coordinates already; the others, and wires of a path of their own, build in the working frame and are moved. */
export const worldForms: ReadonlySet<Form> = new Set<Form>([
  'sweep', 'wire', 'trace', 'join', 'common', 'cut', 'split', 'imprint', 'place', 'along', 'thicken', 'offset', 'extrude face', 'copy face', 'edge',
  'section', 'outline', 'container', 'frame on face',
]); // prettier-ignore

/** What builds each form of recipe. */
export const makers: { [F in Form]: Maker<F> } = {
  box: simple as Maker<'box'>,
  cylinder: simple as Maker<'cylinder'>,
  cone: simple as Maker<'cone'>,
  ball: simple as Maker<'ball'>,
  torus: simple as Maker<'torus'>,
  prism: simple as Maker<'prism'>,
  rings: simple as Maker<'rings'>,
  revolve: simple as Maker<'revolve'>,
  sheet,
  strokes,
  curve,
  frame,
  'frame on face': frameOnFace,
  sweep,
  wire,
  trace,
  join,
  common,
  cut,
  split,
  imprint,
  place,
  along: alongCurve,
  thicken,
  offset,
  'extrude face': extrudeFace,
  'copy face': copyFace,
  edge,
  section,
  outline,
  container,
  import: imported,
  drawing,
  nothing: () => ({ members: [] }),
};
