import type { Body } from '../../geometry/index.ts';
import type { Grid } from '../../grid/index.ts';
import { c0 } from '../../numerics/constants.ts';
import type { SceneSection } from '../../scene/index.ts';
import type { Filled } from '../../geometry/index.ts';
import { CutCells, cutsCells } from '../../discretisation/cutCells.ts';
import { Cuts } from '../../discretisation/cuts.ts';
import { EdgeRows } from '../../discretisation/rows.ts';
import { blendsCells, Subpixel } from '../../discretisation/subpixel.ts';
import { absorberStrength, closeWalls, type Section, type Walls } from '../modes/index.ts';
import { type SectionGrid, sliceOf } from './sectionGrid.ts';
import { sectionMedia } from './sectionMedia.ts';

/** A section with what stands on it. */
export interface FilledSection {
  section: Section;
  /** Metal marks of edges along u and v, as in sectionMedia; 0 where free or a wall of the section. */
  metal: { u: Uint16Array; v: Uint16Array };
  /** Length of curved metal in each cell that it cuts, metres, and its mark. */
  cut: { length: Float64Array; mark: Uint16Array } | null;
  /** The bodies that the plane meets, to which marks point. */
  bodies: Body[];
}

/**
 * Averages the bodies onto the edges of a section's grid at a frequency, as the time-domain solver does: harmonic along an edge,
 * arithmetic across, second-order averages at curved faces (their diagonal), curved metal by cut cells.
 */
export function fillSection(all: readonly Body[], s: SceneSection, g: SectionGrid, frequency = s.frequency): FilledSection {
  const slice = sliceOf(all, s, g.depth);
  const bodies = slice.bodies.map((b) => all.find((a) => a.name === b.name)!);
  const filled: Filled = { ...slice, bodies };
  const lines: [Float64Array, Float64Array, Float64Array] = [new Float64Array(0), new Float64Array(0), new Float64Array(0)];
  const [u, v] = g.axes;
  const n = s.normal;
  lines[u] = g.u;
  lines[v] = g.v;
  lines[n] = Float64Array.of(s.at - g.depth, s.at, s.at + g.depth);
  const grid: Grid = { lines, outerCells: [0, 0, 0, 0, 0, 0], cellsPerWavelength: 0, unsnapped: g.unsnapped };
  const width = g.u.length;
  const size = width * g.v.length;
  const floats = (): Float64Array => new Float64Array(size);
  const section: Section = { u: g.u, v: g.v, eu: floats(), ev: floats(), ew: floats() };
  const loss = { u: floats(), v: floats(), w: floats() };
  const metal = { u: new Uint16Array(size), v: new Uint16Array(size) };
  const curvedMetal = cutsCells(filled);
  const [lu, lv] = [floats().fill(1), floats().fill(1)];
  let cuts: CutCells | null = null;
  let lossy = false;
  for (const c of [u, v, n]) {
    const media = sectionMedia(bodies, frequency, c);
    if (curvedMetal) cuts ??= new CutCells(filled, grid, media);
    const subpixel = blendsCells(filled) ? new Subpixel(filled, grid, [media]) : null;
    const rows = new EdgeRows(filled, grid, [media], cuts && new Cuts(cuts, null, null, grid), subpixel);
    const [to, lost, marks, free] = c === u ? [section.eu, loss.u, metal.u, lu] : c === v ? [section.ev, loss.v, metal.v, lv] : [section.ew, loss.w, null, null]; // prettier-ignore
    const from = [0, 0, 0];
    const until = lines.map((l) => l.length);
    from[n] = c === n ? 0 : 1;
    until[n] = from[n] + 1;
    for (const a of [u, v]) if (c === a) until[a]--;
    for (let k = from[2]; k < until[2]; k++) {
      subpixel?.plane(Math.min(k, lines[2].length - 2));
      for (let j = from[1]; j < until[1]; j++) {
        const row = rows.at(c, j, k);
        for (let i = from[0]; i < until[0]; i++) {
          const at = [i, j, k];
          const p = at[v] * width + at[u];
          if (!row.mixed) {
            to[p] = 1;
            continue;
          }
          const mark = row.metal[i] || row.sheet[i];
          if (marks) marks[p] = mark;
          if (mark) continue;
          to[p] = row.re[i];
          lost[p] = row.loss[i];
          lossy ||= row.loss[i] !== 0;
          if (free && row.free) free[p] = row.free[i];
        }
      }
    }
  }
  closeWalls(section, wallsOf(s, g));
  let cut: FilledSection['cut'] = null;
  if (cuts) {
    const shape = cuts;
    const found = { length: floats(), mark: new Uint16Array(size) };
    cut = found;
    section.lu = lu;
    section.lv = lv;
    section.area = Float64Array.from({ length: size }, (_, p) => {
      const at = [0, 0, 0];
      at[u] = p % width;
      at[v] = Math.floor(p / width);
      at[n] = 1;
      if (at[u] + 1 >= width || at[v] + 1 >= g.v.length) return 0;
      const wall = shape.wall(n, at);
      if (wall) [found.length[p], found.mark[p]] = [wall.length, wall.mark];
      return shape.area(n, at);
    });
  }
  if (lossy) section.loss = loss;
  absorb(section, g, frequency);
  if (s.bend) {
    const axis = s.axes[s.bend.axis] === u ? 'u' : 'v';
    section.bend = { axis, radius: s.bend.radius, at: (s.min[s.bend.axis] + s.max[s.bend.axis]) / 2 };
  }
  return { section, metal, cut, bodies };
}

/** Walls on the solver's u and v; behind open edges stands metal, which what is left of a wave meets. */
function wallsOf(s: SceneSection, g: SectionGrid): Walls {
  const of = (a: number, side: 0 | 1): 'electric' | 'magnetic' =>
    s.edges[2 * s.axes.indexOf(a as 0) + side] === 'magnetic' ? 'magnetic' : 'electric';
  return [of(g.axes[0], 0), of(g.axes[0], 1), of(g.axes[1], 0), of(g.axes[1], 1)];
}

function absorb(section: Section, g: SectionGrid, frequency: number): void {
  if (!g.layers.some((l) => l > 0)) return;
  const thickness = g.layers.map((layers, side) => {
    const x = side < 2 ? g.u : g.v;
    return side % 2 ? x[x.length - 1] - x[x.length - 1 - layers] : x[layers] - x[0];
  }) as [number, number, number, number];
  // Waves that leave under a flat angle have about half the free wave number across.
  const kt = (Math.PI * frequency) / c0;
  section.absorb = { thickness, strength: thickness.map((t) => (t > 0 ? absorberStrength(kt, t) : 0)) as typeof thickness };
}
