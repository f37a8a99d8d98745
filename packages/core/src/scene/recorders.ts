import { type ChipValues, ownFrequencies, type Place, type Point3, type Problem, problem, type Recorder, recorderChips } from '../document/index.ts';
import { evaluateChips, type Scope } from '../expressions/index.ts';

interface AtFrequencies {
  /** Which of the scene's recorded frequencies it keeps, by their index; absent: all. */
  kept?: number[];
}
export interface SceneFarField extends AtFrequencies {
  kind: 'far-field';
  name: string;
  /** Radians. */
  step: number;
}
export interface SceneFieldPlane extends AtFrequencies {
  kind: 'field-plane';
  name: string;
  normal: 0 | 1 | 2;
  /** Metres. */
  at: number;
  /** Axes on which this is the image of what was asked for. */
  turned?: boolean[];
}
export interface SceneFlux extends AtFrequencies {
  kind: 'flux';
  name: string;
  normal: 0 | 1 | 2;
  /** +1: power counts that flows towards larger coordinates. */
  sign: 1 | -1;
  /** The rectangle; min and max are the same along `normal`. */
  min: Point3;
  max: Point3;
  /** Parts of the whole rectangle, of which this is one; absent: 1. */
  images?: number;
  /** Axes on which this is the image of what was asked for. */
  turned?: boolean[];
}
/** A rectangle like that of a flux. */
export interface SceneCurrent extends Omit<SceneFlux, 'kind'> {
  kind: 'current';
}
export interface SceneFieldLine extends AtFrequencies {
  kind: 'field-line';
  name: string;
  axis: 0 | 1 | 2;
  /** Its place; the entry along its own axis is its beginning. */
  at: Point3;
  /** Metres along its axis. */
  from: number;
  to: number;
  /** Axes on which this is the image of what was asked for. */
  turned?: boolean[];
}
/** A rectangle like that of a flux, in which the waves of so many modes are told apart; those along `sign` are the forward ones. */
export interface SceneModes extends Omit<SceneFlux, 'kind'> {
  kind: 'mode';
  modes: number;
}
/** What is stored and lost in the bodies of a line. */
export interface SceneEnergy extends AtFrequencies {
  kind: 'energy';
  name: string;
  line: string;
}
/** Fields in a box, whose corners may be the same along some axes. */
export interface SceneFieldBox extends AtFrequencies {
  kind: 'field-box';
  name: string;
  min: Point3;
  max: Point3;
  electric: boolean;
  magnetic: boolean;
  /** The component that is kept alone; absent: all three. */
  only?: 0 | 1 | 2;
  /** Interpolated to the middles of the cells; otherwise to the nodes. */
  centres: boolean;
  /** Every so many nodes or cells along each axis. */
  every: number;
}
export interface SceneSignal {
  kind: 'signal';
  name: string;
  at: Point3;
  /** Seconds; 0 for `stop`: the end, for `every`: as close as a result may hold. */
  start?: number;
  stop?: number;
  every?: number;
  /** Axes on which this is the image of what was asked for. */
  turned?: boolean[];
}
/** Current in a wire over the band; the name of the wire, and the share of its length. */
export interface SceneWireProbe {
  kind: 'wire-probe';
  name: string;
  wire: string;
  share: number;
}
export type SceneRecorder =
  | SceneFarField
  | SceneFieldPlane
  | SceneFieldLine
  | SceneFlux
  | SceneCurrent
  | SceneSignal
  | SceneFieldBox
  | SceneModes
  | SceneEnergy
  | SceneWireProbe;

/** Numbers of the frequencies that a recorder keeps, of so many; absent: all. */
export const numbersOf = (kept: readonly number[] | undefined, of: number): readonly number[] => kept ?? Array.from({ length: of }, (_, f) => f);

/** What a result says of a recorder's frequencies: nothing where it keeps all. */
export const frequenciesOf = (kept: readonly number[] | undefined, all: readonly number[]): { frequencies?: number[] } =>
  kept ? { frequencies: kept.map((f) => all[f]) } : {};

const axisOf = (name: 'x' | 'y' | 'z'): 0 | 1 | 2 => 'xyz'.indexOf(name) as 0 | 1 | 2;

/** A recorder in its place, and the frequencies of its own, hertz: none where it has those of the project. */
export interface PlacedRecorder {
  recorder: SceneRecorder;
  own: number[];
}

/** Places a recorder of the document. `bodies` are those that the model has. */
export function resolveRecorder(recorder: Recorder, scope: Scope, bodies: readonly { line: string }[]): PlacedRecorder | { problems: Problem[] } {
  const place: Place = { part: 'recorders', name: recorder.name };
  const { values, problems } = evaluateChips(recorder, recorderChips(recorder), scope, place);
  if (!values) return { problems };
  const found = placed(recorder, values, bodies, place);
  if ('problems' in found) return found;
  return { ...found, own: ownFrequencies(recorder).map((_, i) => values[`frequencies.${i}.0`]) };
}

