// Made from kernels/layout.mjs.

export const P_SX: i32 = 0; // row length in floats, a multiple of 4
export const P_NY: i32 = 1; // cells along y; rows per plane are NY + 1
export const P_NZ: i32 = 2; // cells along z
export const P_NX: i32 = 3; // cells along x
export const P_EX: i32 = 4; // byte addresses of the six field arrays
export const P_EY: i32 = 5;
export const P_EZ: i32 = 6;
export const P_HX: i32 = 7;
export const P_HY: i32 = 8;
export const P_HZ: i32 = 9;
export const P_ROWS: i32 = 10; // row dictionary: u32 [k][component][j], 0 = row is a wall, bit 0 = uniform vacuum
export const P_VACUUM: i32 = 11; // f32: c*dt
export const P_EX_INV: i32 = 12; // f32 rows: 1/(kappa*dual step) for E along x, y, z
export const P_EY_INV: i32 = 13;
export const P_EZ_INV: i32 = 14;
export const P_HX_INV: i32 = 15; // f32 rows: c*dt/(kappa*step) for H along x, y, z
export const P_HY_INV: i32 = 16;
export const P_HZ_INV: i32 = 17;
export const P_BARRIER: i32 = 18; // two i32: arrivals, generation
export const P_X_LOW: i32 = 19; // x-PML: floats in the low block
export const P_X_HIGH: i32 = 20; // x-PML: first float of the high block (SX if none)
export const P_Y_SLOT: i32 = 21; // i32[NY+1]: row slot in the y-PML arrays or -1
export const P_Z_SLOT: i32 = 22; // i32[NZ+1]: plane slot in the z-PML arrays or -1
export const P_Y_SLOTS: i32 = 23; // number of y slots
export const P_PML_E: i32 = 24; // addresses of b, c for x (rows), y, z
export const P_PML_H: i32 = 30; // the same for H
export const P_PSI_E: i32 = 36; // ExY ExZ EyZ EyX EzX EzY
export const P_PSI_H: i32 = 42; // HxY HxZ HyZ HyX HzX HzY
export const P_SRC_START: i32 = 48; // i32[NZ+1]: first source entry of each plane
export const P_SRC: i32 = 49; // table portSource by plane
export const P_PORTS: i32 = 50; // number of lumped ports
export const P_PORT: i32 = 51; // table port
export const P_DFT_COUNT: i32 = 52; // number of recorded regions
export const P_DFT: i32 = 53; // table region
export const P_DFT_EVERY: i32 = 54; // steps between samples, 0 = none
export const P_DFT_NF: i32 = 55; // frequencies
export const P_DFT_TWIDDLE: i32 = 56; // f32 [sample][E|H][f][cos, -sin]
export const P_SCRATCH: i32 = 57; // per-thread row scratch, SCRATCH_BYTES each
export const P_SCRATCH_BYTES: i32 = 58;
export const P_ENERGY: i32 = 59; // f64 per thread: partial energies of the last asked step
export const P_ENERGY_WX: i32 = 60; // f32 row of dx; ENERGY_WY, WZ: f32 of dy, dz
export const P_ENERGY_WY: i32 = 61;
export const P_ENERGY_WZ: i32 = 62;
export const P_SLABS: i32 = 63; // i32[threads+1]: first plane of each thread
export const P_EDGE_START: i32 = 64; // i32[NZ+2]: first branch of the edges of each plane, then the end
export const P_EDGES: i32 = 65; // table branch of edges
export const P_FACE_START: i32 = 66; // i32[NZ+2]: the same of faces; those of the last plane are on cut faces, wherever they are
export const P_FACES: i32 = 67; // table branch of faces
export const P_BRANCH: i32 = 68; // table branchClass
export const P_GUIDES: i32 = 69; // u32 addresses of tables guide
export const P_GUIDE_COUNT: i32 = 70;
export const P_CUT_COUNT: i32 = 71; // faces cut by curved metal
export const P_CUTS: i32 = 72; // table cutFace
export const P_CUT_LINKS: i32 = 73; // table cutLink
export const P_SPLIT_E_COUNT: i32 = 74; // edges, and parts of edges, beside sheets across no axis
export const P_SPLIT_E: i32 = 75; // table splitSample
export const P_SPLIT_H_COUNT: i32 = 76; // the same of faces
export const P_SPLIT_H: i32 = 77; // table splitSample
export const P_SPLIT_SUM_E_COUNT: i32 = 78; // samples of the grid that stand for the parts of an edge
export const P_SPLIT_SUM_E: i32 = 79; // table splitSum
export const P_SPLIT_SUM_H_COUNT: i32 = 80; // the same of faces
export const P_SPLIT_SUM_H: i32 = 81; // table splitSum
export const P_SPLIT_JUMP_COUNT: i32 = 82; // jumps of H at lossy sheets across no axis
export const P_SPLIT_JUMP: i32 = 83; // table splitJump
export const P_MIX_COUNT: i32 = 84; // edges at curved dielectric surfaces
export const P_MIX: i32 = 85; // table mixedEdge
export const P_MIX_LINKS: i32 = 86; // table mixLink
export const P_MIX_START: i32 = 87; // i32[NZ+1][NY+1] and the end: first of them in each row
export const P_WAVE_STEPS: i32 = 88; // steps in which a source from without adds to the fields, 0 = none
export const P_WAVE_TONES: i32 = 89;
export const P_WAVE_E: i32 = 90; // table injectedRow of E by plane
export const P_WAVE_E_START: i32 = 91; // i32[NZ+1]: first of each plane
export const P_WAVE_E_TURN: i32 = 92; // turns f32 [step][tone][re, im]
export const P_WAVE_H: i32 = 93; // the same of H
export const P_WAVE_H_START: i32 = 94;
export const P_WAVE_H_TURN: i32 = 95;
export const P_PORTALS: i32 = 96; // u32 addresses of tables portal: guided ports before absorbing layers
export const P_PORTAL_COUNT: i32 = 97;
export const P_MEMORY_START: i32 = 98; // i32[NZ+1][NY+1] and the end: first run of media with memory in each row; 0 = there is none
export const P_MEMORY: i32 = 99; // table memoryRun
export const P_PROBES: i32 = 100; // table probe: samples kept at every step
export const P_PROBE_COUNT: i32 = 101;
export const P_MIRROR: i32 = 102; // table side: what stands behind magnetic and periodic walls; 0 = there are none
export const P_ANNEXES: i32 = 103; // table annex: guides that go on behind a port in cells of their own
export const P_ANNEX_COUNT: i32 = 104;
export const P_BUSY: i32 = 105; // f64 of each thread: milliseconds of the sweep in the last call, without waiting
export const P_WORDS: i32 = 106;

