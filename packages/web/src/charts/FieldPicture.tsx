import { formatSI } from '@jadebell/core/expressions/format';
import { type ReactNode, useCallback, useMemo } from 'react';
import { useSize } from '../ui/useSize.ts';
import type { ViewBody } from '../workers/protocol.ts';
import { colourTables } from './colours.ts';
import { arrowPath, streamPath } from './flow.ts';
import { ColourScale, scaleRoom } from './ColourScale.tsx';
import { PlanePicture, type Spot } from './PlanePicture.tsx';

export interface PictureScale {
  kind: 'size' | 'signed' | 'cyclic';
  db: boolean;
  /** Value at the top of the scale. */
  top: number;
  /** dB down to the bottom, and dB that a tenfold value is worth. */
  span: number;
  perDecade: 10 | 20;
}

interface Props {
  /** Coordinates along the picture's axes, metres. */
  u: ArrayLike<number>;
  v: ArrayLike<number>;
  /** [v][u]; NaN is left empty. */
  values: Float64Array;
  scale: PictureScale;
  smooth: boolean;
  grid: boolean;
  /** Vectors in the plane, [v][u][2], as arrows or lines along them; null: none. */
  flow: { vectors: Float64Array; kind: 'arrows' | 'streamlines'; top: number } | null;
  /** Edges of bodies are drawn as they lie along these directions from the origin. */
  bodies: readonly ViewBody[] | null;
  along: readonly number[];
  across: readonly number[];
  origin: readonly number[];
  axisNames: readonly [string, string];
  /** How a value is told. */
  tell(v: number, digits?: number): string;
  unit: string;
  label: string;
  /** A line drawn out with the pointer, in the picture's coordinates. */
  onLine?(from: [number, number], to: [number, number]): void;
  children?: ReactNode;
}

interface Samples {
  i: Int32Array;
  t: Float32Array;
}
/** For each pixel the sample before it and the part of the way to the next. */
export function samples(x: ArrayLike<number>, count: number, flip: boolean): Samples {
  const i = new Int32Array(count);
  const t = new Float32Array(count);
  let k = 0;
  for (let p = 0; p < count; p++) {
    const at = x[0] + ((p + 0.5) / count) * (x[x.length - 1] - x[0]);
    while (k < x.length - 2 && x[k + 1] < at) k++;
    const slot = flip ? count - 1 - p : p;
    i[slot] = k;
    t[slot] = (at - x[k]) / (x[k + 1] - x[k]);
  }
  return { i, t };
}

/** Paints values as colours. */
export function paint(image: ImageData, values: Float64Array, nu: number, cols: Samples, rows: Samples, scale: PictureScale, smooth: boolean): void {
  const pixels = new Uint32Array(image.data.buffer);
  const table = colourTables[scale.kind];
  const { width, height } = image;
  const perDb = scale.db && scale.kind === 'size' ? (scale.perDecade / Math.LN10 / scale.span) * 255 : 0;
  const [factor, offset] = scale.kind === 'size' ? [255 / scale.top, 0] : scale.kind === 'signed' ? [127.5 / scale.top, 127.5] : [255 / 360, 127.5];
  for (let y = 0, o = 0; y < height; y++) {
    const row = rows.i[y] * nu;
    const t = rows.t[y];
    for (let x = 0; x < width; x++, o++) {
      const a = row + cols.i[x];
      const s = cols.t[x];
      let v: number;
      if (smooth && scale.kind !== 'cyclic') {
        v = (1 - t) * ((1 - s) * values[a] + s * values[a + 1]) + t * ((1 - s) * values[a + nu] + s * values[a + nu + 1]);
      } else v = values[a + (s > 0.5 ? 1 : 0) + (t > 0.5 ? nu : 0)];
      if (v !== v) {
        pixels[o] = 0;
        continue;
      }
      const level = perDb ? 255 + perDb * Math.log(Math.max(v, 1e-300) / scale.top) : factor * v + offset;
      pixels[o] = table[level < 0 ? 0 : level > 255 ? 255 : (level + 0.5) | 0];
    }
  }
}