function placed(
  recorder: Recorder,
  values: ChipValues,
  bodies: readonly { line: string }[],
  place: Place,
): { recorder: SceneRecorder } | { problems: Problem[] } {
  const { kind, name } = recorder;
  switch (kind) {
    case 'far-field':
      if (values.step < Math.PI / 360 || values.step > Math.PI / 6 + 1e-9)
        return { problems: [problem('error', 'recorder.step', { ...place, chip: 'step' }, 'The angular step must lie between 0.5 deg and 30 deg.', 'Take 5 deg if in doubt.')] }; // prettier-ignore
      return { recorder: { kind, name, step: values.step } };
    case 'field-plane':
      return { recorder: { kind, name, normal: axisOf(recorder.normal), at: values.at } };
    case 'field-line': {
      const axis = axisOf(recorder.along);
      const at: Point3 = [0, 0, 0];
      for (const [i, a] of [0, 1, 2].filter((x) => x !== axis).entries()) at[a] = values[`at.${i}`];
      const [from, to] = [Math.min(values.from, values.to), Math.max(values.from, values.to)];
      if (from === to)
        return { problems: [problem('error', 'recorder.flat', { ...place, chip: 'to' }, 'The line has no length.', 'Move one of its ends.')] }; // prettier-ignore
      at[axis] = from;
      return { recorder: { kind, name, axis, at, from, to } };
    }
    case 'mode':
    case 'current':
    case 'flux': {
      const normal = axisOf(recorder.normal);
      const min: Point3 = [values.at, values.at, values.at];
      const max: Point3 = [...min];
      for (const [i, a] of [0, 1, 2].filter((x) => x !== normal).entries()) {
        const [p, q] = [values[`from.${i}`], values[`to.${i}`]];
        [min[a], max[a]] = [Math.min(p, q), Math.max(p, q)];
        if (p === q)
          return { problems: [problem('error', 'recorder.flat', { ...place, chip: `to.${i}` }, `The rectangle has no extent along ${'xyz'[a]}.`, 'Move one of its corners.')] }; // prettier-ignore
      }
      const rectangle = { name, normal, sign: recorder.towards === 'up' ? 1 : -1, min, max } as const;
      return { recorder: kind === 'mode' ? { ...rectangle, kind, modes: values.modes } : { ...rectangle, kind } };
    }
    case 'energy':
      if (!bodies.some((b) => b.line === recorder.body))
        return { problems: [problem('error', 'recorder.body', { ...place, chip: 'body' }, recorder.body ? `There is no body of a line ${recorder.body}.` : 'No body is chosen.', 'Choose a line that makes a body.')] }; // prettier-ignore
      return { recorder: { kind, name, line: recorder.body } };
    case 'wire-probe':
      return { recorder: { kind, name, wire: recorder.wire, share: values.at } };
    case 'field-box': {
      const [p, q] = ['from', 'to'].map((end) => [0, 1, 2].map((a) => values[`${end}.${a}`]));
      const corner = (pick: (...v: number[]) => number): Point3 => p.map((v, a) => pick(v, q[a])) as Point3;
      const { fields, where, components } = recorder;
      return {
        recorder: {
          kind,
          name,
          min: corner(Math.min),
          max: corner(Math.max),
          electric: fields !== 'h',
          magnetic: fields !== 'e',
          ...(components === 'all' ? {} : { only: axisOf(components) }),
          centres: where === 'centres',
          every: values.every,
        },
      };
    }
    case 'signal':
      if (values.stop && values.stop <= values.start)
        return { problems: [problem('error', 'recorder.time', { ...place, chip: 'stop' }, 'The signal ends before it begins.', 'Raise the time until which it is kept, or give 0 ns for the end of the run.')] }; // prettier-ignore
      return {
        recorder: { kind, name, at: [values['at.0'], values['at.1'], values['at.2']], start: values.start, stop: values.stop, every: values.every },
      };
  }
}

/** Recorders that do not lie in the computed region, and where. */
export function recorderOutside(r: SceneRecorder, min: Point3, max: Point3): Problem | null {
  const place: Place = { part: 'recorders', name: r.name };
  const slack = 1e-9 * Math.max(...max.map((m, a) => m - min[a]));
  const out = (x: number, a: number): boolean => x < min[a] - slack || x > max[a] + slack;
  const tell = (what: string, chip: string): Problem =>
    problem('error', 'recorder.outside', { ...place, chip }, `The ${what} lies outside the computed region.`, 'Move it closer to the bodies, or widen the margin.'); // prettier-ignore
  if (r.kind === 'field-plane' && out(r.at, r.normal)) return tell('plane', 'at');
  if (r.kind === 'field-line') {
    const across = [0, 1, 2].filter((a) => a !== r.axis);
    const beside = across.findIndex((a) => out(r.at[a], a));
    if (beside >= 0) return tell('line', `at.${beside}`);
    // What reaches beyond the region is cut off.
    if (r.to <= min[r.axis] || r.from >= max[r.axis]) return tell('line', 'from');
  }
  if (r.kind === 'field-box') {
    const beside = [0, 1, 2].findIndex((a) => (r.min[a] === r.max[a] ? out(r.min[a], a) : r.max[a] <= min[a] || r.min[a] >= max[a]));
    if (beside >= 0) return tell('box', `from.${beside}`);
  }
  if (r.kind === 'flux' || r.kind === 'current' || r.kind === 'mode') {
    if (out(r.min[r.normal], r.normal)) return tell('rectangle', 'at');
    // What reaches beyond the region is cut off; nothing is computed there.
    const across = [0, 1, 2].filter((a) => a !== r.normal);
    const beside = across.findIndex((a) => r.max[a] <= min[a] || r.min[a] >= max[a]);
    if (beside >= 0) return tell('rectangle', `from.${beside}`);
  }
  if (r.kind === 'signal') {
    const a = r.at.findIndex((x, i) => out(x, i));
    if (a >= 0) return tell('point', `at.${a}`);
  }
  return null;
}