/** A lumped port. */
export const PORT_EDGES: usize = 0;
export const PORT_COUNT: usize = 4;
export const PORT_SOURCE: usize = 8; // f32 of all steps
export const PORT_VOLTAGES: usize = 12; // f64 of all steps
export const PORT_GAIN: usize = 16; // one over its impedance and half of what its own current adds
export const PORT_OWN: usize = 24; // sum of weight times push
export const PORT_FACTOR: usize = 32; // of what it remembers
export const PORT_RISING: usize = 40;
export const PORT_FALLING: usize = 48;
export const PORT_PARALLEL: usize = 56; // 1 for a parallel load
export const PORT_HELD_A: usize = 64; // what it remembers
export const PORT_HELD_B: usize = 72;
export const PORT_SIZE: usize = 80;

/** An edge of a lumped port: E is driven by H on either side along one axis, less the other H along the other. */
export const PORT_EDGE_FIELD: usize = 0;
export const PORT_EDGE_VALUE: usize = 4;
export const PORT_EDGE_P: usize = 8;
export const PORT_EDGE_BACK_P: usize = 12;
export const PORT_EDGE_Q: usize = 16;
export const PORT_EDGE_BACK_Q: usize = 20;
export const PORT_EDGE_CA: usize = 24;
export const PORT_EDGE_DRIVE_P: usize = 28;
export const PORT_EDGE_DRIVE_BACK_P: usize = 32;
export const PORT_EDGE_DRIVE_Q: usize = 36;
export const PORT_EDGE_DRIVE_BACK_Q: usize = 40;
export const PORT_EDGE_WEIGHT: usize = 44;
export const PORT_EDGE_PUSH: usize = 48;
export const PORT_EDGE_SIZE: usize = 56;

/** Where the new value of a port’s edge goes. */
export const PORT_SOURCE_FIELD: usize = 0;
export const PORT_SOURCE_VALUE: usize = 4;
export const PORT_SOURCE_SIZE: usize = 8;

/** A recorded region: two samples, their weights, rows and their strides, where the sums are. */
export const REGION_A: usize = 0;
export const REGION_B: usize = 4;
export const REGION_WA: usize = 8;
export const REGION_WB: usize = 12;
export const REGION_INNER: usize = 16;
export const REGION_INNER_STRIDE: usize = 20;
export const REGION_OUTER: usize = 24;
export const REGION_OUTER_STRIDE: usize = 28;
export const REGION_SUMS: usize = 32;
export const REGION_PADDED: usize = 36;
export const REGION_MAGNETIC: usize = 40;
export const REGION_KEPT: usize = 44;
export const REGION_LIST: usize = 48;
export const REGION_SIZE: usize = 56;

/** A branch with memory on an edge or face; u are its eight states. */
export const BRANCH_FIELD: usize = 0;
export const BRANCH_KIND: usize = 4;
export const BRANCH_Q: usize = 8;
export const BRANCH_BEFORE: usize = 12;
export const BRANCH_U: usize = 16;
export const BRANCH_SIZE: usize = 48;

/** Coefficients of a class of branches. */
export const BRANCH_CLASS_G: usize = 0;
export const BRANCH_CLASS_S: usize = 16;
export const BRANCH_CLASS_KAPPA: usize = 48;
export const BRANCH_CLASS_W: usize = 80;
export const BRANCH_CLASS_SIZE: usize = 112;

/** A guided port that ends in lines. */
export const GUIDE_EDGES: usize = 0;
export const GUIDE_COUNT: usize = 4;
export const GUIDE_MODES: usize = 8;
export const GUIDE_CELLS: usize = 12; // of a line
export const GUIDE_LINES: usize = 16;
export const GUIDE_SOURCES: usize = 20; // f32 of all steps, a mode each
export const GUIDE_RECORDS: usize = 24; // f64 v, then i, of all steps, a mode each
export const GUIDE_STEPS: usize = 28;
export const GUIDE_REACH: usize = 32; // cells a wave goes in a step
export const GUIDE_SIZE: usize = 40;

/** A line of a mode, after its guide. */
export const GUIDE_MODE_CV: usize = 0;
export const GUIDE_MODE_CI: usize = 8;
export const GUIDE_MODE_CS: usize = 16;
export const GUIDE_MODE_CQ: usize = 24;
export const GUIDE_MODE_PULL: usize = 32;
export const GUIDE_MODE_CHARGE: usize = 40;
export const GUIDE_MODE_SIZE: usize = 48;

