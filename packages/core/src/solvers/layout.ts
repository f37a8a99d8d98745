// Made from kernels/layout.mjs.

/** Word numbers of the kernel’s parameter block. */
export const P = {
  SX: 0,
  NY: 1,
  NZ: 2,
  NX: 3,
  EX: 4,
  EY: 5,
  EZ: 6,
  HX: 7,
  HY: 8,
  HZ: 9,
  ROWS: 10,
  VACUUM: 11,
  EX_INV: 12,
  EY_INV: 13,
  EZ_INV: 14,
  HX_INV: 15,
  HY_INV: 16,
  HZ_INV: 17,
  BARRIER: 18,
  X_LOW: 19,
  X_HIGH: 20,
  Y_SLOT: 21,
  Z_SLOT: 22,
  Y_SLOTS: 23,
  PML_E: 24,
  PML_H: 30,
  PSI_E: 36,
  PSI_H: 42,
  SRC_START: 48,
  SRC: 49,
  PORTS: 50,
  PORT: 51,
  DFT_COUNT: 52,
  DFT: 53,
  DFT_EVERY: 54,
  DFT_NF: 55,
  DFT_TWIDDLE: 56,
  SCRATCH: 57,
  SCRATCH_BYTES: 58,
  ENERGY: 59,
  ENERGY_WX: 60,
  ENERGY_WY: 61,
  ENERGY_WZ: 62,
  SLABS: 63,
  EDGE_START: 64,
  EDGES: 65,
  FACE_START: 66,
  FACES: 67,
  BRANCH: 68,
  GUIDES: 69,
  GUIDE_COUNT: 70,
  CUT_COUNT: 71,
  CUTS: 72,
  CUT_LINKS: 73,
  SPLIT_E_COUNT: 74,
  SPLIT_E: 75,
  SPLIT_H_COUNT: 76,
  SPLIT_H: 77,
  SPLIT_SUM_E_COUNT: 78,
  SPLIT_SUM_E: 79,
  SPLIT_SUM_H_COUNT: 80,
  SPLIT_SUM_H: 81,
  SPLIT_JUMP_COUNT: 82,
  SPLIT_JUMP: 83,
  MIX_COUNT: 84,
  MIX: 85,
  MIX_LINKS: 86,
  MIX_START: 87,
  WAVE_STEPS: 88,
  WAVE_TONES: 89,
  WAVE_E: 90,
  WAVE_E_START: 91,
  WAVE_E_TURN: 92,
  WAVE_H: 93,
  WAVE_H_START: 94,
  WAVE_H_TURN: 95,
  PORTALS: 96,
  PORTAL_COUNT: 97,
  MEMORY_START: 98,
  MEMORY: 99,
  PROBES: 100,
  PROBE_COUNT: 101,
  MIRROR: 102,
  ANNEXES: 103,
  ANNEX_COUNT: 104,
  BUSY: 105,
  WORDS: 106,
} as const;

