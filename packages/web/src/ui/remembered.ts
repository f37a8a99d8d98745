import { useState } from 'react';
import type { z } from 'zod';

/** A way of looking that the browser remembers; what it holds is read by a schema, and anything else is as if it held nothing. */
export function useRemembered<T>(name: string, schema: z.ZodType<T>, otherwise: T): [T, (value: T) => void] {
  const key = `jadebell.${name}`;
  const [value, setValue] = useState(() => {
    try {
      return schema.parse(JSON.parse(localStorage.getItem(key) ?? 'null'));
    } catch {
      return otherwise;
    }
  });
  return [
    value,
    (next) => {
      setValue(next);
      localStorage.setItem(key, JSON.stringify(next));
    },
  ];
}
