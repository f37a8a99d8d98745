import { atFrequencies, axes, type Project, projectTexts, type Recorder } from '@jadebell/core/document';
import { type AnyRecorderKind, recorderKinds, type Surroundings } from '@jadebell/core/recorders';
import { freeName } from '../project/edits.ts';
import { useModel } from '../project/model.ts';

/** The region, with what lies behind planes of symmetry: recorders are meant for the whole. */
function region({ symmetry }: Project): { min: number[]; max: number[] } {
  const { min, max } = useModel.getState().view.region ?? { min: [-5e-3, -5e-3, 0], max: [5e-3, 5e-3, 0] };
  return { min: min.map((m, a) => (symmetry?.[axes[a]] ? 2 * m - max[a] : m)), max };
}

/** The model around a new recorder. Lengths are in millimetres to a millionth of the region, so that a middle that is zero reads so. */
function surroundings(d: Project): Surroundings {
  const { min, max } = region(d);
  const grain = 10 ** Math.floor(Math.log10(Math.max(...max.map((m, a) => m - min[a]))) - 6);
  const mm = (x: number): string => `${Number((Math.round(x / grain) * grain * 1e3).toPrecision(7)) || 0} mm`;
  const { bodies } = useModel.getState().view;
  const looked = new Set(projectTexts({ recorders: d.recorders }, 'line').map((e) => e.text));
  const lines = [...new Set(bodies.map((b) => b.line))];
  return {
    at: (axis, where) => mm({ low: min[axis], middle: (min[axis] + max[axis]) / 2, high: max[axis] }[where]),
    lines: [...lines.filter((l) => !looked.has(l)), ...lines.filter((l) => looked.has(l))],
    wires: bodies.filter((b) => b.wire).map((b) => b.name),
  };
}

/** Gives the project a frequency to record at, the middle of its band, where it has none and some recorder wants one. */
export const withFrequency = (d: Project): Project =>
  d.recordAt.length || !d.recorders.some(atFrequencies) ? d : { ...d, recordAt: [`(${d.solve.from} + ${d.solve.to}) / 2`] };

/** Kinds of recorders that the project's solver keeps and of which it may have one more. */
export const addableRecorders = (d: Project): AnyRecorderKind[] =>
  recorderKinds.filter((kind) => kind.solvers.includes(d.solve.solver) && !(kind.single && d.recorders.some((r) => r.kind === kind.kind)));

/** Adds a recorder of a kind with values that suit the model. */
export const withRecorder = (d: Project, kind: AnyRecorderKind): Project => {
  const made = kind.make(freeName(d, 'recorders', kind.stem), surroundings(d)) as Recorder;
  return withFrequency({ ...d, recorders: [...d.recorders, made] });
};
