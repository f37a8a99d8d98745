import type { Axis } from '../../../numerics/axis.ts';
import { coefficients, type Discrete, key } from '../discrete.ts';
import { P } from '../../layout.ts';
import { Rows } from '../../rows.ts';
import type { Sheet } from './sheet.ts';

/** Edges along x in one medium with memory. */
interface Run {
  component: number;
  at: [number, number, number];
  count: number;
  kind: number;
}

/** All runs, sorted by row. */
function memoryRuns(d: Discrete): Run[] {
  const runs: Run[] = [];
  for (const { component, j, k, first, classes, level } of d.mediumRows.values())
    for (let i = 0; i < classes.length;) {
      const kind = level?.has(first + i) ? 0 : classes[i];
      let end = i + 1;
      while (end < classes.length && classes[end] === kind && !level?.has(first + end)) end++;
      if (kind && statesOf(d, kind)) runs.push({ component, at: [first + i, j, k], count: end - i, kind });
      i = end;
    }
  return runs.sort((a, b) => a.at[2] - b.at[2] || a.at[1] - b.at[1]);
}
/** States of an edge in a class. */
const statesOf = ({ classes }: Discrete, kind: number): number => classes[kind - 1].real.length + 2 * classes[kind - 1].paired.length;

/** Media with memory and edges that mix at curved surfaces. Gives what each plane has of both. */
export function packMedia(sheet: Sheet): { states: Float64Array; mixed: Float64Array } {
  const { d } = sheet;
  const [, , nz] = sheet.cells;
  const runs = memoryRuns(d);
  packMixing(sheet, packMemories(sheet, runs));
  const [states, mixed] = [new Float64Array(nz + 1), new Float64Array(nz + 1)];
  for (const { at, count, kind } of runs) states[at[2]] += count * statesOf(d, kind);
  for (let n = 0; n < (d.mixing?.count ?? 0); n++) mixed[d.mixing!.index[3 * n + 2]]++;
  return { states, mixed };
}

/** What an edge that mixes remembers: its class, first state, bytes from state to state. */
type Remembered = Map<number, [kind: number, states: number, next: number]>;

function packMemories(sheet: Sheet, runs: readonly Run[]): Remembered {
  const { d, words, arena } = sheet;
  const kinds = d.classes.map((m) => {
    const tail = [...m.real.flat(), ...m.paired.flat(2)];
    const row = new Rows('memoryClass', 1, tail.length);
    row.set(0, { reals: m.real.length, pairs: m.paired.length }, tail);
    return sheet.putRows(row);
  });
  // States stand close together, in the order of the sweep; blocks of four edges on whole vectors.
  const sizes = runs.map(({ count, kind }) => 4 * statesOf(d, kind) * (count === 1 ? 1 : Math.ceil(count / 4) * 4));
  const places: number[] = [];
  let room = 0;
  runs.forEach(({ count }, n) => {
    if (count > 1) room = (room + 15) & ~15;
    places.push(room);
    room += sizes[n];
  });
  const all = arena.take(room + 16);
  const mixing = d.mixing;
  const mixedRows = new Set(mixing ? Array.from({ length: mixing.count }, (_, n) => key(mixing.component[n], mixing.index[3 * n + 1], mixing.index[3 * n + 2])) : []); // prettier-ignore
  const remembered: Remembered = new Map();
  const rows = new Rows('memoryRun', runs.length);
  runs.forEach(({ component, at, count, kind }, n) => {
    const next = count === 1 ? 4 : 16;
    const block = count === 1 ? sizes[n] : sizes[n] / Math.ceil(count / 4);
    const states = all + places[n];
    const field = sheet.address(component, at);
    rows.set(n, { field, kind: kinds[kind - 1], count, states });
    if (mixedRows.has(key(component, at[1], at[2])))
      for (let i = 0; i < count; i++) remembered.set(field + 4 * i, [kinds[kind - 1], states + block * (i >> 2) + 4 * (i & 3), next]);
  });
  words[P.MEMORY] = runs.length ? sheet.putRows(rows) : 0;
  words[P.MEMORY_START] = runs.length ? sheet.put(sheet.rowStarts(runs.map((r) => [r.at[1], r.at[2]]))) : 0;
  return remembered;
}

/** Edges at curved dielectric surfaces. Within the layers their shares lack the layers' memory. */
function packMixing(sheet: Sheet, remembered: Remembered): void {
  const { d, words, factors, strides } = sheet;
  const { mixing } = d;
  const count = mixing?.count ?? 0;
  const rows = new Rows('mixedEdge', count);
  for (let n = 0; n < count; n++) {
    const a = mixing!.component[n] as Axis;
    const [b, c] = [(a + 1) % 3, (a + 2) % 3] as [Axis, Axis];
    const at = mixing!.index.subarray(3 * n, 3 * n + 3);
    const [ca, cb] = coefficients(d, a, at);
    const field = sheet.address(a, at);
    const [kind = 0, states = 0, next = 0] = remembered.get(field) ?? [];
    rows.set(n, {
      field,
      p: sheet.address(3 + c, at),
      backP: strides[b],
      q: sheet.address(3 + b, at),
      backQ: strides[c],
      less: ca - 1,
      driveP: cb * factors[b].eInverse[at[b]],
      driveQ: cb * factors[c].eInverse[at[c]],
      first: mixing!.start[n],
      end: mixing!.start[n + 1],
      kind,
      states,
      next,
    });
  }
  const links = new Rows('mixLink', mixing?.other.length ?? 0);
  mixing?.other.forEach((edge, l) => links.set(l, { edge, factor: mixing.factor[l] }));
  words[P.MIX_COUNT] = count;
  words[P.MIX] = sheet.putRows(rows);
  words[P.MIX_LINKS] = sheet.putRows(links);
  words[P.MIX_START] = sheet.put(sheet.rowStarts(Array.from({ length: count }, (_, n) => [mixing!.index[3 * n + 1], mixing!.index[3 * n + 2]])));
}
