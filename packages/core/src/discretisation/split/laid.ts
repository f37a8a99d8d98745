import type { Point3 } from '../../document/index.ts';
import { type Body, type Filled, type FilledOverBand, Filling } from '../../geometry/index.ts';
import type { Grid } from '../../grid/index.ts';
import type { Axis } from '../../numerics/axis.ts';
import { cutters } from '../cutCells.ts';
import { faceName, shifted } from '../enlarge.ts';
import type { Media } from '../media.ts';
import { nodesAround } from '../nodeRegion.ts';
import { Plate } from './plate.ts';

/** Nodes this close to a sheet lie on it, as a part of the longest edge across it. */
export const onSheet = 0.002;

const tilted = (b: Body): boolean => b.shape.form === 'tilted sheet' && b.material.kind === 'conductor';
/** Whether sheets of metal of a scene stand across no axis, so that they split cells. */
export const splitsCells = (scene: Filled): boolean => scene.bodies.some(tilted);

/** Sheets across no axis as they lie on a grid: which nodes they hold, and which edges they cross or cover. */
export class Laid {
  readonly plates: Plate[];
  protected readonly lo: number[];
  protected readonly size: number[];
  protected readonly strides: number[];
  /** Plates that hold a node, and where plates cross an edge, as parts of its length; edges that lie in one. Keys: place, that of edges with the component. */
  protected readonly nodes = new Map<number, number[]>();
  protected readonly crossings = new Map<number, { plate: number; t: number }[]>();
  protected readonly lying = new Map<number, { plate: number; from: number; to: number }[]>();
  protected readonly filling: Filling;

  constructor(
    protected readonly scene: FilledOverBand & { boundaries?: readonly string[] },
    protected readonly grid: Grid,
    protected readonly media: Media,
  ) {
    this.plates = scene.bodies.flatMap((b, n) => (tilted(b) ? [new Plate(b, media.conductor[media.ofBody[n]])] : []));
    ({ lo: this.lo, size: this.size } = nodesAround([...scene.bodies.filter(tilted), ...cutters(scene)], scene, grid));
    this.strides = [1, this.size[0], this.size[0] * this.size[1]];
    this.filling = new Filling(scene.bodies, media.ofBody, scene);
    this.plates.forEach((_, p) => this.lay(p));
  }

  /** Whether a sheet meets the outline of a face, so that it may part it. */
  meets(n: Axis, at: readonly number[]): boolean {
    const [u, v] = [(n + 1) % 3, (n + 2) % 3] as [Axis, Axis];
    const [beyondU, beyondV] = [shifted(at, u, 1), shifted(at, v, 1)];
    return (
      [at, beyondU, beyondV, shifted(beyondU, v, 1)].some((p) => this.inside(p) && this.nodes.has(this.key(p))) ||
      ([[u, at], [v, at], [u, beyondV], [v, beyondU]] as const).some(([c, p]) => this.inside(p) && this.crossings.has(this.edgeKey(c, p))) // prettier-ignore
    );
  }

  /** Whether a sheet holds or touches a node. */
  touchesNode = (at: readonly number[]): boolean => this.inside(at) && this.nodes.has(this.key(at));

  protected get count(): number {
    return this.size[0] * this.size[1] * this.size[2];
  }
  protected key = (at: readonly number[]): number => at.reduce((sum, x, a) => sum + (x - this.lo[a]) * this.strides[a], 0);
  protected edgeKey = (c: Axis, at: readonly number[]): number => c * this.count + this.key(at);
  protected placeOf = (key: number): Point3 => [0, 1, 2].map((a) => this.lo[a] + (Math.floor(key / this.strides[a]) % this.size[a])) as Point3;
  protected inside = (at: readonly number[]): boolean => at.every((x, a) => x >= this.lo[a] && x < this.lo[a] + this.size[a]);

  /** Whether a face lies behind a wall that has a cell behind it. */
  behindFace = (n: Axis, at: readonly number[]): boolean => this.behind(null, at, n);

