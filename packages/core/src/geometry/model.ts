import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import { sha256 } from '@noble/hashes/sha2.js';
import {
  atPath,
  type Chip,
  type ChipValues,
  conductorChoice,
  type ConductorChoice,
  type Place,
  type Problem,
  problem,
  type Part,
  type Accepts,
  referenceFits,
  wantedBy,
} from '../entries/index.ts';
import { type Line, type ModelSource, type Point3, type Samples, shapeOf } from '../shapes/index.ts';
import { chipText, evaluateChips, ExpressionFault, nearestName, sampleExpression, Scope } from '../expressions/index.ts';
import { findMaterial } from '../materials/index.ts';
import { type Affine, FlatMapError } from '../numerics/affine.ts';
import { type Body, measuresOf } from './body.ts';
import { GeometryFault } from './fault.ts';
import { type Item, kindOf, sheetCorners } from './item.ts';
import type { Kernel } from './kernel.ts';
import { type BuildContext, type BuildResult, makers, placed, worldForms } from './makers/index.ts';
import type { Maker } from './makers/maker.ts';
import { Pointer } from './pointing.ts';
import { Origins, release } from './solids.ts';
import { surfaceOf } from './surface.ts';

/** A curve of the model, for drawing and picking. */
export interface ModelCurve {
  name: string;
  id: number;
  edges: Float32Array;
  /** Points that the user gave. */
  corners: Point3[];
}

/** The evaluated structure: every good line as bodies, curves or frames, every bad one as problems. */
export interface Model {
  scope: Scope;
  bodies: Body[];
  curves: ModelCurve[];
  frames: { name: string; matrix: Affine }[];
  /** Numbers of the chips of each line that has them all, in SI. */
  values: Record<string, ChipValues>;
  /** What each line became, for choosing what a reference may point at. */
  kinds: Record<string, 'solid' | 'sheet' | 'curve' | 'frame' | 'group'>;
  problems: Problem[];
}

/** Evaluations after which an item that was not used again is given back. */
const generations = 40;
const fewGenerations = 2;

/** Items by what they were made from, so that only lines whose numbers changed are built again. Holds memory of the kernel: `dispose` it. */
export class ModelCache {
  readonly origins = new Origins();
  private readonly items = new Map<string, { item: Item; used: number }>();
  private now = 0;
  private ids = 0;

  /** Begins an evaluation of so many lines: what was not used for long goes, and sooner where much has gathered, as while a dial is turned. */
  begin(lines: number): void {
    this.now++;
    const most = this.items.size > 4 * lines + 200 ? fewGenerations : generations;
    for (const [key, entry] of this.items)
      if (this.now - entry.used > most) {
        this.release(entry.item);
        this.items.delete(key);
      }
  }

  nextId(): number {
    return ++this.ids;
  }

  get(key: string): Item | undefined {
    const entry = this.items.get(key);
    if (entry) entry.used = this.now;
    return entry?.item;
  }

  set(key: string, item: Item): void {
    this.items.set(key, { item, used: this.now });
  }

  /** Number of items kept. */
  get size(): number {
    return this.items.size;
  }

  /** Gives back the kernel's memory. What was built on the item cannot be asked for again, as its own key names the item. */
  private release(item: Item): void {
    if (item.solid) release(item.solid);
    item.meshes?.forEach((id) => this.origins.delete(id));
    item.members?.forEach((m) => this.release(m));
  }

  dispose(): void {
    for (const { item } of this.items.values()) this.release(item);
    this.items.clear();
    this.origins.clear();
  }
}

interface LineChips {
  chips: Chip[];
  /** Those that are one number, and their expressions. */
  plain: Chip[];
  texts: string[];
}

/** Chips of a line; a line that has not been edited is the same object, so they are found once. */
function chipsOf(line: Line): LineChips {
  let found = knownChips.get(line);
  if (!found) {
    const chips = shapeOf(line).chips(line);
    const plain = chips.filter((c) => !c.over);
    found = { chips, plain, texts: plain.map((c) => chipText(line, c)) };
    knownChips.set(line, found);
  }
  return found;
}
/** A line as text, without what has no effect on its shape. */
function textOf(line: Line): string {
  let text = knownTexts.get(line);
  if (text === undefined) {
    text = JSON.stringify({ ...line, note: undefined });
    knownTexts.set(line, text);
  }
  return text;
}
const knownTexts = new WeakMap<Line, string>();

