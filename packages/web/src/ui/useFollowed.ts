import { useEffect, useRef, useState } from 'react';

/** A value that follows another, at once or so many milliseconds after it did last: what hangs on it is not asked for more often. */
export function useFollowed<T>(value: T, pause: number): T {
  const [followed, follow] = useState(value);
  const last = useRef(0);
  useEffect(() => {
    const timer = setTimeout(
      () => {
        last.current = Date.now();
        follow(value);
      },
      Math.max(0, last.current + pause - Date.now()),
    );
    return () => clearTimeout(timer);
  }, [value, pause]);
  return followed;
}