/** An edge of a guide; then f32 e and weight of H for each mode. */
export const GUIDE_EDGE_FIELD: usize = 0;
export const GUIDE_EDGE_BEYOND: usize = 4;
export const GUIDE_EDGE_SIZE: usize = 8;

/** A guided port before absorbing layers. */
export const PORTAL_EDGES: usize = 0;
export const PORTAL_COUNT: usize = 4;
export const PORTAL_MODES: usize = 8;
export const PORTAL_PROFILES: usize = 12;
export const PORTAL_SOURCES: usize = 16;
export const PORTAL_RECORDS: usize = 20;
export const PORTAL_STEPS: usize = 24;
export const PORTAL_SIZE: usize = 28;

/** An edge of a portal; then f32 what each mode’s current does to E, then f32 weights of E and of H for each profile. */
export const PORTAL_EDGE_FIELD: usize = 0;
export const PORTAL_EDGE_BEYOND: usize = 4;
export const PORTAL_EDGE_SIZE: usize = 8;

/** A guide that goes on behind its port in cells of its own: its parameter block, samples of H that come from the model, of E that go to it. */
export const ANNEX_CONFIG: usize = 0;
export const ANNEX_INWARD: usize = 4;
export const ANNEX_INWARD_COUNT: usize = 8;
export const ANNEX_OUTWARD: usize = 12;
export const ANNEX_OUTWARD_COUNT: usize = 16;
export const ANNEX_SIZE: usize = 20;

/** A sample that is copied. */
export const ANNEX_LINK_FROM: usize = 0;
export const ANNEX_LINK_TO: usize = 4;
export const ANNEX_LINK_SIZE: usize = 8;

/** A face cut by curved metal, or a lender. */
export const CUT_FACE_FIELD: usize = 0;
export const CUT_FACE_BEFORE: usize = 4;
export const CUT_FACE_CHANGE: usize = 8;
export const CUT_FACE_OWN: usize = 12;
export const CUT_FACE_FIRST: usize = 16;
export const CUT_FACE_END: usize = 20;
export const CUT_FACE_SIZE: usize = 24;

/** Of a cut face to another. */
export const CUT_LINK_FACE: usize = 0;
export const CUT_LINK_FACTOR: usize = 4;
export const CUT_LINK_SIZE: usize = 8;

/** A sample beside a sheet across no axis: two derivatives, each a sum of links and what the layers remember of it. */
export const SPLIT_SAMPLE_FIELD: usize = 0;
export const SPLIT_SAMPLE_KEEP: usize = 4;
export const SPLIT_SAMPLE_FIRST: usize = 8;
export const SPLIT_SAMPLE_MIDDLE: usize = 12;
export const SPLIT_SAMPLE_END: usize = 16;
export const SPLIT_SAMPLE_FACTOR_A: usize = 20;
export const SPLIT_SAMPLE_FADE_A: usize = 24;
export const SPLIT_SAMPLE_FEED_A: usize = 28;
export const SPLIT_SAMPLE_MEMORY_A: usize = 32;
export const SPLIT_SAMPLE_FACTOR_B: usize = 36;
export const SPLIT_SAMPLE_FADE_B: usize = 40;
export const SPLIT_SAMPLE_FEED_B: usize = 44;
export const SPLIT_SAMPLE_MEMORY_B: usize = 48;
export const SPLIT_SAMPLE_SIZE: usize = 52;

/** A sample and its weight. */
export const SPLIT_LINK_FROM: usize = 0;
export const SPLIT_LINK_WEIGHT: usize = 4;
export const SPLIT_LINK_SIZE: usize = 8;

/** A sample that is the sum of links. */
export const SPLIT_SUM_FIELD: usize = 0;
export const SPLIT_SUM_FIRST: usize = 4;
export const SPLIT_SUM_END: usize = 8;
export const SPLIT_SUM_SIZE: usize = 12;

/** The jump of H between two samples, and the share that the first has in its changes. */
export const SPLIT_JUMP_FIELD: usize = 0;
export const SPLIT_JUMP_ONE: usize = 4;
export const SPLIT_JUMP_OTHER: usize = 8;
export const SPLIT_JUMP_SHARE: usize = 12;
export const SPLIT_JUMP_SIZE: usize = 16;

/** An edge at a curved dielectric surface; the last three are of a medium with memory, else 0. */
export const MIXED_EDGE_FIELD: usize = 0;
export const MIXED_EDGE_P: usize = 4;
export const MIXED_EDGE_BACK_P: usize = 8;
export const MIXED_EDGE_Q: usize = 12;
export const MIXED_EDGE_BACK_Q: usize = 16;
export const MIXED_EDGE_LESS: usize = 20; // ca - 1
export const MIXED_EDGE_DRIVE_P: usize = 24;
export const MIXED_EDGE_DRIVE_Q: usize = 28;
export const MIXED_EDGE_CHANGE: usize = 32;
export const MIXED_EDGE_SHARE: usize = 36;
export const MIXED_EDGE_FIRST: usize = 40;
export const MIXED_EDGE_END: usize = 44;
export const MIXED_EDGE_KIND: usize = 48;
export const MIXED_EDGE_STATES: usize = 52;
export const MIXED_EDGE_NEXT: usize = 56;
export const MIXED_EDGE_SIZE: usize = 64;

/** Of a mixed edge to another. */
export const MIX_LINK_EDGE: usize = 0;
export const MIX_LINK_FACTOR: usize = 4;
export const MIX_LINK_SIZE: usize = 8;

