import { tables } from './layout.ts';

type Tables = typeof tables;
export type TableName = keyof Tables;
/** A value for each field of a table. Those that are left out stay 0. */
export type Entry<T extends TableName> = Partial<Record<keyof Tables[T]['fields'] & string, number>>;
type Setter = 'setUint32' | 'setInt32' | 'setFloat32' | 'setFloat64';
const setters: Record<string, Setter> = { u32: 'setUint32', i32: 'setInt32', f32: 'setFloat32', f64: 'setFloat64' };

function write<T extends TableName>(view: DataView, table: T, base: number, entry: Entry<T>): void {
  const fields = tables[table].fields as Record<string, readonly [type: string, at: number]>;
  for (const name in entry) {
    const [type, at] = fields[name];
    view[setters[type]](base + at, entry[name as keyof Entry<T>]!, true);
  }
}

/** Sets fields of an entry that is in the kernel's memory already, at its address. */
export const setFields = <T extends TableName>(buffer: ArrayBufferLike, table: T, at: number, entry: Entry<T>): void =>
  write(new DataView(buffer as ArrayBuffer), table, at, entry);

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
    const base = n * this.stride;
    write(this.view, this.table, base, entry);
    for (let i = 0; i < tail.length; i++) this.view.setFloat32(base + tables[this.table].size + 4 * i, tail[i], true);
  }

  get bytes(): Uint8Array {
    return new Uint8Array(this.view.buffer);
  }
}
