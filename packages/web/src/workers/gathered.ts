type Numbers = Float64Array | Float32Array | Uint32Array | Uint16Array;
const isNumbers = (v: unknown): v is Numbers => ArrayBuffer.isView(v) && !(v instanceof DataView);

/** Bytes that the place of an array is a multiple of: the widest number. */
const unit = 8;

/**
 * Things as they are, but with all arrays of numbers that they hold in one buffer: it moves to another thread as it is, where a thousand small ones would
 * each be copied.
 */
export function gathered<T extends object>(things: readonly T[]): { things: T[]; buffer: ArrayBuffer } {
  let bytes = 0;
  const places = new Map<Numbers, number>();
  for (const thing of things)
    for (const v of Object.values(thing))
      if (isNumbers(v) && !places.has(v)) {
        places.set(v, bytes);
        bytes += Math.ceil(v.byteLength / unit) * unit;
      }
  const buffer = new ArrayBuffer(bytes);
  // What several things share they share there too.
  const moved = new Map<Numbers, Numbers>();
  const move = (v: Numbers): Numbers => {
    let view = moved.get(v);
    if (!view) {
      view = new (v.constructor as new (b: ArrayBuffer, at: number, n: number) => Numbers)(buffer, places.get(v)!, v.length);
      view.set(v);
      moved.set(v, view);
    }
    return view;
  };
  const copies = things.map((thing) => {
    const copy = { ...thing } as Record<string, unknown>;
    for (const [key, v] of Object.entries(thing)) if (isNumbers(v)) copy[key] = move(v);
    return copy as T;
  });
  return { things: copies, buffer };
}