/** What an imported part holds, as a digest: parts of like length and end may differ anywhere. */
function digestOf(part: Part): string {
  let digest = knownDigests.get(part);
  if (digest === undefined) knownDigests.set(part, (digest = bytesToHex(sha256(utf8ToBytes(part.data)))));
  return digest;
}
const knownDigests = new WeakMap<Part, string>();
const knownChips = new WeakMap<Line, LineChips>();

/** One evaluation: lines and parameters are evaluated when they are asked for, each once. */
class Evaluation {
  readonly problems: Problem[] = [];
  readonly scope: Scope;
  readonly values: Record<string, ChipValues> = {};
  private readonly names = new Map<string, number>();
  private readonly results = new Map<number, Item | null>();
  private readonly open = new Set<number>();
  private readonly members = new Map<string, Item>();
  private readonly muted: boolean[];
  private readonly pointer: Pointer;
  /** Lines from this one on cannot be pointed at. */
  private limit = Infinity;

  constructor(
    private readonly project: ModelSource,
    private readonly kernel: Kernel,
    private readonly cache: ModelCache,
  ) {
    project.lines.forEach((l, i) => this.names.set(l.name, i));
    let section = false;
    this.muted = project.lines.map((l) => {
      if (l.kind === 'section') section = l.muted === true;
      return section || l.muted === true;
    });
    this.scope = new Scope(project);
    this.pointer = new Pointer(kernel, cache.origins, (name) => this.pointedAt(name));
    this.scope.geometry = (reference) => this.pointer.value(reference);
  }

  isMuted(index: number): boolean {
    return this.muted[index];
  }

  /** Index of a line, also of one that made the separate body of this name. */
  private indexOf(name: string): number | undefined {
    const own = this.names.get(name);
    if (own !== undefined) return own;
    const stem = /^(.+)_\d+$/.exec(name)?.[1];
    return stem === undefined ? undefined : this.names.get(stem);
  }

  /**
   * The item of a name, for an expression.
   * @throws ExpressionFault where there is none.
   */
  private pointedAt(name: string): Item {
    const index = this.indexOf(name);
    if (index === undefined) {
      const near = nearestName(name, this.names.keys());
      throw new ExpressionFault('reference.no-line', `There is no line named ${name}.`, near ? `Did you mean ${near}?` : 'Name an earlier line.');
    }
    if (index >= this.limit)
      throw new ExpressionFault('reference.later', `${name} comes later in the ledger.`, 'Point at an earlier line, or move this one down.');
    if (this.open.has(index))
      throw new ExpressionFault('expression.cycle', `${name} needs this value itself.`, 'Break the circle with a value of its own.');
    const item = this.line(index) && this.item(name);
    if (!item)
      throw new ExpressionFault(
        'reference.failed',
        this.muted[index] ? `${name} is muted.` : `${name} makes no body.`,
        this.muted[index] ? 'Let it sound again, or point at another line.' : `Mend ${name} first.`,
      );
    return item;
  }

  private item(name: string): Item | null {
    const index = this.names.get(name);
    return index !== undefined ? (this.results.get(index) ?? null) : (this.members.get(name) ?? null);
  }

  /** Evaluates a line once. */
  line(index: number): Item | null {
    const done = this.results.get(index);
    if (done !== undefined) return done;
    this.open.add(index);
    const outer = this.limit;
    this.limit = index;
    const item = this.muted[index] ? null : this.evaluate(this.project.lines[index], index);
    this.limit = outer;
    this.open.delete(index);
    this.results.set(index, item);
    item?.members?.forEach((m, i) => this.members.set(`${item.line}_${i + 1}`, m));
    return item;
  }

