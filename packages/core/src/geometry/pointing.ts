import type { Point3 } from '../shapes/index.ts';
import { ExpressionFault, nearestName, type Reference, type Value, valueOf } from '../expressions/index.ts';
import { measuresOf } from './body.ts';
import { exactBounds } from './exact.ts';
import { cornersBetween, edgeRuns } from './naming.ts';
import { originOf, type Item, kindOf, sheetCorners } from './item.ts';
import type { Kernel } from './kernel.ts';
import { curveLength, pointAlong } from './paths.ts';
import type { Origins } from './solids.ts';
import { type Face, type Surface, surfaceOf } from './surface.ts';

/** What can be said of something pointed at: named values, points that have x, y and z, and names inside it. */
interface Pointed {
  numbers: Record<string, () => Value>;
  points: Record<string, () => Point3>;
}

const letters = ['x', 'y', 'z'];
const simple: ReadonlySet<string> = new Set(['box', 'cylinder', 'cone', 'ball', 'prism']);

/** Answers references of expressions from the items of a model. */
export class Pointer {
  constructor(
    private readonly kernel: Kernel,
    private readonly origins: Origins,
    /** Finds an earlier line; throws an ExpressionFault where there is none. */
    private readonly find: (name: string) => Item,
  ) {}

  /**
   * Value of a reference.
   * @throws ExpressionFault that says what is missing and what there is.
   */
  value(reference: Reference): Value {
    const { text } = reference;
    if (reference.of === 'line') {
      const [name, ...rest] = reference.paths[0];
      const item = this.find(name);
      const of = this.aboutItem(item);
      const known = this.read(of, rest);
      if (known !== undefined) return known;
      const face = this.face(item, rest);
      if (face) {
        const value = this.read(aboutFace(face.face), face.rest);
        if (value !== undefined) return value;
      }
      throw new ExpressionFault('reference.unknown', `${text} says nothing known of ${name}.`, this.offer(of, item, rest[0] ?? ''));
    }
    const found = reference.of === 'edge' ? this.edge(reference) : this.corner(reference);
    const value = this.read(found, reference.tail);
    if (value !== undefined) return value;
    throw new ExpressionFault(
      'reference.unknown',
      `${text} lacks what is asked of it.`,
      reference.of === 'edge' ? 'An edge has length, start.x, middle.x and end.x.' : 'A corner has x, y and z.',
    );
  }

  private read({ numbers, points }: Pointed, names: readonly string[]): Value | undefined {
    if (names.length === 1 && Object.hasOwn(numbers, names[0])) return numbers[names[0]]();
    const axis = letters.indexOf(names[names.length - 1]);
    const point = names.slice(0, -1).join('.');
    if (axis < 0 || !Object.hasOwn(points, point)) return undefined;
    return valueOf(points[point]()[axis], 'length');
  }

  private offer({ numbers, points }: Pointed, item: Item, given: string): string {
    const faces = item.solid ? this.surface(item).faces.map((f) => (f.line === item.line ? f.name : `${f.line}.${f.name}`)) : [];
    const near = nearestName(given, [...Object.keys(numbers), ...Object.keys(points), ...faces]);
    const list = [...Object.keys(numbers), ...Object.keys(points).map((p) => `${p}.x`), ...faces.map((f) => `${f}.area`)].slice(0, 14).join(', ');
    return `${near ? `Did you mean ${near}? ` : ''}A ${kindOf(item)} has ${list}.`;
  }

  private surface(item: Item): Surface {
    return surfaceOf(this.kernel, this.origins, item);
  }

  /** What is known of a whole item. */
  private aboutItem(item: Item): Pointed {
    const numbers: Pointed['numbers'] = {};
    const points: Pointed['points'] = {};
    if (item.curve) {
      const { curve } = item;
      const length = (): number => curveLength(curve);
      numbers.length = () => valueOf(length(), 'length');
      points.start = () => curve.points[0];
      points.end = () => curve.points[curve.closed ? 0 : curve.points.length - 1];
      points.middle = () => pointAlong(curve, length() / 2).point;
      curve.marks.forEach((at, i) => (points[`p${i + 1}`] = () => curve.points[at]));
    }
    if (item.frame) {
      const { frame } = item;
      points.origin = () => originOf(frame);
      return { numbers, points };
    }
    const bounds = (): { min: Point3; max: Point3 } => this.bounds(item);
    points.min = () => bounds().min;
    points.max = () => bounds().max;
    points.centre = () => bounds().min.map((m, a) => (m + bounds().max[a]) / 2) as Point3;
    points.size = () => bounds().max.map((m, a) => m - bounds().min[a]) as Point3;
    if (item.solid || item.sheet) {
      numbers.area = () => valueOf(this.surface(item).area, 'area');
      if (item.solid) numbers.volume = () => valueOf(this.surface(item).volume, 'volume');
    }
    sheetCorners(item)?.forEach((p, i) => (points[`p${i + 1}`] = () => p));
    return { numbers, points };
  }

