import { type Grid, nearestLine } from '../../grid/index.ts';
import { isSheet, rowSpans } from '../../geometry/index.ts';
import { eta0 } from '../../numerics/constants.ts';
import { dielectricsOf } from './materials.ts';
import { mediumAt } from './recordedEnergy.ts';
import type { ResultArray, ResultMeta } from '../../results/index.ts';
import { frequenciesOf, imageSign, numbersOf, type Scene, type SceneFieldBox } from '../../scene/index.ts';
import type { TotalBox } from './discreteWave.ts';
import { isHalf, type Region, type RegionSums } from './recording.ts';
import { blockValues, planVolume, type VolumePlan } from './recordedVolume.ts';

type Index = [number, number, number];
type Sums = (region: number) => RegionSums;

/** A place along an axis at which fields are told: the samples that make it up, from fields half a cell off its nodes and from those on them. */
interface Place {
  at: number;
  /** Behind a plane of symmetry: the image of the place whose samples are taken. */
  image: boolean;
  half: [index: number, weight: number][];
  node: [index: number, weight: number][];
}

export interface BoxPlan {
  recorder: SceneFieldBox;
  volume: VolumePlan;
  places: [Place[], Place[], Place[]];
}

/** Interpolates straight to a node, or to the middle of the cell after it. */
function placeAt(x: Float64Array, i: number, centre: boolean): Omit<Place, 'image'> {
  if (centre) return { at: (x[i] + x[i + 1]) / 2, half: [[i, 1]], node: [[i, 0.5], [i + 1, 0.5]] }; // prettier-ignore
  if (i === 0) return { at: x[i], half: [[0, 1]], node: [[i, 1]] };
  if (i === x.length - 1) return { at: x[i], half: [[i - 1, 1]], node: [[i, 1]] };
  const above = (x[i] - x[i - 1]) / (x[i + 1] - x[i - 1]);
  return { at: x[i], half: [[i - 1, 1 - above], [i, above]], node: [[i, 1]] }; // prettier-ignore
}

/** Adds the regions of a box: the part of it that is computed, with images behind planes of symmetry told from it. */
export function planBox(scene: Scene, grid: Grid, r: SceneFieldBox, regions: Region[], total?: TotalBox): BoxPlan {
  const lo: number[] = [];
  const hi: number[] = [];
  const places = ([0, 1, 2] as const).map((a): Place[] => {
    const x = grid.lines[a];
    const most = [total?.lo[a] ?? grid.pml[2 * a], total?.hi[a] ?? x.length - 1 - grid.pml[2 * a + 1]];
    const node = (at: number): number => Math.min(Math.max(nearestLine(x, at), most[0]), most[1]);
    const plane = scene.mirrors?.[a]?.at;
    const [min, max] = [r.min[a], r.max[a]];
    const folded = (at: number): number => (plane !== undefined && at < plane ? 2 * plane - at : at);
    const across = plane !== undefined && min < plane && max > plane;
    const ends = [folded(min), folded(max)];
    lo[a] = node(across ? plane : Math.min(...ends));
    hi[a] = node(Math.max(...ends));
    const flat = lo[a] === hi[a];
    const centre = r.centres && !flat;
    const found: Omit<Place, 'image'>[] = [];
    for (let i = lo[a]; i <= hi[a] - (centre ? 1 : 0); i += r.every) found.push(placeAt(x, i, centre));
    if (plane === undefined || min >= plane) return found.map((p) => ({ ...p, image: false }));
    const images = found.map((p): Place => ({ ...p, at: 2 * plane - p.at, image: true })).reverse();
    if (!across) return images;
    const slack = 1e-9 * (x[x.length - 1] - x[0]);
    return [...images.filter((p) => p.at < plane - slack), ...found.map((p) => ({ ...p, image: false }))].filter(
      (p) => p.at >= min - slack && p.at <= max + slack,
    );
  }) as BoxPlan['places'];
  const fields = [...(r.electric ? [0, 1, 2] : []), ...(r.magnetic ? [3, 4, 5] : [])].filter((f) => r.only === undefined || f % 3 === r.only);
  return { recorder: r, places, volume: planVolume(grid, fields, lo as Index, hi as Index, regions) };
}