/** A field on a plane as colours on equal axes, with outlines, arrows or streamlines, the grid, and a probe under the pointer. */
export function FieldPicture(props: Props) {
  const { u, v, values, scale, smooth, grid, flow, bodies, along, across, origin, axisNames, tell, label, onLine, children } = props;
  const [holder, box] = useSize();
  const nu = u.length;
  const view = useMemo(() => {
    const [u0, u1, v0, v1] = [u[0], u[nu - 1], v[0], v[v.length - 1]];
    // The scale stands where it takes less of the picture's size: below one that is long, beside one that is high.
    const beside = Math.min((box.width - scaleRoom.beside - 8) / (u1 - u0), (box.height - 4) / (v1 - v0));
    const above = Math.min((box.width - 8) / (u1 - u0), (box.height - scaleRoom.below - 4) / (v1 - v0));
    const size = Math.max(beside, above);
    const width = Math.max(1, Math.floor((u1 - u0) * size));
    const height = Math.max(1, Math.floor((v1 - v0) * size));
    return { size, width, height, u0, v1, lying: above > beside, cols: samples(u, width, false), rows: samples(v, height, true) };
  }, [u, v, nu, box]);
  const fill = useCallback((image: ImageData) => paint(image, values, nu, view.cols, view.rows, scale, smooth), [view, values, scale, smooth, nu]);
  const outline = useMemo(() => {
    if (!bodies) return '';
    const parts: string[] = [];
    const place = (e: ArrayLike<number>, i: number, d: readonly number[]): number =>
      (e[i] - origin[0]) * d[0] + (e[i + 1] - origin[1]) * d[1] + (e[i + 2] - origin[2]) * d[2];
    const point = (e: ArrayLike<number>, i: number): string =>
      `${((place(e, i, along) - view.u0) * view.size).toFixed(1)} ${((view.v1 - place(e, i, across)) * view.size).toFixed(1)}`;
    for (const body of bodies) for (let i = 0; i < body.edges.length; i += 6) parts.push(`M${point(body.edges, i)}L${point(body.edges, i + 3)}`);
    return parts.join('');
  }, [bodies, along, across, origin, view]);
  const lines = useMemo(() => {
    if (!grid) return '';
    const parts: string[] = [];
    for (let i = 0; i < nu; i++) parts.push(`M${((u[i] - view.u0) * view.size).toFixed(1)} 0V${view.height}`);
    for (let j = 0; j < v.length; j++) parts.push(`M0 ${((view.v1 - v[j]) * view.size).toFixed(1)}H${view.width}`);
    return parts.join('');
  }, [grid, u, v, nu, view]);
  const flowing = useMemo(
    () => (flow && view.width > 1 && view.height > 1 ? (flow.kind === 'arrows' ? arrowPath : streamPath)(flow.vectors, u, v, view, flow.top) : ''),
    [flow, u, v, view],
  );
  const coordinates = ({ x, y }: Spot): [number, number] => [view.u0 + x / view.size, view.v1 - y / view.size];
  const read = ({ x, y }: Spot): string => {
    const k = (view.rows.i[y] + Math.round(view.rows.t[y])) * nu + view.cols.i[x] + Math.round(view.cols.t[x]);
    return `${axisNames[0]} ${formatSI(u[k % nu], 'length', 4)}, ${axisNames[1]} ${formatSI(v[Math.floor(k / nu)], 'length', 4)}: ${Number.isNaN(values[k]) ? 'outside' : tell(values[k])}`;
  };
  const [top, bottom] =
    scale.kind === 'cyclic'
      ? ['180°', '−180°']
      : [tell(scale.top, 3), scale.kind === 'signed' ? `−${tell(scale.top, 3)}` : scale.db ? `−${scale.span} dB` : '0'];
  const ink = scale.kind === 'size' ? '#fff' : '#1d2a26';
  return (
    <PlanePicture
      holder={holder}
      view={view}
      label={label}
      room={{ right: view.lying ? 0 : scaleRoom.beside, bottom: view.lying ? scaleRoom.below : 0 }}
      paint={fill}
      tell={read}
      over={
        <>
          {lines && <path d={lines} fill="none" stroke="#000" strokeOpacity={0.25} strokeWidth={0.6} />}
          {outline && <path d={outline} fill="none" stroke={ink} strokeOpacity={0.75} strokeWidth={0.8} />}
          {flowing && <path d={flowing} fill="none" stroke={ink} strokeWidth={1.1} strokeLinejoin="round" />}
        </>
      }
      scale={<ColourScale top={top} bottom={bottom} map={scale.kind} lying={view.lying} />}
      onLine={onLine && ((from, to) => onLine(coordinates(from), coordinates(to)))}
    >
      {children}
    </PlanePicture>
  );
}