  private evaluate(line: Line, index: number): Item | null {
    const shape = shapeOf(line);
    const place: Place = { part: 'lines', name: line.name };
    const fail = (code: string, chip: string | undefined, message: string, fix: string): null => {
      this.problems.push(problem('error', code, chip === undefined ? place : { ...place, chip }, message, fix));
      return null;
    };
    const inputs = this.inputs(line, index, fail);
    const { chips, plain, texts } = chipsOf(line);
    const { values, problems } = evaluateChips(line, plain, this.scope, place, texts);
    this.problems.push(...problems);
    if (values) this.values[line.name] = values;
    if (!values || !inputs) return null;
    const samples = this.samples(line, chips, values, place);
    if (!samples) return null;
    let frame: Item | null = null;
    if (line.in !== undefined) {
      frame = this.input(line.in, index, 'frame', 'in', fail);
      if (!frame) return null;
    }
    const material = line.material ?? (shape.material === 'first' ? (inputs[0]?.item.material ?? null) : null);
    const conductor = conductorChoice(line.conductor, values) ?? (shape.material === 'first' ? (inputs[0]?.item.conductor ?? null) : null);
    const part = 'part' in line ? this.project.parts?.find((p) => p.name === line.part) : undefined;
    // A line, its numbers and what it builds on say all: with the same ones it becomes the same.
    const key = [
      textOf(line),
      material,
      JSON.stringify(conductor),
      Object.values(values).join(),
      Object.values(samples).join(';'),
      frame?.id,
      inputs.map((i) => i.item.id).join(),
      part && digestOf(part),
    ].join('\n');
    const known = this.cache.get(key);
    if (known) return known;
    const recipe = shape.recipe(line, values, samples);
    if ('fault' in recipe) return fail('shape.impossible', recipe.chip, recipe.fault, recipe.fix);
    const bench: BuildContext = {
      kernel: this.kernel,
      origins: this.cache.origins,
      line: line.name,
      inputs,
      frame: frame?.frame ?? null,
      part: (name) => this.project.parts?.find((p) => p.name === name),
    };
    try {
      this.cache.origins.made = [];
      const maker = makers[recipe.form] as Maker<typeof recipe.form>;
      const own = maker(recipe as never, bench);
      const made = frame && !(worldForms.has(recipe.form) && !('path' in recipe)) ? this.moved(own, frame.frame!) : own;
      const item = { ...this.finish(made, line.name, material, conductor), meshes: this.cache.origins.made };
      this.cache.set(key, item);
      return item;
    } catch (error) {
      if (error instanceof GeometryFault) return fail(error.code, error.chip, error.message, error.fix);
      if (error instanceof FlatMapError)
        return fail('shape.impossible', undefined, 'A scale or frame of zero size flattens the body.', 'Give factors above zero.');
      return fail(
        'shape.kernel',
        undefined,
        `The body could not be built: ${(error as Error).message || String(error)}.`,
        'Change its dimensions a little, and tell us if it stays.',
      );
    }
  }

  private moved(own: BuildResult, frame: Affine): BuildResult {
    const made = placed(own, frame);
    if (own.solid) release(own.solid);
    return made;
  }

  private finish(made: BuildResult, line: string, material: string | null, conductor: ConductorChoice | null): Item {
    const { members, ...own } = made;
    return {
      ...own,
      id: this.cache.nextId(),
      line,
      material,
      conductor,
      ...(members ? { members: members.map((m, i) => this.finish(m, `${line}_${i + 1}`, material, conductor)) } : {}),
    };
  }

  /** Values of the expressions that are functions of t. */
  private samples(line: Line, chips: Chip[], values: ChipValues, place: Place): Samples | null {
    const out: Record<string, number[]> = {};
    let good = true;
    for (const chip of chips) {
      if (!chip.over) continue;
      const [from, to, count] = [values[chip.over.from], values[chip.over.to], values[chip.over.count]];
      const found = sampleExpression(String(atPath(line, chip.path)), chip.quantity, this.scope, { ...place, chip: chip.path }, 't', from, to, count);
      if ('problem' in found) {
        this.problems.push(found.problem);
        good = false;
      } else out[chip.path] = found.values;
    }
    return good ? out : null;
  }

  private inputs(line: Line, index: number, fail: (code: string, chip: string, message: string, fix: string) => null): BuildContext['inputs'] | null {
    const out: BuildContext['inputs'] = [];
    let good = true;
    for (const { path, name, accepts } of shapeOf(line).inputs(line)) {
      const item = this.input(name, index, accepts, path, fail);
      const face = accepts === 'any' && typeof atPath(line, path) === 'string' ? String(atPath(line, path)).split('.').slice(1) : undefined;
      if (item) out.push({ path, item, ...(face?.length ? { face } : {}) });
      else good = false;
    }
    return good ? out : null;
  }

