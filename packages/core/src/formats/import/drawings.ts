import { arcPoints, type Point2 } from '../../document/index.ts';
import { parseTable } from '../table.ts';
import { type Entity, readDrawing } from './dxfTags.ts';
import { type Imported, type ImportedLayer, ImportFault, type Importer, type LengthUnit, nothing, textOf } from './importer.ts';

interface Path {
  layer: string;
  points: Point2[];
  closed: boolean;
}
/** Most points that a drawing may have. */
const mostPoints = 1_000_000;

const dxfUnits: Record<number, LengthUnit> = { 1: 'inch', 4: 'mm', 5: 'cm', 6: 'm', 9: 'mil', 12: 'nm', 13: 'um' };

/** Points of an arc given by its chord and bulge, the tangent of a quarter of its angle; the first point is left out. */
function bulged(a: Point2, b: Point2, bulge: number): Point2[] {
  if (Math.abs(bulge) < 1e-9) return [b];
  const angle = 4 * Math.atan(bulge);
  const chord = Math.hypot(b[0] - a[0], b[1] - a[1]);
  if (chord === 0) return [b];
  const radius = chord / 2 / Math.sin(angle / 2);
  const h = radius * Math.cos(angle / 2);
  const centre: Point2 = [(a[0] + b[0]) / 2 - ((b[1] - a[1]) / chord) * h, (a[1] + b[1]) / 2 + ((b[0] - a[0]) / chord) * h];
  const from = Math.atan2(a[1] - centre[1], a[0] - centre[0]);
  const points = arcPoints(centre, Math.abs(radius), from, from + angle).slice(1);
  points[points.length - 1] = b;
  return points;
}

/** Point of a B-spline by de Boor's algorithm. */
function splinePoint(degree: number, knots: readonly number[], control: readonly Point2[], t: number): Point2 {
  let k = degree;
  while (k + 1 < knots.length - degree - 1 && t >= knots[k + 1]) k++;
  const d = Array.from({ length: degree + 1 }, (_, j): Point2 => [...control[k - degree + j]]);
  for (let r = 1; r <= degree; r++)
    for (let j = degree; j >= r; j--) {
      const i = k - degree + j;
      const span = knots[i + degree - r + 1] - knots[i];
      const f = span > 0 ? (t - knots[i]) / span : 0;
      d[j] = [d[j - 1][0] + f * (d[j][0] - d[j - 1][0]), d[j - 1][1] + f * (d[j][1] - d[j - 1][1])];
    }
  return d[degree];
}

/** One entity as a path in its own coordinates, or null for what draws no outline. */
function pathOf(e: Entity): Omit<Path, 'layer'> | null {
  const xy = (p: { x: number; y: number }): Point2 => [p.x, p.y];
  const at = (x: number): Point2 => [e.number(x), e.number(x + 10)];
  const radians = Math.PI / 180;
  switch (e.type) {
    case 'LINE':
      return { points: [at(10), at(11)], closed: false };
    case 'LWPOLYLINE':
    case 'POLYLINE': {
      const v = e.type === 'POLYLINE' ? e.vertices.flatMap((w) => w.points().slice(0, 1)) : e.points();
      if (v.length < 2) return null;
      const points: Point2[] = [xy(v[0])];
      const closed = (e.number(70, 0) & 1) === 1;
      for (let i = 0; i < v.length - (closed ? 0 : 1); i++) points.push(...bulged(xy(v[i]), xy(v[(i + 1) % v.length]), v[i].bulge));
      if (closed) points.pop();
      return { points, closed };
    }
    case 'CIRCLE':
      return e.number(40) > 0 ? { points: arcPoints(at(10), e.number(40), 0, 2 * Math.PI), closed: true } : null;
    case 'ARC': {
      if (!(e.number(40) > 0)) return null;
      const from = e.number(50, 0) * radians;
      const turn = (((e.number(51, 360) * radians - from) % (2 * Math.PI)) + 2 * Math.PI) % (2 * Math.PI) || 2 * Math.PI;
      return { points: arcPoints(at(10), e.number(40), from, from + turn), closed: false };
    }
    case 'ELLIPSE': {
      const [cx, cy] = at(10);
      const [ax, ay] = at(11);
      const ratio = e.number(40, 1);
      const from = e.number(41, 0);
      const turn = Math.min(2 * Math.PI, Math.abs(e.number(42, 2 * Math.PI) - from));
      const closed = turn > 2 * Math.PI - 1e-6;
      const unit = arcPoints([0, 0], 1, from, from + (closed ? 2 * Math.PI : turn || 1));
      return { points: unit.map(([c, s]): Point2 => [cx + c * ax - s * ratio * ay, cy + c * ay + s * ratio * ax]), closed };
    }
    case 'SPLINE': {
      const control = e.points().map(xy);
      const knots = e.numbers([40]).map((k) => k[1]);
      const degree = e.number(71, 3);
      if (!(degree >= 1 && degree <= 10) || control.length <= degree || knots.length < control.length + degree + 1) return null;
      const [from, to] = [knots[degree], knots[control.length]];
      const n = Math.min(2000, 12 * control.length);
      const points = Array.from({ length: n + 1 }, (_, i) =>
        splinePoint(degree, knots, control, i === n ? to - 1e-12 * (to - from) : from + ((to - from) * i) / n),
      );
      return { points, closed: false };
    }
    case 'SOLID': {
      const p = [10, 11, 12, 13].map(at).filter((q) => q.every(Number.isFinite));
      return p.length === 4 ? { points: [p[0], p[1], p[3], p[2]], closed: true } : p.length === 3 ? { points: p, closed: true } : null;
    }
    default:
      return null;
  }
}