  private bounds(item: Item): { min: Point3; max: Point3 } {
    if (item.members) {
      const all = item.members.map((m) => this.bounds(m));
      if (!all.length) return { min: [0, 0, 0], max: [0, 0, 0] };
      return {
        min: [0, 1, 2].map((a) => Math.min(...all.map((b) => b.min[a]))) as Point3,
        max: [0, 1, 2].map((a) => Math.max(...all.map((b) => b.max[a]))) as Point3,
      };
    }
    if (item.curve) {
      const pick = (f: (...v: number[]) => number): Point3 =>
        [0, 1, 2].map((a) => item.curve!.points.reduce((m, p) => f(m, p[a]), item.curve!.points[0][a])) as Point3;
      return { min: pick(Math.min), max: pick(Math.max) };
    }
    // Simple shapes tell their bounds without being drawn.
    const exact = item.solid?.exact;
    if (exact && simple.has(exact.form)) return exactBounds(exact);
    return measuresOf(item, this.surface(item));
  }

  /** A face by 'face' or 'line.face' at the beginning of names, and what is left of them. */
  private face(item: Item, names: readonly string[]): { face: Face; number: number; rest: string[] } | null {
    if (!item.solid && !item.sheet) return null;
    const { faces } = this.surface(item);
    for (const [n, match] of [
      [2, (f: Face) => f.line === names[0] && f.name === names[1]],
      [1, (f: Face) => f.name === names[0] && (f.line === item.line || faces.filter((g) => g.name === f.name).length === 1)],
    ] as const) {
      const number = faces.findIndex(match);
      if (number >= 0) return { face: faces[number], number, rest: names.slice(n) };
    }
    return null;
  }

  /**
   * The item and face numbers that an edge or corner is between.
   * @throws ExpressionFault where they are too few or too many, or do not meet.
   */
  private between({ paths, text, of }: Reference): { surface: Surface; numbers: number[] } {
    const need = of === 'edge' ? 2 : 3;
    if (paths.length !== need)
      throw new ExpressionFault('reference.faces', `${text} names ${paths.length} faces; ${of === 'edge' ? 'an edge' : 'a corner'} lies between ${need}.`, `Write ${of}(${Array.from({ length: need }, (_, i) => `board.face${i + 1}`).join(', ')}).`); // prettier-ignore
    const item = this.find(paths[0][0]);
    const numbers = paths.map(([name, ...rest]) => {
      if (name !== paths[0][0])
        throw new ExpressionFault('reference.faces', `${text} names faces of ${paths[0][0]} and of ${name}.`, 'Name faces of one body.');
      const found = this.face(item, rest);
      if (!found || found.rest.length)
        throw new ExpressionFault(
          'reference.unknown',
          `${item.line} has no face ${rest.join('.')}.`,
          this.offer(this.aboutItem(item), item, rest[0] ?? ''),
        );
      return found.number;
    });
    return { surface: this.surface(item), numbers };
  }

  private edge(reference: Reference): Pointed {
    const { surface, numbers } = this.between(reference);
    const runs = edgeRuns(surface, numbers[0], numbers[1]);
    const run = runs[reference.nth - 1];
    if (!run)
      throw new ExpressionFault(
        'reference.unknown',
        runs.length ? `These faces meet in ${runs.length} edges, not ${reference.nth}.` : 'These faces do not meet.',
        runs.length ? `Give a number from 1 to ${runs.length}.` : 'Name two faces that touch along an edge.',
      );
    const curve = { points: run, closed: false, marks: [] };
    return {
      numbers: { length: () => valueOf(curveLength(curve), 'length') },
      points: { start: () => run[0], end: () => run[run.length - 1], middle: () => pointAlong(curve, curveLength(curve) / 2).point },
    };
  }

  private corner(reference: Reference): Pointed {
    const { surface, numbers } = this.between(reference);
    const found = cornersBetween(surface, numbers);
    const corner = found[reference.nth - 1];
    if (!corner)
      throw new ExpressionFault(
        'reference.unknown',
        found.length ? `These faces meet in ${found.length} corners, not ${reference.nth}.` : 'These faces do not meet in a corner.',
        found.length ? `Give a number from 1 to ${found.length}.` : 'Name three faces that touch in a point.',
      );
    return { numbers: {}, points: { '': () => corner } };
  }
}

function aboutFace(face: Face): Pointed {
  const { normal } = face;
  return {
    numbers: { area: () => valueOf(face.area, 'area') },
    points: { centre: () => face.centre, ...(normal ? { normal: () => normal } : {}) },
  };
}
