/** How the picture lies over its coordinates. */
interface View {
  size: number;
  width: number;
  height: number;
  u0: number;
  v1: number;
  cols: { i: Int32Array; t: Float32Array };
  rows: { i: Int32Array; t: Float32Array };
}

/** The vector at a pixel, by the nearest sample: one that straddles a body's edge would belong to neither side. */
function vectorAt(vectors: Float64Array, nu: number, view: View, x: number, y: number): [number, number] {
  const [cx, cy] = [Math.max(0, Math.min(view.width - 1, x | 0)), Math.max(0, Math.min(view.height - 1, y | 0))];
  const n = (view.rows.i[cy] + (view.rows.t[cy] > 0.5 ? 1 : 0)) * nu + view.cols.i[cx] + (view.cols.t[cx] > 0.5 ? 1 : 0);
  return [vectors[2 * n], -vectors[2 * n + 1]];
}

const spacing = 18;

/** Arrows on a raster; their length goes with the root of the size and is at most the raster's step. Fields below a thousandth of the top have none. */
export function arrowPath(vectors: Float64Array, u: ArrayLike<number>, _v: ArrayLike<number>, view: View, top: number): string {
  const parts: string[] = [];
  for (let y = spacing / 2; y < view.height; y += spacing)
    for (let x = spacing / 2; x < view.width; x += spacing) {
      const [a, b] = vectorAt(vectors, u.length, view, x, y);
      const size = Math.hypot(a, b);
      if (!(size > 1e-3 * top)) continue;
      const length = (spacing - 3) * Math.sqrt(Math.min(1, size / top));
      const [dx, dy] = [(a / size) * length, (b / size) * length];
      const [tx, ty] = [x + dx / 2, y + dy / 2];
      const head = Math.min(4, length / 2.5);
      const [ex, ey] = [(a / size) * head, (b / size) * head];
      parts.push(
        `M${(x - dx / 2).toFixed(1)} ${(y - dy / 2).toFixed(1)}L${tx.toFixed(1)} ${ty.toFixed(1)}M${(tx - ex - ey * 0.6).toFixed(1)} ${(ty - ey + ex * 0.6).toFixed(1)}L${tx.toFixed(1)} ${ty.toFixed(1)}L${(tx - ex + ey * 0.6).toFixed(1)} ${(ty - ey - ex * 0.6).toFixed(1)}`,
      );
    }
  return parts.join('');
}

/**
 * Lines along the vectors, evenly apart: seeds on a raster start a line both ways where no line passes yet, steps of two pixels by the midpoint rule,
 * until it leaves the picture, comes near another, or the field vanishes.
 */
export function streamPath(vectors: Float64Array, u: ArrayLike<number>, _v: ArrayLike<number>, view: View, top: number): string {
  const cell = 9;
  const columns = Math.ceil(view.width / cell);
  const taken = new Uint8Array(columns * Math.ceil(view.height / cell));
  const slot = (x: number, y: number): number => Math.floor(y / cell) * columns + Math.floor(x / cell);
  const inside = (x: number, y: number): boolean => x >= 0 && y >= 0 && x < view.width && y < view.height;
  const unit = (x: number, y: number): [number, number] | null => {
    const [a, b] = vectorAt(vectors, u.length, view, x, y);
    const size = Math.hypot(a, b);
    return size > 1e-3 * top ? [a / size, b / size] : null;
  };
  const parts: string[] = [];
  const trace = (x0: number, y0: number, way: 1 | -1, own: Set<number>): [number, number][] => {
    const out: [number, number][] = [];
    let [x, y] = [x0, y0];
    for (let n = 0; n < 2000; n++) {
      const a = unit(x, y);
      const b = a && unit(x + way * a[0], y + way * a[1]);
      if (!b) break;
      [x, y] = [x + 2 * way * b[0], y + 2 * way * b[1]];
      if (!inside(x, y)) break;
      const s = slot(x, y);
      if (taken[s] && !own.has(s)) break;
      // A line that turns within one cell has closed or stuck.
      own.add(s);
      taken[s] = 1;
      out.push([x, y]);
      if (n > 20 && Math.hypot(x - x0, y - y0) < 2) break;
    }
    return out;
  };
  for (let y = cell; y < view.height; y += 2 * cell)
    for (let x = cell; x < view.width; x += 2 * cell) {
      if (taken[slot(x, y)] || !unit(x, y)) continue;
      const own = new Set([slot(x, y)]);
      taken[slot(x, y)] = 1;
      const ahead = trace(x, y, 1, own);
      const behind = trace(x, y, -1, own);
      const points = [...behind.reverse(), [x, y] as [number, number], ...ahead];
      if (points.length < 8) continue;
      parts.push(`M${points.filter((_, i) => i % 2 === 0 || i === points.length - 1).map((p) => `${p[0].toFixed(1)} ${p[1].toFixed(1)}`).join('L')}`); // prettier-ignore
      const mid = points[points.length >> 1];
      const d = unit(mid[0], mid[1]);
      if (d)
        parts.push(
          `M${(mid[0] - 4 * d[0] - 2.5 * d[1]).toFixed(1)} ${(mid[1] - 4 * d[1] + 2.5 * d[0]).toFixed(1)}L${mid[0].toFixed(1)} ${mid[1].toFixed(1)}L${(mid[0] - 4 * d[0] + 2.5 * d[1]).toFixed(1)} ${(mid[1] - 4 * d[1] - 2.5 * d[0]).toFixed(1)}`,
        );
    }
  return parts.join('');
}
