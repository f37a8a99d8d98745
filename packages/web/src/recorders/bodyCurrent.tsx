import { formatSI, withPrefix } from '@jadebell/core/expressions/format';
import { percentile } from '@jadebell/core/reading';
import type { Told } from '@jadebell/core/recorders';
import { frequenciesKept } from '@jadebell/core/results';
import { Tick } from '../kit/Tick.tsx';
import { useMemo, useState } from 'react';
import { useArray } from '../api/hooks.ts';
import { Card } from '../charts/Card.tsx';
import { paint } from '../charts/colours.ts';
import { SurfaceView } from '../charts/SurfaceView.tsx';
import { useModelBodies } from '../lens/useModelBodies.ts';
import { useSum } from '../lens/useSum.ts';
import { nearestRecorded, useFrequency, usePhase } from '../lens/useFrequency.ts';
import type { RecorderCardProps } from './cardProps.ts';

/** Two triangles for each patch of a surface, [n][18]; `at` has eight values a patch. */
function cornersOf(at: ArrayLike<number>): Float32Array {
  const count = at.length / 8;
  const out = new Float32Array(18 * count);
  for (let n = 0; n < count; n++) {
    const normal = [0, 1, 2].findIndex((a) => at[8 * n + 3 + a] !== 0);
    if (normal < 0) continue;
    const [b, c] = [0, 1, 2].filter((a) => a !== normal);
    [-1, -1, 1, -1, 1, 1, -1, -1, 1, 1, -1, 1].forEach((sign, i) => {
      const corner = i >> 1;
      const axis = i & 1 ? c : b;
      out[18 * n + 3 * corner + axis] = at[8 * n + axis] + (sign * at[8 * n + 6 + (i & 1)]) / 2;
      // A little outside, so that the two sides of a sheet are told apart.
      const lift = 0.04 * Math.min(at[8 * n + 6], at[8 * n + 7]);
      out[18 * n + 3 * corner + normal] = at[8 * n + normal] + lift * at[8 * n + 3 + normal];
    });
  }
  return out;
}

/** The current on a body: its size or an instant on the surface, and what flows through the cut. */
export function BodyCurrentCard({ run, stem, told }: RecorderCardProps<Told<'body-current'>>) {
  const frequency = nearestRecorded(frequenciesKept(run.meta!, told), useFrequency());
  const phase = usePhase();
  const [instant, setInstant] = useState(false);
  const bodies = useModelBodies(run);
  const at = useArray(run.id, `surface:${told.name}:at`).data?.data;
  const count = at ? at.length / 8 : 0;
  const current = useSum(run, `surface:${told.name}`, { from: frequency * count * 6, count: count * 6 }).data;
  const corners = useMemo(() => (at ? cornersOf(at) : null), [at]);
  const shown = instant ? phase : null;
  const drawn = useMemo(() => {
    if (!current || !count) return null;
    const sizes = Float64Array.from({ length: count }, (_, n) => Math.hypot(...current.subarray(6 * n, 6 * n + 6)));
    const top = percentile(sizes, 0.995) || 1;
    const colours = new Float32Array(18 * count);
    const scale = { top, db: false, span: 40, perDecade: 20 };
    for (let n = 0; n < count; n++) {
      const [c, s] = shown === null ? [0, 0] : [Math.cos(shown), Math.sin(shown)];
      const now = (a: number): number => c * current[6 * n + 2 * a] - s * current[6 * n + 2 * a + 1];
      const value = shown === null ? sizes[n] : Math.hypot(now(0), now(1), now(2));
      for (let corner = 0; corner < 6; corner++) paint('size', value, scale, colours, 18 * n + 3 * corner);
    }
    return { colours, top };
  }, [current, count, shown]);
  const flat = at && at.length ? at[3] !== 0 || at[4] !== 0 || at[5] !== 0 : true;
  const [re, im] = told.current[frequency] ?? [0, 0];
  const through = `${withPrefix(Math.hypot(re, im), 'A', 4)} at ${((180 * Math.atan2(im, re)) / Math.PI).toFixed(1)}° through ${'xyz'[told.normal]} = ${formatSI(told.at, 'length', 4)}`;
  return (
    <Card
      title={`Current on ${told.line}`}
      about={`run ${run.number}, ${formatSI(frequenciesKept(run.meta!, told)[frequency], 'frequency')}, ${through}`}
      file={`${stem}-${told.name}`}
      flush={flat}
      tools={<Tick label="at this instant" value={instant} onChange={setInstant} />}
    >
      {!flat ? (
        <p className="quiet pad">{through}. The card ‘Current in wires’ draws what flows along them.</p>
      ) : drawn && corners ? (
        <SurfaceView
          corners={corners}
          colours={drawn.colours}
          arrows={null}
          bodies={bodies}
          solid
          beside={told.line}
          upper={withPrefix(drawn.top, 'A/m', 3)}
          lower="0"
          map="size"
        />
      ) : (
        <p className="quiet pad">Reading the currents …</p>
      )}
    </Card>
  );
}
