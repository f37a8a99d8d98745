import { crossing, reactanceCircle, ratioCircle, resistanceCircle } from '@jadebell/core/network';
import type { Complex } from '@jadebell/core/numerics';
import { useMemo, useState } from 'react';
import { WithLegend } from './Legend.tsx';
import { PlotTip } from './plot/PlotTip.tsx';

export interface SmithTrace {
  name: string;
  color: string;
  dash?: string;
  re: ArrayLike<number>;
  im: ArrayLike<number>;
}
interface Props<T extends SmithTrace> {
  traces: readonly T[];
  grid: 'impedance' | 'admittance' | 'both';
  ratios: readonly number[];
  marks: readonly { at: Complex; label: string; on: T }[];
  /** Where the lens is on each trace. */
  cursor: readonly { at: Complex; on: T }[];
  /** What stands at a sample, in words. */
  tell(trace: T, sample: number): string;
  onPick?(trace: T, sample: number): void;
}

const size = 260;
const radius = 112;
const c = size / 2;
const px = (re: number): number => c + radius * re;
const py = (im: number): number => c - radius * im;
const levels = [0.2, 0.5, 1, 2, 5];

/** An arc of constant reactance from the rim to the point of open circuit. */
const reactanceArc = (x: number): string => {
  const from = crossing(0, x);
  const r = radius * reactanceCircle(x).radius;
  return `M${px(from[0])} ${py(from[1])}A${r} ${r} 0 0 ${x > 0 ? 0 : 1} ${px(1)} ${py(0)}`;
};

function Grid({ strong }: { strong: boolean }) {
  const line = { fill: 'none', stroke: 'var(--faint)', strokeOpacity: strong ? 0.55 : 0.3, strokeWidth: 0.6 };
  return (
    <g>
      {levels.map((r) => {
        const k = resistanceCircle(r);
        return <circle key={r} cx={px(k.x)} cy={py(k.y)} r={radius * k.radius} {...line} />;
      })}
      {levels
        .flatMap((x) => [x, -x])
        .map((x) => (
          <path key={x} d={reactanceArc(x)} {...line} />
        ))}
    </g>
  );
}

/** Reflections in the unit circle with the lines of constant resistance and reactance, or conductance and susceptance. */
export function SmithChart<T extends SmithTrace>({ traces, ...rest }: Props<T>) {
  return <WithLegend traces={traces}>{(shown) => <Chart traces={shown} {...rest} />}</WithLegend>;
}

const text = { fontSize: 7.5, fill: 'var(--faint)' };

/** Normalised resistances along the axis and reactances round the rim; of the other kind with the admittance grid alone. */
function Labels({ admittance }: { admittance: boolean }) {
  return (
    <>
      {levels.map((r) => (
        <text key={r} x={px(crossing(admittance ? 1 / r : r, 0)[0]) + 1.5} y={c - 2} {...text}>
          {r}
        </text>
      ))}
      {levels
        .flatMap((x) => [x, -x])
        .map((x) => {
          const at = crossing(0, admittance ? -1 / x : x);
          return (
            <text
              key={x}
              x={c + (radius + 5) * at[0]}
              y={c - (radius + 5) * at[1] + 2.5 - 2 * at[1]}
              textAnchor={Math.abs(at[0]) < 0.3 ? 'middle' : at[0] > 0 ? 'start' : 'end'}
              {...text}
            >
              {x > 0 ? `+${x}j` : `−${-x}j`}
            </text>
          );
        })}
    </>
  );
}

/** A circle of constant standing-wave ratio. */
function RatioCircle({ ratio }: { ratio: number }) {
  const { radius: r } = ratioCircle(ratio);
  return (
    <g>
      <circle cx={c} cy={c} r={radius * r} fill="none" stroke="var(--jade)" strokeDasharray="3 3" strokeWidth={0.9} />
      <text x={c} y={py(r) - 2} textAnchor="middle" {...text} fill="var(--jade)">
        {ratio}
      </text>
    </g>
  );
}

