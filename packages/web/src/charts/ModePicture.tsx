import { useMemo } from 'react';

interface Props {
  /** Node coordinates, metres. */
  u: ArrayLike<number>;
  v: ArrayLike<number>;
  /** E on the edges along u, then on those along v: [2][v][u]. */
  e: ArrayLike<number>;
  label: string;
  width?: number;
}

/** The transverse field of a mode as arrows at the centres of a coarse raster; their length goes with the root of the field. */
export function ModePicture({ u, v, e, label, width = 150 }: Props) {
  const drawn = useMemo(() => {
    const [nu, nv] = [u.length, v.length];
    const [spanU, spanV] = [u[nu - 1] - u[0], v[nv - 1] - v[0]];
    const height = Math.min(110, (width * spanV) / spanU);
    const scale = Math.min(width / spanU, height / spanV);
    const columns = Math.max(3, Math.round((spanU * scale) / 11));
    const rows = Math.max(3, Math.round((spanV * scale) / 11));
    const cellAt = (x: ArrayLike<number>, at: number): number => {
      let i = 0;
      while (i < x.length - 2 && x[i + 1] < at) i++;
      return i;
    };
    const arrows: { x: number; y: number; a: number; b: number }[] = [];
    let largest = 0;
    for (let r = 0; r < rows; r++)
      for (let c = 0; c < columns; c++) {
        const [pu, pv] = [u[0] + (spanU * (c + 0.5)) / columns, v[0] + (spanV * (r + 0.5)) / rows];
        const [i, j] = [cellAt(u, pu), cellAt(v, pv)];
        const n = j * nu + i;
        const a = (e[n] + e[n + nu]) / 2;
        const b = (e[nu * nv + n] + e[nu * nv + n + 1]) / 2;
        largest = Math.max(largest, Math.hypot(a, b));
        arrows.push({ x: (pu - u[0]) * scale, y: (v[nv - 1] - pv) * scale, a, b });
      }
    const step = Math.min((spanU * scale) / columns, (spanV * scale) / rows);
    const paths = arrows.flatMap(({ x, y, a, b }) => {
      const size = Math.hypot(a, b) / largest;
      if (size < 0.03) return [];
      const l = 0.5 * step * Math.sqrt(size);
      const [dx, dy] = [(a / Math.hypot(a, b)) * l, (-b / Math.hypot(a, b)) * l];
      const [tx, ty] = [x + dx, y + dy];
      return [
        `M${x - dx} ${y - dy}L${tx} ${ty}M${tx - 0.6 * dx - 0.4 * dy} ${ty - 0.6 * dy + 0.4 * dx}L${tx} ${ty}L${tx - 0.6 * dx + 0.4 * dy} ${ty - 0.6 * dy - 0.4 * dx}`,
      ];
    });
    return { w: spanU * scale, h: spanV * scale, d: paths.join('') };
  }, [u, v, e, width]);
  return (
    <svg
      role="img"
      aria-label={label}
      width={drawn.w + 2}
      height={drawn.h + 2}
      viewBox={`-1 -1 ${drawn.w + 2} ${drawn.h + 2}`}
      style={{ display: 'block' }}
    >
      <rect width={drawn.w} height={drawn.h} fill="none" stroke="var(--line, currentColor)" strokeOpacity={0.5} />
      <path d={drawn.d} stroke="var(--plum)" strokeWidth={1.1} fill="none" />
    </svg>
  );
}
