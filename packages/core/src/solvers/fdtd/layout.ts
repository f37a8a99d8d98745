/** Word numbers of the kernel's parameter block; the kernel's copy is kernels/assembly/params.ts. */
export const P = {
  SX: 0, NY: 1, NZ: 2, NX: 3, EX: 4, EY: 5, EZ: 6, HX: 7, HY: 8, HZ: 9, ROWS: 10, VACUUM: 11, EX_INV: 12, EY_INV: 13, EZ_INV: 14, HX_INV: 15, HY_INV: 16, HZ_INV: 17, BARRIER: 18,
  X_LOW: 19, X_HIGH: 20, Y_SLOT: 21, Z_SLOT: 22, Y_SLOTS: 23, PML_E: 24, PML_H: 30, PSI_E: 36, PSI_H: 42, SRC_START: 48, SRC: 49, PORTS: 50, PORT: 51, DFT_COUNT: 52, DFT: 53,
  DFT_EVERY: 54, DFT_NF: 55, DFT_TWIDDLE: 56, SCRATCH: 57, SCRATCH_BYTES: 58, ENERGY: 59, ENERGY_WX: 60, ENERGY_WY: 61, ENERGY_WZ: 62, SLABS: 63,
  EDGE_START: 64, EDGES: 65, FACE_START: 66, FACES: 67, BRANCH: 68, GUIDES: 69, GUIDE_COUNT: 70, CUT_COUNT: 71, CUTS: 72, CUT_LINKS: 73, MIX_COUNT: 74, MIX: 75, MIX_LINKS: 76, MIX_START: 77,
  WAVE_STEPS: 78, WAVE_TONES: 79, WAVE_E: 80, WAVE_E_START: 81, WAVE_E_TURN: 82, WAVE_H: 83, WAVE_H_START: 84, WAVE_H_TURN: 85, PORTALS: 86, PORTAL_COUNT: 87, MEMORY_START: 88, MEMORY: 89, PROBES: 90, PROBE_COUNT: 91, MIRROR: 92, BUSY: 93, WORDS: 94,
} as const; // prettier-ignore

/** Hands out byte ranges of the shared memory, 64-byte aligned, before the memory exists. */
export class Arena {
  /** The kernel's own static data ends well below this. */
  private next = 65536;
  /** Address of `bytes` new bytes. */
  take(bytes: number): number {
    const at = this.next;
    this.next = Math.ceil((at + bytes) / 64) * 64;
    if (this.next > 2 ** 32 - 2 ** 17) throw new RangeError('The model needs more than 4 GB.');
    return at;
  }
  /** 64 KiB pages needed. */
  pages(): number {
    return Math.ceil(this.next / 65536) + 1;
  }
  get bytes(): number {
    return this.next;
  }
}
