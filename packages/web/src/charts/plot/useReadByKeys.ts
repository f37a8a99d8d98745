import { nearest } from '@jadebell/core/curves';
import { type KeyboardEvent, useState } from 'react';
import type { Laid, PlotTrace } from './parts.ts';

interface Acts {
  tell(trace: PlotTrace, x: number, y: number): string;
  tellX(x: number): string;
  onPick?(trace: PlotTrace, x: number): void;
  onZoom?(range: null): void;
}

/** Curves named in the words of a chart; more are counted. */
const named = 4;

/** A chart that has the focus is read by keys: arrows go from sample to sample, Enter sets a marker, Home shows all of x again. */
export function useReadByKeys(traces: readonly PlotTrace[], { min, max }: Laid, { tellX, onPick, onZoom }: Acts) {
  const [read, setRead] = useState<number | null>(null);
  const first = traces.find((t) => t.x.length);
  const step = (way: number): void => {
    if (!first) return;
    const shown = Array.from(first.x).filter((v) => v >= min && v <= max);
    const here = read === null ? -1 : shown.findIndex((v) => v >= read);
    const next = read === null ? shown.length >> 1 : Math.max(0, Math.min(shown.length - 1, (here < 0 ? shown.length - 1 : here) + way));
    if (shown.length) setRead(shown[next]);
  };
  const acts: Record<string, () => void> = {
    ArrowRight: () => step(1),
    ArrowLeft: () => step(-1),
    PageUp: () => step(10),
    PageDown: () => step(-10),
    Enter: () => read !== null && first && onPick?.(first, nearest(first, read)?.x ?? read),
    Home: () => onZoom?.(null),
    Escape: () => setRead(null),
  };
  return {
    read,
    /** What the chart shows, in words. */
    about: (shown: readonly PlotTrace[]): string =>
      `${shown.length > named ? `${shown.length} curves` : shown.map((t) => t.name).join(', ')}, from ${tellX(min)} to ${tellX(max)}`,
    props: {
      role: 'application',
      tabIndex: 0,
      onBlur: () => setRead(null),
      onKeyDown: (e: KeyboardEvent) => {
        const act = e.ctrlKey || e.metaKey || e.altKey || e.shiftKey ? undefined : acts[e.key];
        if (!act || (e.key === 'Escape' && read === null)) return;
        e.preventDefault();
        e.stopPropagation();
        act();
      },
    },
  };
}
