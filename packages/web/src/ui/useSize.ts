import { type RefObject, useEffect, useRef, useState } from 'react';

/** Size of an element's content in pixels, as it changes. */
export function useSize(): [RefObject<HTMLDivElement | null>, { width: number; height: number }] {
  const holder = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });
  useEffect(() => {
    const watch = new ResizeObserver(([e]) => setSize({ width: e.contentRect.width, height: e.contentRect.height }));
    watch.observe(holder.current!);
    return () => watch.disconnect();
  }, []);
  return [holder, size];
}