/** A row to which a source adds: factors are re, im a tone, then as much room; `toIm` bytes from a table’s re to its im. */
export const INJECTED_ROW_FIRST: usize = 0;
export const INJECTED_ROW_STRIDE: usize = 4;
export const INJECTED_ROW_COUNT: usize = 8;
export const INJECTED_ROW_FACTORS: usize = 12;
export const INJECTED_ROW_TABLE: usize = 16;
export const INJECTED_ROW_TO_IM: usize = 20;
export const INJECTED_ROW_SIZE: usize = 32;

/** Edges along x in one medium with memory. */
export const MEMORY_RUN_FIELD: usize = 0;
export const MEMORY_RUN_KIND: usize = 4;
export const MEMORY_RUN_COUNT: usize = 8;
export const MEMORY_RUN_STATES: usize = 12;
export const MEMORY_RUN_SIZE: usize = 16;

/** A medium with memory; then f32 turn, pull, drive of each real state, and the same as re, im of each pair. */
export const MEMORY_CLASS_REALS: usize = 0;
export const MEMORY_CLASS_PAIRS: usize = 4;
export const MEMORY_CLASS_SIZE: usize = 8;

/** The mean of two samples kept at every step. */
export const PROBE_A: usize = 0;
export const PROBE_B: usize = 4;
export const PROBE_WA: usize = 8;
export const PROBE_WB: usize = 12;
export const PROBE_SERIES: usize = 16;
export const PROBE_SIZE: usize = 20;

/** What the cell behind a wall holds: cell to fill or -1, cell to read, sign. */
export const SIDE_TO: usize = 0;
export const SIDE_FROM: usize = 4;
export const SIDE_SIGN: usize = 8;
export const SIDE_SIZE: usize = 12;

/** What fills the matrix of wires: factors at a frequency, and where all of it lies. */
export const WIRE_FILL_K: usize = 0; // wave number, 1/m
export const WIRE_FILL_VECTOR: usize = 8; // factor of the vector part, times j
export const WIRE_FILL_SCALAR: usize = 16; // factor of the scalar part, times -j
export const WIRE_FILL_BASES: usize = 24;
export const WIRE_FILL_WIDTH: usize = 28; // bytes of a row of the matrix
export const WIRE_FILL_MATRIX: usize = 32; // pairs of columns as re, re, im, im
export const WIRE_FILL_SEGMENTS: usize = 36; // table wireSegment
export const WIRE_FILL_COUNT: usize = 40; // segments
export const WIRE_FILL_IMAGES: usize = 44; // table wireSegment of the images over a perfect ground; 0 = there are none
export const WIRE_FILL_NEAR_FIRST: usize = 48; // i32[count+1]: first close pair of each segment
export const WIRE_FILL_NEAR_LIST: usize = 52; // table wireNear
export const WIRE_FILL_IMAGE_FIRST: usize = 56; // the same of segments and images
export const WIRE_FILL_IMAGE_LIST: usize = 60;
export const WIRE_FILL_HALF_FIRST: usize = 64; // i32[bases+1]: first half of each basis
export const WIRE_FILL_HALVES: usize = 68; // table wireHalf
export const WIRE_FILL_END_FIRST: usize = 72; // i32[2 count+1]: first basis at each end, by 2 segment + end
export const WIRE_FILL_ENDS: usize = 76; // table wireEnd
export const WIRE_FILL_SCRATCH: usize = 80; // table wireSums of each segment, for each thread
export const WIRE_FILL_FIRST_SOURCE: usize = 84; // i32[bases]: first segment that has a basis from each on
export const WIRE_FILL_HALF: usize = 88; // 1 to fill the upper half alone
export const WIRE_FILL_SIZE: usize = 92;

/** A segment: where it begins, its direction, length and radius. */
export const WIRE_SEGMENT_X: usize = 0;
export const WIRE_SEGMENT_Y: usize = 8;
export const WIRE_SEGMENT_Z: usize = 16;
export const WIRE_SEGMENT_UX: usize = 24;
export const WIRE_SEGMENT_UY: usize = 32;
export const WIRE_SEGMENT_UZ: usize = 40;
export const WIRE_SEGMENT_LENGTH: usize = 48;
export const WIRE_SEGMENT_RADIUS: usize = 56;
export const WIRE_SEGMENT_SIZE: usize = 64;

/** A close pair: its source, what is added to squared distances, and the static integrals of the products of shape functions. */
export const WIRE_NEAR_SOURCE: usize = 0;
export const WIRE_NEAR_RHO2: usize = 8;
export const WIRE_NEAR_T00: usize = 16;
export const WIRE_NEAR_T01: usize = 24;
export const WIRE_NEAR_T10: usize = 32;
export const WIRE_NEAR_T11: usize = 40;
export const WIRE_NEAR_SIZE: usize = 48;

/** Half of a basis: the end of a segment where it peaks, and its sign along it. */
export const WIRE_HALF_SEGMENT: usize = 0;
export const WIRE_HALF_END: usize = 4;
export const WIRE_HALF_SIGN: usize = 8;
export const WIRE_HALF_SIZE: usize = 16;

/** A basis at an end of a segment. */
export const WIRE_END_BASIS: usize = 0;
export const WIRE_END_SIGN: usize = 8;
export const WIRE_END_SIZE: usize = 16;

