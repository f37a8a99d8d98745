import { axes, needsFrequency, type Project, type Recorder } from '@jadebell/core/document';
import { freeName } from '../project/edits.ts';
import { useModel } from '../project/model.ts';
import { useProject } from '../project/store.ts';

/** Millimetres to a millionth of the region, so that a middle that is zero reads so. */
function mm(x: number): string {
  const { min, max } = region();
  const grain = 10 ** Math.floor(Math.log10(Math.max(...max.map((m, a) => m - min[a]))) - 6);
  return `${Number((Math.round(x / grain) * grain * 1e3).toPrecision(7)) || 0} mm`;
}
/** The region, with what lies behind planes of symmetry: recorders are meant for the whole. */
function region(): { min: number[]; max: number[] } {
  const { min, max } = useModel.getState().view.region ?? { min: [-5e-3, -5e-3, 0], max: [5e-3, 5e-3, 0] };
  const symmetry = useProject.getState().document?.symmetry;
  return { min: min.map((m, a) => (symmetry?.[axes[a]] ? 2 * m - max[a] : m)), max };
}

/** A rectangle across the whole region, at its middle. */
function across(): Pick<Extract<Recorder, { kind: 'flux' }>, 'normal' | 'towards' | 'at' | 'from' | 'to'> {
  const { min, max } = region();
  return { normal: 'z', towards: 'up', at: mm((min[2] + max[2]) / 2), from: [mm(min[0]), mm(min[1])], to: [mm(max[0]), mm(max[1])] };
}

/** The first line with a body that no recorder looks into yet. */
function nextBody({ recorders }: Project): string {
  const lines = [...new Set(useModel.getState().view.bodies.map((b) => b.line))];
  return lines.find((l) => !recorders.some((r) => r.kind === 'energy' && r.body === l)) ?? lines[0] ?? '';
}

/** Kinds of recorders as they are added. */
export const newRecorder: Record<string, { title: string; solver?: Project['solve']['solver']; make(d: Project): Recorder }> = {
  'wire-probe': {
    title: 'current in a wire over the band',
    solver: 'moment',
    make: (d) => ({
      kind: 'wire-probe',
      name: freeName(d, 'recorders', 'probe'),
      wire: useModel.getState().view.bodies.find((b) => b.wire)?.name ?? '',
      at: '0.5',
    }),
  },
  'far-field': { title: 'far field', make: (d) => ({ kind: 'far-field', name: freeName(d, 'recorders', 'pattern'), step: '5 deg' }) },
  'field-plane': {
    title: 'field on a plane',
    make: (d) => ({ kind: 'field-plane', name: freeName(d, 'recorders', 'plane'), normal: 'z', at: '0 mm' }),
  },
  'field-line': {
    title: 'field on a line',
    make: (d) => {
      const { min, max } = region();
      return { kind: 'field-line', name: freeName(d, 'recorders', 'line'), along: 'z', at: ['0 mm', '0 mm'], from: mm(min[2]), to: mm(max[2]) };
    },
  },
  flux: {
    title: 'power through a rectangle',
    make: (d) => ({ kind: 'flux', name: freeName(d, 'recorders', 'power'), ...across() }),
  },
  current: {
    title: 'current through a rectangle',
    make: (d) => ({ kind: 'current', name: freeName(d, 'recorders', 'current'), ...across() }),
  },
  mode: {
    title: 'waves of modes in a rectangle',
    solver: 'fdtd',
    make: (d) => ({ kind: 'mode', name: freeName(d, 'recorders', 'waves'), ...across(), modes: '1' }),
  },
  energy: {
    title: 'energy and loss in a body',
    solver: 'fdtd',
    make: (d) => ({ kind: 'energy', name: freeName(d, 'recorders', 'energy'), body: nextBody(d) }),
  },
  'field-box': {
    title: 'fields in a box',
    make: (d) => {
      const { min, max } = region();
      const corner = (at: number[]): [string, string, string] => [mm(at[0]), mm(at[1]), mm(at[2])];
      return {
        kind: 'field-box',
        name: freeName(d, 'recorders', 'box'),
        from: corner(min),
        to: corner(max),
        fields: 'e',
        components: 'all',
        where: 'nodes',
        every: '1',
      };
    },
  },
  signal: {
    title: 'field over time at a point',
    solver: 'fdtd',
    make: (d) => ({
      kind: 'signal',
      name: freeName(d, 'recorders', 'point'),
      at: ['0 mm', '0 mm', '0 mm'],
      start: '0 ns',
      stop: '0 ns',
      every: '0 ns',
    }),
  },
};

/** Gives the project a frequency to record at, the middle of its band, where it has none and some recorder wants one. */
export const withFrequency = (d: Project): Project =>
  d.recordAt.length || !d.recorders.some(needsFrequency) ? d : { ...d, recordAt: [`(${d.solve.from} + ${d.solve.to}) / 2`] };