/** A marker with its number in a ring beside it. */
function Mark({ at, label, color }: { at: Complex; label: string; color: string }) {
  const [x, y] = [px(at[0]), py(at[1])];
  return (
    <g>
      <circle cx={x} cy={y} r={2} fill={color} />
      <circle cx={x + 7} cy={y - 7} r={5.2} fill="var(--panel)" stroke={color} />
      <text x={x + 7} y={y - 4.4} textAnchor="middle" fontSize={7} fontWeight={650} fill="var(--ink)">
        {label}
      </text>
    </g>
  );
}

/** A trace as a path; steps too small to be seen are left out, but the last sample is always there. */
function pathOf(t: SmithTrace): string {
  let d = '';
  let [lx, ly] = [Infinity, Infinity];
  for (let i = 0; i < t.re.length; i++) {
    const [x, y] = [px(t.re[i]), py(t.im[i])];
    if (d && i < t.re.length - 1 && Math.hypot(x - lx, y - ly) < 0.25) continue;
    [lx, ly] = [x, y];
    d += `${d ? 'L' : 'M'}${x.toFixed(2)} ${y.toFixed(2)}`;
  }
  return d;
}

interface Sample<T> {
  trace: T;
  sample: number;
}

/** The sample under the pointer, within 20 units of the picture. */
function sampleAt<T extends SmithTrace>(e: React.MouseEvent<SVGSVGElement>, traces: readonly T[]): Sample<T> | null {
  const m = e.currentTarget.getScreenCTM();
  if (!m) return null;
  const p = new DOMPoint(e.clientX, e.clientY).matrixTransform(m.inverse());
  let best: Sample<T> | null = null;
  let nearest = 400;
  for (const trace of traces) {
    for (let sample = 0; sample < trace.re.length; sample++) {
      const d = (px(trace.re[sample]) - p.x) ** 2 + (py(trace.im[sample]) - p.y) ** 2;
      if (d < nearest) [best, nearest] = [{ trace, sample }, d];
    }
  }
  return best;
}

function Chart<T extends SmithTrace>({ traces, grid, ratios, marks, cursor, tell, onPick }: Props<T>) {
  const [hover, setHover] = useState<Sample<T> | null>(null);
  const paths = useMemo(() => traces.map(pathOf), [traces]);
  return (
    <div style={{ height: '100%', position: 'relative' }}>
      <svg
        viewBox={`0 0 ${size} ${size}`}
        width="100%"
        height="100%"
        role="img"
        aria-label="Smith chart"
        onPointerMove={(e) => setHover(sampleAt(e, traces))}
        onPointerLeave={() => setHover(null)}
        onClick={(e) => {
          const hit = sampleAt(e, traces);
          if (hit) onPick?.(hit.trace, hit.sample);
        }}
      >
        <circle cx={c} cy={c} r={radius} fill="none" stroke="var(--faint)" strokeWidth={1} />
        <line x1={px(-1)} x2={px(1)} y1={c} y2={c} stroke="var(--faint)" strokeOpacity={0.55} strokeWidth={0.6} />
        {grid !== 'admittance' && <Grid strong />}
        {grid !== 'impedance' && (
          <g transform={`rotate(180 ${c} ${c})`}>
            <Grid strong={grid === 'admittance'} />
          </g>
        )}
        <Labels admittance={grid === 'admittance'} />
        {ratios.map((v) => (
          <RatioCircle key={v} ratio={v} />
        ))}
        {paths.map((d, n) => (
          <path key={n} d={d} fill="none" stroke={traces[n].color} strokeDasharray={traces[n].dash} strokeWidth={1.6} strokeLinejoin="round" />
        ))}
        {cursor
          .filter((p) => traces.includes(p.on))
          .map((p, i) => (
            <circle key={i} cx={px(p.at[0])} cy={py(p.at[1])} r={3} fill="var(--panel)" stroke={p.on.color} strokeWidth={1.6} />
          ))}
        {marks
          .filter((m) => traces.includes(m.on))
          .map((m, i) => (
            <Mark key={i} at={m.at} label={m.label} color={m.on.color} />
          ))}
        {hover && <circle cx={px(hover.trace.re[hover.sample])} cy={py(hover.trace.im[hover.sample])} r={3} fill={hover.trace.color} />}
      </svg>
      {hover && (
        <PlotTip side={{ left: 6, top: 2 }}>
          {hover.trace.name} <span className="mono">{tell(hover.trace, hover.sample)}</span>
        </PlotTip>
      )}
    </div>
  );
}