/** Sums of a segment and a source: vector part of each product of shape functions, re and im, and the scalar part. */
export const WIRE_SUMS_V00: usize = 0;
export const WIRE_SUMS_V00_IM: usize = 8;
export const WIRE_SUMS_V01: usize = 16;
export const WIRE_SUMS_V01_IM: usize = 24;
export const WIRE_SUMS_V10: usize = 32;
export const WIRE_SUMS_V10_IM: usize = 40;
export const WIRE_SUMS_V11: usize = 48;
export const WIRE_SUMS_V11_IM: usize = 56;
export const WIRE_SUMS_S: usize = 64;
export const WIRE_SUMS_S_IM: usize = 72;
export const WIRE_SUMS_SIZE: usize = 80;

/** Reads the fields of an entry of a table, by its number, as f64 into `out`, and gives its size: the test of both sides. */
export function echo(table: i32, at: usize, out: usize): usize {
  if (table === 0) {
    store<f64>(out, <f64>load<u32>(at, PORT_EDGES), 0);
    store<f64>(out, <f64>load<u32>(at, PORT_COUNT), 8);
    store<f64>(out, <f64>load<u32>(at, PORT_SOURCE), 16);
    store<f64>(out, <f64>load<u32>(at, PORT_VOLTAGES), 24);
    store<f64>(out, <f64>load<f64>(at, PORT_GAIN), 32);
    store<f64>(out, <f64>load<f64>(at, PORT_OWN), 40);
    store<f64>(out, <f64>load<f64>(at, PORT_FACTOR), 48);
    store<f64>(out, <f64>load<f64>(at, PORT_RISING), 56);
    store<f64>(out, <f64>load<f64>(at, PORT_FALLING), 64);
    store<f64>(out, <f64>load<f64>(at, PORT_PARALLEL), 72);
    store<f64>(out, <f64>load<f64>(at, PORT_HELD_A), 80);
    store<f64>(out, <f64>load<f64>(at, PORT_HELD_B), 88);
    return PORT_SIZE;
  }
  if (table === 1) {
    store<f64>(out, <f64>load<u32>(at, PORT_EDGE_FIELD), 0);
    store<f64>(out, <f64>load<u32>(at, PORT_EDGE_VALUE), 8);
    store<f64>(out, <f64>load<u32>(at, PORT_EDGE_P), 16);
    store<f64>(out, <f64>load<u32>(at, PORT_EDGE_BACK_P), 24);
    store<f64>(out, <f64>load<u32>(at, PORT_EDGE_Q), 32);
    store<f64>(out, <f64>load<u32>(at, PORT_EDGE_BACK_Q), 40);
    store<f64>(out, <f64>load<f32>(at, PORT_EDGE_CA), 48);
    store<f64>(out, <f64>load<f32>(at, PORT_EDGE_DRIVE_P), 56);
    store<f64>(out, <f64>load<f32>(at, PORT_EDGE_DRIVE_BACK_P), 64);
    store<f64>(out, <f64>load<f32>(at, PORT_EDGE_DRIVE_Q), 72);
    store<f64>(out, <f64>load<f32>(at, PORT_EDGE_DRIVE_BACK_Q), 80);
    store<f64>(out, <f64>load<f32>(at, PORT_EDGE_WEIGHT), 88);
    store<f64>(out, <f64>load<f32>(at, PORT_EDGE_PUSH), 96);
    return PORT_EDGE_SIZE;
  }
  if (table === 2) {
    store<f64>(out, <f64>load<u32>(at, PORT_SOURCE_FIELD), 0);
    store<f64>(out, <f64>load<u32>(at, PORT_SOURCE_VALUE), 8);
    return PORT_SOURCE_SIZE;
  }
  if (table === 3) {
    store<f64>(out, <f64>load<u32>(at, REGION_A), 0);
    store<f64>(out, <f64>load<u32>(at, REGION_B), 8);
    store<f64>(out, <f64>load<f32>(at, REGION_WA), 16);
    store<f64>(out, <f64>load<f32>(at, REGION_WB), 24);
    store<f64>(out, <f64>load<i32>(at, REGION_INNER), 32);
    store<f64>(out, <f64>load<u32>(at, REGION_INNER_STRIDE), 40);
    store<f64>(out, <f64>load<i32>(at, REGION_OUTER), 48);
    store<f64>(out, <f64>load<u32>(at, REGION_OUTER_STRIDE), 56);
    store<f64>(out, <f64>load<u32>(at, REGION_SUMS), 64);
    store<f64>(out, <f64>load<u32>(at, REGION_PADDED), 72);
    store<f64>(out, <f64>load<i32>(at, REGION_MAGNETIC), 80);
    store<f64>(out, <f64>load<i32>(at, REGION_KEPT), 88);
    store<f64>(out, <f64>load<u32>(at, REGION_LIST), 96);
    return REGION_SIZE;
  }
  if (table === 4) {
    store<f64>(out, <f64>load<u32>(at, BRANCH_FIELD), 0);
    store<f64>(out, <f64>load<u32>(at, BRANCH_KIND), 8);
    store<f64>(out, <f64>load<f32>(at, BRANCH_Q), 16);
    store<f64>(out, <f64>load<f32>(at, BRANCH_BEFORE), 24);
    store<f64>(out, <f64>load<f32>(at, BRANCH_U), 32);
    return BRANCH_SIZE;
  }
  if (table === 5) {
    store<f64>(out, <f64>load<f32>(at, BRANCH_CLASS_G), 0);
    store<f64>(out, <f64>load<f32>(at, BRANCH_CLASS_S), 8);
    store<f64>(out, <f64>load<f32>(at, BRANCH_CLASS_KAPPA), 16);
    store<f64>(out, <f64>load<f32>(at, BRANCH_CLASS_W), 24);
    return BRANCH_CLASS_SIZE;
  }
  if (table === 6) {
    store<f64>(out, <f64>load<u32>(at, GUIDE_EDGES), 0);
    store<f64>(out, <f64>load<i32>(at, GUIDE_COUNT), 8);
    store<f64>(out, <f64>load<i32>(at, GUIDE_MODES), 16);
    store<f64>(out, <f64>load<i32>(at, GUIDE_CELLS), 24);
    store<f64>(out, <f64>load<u32>(at, GUIDE_LINES), 32);
    store<f64>(out, <f64>load<u32>(at, GUIDE_SOURCES), 40);
    store<f64>(out, <f64>load<u32>(at, GUIDE_RECORDS), 48);
    store<f64>(out, <f64>load<i32>(at, GUIDE_STEPS), 56);
    store<f64>(out, <f64>load<f64>(at, GUIDE_REACH), 64);
    return GUIDE_SIZE;
  }
  if (table === 7) {
    store<f64>(out, <f64>load<f64>(at, GUIDE_MODE_CV), 0);
    store<f64>(out, <f64>load<f64>(at, GUIDE_MODE_CI), 8);
    store<f64>(out, <f64>load<f64>(at, GUIDE_MODE_CS), 16);
    store<f64>(out, <f64>load<f64>(at, GUIDE_MODE_CQ), 24);
    store<f64>(out, <f64>load<f64>(at, GUIDE_MODE_PULL), 32);
    store<f64>(out, <f64>load<f64>(at, GUIDE_MODE_CHARGE), 40);
    return GUIDE_MODE_SIZE;
  }
  if (table === 8) {
    store<f64>(out, <f64>load<u32>(at, GUIDE_EDGE_FIELD), 0);
    store<f64>(out, <f64>load<u32>(at, GUIDE_EDGE_BEYOND), 8);
    return GUIDE_EDGE_SIZE;
  }
  if (table === 9) {
    store<f64>(out, <f64>load<u32>(at, PORTAL_EDGES), 0);
    store<f64>(out, <f64>load<i32>(at, PORTAL_COUNT), 8);
    store<f64>(out, <f64>load<i32>(at, PORTAL_MODES), 16);
    store<f64>(out, <f64>load<i32>(at, PORTAL_PROFILES), 24);
    store<f64>(out, <f64>load<u32>(at, PORTAL_SOURCES), 32);
    store<f64>(out, <f64>load<u32>(at, PORTAL_RECORDS), 40);
    store<f64>(out, <f64>load<i32>(at, PORTAL_STEPS), 48);
    return PORTAL_SIZE;
  }
  if (table === 10) {
    store<f64>(out, <f64>load<u32>(at, PORTAL_EDGE_FIELD), 0);
    store<f64>(out, <f64>load<u32>(at, PORTAL_EDGE_BEYOND), 8);
    return PORTAL_EDGE_SIZE;
  }
  if (table === 11) {
    store<f64>(out, <f64>load<u32>(at, ANNEX_CONFIG), 0);
    store<f64>(out, <f64>load<u32>(at, ANNEX_INWARD), 8);
    store<f64>(out, <f64>load<i32>(at, ANNEX_INWARD_COUNT), 16);
    store<f64>(out, <f64>load<u32>(at, ANNEX_OUTWARD), 24);
    store<f64>(out, <f64>load<i32>(at, ANNEX_OUTWARD_COUNT), 32);
    return ANNEX_SIZE;
  }
  if (table === 12) {
    store<f64>(out, <f64>load<u32>(at, ANNEX_LINK_FROM), 0);
    store<f64>(out, <f64>load<u32>(at, ANNEX_LINK_TO), 8);
    return ANNEX_LINK_SIZE;
  }
  if (table === 13) {
    store<f64>(out, <f64>load<u32>(at, CUT_FACE_FIELD), 0);
    store<f64>(out, <f64>load<f32>(at, CUT_FACE_BEFORE), 8);
    store<f64>(out, <f64>load<f32>(at, CUT_FACE_CHANGE), 16);
    store<f64>(out, <f64>load<f32>(at, CUT_FACE_OWN), 24);
    store<f64>(out, <f64>load<i32>(at, CUT_FACE_FIRST), 32);
    store<f64>(out, <f64>load<i32>(at, CUT_FACE_END), 40);
    return CUT_FACE_SIZE;
  }
  if (table === 14) {
    store<f64>(out, <f64>load<i32>(at, CUT_LINK_FACE), 0);
    store<f64>(out, <f64>load<f32>(at, CUT_LINK_FACTOR), 8);
    return CUT_LINK_SIZE;
  }
  if (table === 15) {
    store<f64>(out, <f64>load<u32>(at, SPLIT_SAMPLE_FIELD), 0);
    store<f64>(out, <f64>load<f32>(at, SPLIT_SAMPLE_KEEP), 8);
    store<f64>(out, <f64>load<u32>(at, SPLIT_SAMPLE_FIRST), 16);
    store<f64>(out, <f64>load<u32>(at, SPLIT_SAMPLE_MIDDLE), 24);
    store<f64>(out, <f64>load<u32>(at, SPLIT_SAMPLE_END), 32);
    store<f64>(out, <f64>load<f32>(at, SPLIT_SAMPLE_FACTOR_A), 40);
    store<f64>(out, <f64>load<f32>(at, SPLIT_SAMPLE_FADE_A), 48);
    store<f64>(out, <f64>load<f32>(at, SPLIT_SAMPLE_FEED_A), 56);
    store<f64>(out, <f64>load<f32>(at, SPLIT_SAMPLE_MEMORY_A), 64);
    store<f64>(out, <f64>load<f32>(at, SPLIT_SAMPLE_FACTOR_B), 72);
    store<f64>(out, <f64>load<f32>(at, SPLIT_SAMPLE_FADE_B), 80);
    store<f64>(out, <f64>load<f32>(at, SPLIT_SAMPLE_FEED_B), 88);
    store<f64>(out, <f64>load<f32>(at, SPLIT_SAMPLE_MEMORY_B), 96);
    return SPLIT_SAMPLE_SIZE;
  }
  if (table === 16) {
    store<f64>(out, <f64>load<u32>(at, SPLIT_LINK_FROM), 0);
    store<f64>(out, <f64>load<f32>(at, SPLIT_LINK_WEIGHT), 8);
    return SPLIT_LINK_SIZE;
  }
  if (table === 17) {
    store<f64>(out, <f64>load<u32>(at, SPLIT_SUM_FIELD), 0);
    store<f64>(out, <f64>load<u32>(at, SPLIT_SUM_FIRST), 8);
    store<f64>(out, <f64>load<u32>(at, SPLIT_SUM_END), 16);
    return SPLIT_SUM_SIZE;
  }
  if (table === 18) {
    store<f64>(out, <f64>load<u32>(at, SPLIT_JUMP_FIELD), 0);
    store<f64>(out, <f64>load<u32>(at, SPLIT_JUMP_ONE), 8);
    store<f64>(out, <f64>load<u32>(at, SPLIT_JUMP_OTHER), 16);
    store<f64>(out, <f64>load<f32>(at, SPLIT_JUMP_SHARE), 24);
    return SPLIT_JUMP_SIZE;
  }
  if (table === 19) {
    store<f64>(out, <f64>load<u32>(at, MIXED_EDGE_FIELD), 0);
    store<f64>(out, <f64>load<u32>(at, MIXED_EDGE_P), 8);
    store<f64>(out, <f64>load<u32>(at, MIXED_EDGE_BACK_P), 16);
    store<f64>(out, <f64>load<u32>(at, MIXED_EDGE_Q), 24);
    store<f64>(out, <f64>load<u32>(at, MIXED_EDGE_BACK_Q), 32);
    store<f64>(out, <f64>load<f32>(at, MIXED_EDGE_LESS), 40);
    store<f64>(out, <f64>load<f32>(at, MIXED_EDGE_DRIVE_P), 48);
    store<f64>(out, <f64>load<f32>(at, MIXED_EDGE_DRIVE_Q), 56);
    store<f64>(out, <f64>load<f32>(at, MIXED_EDGE_CHANGE), 64);
    store<f64>(out, <f64>load<f32>(at, MIXED_EDGE_SHARE), 72);
    store<f64>(out, <f64>load<i32>(at, MIXED_EDGE_FIRST), 80);
    store<f64>(out, <f64>load<i32>(at, MIXED_EDGE_END), 88);
    store<f64>(out, <f64>load<u32>(at, MIXED_EDGE_KIND), 96);
    store<f64>(out, <f64>load<u32>(at, MIXED_EDGE_STATES), 104);
    store<f64>(out, <f64>load<u32>(at, MIXED_EDGE_NEXT), 112);
    return MIXED_EDGE_SIZE;
  }
  if (table === 20) {
    store<f64>(out, <f64>load<i32>(at, MIX_LINK_EDGE), 0);
    store<f64>(out, <f64>load<f32>(at, MIX_LINK_FACTOR), 8);
    return MIX_LINK_SIZE;
  }
  if (table === 21) {
    store<f64>(out, <f64>load<u32>(at, INJECTED_ROW_FIRST), 0);
    store<f64>(out, <f64>load<u32>(at, INJECTED_ROW_STRIDE), 8);
    store<f64>(out, <f64>load<i32>(at, INJECTED_ROW_COUNT), 16);
    store<f64>(out, <f64>load<u32>(at, INJECTED_ROW_FACTORS), 24);
    store<f64>(out, <f64>load<u32>(at, INJECTED_ROW_TABLE), 32);
    store<f64>(out, <f64>load<u32>(at, INJECTED_ROW_TO_IM), 40);
    return INJECTED_ROW_SIZE;
  }
  if (table === 22) {
    store<f64>(out, <f64>load<u32>(at, MEMORY_RUN_FIELD), 0);
    store<f64>(out, <f64>load<u32>(at, MEMORY_RUN_KIND), 8);
    store<f64>(out, <f64>load<i32>(at, MEMORY_RUN_COUNT), 16);
    store<f64>(out, <f64>load<u32>(at, MEMORY_RUN_STATES), 24);
    return MEMORY_RUN_SIZE;
  }
  if (table === 23) {
    store<f64>(out, <f64>load<i32>(at, MEMORY_CLASS_REALS), 0);
    store<f64>(out, <f64>load<i32>(at, MEMORY_CLASS_PAIRS), 8);
    return MEMORY_CLASS_SIZE;
  }
  if (table === 24) {
    store<f64>(out, <f64>load<u32>(at, PROBE_A), 0);
    store<f64>(out, <f64>load<u32>(at, PROBE_B), 8);
    store<f64>(out, <f64>load<f32>(at, PROBE_WA), 16);
    store<f64>(out, <f64>load<f32>(at, PROBE_WB), 24);
    store<f64>(out, <f64>load<u32>(at, PROBE_SERIES), 32);
    return PROBE_SIZE;
  }
  if (table === 25) {
    store<f64>(out, <f64>load<i32>(at, SIDE_TO), 0);
    store<f64>(out, <f64>load<i32>(at, SIDE_FROM), 8);
    store<f64>(out, <f64>load<f32>(at, SIDE_SIGN), 16);
    return SIDE_SIZE;
  }
  if (table === 26) {
    store<f64>(out, <f64>load<f64>(at, WIRE_FILL_K), 0);
    store<f64>(out, <f64>load<f64>(at, WIRE_FILL_VECTOR), 8);
    store<f64>(out, <f64>load<f64>(at, WIRE_FILL_SCALAR), 16);
    store<f64>(out, <f64>load<i32>(at, WIRE_FILL_BASES), 24);
    store<f64>(out, <f64>load<u32>(at, WIRE_FILL_WIDTH), 32);
    store<f64>(out, <f64>load<u32>(at, WIRE_FILL_MATRIX), 40);
    store<f64>(out, <f64>load<u32>(at, WIRE_FILL_SEGMENTS), 48);
    store<f64>(out, <f64>load<i32>(at, WIRE_FILL_COUNT), 56);
    store<f64>(out, <f64>load<u32>(at, WIRE_FILL_IMAGES), 64);
    store<f64>(out, <f64>load<u32>(at, WIRE_FILL_NEAR_FIRST), 72);
    store<f64>(out, <f64>load<u32>(at, WIRE_FILL_NEAR_LIST), 80);
    store<f64>(out, <f64>load<u32>(at, WIRE_FILL_IMAGE_FIRST), 88);
    store<f64>(out, <f64>load<u32>(at, WIRE_FILL_IMAGE_LIST), 96);
    store<f64>(out, <f64>load<u32>(at, WIRE_FILL_HALF_FIRST), 104);
    store<f64>(out, <f64>load<u32>(at, WIRE_FILL_HALVES), 112);
    store<f64>(out, <f64>load<u32>(at, WIRE_FILL_END_FIRST), 120);
    store<f64>(out, <f64>load<u32>(at, WIRE_FILL_ENDS), 128);
    store<f64>(out, <f64>load<u32>(at, WIRE_FILL_SCRATCH), 136);
    store<f64>(out, <f64>load<u32>(at, WIRE_FILL_FIRST_SOURCE), 144);
    store<f64>(out, <f64>load<i32>(at, WIRE_FILL_HALF), 152);
    return WIRE_FILL_SIZE;
  }
  if (table === 27) {
    store<f64>(out, <f64>load<f64>(at, WIRE_SEGMENT_X), 0);
    store<f64>(out, <f64>load<f64>(at, WIRE_SEGMENT_Y), 8);
    store<f64>(out, <f64>load<f64>(at, WIRE_SEGMENT_Z), 16);
    store<f64>(out, <f64>load<f64>(at, WIRE_SEGMENT_UX), 24);
    store<f64>(out, <f64>load<f64>(at, WIRE_SEGMENT_UY), 32);
    store<f64>(out, <f64>load<f64>(at, WIRE_SEGMENT_UZ), 40);
    store<f64>(out, <f64>load<f64>(at, WIRE_SEGMENT_LENGTH), 48);
    store<f64>(out, <f64>load<f64>(at, WIRE_SEGMENT_RADIUS), 56);
    return WIRE_SEGMENT_SIZE;
  }
  if (table === 28) {
    store<f64>(out, <f64>load<i32>(at, WIRE_NEAR_SOURCE), 0);
    store<f64>(out, <f64>load<f64>(at, WIRE_NEAR_RHO2), 8);
    store<f64>(out, <f64>load<f64>(at, WIRE_NEAR_T00), 16);
    store<f64>(out, <f64>load<f64>(at, WIRE_NEAR_T01), 24);
    store<f64>(out, <f64>load<f64>(at, WIRE_NEAR_T10), 32);
    store<f64>(out, <f64>load<f64>(at, WIRE_NEAR_T11), 40);
    return WIRE_NEAR_SIZE;
  }
  if (table === 29) {
    store<f64>(out, <f64>load<i32>(at, WIRE_HALF_SEGMENT), 0);
    store<f64>(out, <f64>load<i32>(at, WIRE_HALF_END), 8);
    store<f64>(out, <f64>load<f64>(at, WIRE_HALF_SIGN), 16);
    return WIRE_HALF_SIZE;
  }
  if (table === 30) {
    store<f64>(out, <f64>load<i32>(at, WIRE_END_BASIS), 0);
    store<f64>(out, <f64>load<f64>(at, WIRE_END_SIGN), 8);
    return WIRE_END_SIZE;
  }
  if (table === 31) {
    store<f64>(out, <f64>load<f64>(at, WIRE_SUMS_V00), 0);
    store<f64>(out, <f64>load<f64>(at, WIRE_SUMS_V00_IM), 8);
    store<f64>(out, <f64>load<f64>(at, WIRE_SUMS_V01), 16);
    store<f64>(out, <f64>load<f64>(at, WIRE_SUMS_V01_IM), 24);
    store<f64>(out, <f64>load<f64>(at, WIRE_SUMS_V10), 32);
    store<f64>(out, <f64>load<f64>(at, WIRE_SUMS_V10_IM), 40);
    store<f64>(out, <f64>load<f64>(at, WIRE_SUMS_V11), 48);
    store<f64>(out, <f64>load<f64>(at, WIRE_SUMS_V11_IM), 56);
    store<f64>(out, <f64>load<f64>(at, WIRE_SUMS_S), 64);
    store<f64>(out, <f64>load<f64>(at, WIRE_SUMS_S_IM), 72);
    return WIRE_SUMS_SIZE;
  }
  return 0;
}
