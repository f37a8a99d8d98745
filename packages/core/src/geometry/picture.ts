import { type Body, isSheet } from './body.ts';

const width = 320;
const height = 180;
const pad = 14;

/** Oblique view: right, up and depth of a point seen from front right above. */
const view = (x: number, y: number, z: number): [number, number, number] => {
  const [ca, sa, ce, se] = [Math.cos(-0.6), Math.sin(-0.6), Math.cos(0.62), Math.sin(0.62)];
  const u = x * ca - y * sa;
  const v = x * sa + y * ca;
  return [u, z * ce + v * se, v * ce - z * se];
};

/** Painting order of a body seen from above: sheets under a solid first, then solids, then the other sheets. */
function layer(body: Body, bodies: readonly Body[]): number {
  if (!isSheet(body)) return 1;
  const under = bodies.some(
    (b) =>
      !isSheet(b) && body.max[2] <= b.min[2] && body.min[0] < b.max[0] && body.max[0] > b.min[0] && body.min[1] < b.max[1] && body.max[1] > b.min[1],
  );
  return under ? 0 : 2;
}

/** Draws the bodies as an SVG picture of 320 x 180: faces from back to front, edges over them. Classes carry the colours. */
export function pictureOf(bodies: readonly Body[]): string {
  const faces: { layer: number; depth: number; points: [number, number][]; metal: boolean }[] = [];
  const lines: [number, number, number, number][] = [];
  let [x0, x1, y0, y1] = [Infinity, -Infinity, Infinity, -Infinity];
  for (const b of bodies) {
    const p = b.positions;
    const own = layer(b, bodies);
    const metal = b.material.kind === 'conductor';
    for (let t = 0; t < b.triangles.length; t += 3) {
      const corners = [0, 1, 2].map((i) => view(p[3 * b.triangles[t + i]], p[3 * b.triangles[t + i] + 1], p[3 * b.triangles[t + i] + 2]));
      for (const [u, v] of corners) {
        x0 = Math.min(x0, u);
        x1 = Math.max(x1, u);
        y0 = Math.min(y0, v);
        y1 = Math.max(y1, v);
      }
      const [a, c, d] = corners;
      const area = (c[0] - a[0]) * (d[1] - a[1]) - (c[1] - a[1]) * (d[0] - a[0]);
      if (area <= 0 && b.volume > 0) continue;
      faces.push({ layer: own, depth: (a[2] + c[2] + d[2]) / 3, points: corners.map((q) => [q[0], q[1]]), metal });
    }
    for (let e = 0; e < b.edges.length; e += 6) {
      const a = view(b.edges[e], b.edges[e + 1], b.edges[e + 2]);
      const c = view(b.edges[e + 3], b.edges[e + 4], b.edges[e + 5]);
      lines.push([a[0], a[1], c[0], c[1]]);
    }
  }
  const open = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}">`;
  if (!faces.length || faces.length > 4000) return `${open}</svg>`;
  const scale = Math.min((width - 2 * pad) / (x1 - x0 || 1), (height - 2 * pad) / (y1 - y0 || 1));
  const px = (x: number): string => (width / 2 + (x - (x0 + x1) / 2) * scale).toFixed(1);
  const py = (y: number): string => (height / 2 - (y - (y0 + y1) / 2) * scale).toFixed(1);
  const fill = (f: { metal: boolean }): string => (f.metal ? '#c98b4b' : '#bcd3c4');
  const drawn = faces
    .sort((a, b) => a.layer - b.layer || b.depth - a.depth)
    .map(
      (f) =>
        `<polygon points="${f.points.map(([x, y]) => `${px(x)},${py(y)}`).join(' ')}" fill="${fill(f)}" stroke="${fill(f)}" stroke-width="0.4"/>`,
    );
  const edges = lines.map(([a, b, c, d]) => `M${px(a)} ${py(b)}L${px(c)} ${py(d)}`).join('');
  return `${open}${drawn.join('')}<path d="${edges}" fill="none" stroke="#3b4a45" stroke-width="0.7"/></svg>`;
}
