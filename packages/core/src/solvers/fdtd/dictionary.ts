/** Distinct rows of floats, each once, by number. */
export class Dictionary {
  private readonly byHash = new Map<number, number[]>();
  private rows = new Float32Array(1 << 14);
  count = 0;
  constructor(readonly width: number) {}

  /** Number of the row with these contents. */
  add(row: Float32Array): number {
    const bits = new Uint32Array(row.buffer, row.byteOffset, row.length);
    let hash = 2166136261;
    for (let i = 0; i < bits.length; i++) hash = Math.imul(hash ^ bits[i], 16777619);
    const same = this.byHash.get(hash) ?? [];
    for (const n of same) {
      const at = n * this.width;
      let equal = true;
      for (let i = 0; i < this.width && equal; i++) equal = this.rows[at + i] === row[i];
      if (equal) return n;
    }
    if ((this.count + 1) * this.width > this.rows.length) {
      const bigger = new Float32Array(Math.max(this.rows.length * 2, (this.count + 1) * this.width));
      bigger.set(this.rows);
      this.rows = bigger;
    }
    this.rows.set(row, this.count * this.width);
    this.byHash.set(hash, [...same, this.count]);
    return this.count++;
  }

  data(): Float32Array {
    return this.rows.subarray(0, this.count * this.width);
  }
}