/** Joins open paths at their ends into closed outlines. */
export function closeOutlines(paths: readonly Omit<Path, 'layer'>[]): { loops: Point2[][]; open: number } {
  let extent = 0;
  const first = paths[0]?.points[0] ?? [0, 0];
  for (const { points } of paths) for (const p of points) extent = Math.max(extent, Math.abs(p[0] - first[0]), Math.abs(p[1] - first[1]));
  const tolerance = 1e-5 * extent || 1e-12;
  const loops: Point2[][] = [];
  const near = (a: Point2, b: Point2): boolean => Math.hypot(a[0] - b[0], a[1] - b[1]) <= tolerance;
  const rest: Point2[][] = [];
  for (const { points, closed } of paths) {
    const clean = points.filter((p, i) => i === 0 || !near(p, points[i - 1]));
    const ends = near(clean[0], clean[clean.length - 1]);
    if (closed || (ends && clean.length > 3)) {
      if (ends) clean.pop();
      if (clean.length > 2) loops.push(clean);
    } else if (clean.length > 1) rest.push(clean);
  }
  // Ends by cells of a lattice, so that joining stays quick for many pieces.
  const cells = new Map<string, Set<number>>();
  const cell = (p: Point2): [number, number] => [Math.floor(p[0] / tolerance / 4), Math.floor(p[1] / tolerance / 4)];
  const put = (i: number, p: Point2): void => {
    const key = cell(p).join();
    const set = cells.get(key);
    if (set) set.add(i);
    else cells.set(key, new Set([i]));
  };
  rest.forEach((r, i) => {
    put(i, r[0]);
    put(i, r[r.length - 1]);
  });
  const used = new Set<number>();
  const partner = (p: Point2): [number, boolean] | null => {
    const [x, y] = cell(p);
    for (let dx = -1; dx <= 1; dx++)
      for (let dy = -1; dy <= 1; dy++)
        for (const i of cells.get(`${x + dx},${y + dy}`) ?? []) {
          if (used.has(i)) continue;
          if (near(rest[i][0], p)) return [i, false];
          if (near(rest[i][rest[i].length - 1], p)) return [i, true];
        }
    return null;
  };
  let open = 0;
  for (let i = 0; i < rest.length; i++) {
    if (used.has(i)) continue;
    used.add(i);
    let chain = [...rest[i]];
    for (let turn = 0; turn < 2; turn++) {
      for (
        let found = partner(chain[chain.length - 1]);
        found && !(chain.length > 3 && near(chain[0], chain[chain.length - 1]));
        found = partner(chain[chain.length - 1])
      ) {
        used.add(found[0]);
        chain.push(...(found[1] ? [...rest[found[0]]].reverse() : rest[found[0]]).slice(1));
      }
      if (near(chain[0], chain[chain.length - 1])) break;
      chain = chain.reverse();
    }
    if (chain.length > 3 && near(chain[0], chain[chain.length - 1])) loops.push(chain.slice(0, -1));
    else open++;
  }
  return { loops, open };
}

const layersOf = (paths: readonly Path[]): ImportedLayer[] =>
  [...new Set(paths.map((p) => p.layer))].map((name) => ({ name, ...closeOutlines(paths.filter((p) => p.layer === name)) }));

