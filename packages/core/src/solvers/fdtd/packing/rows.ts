import { tables } from '../layout.ts';

type Tables = typeof tables;
export type TableName = keyof Tables;
/** A value for each field of a table. Those that are left out stay 0. */
export type Entry<T extends TableName> = Partial<Record<keyof Tables[T]['fields'] & string, number>>;
type Setter = 'setUint32' | 'setInt32' | 'setFloat32' | 'setFloat64';
const setters: Record<string, Setter> = { u32: 'setUint32', i32: 'setInt32', f32: 'setFloat32', f64: 'setFloat64' };

/** Entries of a table as the kernel reads them, each with some floats behind it where `tail` says how many; at least one entry, so that its address means something. */
export class Rows<T extends TableName> {
  private readonly view: DataView;
  private readonly stride: number;

  constructor(
    private readonly table: T,
    count: number,
    tail = 0,
  ) {
    this.stride = tables[table].size + 4 * tail;
    this.view = new DataView(new ArrayBuffer(Math.max(1, count) * this.stride));
  }

  /** Sets fields of entry n, and the floats behind it. */
  set(n: number, entry: Entry<T>, tail: ArrayLike<number> = []): void {
    const fields = tables[this.table].fields as Record<string, readonly [type: string, at: number]>;
    const base = n * this.stride;
    for (const name in entry) {
      const [type, at] = fields[name];
      this.view[setters[type]](base + at, entry[name as keyof Entry<T>]!, true);
    }
    for (let i = 0; i < tail.length; i++) this.view.setFloat32(base + tables[this.table].size + 4 * i, tail[i], true);
  }

  get bytes(): Uint8Array {
    return new Uint8Array(this.view.buffer);
  }
}