/** Adds the fields in boxes to a result's arrays and tells what they hold. */
export function boxArrays(
  plans: readonly BoxPlan[],
  scene: Scene,
  sums: Sums,
  scales: readonly [number, number][],
  arrays: Record<string, ResultArray>,
): NonNullable<ResultMeta['fieldBoxes']> {
  return plans.map(({ recorder, places, volume }) => {
    const { name, electric, magnetic, only, kept } = recorder;
    const numbers = numbersOf(kept, scales.length);
    const [px, py, pz] = places;
    const width = 2 * volume.blocks.length;
    const size = px.length * py.length * pz.length * width;
    const data = new Float32Array(numbers.length * size);
    numbers.forEach((f, n) =>
      volume.blocks.forEach((block, b) => {
        const { field, from, count } = block;
        const { re, im } = blockValues(block, sums, f, scales[f]);
        const c = field % 3;
        const unit = field < 3 ? 1 : 1 / eta0;
        const taps = (p: Place, a: number): Place['half'] => (isHalf(a, field) ? p.half : p.node);
        let out = n * size + 2 * b;
        for (const z of pz)
          for (const y of py)
            for (const x of px) {
              let [sr, si] = [0, 0];
              for (const [k, wz] of taps(z, 2))
                for (const [j, wy] of taps(y, 1))
                  for (const [i, wx] of taps(x, 0)) {
                    const at = ((k - from[2]) * count[1] + j - from[1]) * count[0] + i - from[0];
                    sr += wx * wy * wz * re[at];
                    si += wx * wy * wz * im[at];
                  }
              const sign = [x, y, z].reduce((s, p, a) => (p.image ? s * imageSign(scene.mirrors![a]!.wall, a as 0, c as 0, field > 2) : s), unit);
              data[out] = sign * sr;
              data[out + 1] = sign * si;
              out += width;
            }
      }),
    );
    arrays[`box:${name}`] = { shape: [numbers.length, pz.length, py.length, px.length, width], data };
    const { fill, media } = filling(scene, places, numbers);
    if (fill) arrays[`box:${name}:fill`] = { shape: [pz.length, py.length, px.length], data: fill };
    places.forEach((list, a) => (arrays[`box:${name}:${'xyz'[a]}`] = { shape: [list.length], data: Float64Array.from(list, (p) => p.at) }));
    return { name, electric, magnetic, ...(only === undefined ? {} : { only }), ...(media.length ? { media } : {}), ...frequenciesOf(kept, scene.recordAt) }; // prettier-ignore
  });
}

/** What fills the places of a box: 0 nothing, -1 metal, else the number of a body from 1, and the media of those that occur; null where it is empty. */
function filling(
  scene: Scene,
  places: BoxPlan['places'],
  numbers: readonly number[],
): { fill: Float32Array | null; media: NonNullable<NonNullable<ResultMeta['fieldBoxes']>[number]['media']> } {
  const bodies = scene.bodies.map((body, n) => ({ body, mark: body.material.kind === 'conductor' ? -1 : n + 1 })).filter(({ body }) => !isSheet(body)).sort((p, q) => p.body.order - q.body.order); // prettier-ignore
  const [x, y, z] = places.map((list, a) => list.map((p) => (p.image ? 2 * scene.mirrors![a as 0]!.at - p.at : p.at)));
  const fill = new Float32Array(x.length * y.length * z.length);
  z.forEach((at2, k) =>
    y.forEach((at1, j) => {
      const row = (k * y.length + j) * x.length;
      for (const { body, mark } of bodies) {
        if (at1 < body.min[1] || at1 > body.max[1] || at2 < body.min[2] || at2 > body.max[2]) continue;
        const spans = rowSpans(body.shape, at1, at2);
        for (let s = 0; s < spans.length; s += 2) x.forEach((at0, i) => at0 >= spans[s] && at0 < spans[s + 1] && (fill[row + i] = mark));
      }
    }),
  );
  const present = [...new Set(fill)].filter((m) => m > 0);
  if (!fill.some((m) => m !== 0)) return { fill: null, media: [] };
  const own = ([0, 1, 2] as const).map((a) => dielectricsOf(scene, a));
  const media = present.map((mark) => ({
    mark,
    permittivity: numbers.map((n) =>
      own.flatMap((list) => {
        const medium = list[mark - 1];
        const { re, loss } = medium ? mediumAt(medium, scene.recordAt[n]) : { re: 1, loss: 0 };
        return [re, loss];
      }),
    ),
  }));
  return { fill, media };
}