/** DXF drawings: lines, polylines with arcs, circles, ellipses, splines and placed blocks, by layer. */
export const dxf: Importer = {
  endings: ['.dxf'],
  title: 'DXF drawing',
  read(bytes): Imported {
    const text = textOf(bytes);
    if (!/\bSECTION\b/.test(text.slice(0, 4000))) throw new ImportFault('This is not a DXF text file.', 'Save the drawing as DXF in text form.');
    const drawing = readDrawing(text);
    const paths: Path[] = [];
    const skipped = new Map<string, number>();
    let count = 0;
    let copies = 0;
    const visit = (entities: Entity[], map: (p: Point2) => Point2, layer: string | null, depth: number): void => {
      for (const e of entities) {
        const own = !e.layer || (e.layer === '0' && layer !== null) ? (layer ?? '0') : e.layer;
        if (e.type === 'INSERT') {
          const block = drawing.blocks.get(e.text(2));
          if (!block || depth > 12) continue;
          const angle = (e.number(50, 0) * Math.PI) / 180;
          const [c, s] = [Math.cos(angle), Math.sin(angle)];
          const columns = Math.min(500, Math.max(1, e.number(70, 1)));
          const rows = Math.min(500, Math.max(1, e.number(71, 1)));
          for (let i = 0; i < columns; i++)
            for (let j = 0; j < rows; j++) {
              if (++copies > 100_000)
                throw new ImportFault('The drawing places its blocks more than 100,000 times.', 'Export only the layers that are needed.');
              const inner = ([x, y]: Point2): Point2 => {
                const u = (x - block.x) * e.number(41, 1) + i * e.number(44, 0);
                const v = (y - block.y) * e.number(42, 1) + j * e.number(45, 0);
                return map([e.number(10, 0) + c * u - s * v, e.number(20, 0) + s * u + c * v]);
              };
              visit(block.entities, inner, own, depth + 1);
            }
          continue;
        }
        const path = pathOf(e);
        if (!path) {
          skipped.set(e.type, (skipped.get(e.type) ?? 0) + 1);
          continue;
        }
        count += path.points.length;
        if (count > mostPoints)
          throw new ImportFault(`The drawing has more than ${mostPoints.toLocaleString('en')} points.`, 'Export only the layers that are needed.');
        const points = path.points.map(map);
        if (!points.every((p) => Number.isFinite(p[0]) && Number.isFinite(p[1])))
          throw new ImportFault('A coordinate of the drawing is no number.', 'The file is damaged; export it again.');
        paths.push({ layer: own, points, closed: path.closed });
      }
    };
    visit(drawing.entities, (p) => p, null, 0);
    if (!paths.length) throw nothing('lines or outlines');
    const notes = [...skipped].map(([type, n]) => `${n} of the kind ${type} left out, which draw no outline.`);
    return { meshes: [], layers: layersOf(paths), unit: drawing.units === null ? null : (dxfUnits[drawing.units] ?? null), notes };
  },
};

/** Outlines in a table: x and y a row, outlines apart by an empty row or by a third column that names them. */
export const csvOutlines: Importer = {
  endings: ['.csv', '.txt'],
  title: 'Table of points',
  read(bytes): Imported {
    const text = textOf(bytes);
    const paths: Path[] = [];
    for (const [block, part] of text.split(/(?:\r?\n[ \t,;]*){2,}/).entries()) {
      for (const [i, row] of parseTable(part).entries()) {
        const [x, y] = [Number(row[0]), Number(row[1])];
        if (row.length < 2 || !Number.isFinite(x) || !Number.isFinite(y)) {
          // A heading may stand first.
          if (i === 0 && block === 0) continue;
          throw new ImportFault(
            `Row ${i + 1} of outline ${block + 1} is no pair of numbers: ‘${row.join(', ').slice(0, 60)}’.`,
            'Give x and y in the first two columns.',
          );
        }
        const layer = row[2] || 'outline';
        const name = `${layer}\n${row[2] ? '' : block}`;
        let path = paths.find((p) => p.layer === name);
        if (!path) paths.push((path = { layer: name, points: [], closed: true }));
        path.points.push([x, y]);
      }
    }
    const good = paths.filter((p) => p.points.length > 2).map((p) => ({ ...p, layer: p.layer.split('\n')[0] }));
    if (!good.length) throw nothing('outline of three points or more');
    return {
      meshes: [],
      layers: layersOf(good),
      unit: null,
      notes: good.length < paths.length ? [`${paths.length - good.length} rows of fewer than three points left out.`] : [],
    };
  },
};