  private input(
    name: string,
    index: number,
    accepts: Accepts,
    path: string,
    fail: (code: string, chip: string, message: string, fix: string) => null,
  ): Item | null {
    if (!name) return fail('reference.empty', path, 'Nothing is chosen here yet.', `Choose ${wantedBy(accepts)}.`);
    const at = this.indexOf(name);
    if (at === undefined) {
      const near = nearestName(name, this.names.keys());
      return fail('reference.no-line', path, `There is no line named ${name}.`, near ? `Did you mean ${near}?` : 'Choose an earlier line.');
    }
    if (at >= index)
      return fail('reference.later', path, `${name} does not come before this line.`, 'Choose an earlier line, or move this one down.');
    const item = this.line(at) && this.item(name);
    if (!item)
      return fail('reference.failed', path, this.muted[at] ? `${name} is muted.` : `${name} makes no body.`, this.muted[at] ? 'Let it sound again, or choose another.' : `Mend ${name} first.`); // prettier-ignore
    const kind = kindOf(item);
    if (!referenceFits(accepts, kind)) return fail('reference.kind', path, `${name} is a ${kind}.`, `Choose ${wantedBy(accepts)}.`);
    return item;
  }

  /** Names that later lines have used up. */
  consumed(): Set<string> {
    const used = new Set<string>();
    this.project.lines.forEach((line, i) => {
      if (this.results.get(i)) for (const name of shapeOf(line).consumes(line)) used.add(name);
    });
    return used;
  }

  result(index: number): Item | null {
    return this.results.get(index) ?? null;
  }
}

/** Evaluates parameters and lines to bodies. A line that fails is reported and the others go on as far as they can. */
export function evaluateModel(project: ModelSource, kernel: Kernel, cache?: ModelCache): Model {
  const own = cache ?? new ModelCache();
  own.begin(project.lines.length);
  const run = new Evaluation(project, kernel, own);
  run.scope.evaluateAll();
  project.lines.forEach((line, i) => {
    run.line(i);
    if (!run.isMuted(i) && line.material !== undefined && !findMaterial(project, line.material))
      run.problems.push(
        problem(
          'error',
          'material.unknown',
          { part: 'lines', name: line.name, chip: 'material' },
          `There is no material named ${line.material}.`,
          'Choose one from the library or add it to the project.',
        ),
      );
  });
  const model: Model = { scope: run.scope, bodies: [], curves: [], frames: [], values: run.values, kinds: {}, problems: [] };
  const used = run.consumed();
  const add = (item: Item, name: string, line: Line, order: number): void => {
    model.kinds[name] = kindOf(item);
    if (item.members) {
      item.members.forEach((m, i) => add(m, `${name}_${i + 1}`, line, order));
      return;
    }
    if (item.frame) {
      model.frames.push({ name, matrix: item.frame });
      return;
    }
    if (used.has(name) || used.has(line.name)) return;
    const surface = surfaceOf(kernel, own.origins, item);
    const corners = sheetCorners(item);
    if (item.curve) {
      const { curve } = item;
      model.curves.push({ name, id: item.id, edges: surface.edges, corners: curve.marks.map((i) => curve.points[i]) });
      return;
    }
    const place: Place = { part: 'lines', name: line.name, chip: 'material' };
    const material = item.material === null ? null : findMaterial(project, item.material);
    if (!material) return;
    if (item.sheet && material.kind !== 'conductor')
      run.problems.push(
        problem(
          'error',
          'material.sheet',
          place,
          `${name} has no thickness, so ${item.material} has no effect in it.`,
          'Give the sheet a conductor, or use a box for a layer of dielectric.',
        ),
      );
    model.bodies.push({
      name,
      line: line.name,
      order,
      id: item.id,
      material,
      conductor: item.conductor ?? { perfect: false, thickness: null, sides: 2 },
      ...(corners ? { corners } : {}),
      ...(item.wire ? { wire: item.wire } : {}),
      ...surface,
      ...measuresOf(item, surface),
    });
  };
  project.lines.forEach((line, order) => {
    const item = run.result(order);
    if (item) add(item, line.name, line, order);
  });
  model.problems = [...run.scope.problems, ...run.problems];
  if (!cache) own.dispose();
  return model;
}
