import { useVirtualizer } from '@tanstack/react-virtual';
import { type ReactNode, type RefObject, useEffect, useLayoutEffect, useRef, useState } from 'react';

interface Props<T> {
  rows: readonly T[];
  keyOf(row: T): string;
  /** Pixels that a row is taken to be high until it has been drawn. */
  height: number;
  /** What scrolls, of which the list may be a part. */
  scroller: RefObject<HTMLElement | null>;
  /** Key of the row that is to be seen; it is scrolled to when that changes. */
  shown: string | null;
  children(row: T): ReactNode;
}

/** Lists of no more rows are drawn whole. */
const few = 60;

/** Rows one below the other; of many only those that are seen are drawn. */
export function LongList<T>(props: Props<T>) {
  const { rows, keyOf, children } = props;
  return rows.length <= few ? rows.map((row) => <div key={keyOf(row)}>{children(row)}</div>) : <Windowed {...props} />;
}

function Windowed<T>({ rows, keyOf, height, scroller, shown, children }: Props<T>) {
  const list = useRef<HTMLDivElement>(null);
  // Where the list begins in what scrolls.
  const [above, setAbove] = useState(0);
  useLayoutEffect(() => {
    const outer = scroller.current;
    if (!outer) return;
    const measure = (): void => setAbove(Math.round(list.current!.getBoundingClientRect().top - outer.getBoundingClientRect().top + outer.scrollTop));
    measure();
    // What stands above it may grow by itself.
    const watch = new ResizeObserver(measure);
    for (const part of outer.children) watch.observe(part);
    return () => watch.disconnect();
  }, [scroller, rows]);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => height,
    getItemKey: (i) => keyOf(rows[i]),
    overscan: 6,
    scrollMargin: above,
    // Drawn in the browser's own time: rows beyond the edge are there already.
    useFlushSync: false,
  });
  const at = shown === null ? -1 : rows.findIndex((row) => keyOf(row) === shown);
  useEffect(() => {
    if (at >= 0) virtual.scrollToIndex(at, { align: 'auto' });
    // Only a change of what is to be seen moves the list.
    // oxlint-disable-next-line react/exhaustive-deps
  }, [shown, at >= 0]);
  const seen = virtual.getVirtualItems();
  return (
    <div ref={list} style={{ height: virtual.getTotalSize(), position: 'relative' }}>
      <div style={{ position: 'absolute', insetInline: 0, top: 0, transform: `translateY(${(seen[0]?.start ?? above) - above}px)` }}>
        {seen.map((item) => (
          <div key={item.key} data-index={item.index} ref={virtual.measureElement}>
            {children(rows[item.index])}
          </div>
        ))}
      </div>
    </div>
  );
}
