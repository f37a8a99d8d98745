import type { Project, SectionEntry } from '@jadebell/core/document';
import { formatSI } from '@jadebell/core/expressions/format';
import { freeName } from '../project/edits.ts';
import { useModel } from '../project/model.ts';

/** A length as an expression with a round number. */
const length = (metres: number): string => formatSI(metres, 'length', 4);

/** Axis along which a guide seems to run: that of a guided port, the way between the first two lumped ports, or the longest of the model. */
function alongGuide(size: number[]): number {
  const { guides, ports } = useModel.getState().view;
  if (guides.length) return guides[0].normal;
  const apart = ports.length > 1 ? [0, 1, 2].map((a) => Math.abs(ports[1].min[a] - ports[0].min[a])) : size;
  return apart.indexOf(Math.max(...apart));
}

/** A new section across the guide, through the middle of the model and with some room around it. */
export function newSection(d: Project): SectionEntry {
  const { bodies } = useModel.getState().view;
  const end = (f: (...v: number[]) => number, a: number, key: 'min' | 'max'): number => f(...bodies.map((b) => b[key][a]));
  const spans = [0, 1, 2].map((a) => (bodies.length ? [end(Math.min, a, 'min'), end(Math.max, a, 'max')] : [-5e-3, 5e-3]));
  const size = spans.map(([a, b]) => b - a);
  const normal = alongGuide(size);
  const across = [0, 1, 2].filter((a) => a !== normal);
  const corner = (side: 0 | 1): [string, string] =>
    across.map((a) => length(spans[a][side] + (side ? 1 : -1) * 0.1 * Math.max(...across.map((c) => size[c])))) as [string, string];
  return {
    name: freeName(d, 'sections', 'section1'),
    normal: 'xyz'[normal] as 'x',
    at: length((spans[normal][0] + spans[normal][1]) / 2),
    from: corner(0),
    to: corner(1),
    edges: ['electric', 'electric', 'electric', 'electric'],
    modes: '2',
    frequency: `(${d.solve.from} + ${d.solve.to}) / 2`,
    near: '0',
    bend: '0 mm',
    about: 'first',
    grid: 'automatic',
    perWavelength: '20',
    cell: ['0.1 mm', '0.1 mm'],
    boxes: [],
  };
}
