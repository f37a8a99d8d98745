/** First byte that the host gives out; the kernels' own data must end below it, which `kernelInstance` makes sure of. */
export const firstByte = 65536;
/** Bytes of a page of WebAssembly's memory. */
export const pageBytes = 65536;

/** Hands out byte ranges of a shared memory, 64-byte aligned, before the memory exists. */
export class Arena {
  private next = firstByte;
  /**
   * Address of `bytes` new bytes.
   * @throws RangeError beyond 4 GB.
   */
  take(bytes: number): number {
    const at = this.next;
    this.next = Math.ceil((at + bytes) / 64) * 64;
    if (this.next > 2 ** 32 - 2 ** 17) throw new RangeError('The model needs more than 4 GB.');
    return at;
  }
  /** Pages needed. */
  pages(): number {
    return Math.ceil(this.next / pageBytes) + 1;
  }
  get bytes(): number {
    return this.next;
  }
}