/** Tables that the kernel reads: size of an entry, and its fields with their types and offsets, bytes. */
export const tables = {
  /** A lumped port. */
  port: {
    size: 80,
    fields: {
      edges: ['u32', 0],
      count: ['u32', 4],
      source: ['u32', 8],
      voltages: ['u32', 12],
      gain: ['f64', 16],
      own: ['f64', 24],
      factor: ['f64', 32],
      rising: ['f64', 40],
      falling: ['f64', 48],
      parallel: ['f64', 56],
      heldA: ['f64', 64],
      heldB: ['f64', 72],
    },
  },
  /** An edge of a lumped port: E is driven by H on either side along one axis, less the other H along the other. */
  portEdge: {
    size: 56,
    fields: {
      field: ['u32', 0],
      value: ['u32', 4],
      p: ['u32', 8],
      backP: ['u32', 12],
      q: ['u32', 16],
      backQ: ['u32', 20],
      ca: ['f32', 24],
      driveP: ['f32', 28],
      driveBackP: ['f32', 32],
      driveQ: ['f32', 36],
      driveBackQ: ['f32', 40],
      weight: ['f32', 44],
      push: ['f32', 48],
    },
  },
  /** Where the new value of a port’s edge goes. */
  portSource: {
    size: 8,
    fields: {
      field: ['u32', 0],
      value: ['u32', 4],
    },
  },
  /** A recorded region: two samples, their weights, rows and their strides, where the sums are. */
  region: {
    size: 56,
    fields: {
      a: ['u32', 0],
      b: ['u32', 4],
      wa: ['f32', 8],
      wb: ['f32', 12],
      inner: ['i32', 16],
      innerStride: ['u32', 20],
      outer: ['i32', 24],
      outerStride: ['u32', 28],
      sums: ['u32', 32],
      padded: ['u32', 36],
      magnetic: ['i32', 40],
      kept: ['i32', 44],
      list: ['u32', 48],
    },
  },
  /** A branch with memory on an edge or face; u are its eight states. */
  branch: {
    size: 48,
    fields: {
      field: ['u32', 0],
      kind: ['u32', 4],
      q: ['f32', 8],
      before: ['f32', 12],
      u: ['f32', 16],
    },
  },
  /** Coefficients of a class of branches. */
  branchClass: {
    size: 112,
    fields: {
      g: ['f32', 0],
      s: ['f32', 16],
      kappa: ['f32', 48],
      w: ['f32', 80],
    },
  },
  /** A guided port that ends in lines. */
  guide: {
    size: 40,
    fields: {
      edges: ['u32', 0],
      count: ['i32', 4],
      modes: ['i32', 8],
      cells: ['i32', 12],
      lines: ['u32', 16],
      sources: ['u32', 20],
      records: ['u32', 24],
      steps: ['i32', 28],
      reach: ['f64', 32],
    },
  },
  /** A line of a mode, after its guide. */
  guideMode: {
    size: 48,
    fields: {
      cv: ['f64', 0],
      ci: ['f64', 8],
      cs: ['f64', 16],
      cq: ['f64', 24],
      pull: ['f64', 32],
      charge: ['f64', 40],
    },
  },
  /** An edge of a guide; then f32 e and weight of H for each mode. */
  guideEdge: {
    size: 8,
    fields: {
      field: ['u32', 0],
      beyond: ['u32', 4],
    },
  },
  /** A guided port before absorbing layers. */
  portal: {
    size: 28,
    fields: {
      edges: ['u32', 0],
      count: ['i32', 4],
      modes: ['i32', 8],
      profiles: ['i32', 12],
      sources: ['u32', 16],
      records: ['u32', 20],
      steps: ['i32', 24],
    },
  },
  /** An edge of a portal; then f32 what each mode’s current does to E, then f32 weights of E and of H for each profile. */
  portalEdge: {
    size: 8,
    fields: {
      field: ['u32', 0],
      beyond: ['u32', 4],
    },
  },
  /** A guide that goes on behind its port in cells of its own: its parameter block, samples of H that come from the model, of E that go to it. */
  annex: {
    size: 20,
    fields: {
      config: ['u32', 0],
      inward: ['u32', 4],
      inwardCount: ['i32', 8],
      outward: ['u32', 12],
      outwardCount: ['i32', 16],
    },
  },
  /** A sample that is copied. */
  annexLink: {
    size: 8,
    fields: {
      from: ['u32', 0],
      to: ['u32', 4],
    },
  },
  /** A face cut by curved metal, or a lender. */
  cutFace: {
    size: 24,
    fields: {
      field: ['u32', 0],
      before: ['f32', 4],
      change: ['f32', 8],
      own: ['f32', 12],
      first: ['i32', 16],
      end: ['i32', 20],
    },
  },
  /** Of a cut face to another. */
  cutLink: {
    size: 8,
    fields: {
      face: ['i32', 0],
      factor: ['f32', 4],
    },
  },
  /** A sample beside a sheet across no axis: two derivatives, each a sum of links and what the layers remember of it. */
  splitSample: {
    size: 52,
    fields: {
      field: ['u32', 0],
      keep: ['f32', 4],
      first: ['u32', 8],
      middle: ['u32', 12],
      end: ['u32', 16],
      factorA: ['f32', 20],
      fadeA: ['f32', 24],
      feedA: ['f32', 28],
      memoryA: ['f32', 32],
      factorB: ['f32', 36],
      fadeB: ['f32', 40],
      feedB: ['f32', 44],
      memoryB: ['f32', 48],
    },
  },
  /** A sample and its weight. */
  splitLink: {
    size: 8,
    fields: {
      from: ['u32', 0],
      weight: ['f32', 4],
    },
  },
  /** A sample that is the sum of links. */
  splitSum: {
    size: 12,
    fields: {
      field: ['u32', 0],
      first: ['u32', 4],
      end: ['u32', 8],
    },
  },
  /** The jump of H between two samples, and the share that the first has in its changes. */
  splitJump: {
    size: 16,
    fields: {
      field: ['u32', 0],
      one: ['u32', 4],
      other: ['u32', 8],
      share: ['f32', 12],
    },
  },
  /** An edge at a curved dielectric surface; the last three are of a medium with memory, else 0. */
  mixedEdge: {
    size: 64,
    fields: {
      field: ['u32', 0],
      p: ['u32', 4],
      backP: ['u32', 8],
      q: ['u32', 12],
      backQ: ['u32', 16],
      less: ['f32', 20],
      driveP: ['f32', 24],
      driveQ: ['f32', 28],
      change: ['f32', 32],
      share: ['f32', 36],
      first: ['i32', 40],
      end: ['i32', 44],
      kind: ['u32', 48],
      states: ['u32', 52],
      next: ['u32', 56],
    },
  },
  /** Of a mixed edge to another. */
  mixLink: {
    size: 8,
    fields: {
      edge: ['i32', 0],
      factor: ['f32', 4],
    },
  },
  /** A row to which a source adds: factors are re, im a tone, then as much room; `toIm` bytes from a table’s re to its im. */
  injectedRow: {
    size: 32,
    fields: {
      first: ['u32', 0],
      stride: ['u32', 4],
      count: ['i32', 8],
      factors: ['u32', 12],
      table: ['u32', 16],
      toIm: ['u32', 20],
    },
  },
  /** Edges along x in one medium with memory. */
  memoryRun: {
    size: 16,
    fields: {
      field: ['u32', 0],
      kind: ['u32', 4],
      count: ['i32', 8],
      states: ['u32', 12],
    },
  },
  /** A medium with memory; then f32 turn, pull, drive of each real state, and the same as re, im of each pair. */
  memoryClass: {
    size: 8,
    fields: {
      reals: ['i32', 0],
      pairs: ['i32', 4],
    },
  },
  /** The mean of two samples kept at every step. */
  probe: {
    size: 20,
    fields: {
      a: ['u32', 0],
      b: ['u32', 4],
      wa: ['f32', 8],
      wb: ['f32', 12],
      series: ['u32', 16],
    },
  },
  /** What the cell behind a wall holds: cell to fill or -1, cell to read, sign. */
  side: {
    size: 12,
    fields: {
      to: ['i32', 0],
      from: ['i32', 4],
      sign: ['f32', 8],
    },
  },
  /** What fills the matrix of wires: factors at a frequency, and where all of it lies. */
  wireFill: {
    size: 92,
    fields: {
      k: ['f64', 0],
      vector: ['f64', 8],
      scalar: ['f64', 16],
      bases: ['i32', 24],
      width: ['u32', 28],
      matrix: ['u32', 32],
      segments: ['u32', 36],
      count: ['i32', 40],
      images: ['u32', 44],
      nearFirst: ['u32', 48],
      nearList: ['u32', 52],
      imageFirst: ['u32', 56],
      imageList: ['u32', 60],
      halfFirst: ['u32', 64],
      halves: ['u32', 68],
      endFirst: ['u32', 72],
      ends: ['u32', 76],
      scratch: ['u32', 80],
      firstSource: ['u32', 84],
      half: ['i32', 88],
    },
  },
  /** A segment: where it begins, its direction, length and radius. */
  wireSegment: {
    size: 64,
    fields: {
      x: ['f64', 0],
      y: ['f64', 8],
      z: ['f64', 16],
      ux: ['f64', 24],
      uy: ['f64', 32],
      uz: ['f64', 40],
      length: ['f64', 48],
      radius: ['f64', 56],
    },
  },
  /** A close pair: its source, what is added to squared distances, and the static integrals of the products of shape functions. */
  wireNear: {
    size: 48,
    fields: {
      source: ['i32', 0],
      rho2: ['f64', 8],
      t00: ['f64', 16],
      t01: ['f64', 24],
      t10: ['f64', 32],
      t11: ['f64', 40],
    },
  },
  /** Half of a basis: the end of a segment where it peaks, and its sign along it. */
  wireHalf: {
    size: 16,
    fields: {
      segment: ['i32', 0],
      end: ['i32', 4],
      sign: ['f64', 8],
    },
  },
  /** A basis at an end of a segment. */
  wireEnd: {
    size: 16,
    fields: {
      basis: ['i32', 0],
      sign: ['f64', 8],
    },
  },
  /** Sums of a segment and a source: vector part of each product of shape functions, re and im, and the scalar part. */
  wireSums: {
    size: 80,
    fields: {
      v00: ['f64', 0],
      v00Im: ['f64', 8],
      v01: ['f64', 16],
      v01Im: ['f64', 24],
      v10: ['f64', 32],
      v10Im: ['f64', 40],
      v11: ['f64', 48],
      v11Im: ['f64', 56],
      s: ['f64', 64],
      sIm: ['f64', 72],
    },
  },
} as const;
