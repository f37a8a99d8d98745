import { useEffect } from 'react';
import { useLens } from './lens.ts';

/** Moves the lens while it plays: the phase smoothly, the frequency from stop to stop. */
export function usePlay(stops: readonly number[]): void {
  const playing = useLens((s) => s.playing);
  useEffect(() => {
    if (!playing || playing === 'point') return;
    let frame = 0;
    let last = performance.now();
    let waited = 0;
    const tick = (now: number): void => {
      const lens = useLens.getState();
      const passed = Math.min(0.25, (now - last) / 1000);
      last = now;
      if (playing === 'phase') lens.set({ phase: (lens.phase + 2 * Math.PI * lens.speed * passed) % (2 * Math.PI) });
      else if (stops.length > 1) {
        waited += passed * lens.speed * 10;
        if (waited >= 1) {
          const at = nearestStop(stops, lens.frequency);
          lens.set({ frequency: stops[(at + Math.floor(waited)) % stops.length] });
          waited %= 1;
        }
      }
      frame = requestAnimationFrame(tick);
    };
    frame = requestAnimationFrame(tick);
    return () => cancelAnimationFrame(frame);
  }, [playing, stops]);
}

/** Index of the stop nearest to a frequency; the middle one for none. */
export function nearestStop(stops: readonly number[], frequency: number | null): number {
  if (frequency === null) return Math.floor(stops.length / 2);
  let best = 0;
  stops.forEach((f, i) => {
    if (Math.abs(f - frequency) < Math.abs(stops[best] - frequency)) best = i;
  });
  return best;
}