  /** Whether an edge or face lies behind a wall that has a cell behind it, which holds an image. */
  protected behind(between: Axis | null, at: readonly number[], flat: Axis | null = null): boolean {
    const { boundaries = [] } = this.scene;
    return at.some((x, a) => {
      const [low, high] = [0, 1].map((s) => (!boundaries[2 * a + s] || boundaries[2 * a + s] === 'open' ? 0 : this.grid.outerCells[2 * a + s]));
      const last = this.grid.lines[a].length - 1 - high;
      const half = between === a || (flat !== null && flat !== a);
      return x < low || x > last || (half && x === last);
    });
  }

  /** Where a node stands; beyond the region bodies go on as they end there. */
  where(at: readonly number[]): Point3 {
    return at.map((x, a) => this.filling.clamp(a as Axis, this.grid.lines[a][x])) as Point3;
  }

  /** Takes down where a plate meets the grid. */
  protected lay(p: number): void {
    const plate = this.plates[p];
    const distance = new Float64Array(this.count);
    const inPlane = new Uint8Array(this.count);
    const { lines } = this.grid;
    for (let key = 0; key < distance.length; key++) {
      const at = this.placeOf(key);
      const d = plate.distance(this.where(at));
      const longest = Math.max(
        ...at.map(
          (x, a) =>
            Math.abs(plate.normal[a]) *
            Math.max(x > 0 ? lines[a][x] - lines[a][x - 1] : 0, x + 1 < lines[a].length ? lines[a][x + 1] - lines[a][x] : 0),
        ),
      );
      // Beside the sheet, in its plane, a node lies on one side or the other.
      inPlane[key] = Math.abs(d) <= onSheet * longest ? 1 : 0;
      if (inPlane[key] && plate.holds(this.where(at), onSheet * longest)) add(this.nodes, key, p);
      else distance[key] = d || Number.MIN_VALUE;
    }
    for (const c of [0, 1, 2] as const)
      for (let key = 0; key < distance.length; key++) {
        const at = this.placeOf(key);
        if (at[c] + 1 >= this.lo[c] + this.size[c]) continue;
        const [d0, d1] = [distance[key], distance[key + this.strides[c]]];
        const [a, b] = [this.where(at), this.where(shifted(at, c, 1))];
        if (inPlane[key] && inPlane[key + this.strides[c]]) {
          const spans = plate.along(a, b.map((x, i) => x - a[i]) as Point3);
          for (let s = 0; s < spans.length; s += 2)
            if (spans[s + 1] - spans[s] > onSheet) add(this.lying, this.edgeKey(c, at), { plate: p, from: spans[s], to: spans[s + 1] });
        } else if (d0 * d1 < 0) {
          const t = d0 / (d0 - d1);
          if (plate.holds(a.map((x, i) => x + t * (b[i] - x)) as Point3)) add(this.crossings, this.edgeKey(c, at), { plate: p, t });
        }
      }
  }

  protected eachFace(n: Axis, visit: (at: Point3) => void): void {
    const seen = new Set<string>();
    const [u, v] = [(n + 1) % 3, (n + 2) % 3] as [Axis, Axis];
    const look = (at: Point3): void => {
      const name = faceName(n, at);
      if (seen.has(name)) return;
      seen.add(name);
      const far = shifted(shifted(at, u, 1), v, 1);
      if (this.inside(at) && this.inside(far) && !this.behind(null, at, n)) visit(at);
    };
    for (const key of this.crossings.keys()) {
      const c = Math.floor(key / this.count) as Axis;
      if (c === n) continue;
      const at = this.placeOf(key % this.count);
      const other = (3 - n - c) as Axis;
      look(at);
      look(shifted(at, other, -1) as Point3);
    }
    for (const key of this.nodes.keys()) {
      const at = this.placeOf(key);
      for (const du of [0, -1]) for (const dv of [0, -1]) look(shifted(shifted(at, u, du), v, dv) as Point3);
    }
  }

  /** Mark of the metal at a place: 0 none, 1 perfect, otherwise 1 + class. */
  markAt([x, y, z]: Point3): number {
    const out = new Uint16Array(1);
    this.filling.row(y, z, Float64Array.of(this.filling.clamp(0, x)), out);
    return this.media.conductor[out[0]];
  }
}

function add<K, V>(map: Map<K, V[]>, key: K, value: V): void {
  const known = map.get(key);
  if (known) known.push(value);
  else map.set(key, [value]);
}
