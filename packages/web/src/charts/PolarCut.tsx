interface Cut {
  name: string;
  color: string;
  dash: string;
  /** dB over a full turn, starting at angle 0, equally spaced. */
  values: ArrayLike<number>;
}

const size = 240;
const centre = size / 2;
const radius = 92;

/** A cut through a pattern: dB over angle, 0 at the top, angles growing clockwise; rings every 10 dB down from `top`. */
export function PolarCut({ cuts, top, span = 40 }: { cuts: Cut[]; top: number; span?: number }) {
  const r = (db: number): number => (radius * Math.max(0, db - (top - span))) / span;
  const at = (db: number, angle: number): string =>
    `${(centre + r(db) * Math.sin(angle)).toFixed(2)},${(centre - r(db) * Math.cos(angle)).toFixed(2)}`;
  const rings = Array.from({ length: span / 10 }, (_, i) => top - 10 * i);
  const text = { fontSize: 9.5, fill: 'var(--faint)' };
  return (
    <svg viewBox={`0 0 ${size} ${size}`} width="100%" height="100%" role="img" aria-label={`Polar plot, outer ring ${top} dB`}>
      {rings.map((db) => (
        <circle key={db} cx={centre} cy={centre} r={r(db)} fill="none" stroke="var(--line)" strokeWidth={0.7} />
      ))}
      {Array.from({ length: 12 }, (_, i) => {
        const a = (i * Math.PI) / 6;
        const degrees = i * 30 <= 180 ? i * 30 : i * 30 - 360;
        return (
          <g key={i}>
            <line
              x1={centre}
              y1={centre}
              x2={centre + radius * Math.sin(a)}
              y2={centre - radius * Math.cos(a)}
              stroke="var(--line)"
              strokeWidth={0.7}
            />
            <text x={centre + (radius + 13) * Math.sin(a)} y={centre - (radius + 13) * Math.cos(a) + 3} textAnchor="middle" {...text}>
              {degrees}°
            </text>
          </g>
        );
      })}
      {rings.map((db) => (
        <text key={db} x={centre + 3} y={centre - r(db) + 9} {...text}>
          {db}
        </text>
      ))}
      {cuts.map((c) => (
        <polygon
          key={c.name}
          points={Array.from(c.values, (v, i) => at(v, (2 * Math.PI * i) / c.values.length)).join(' ')}
          fill="none"
          stroke={c.color}
          strokeDasharray={c.dash}
          strokeWidth={1.6}
        />
      ))}
    </svg>
  );
}
