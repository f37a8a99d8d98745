/**
 * Word offsets of the parameter block that the host writes for the time-domain kernel. Each word is four bytes.
 * The host's copy of this table is src/solvers/fdtd/layout.ts; a test holds the two against each other.
 */
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
export const P_PML_E: i32 = 24; // addresses of b,c for x (rows), y, z: 6 words
export const P_PML_H: i32 = 30; // the same for H
export const P_PSI_E: i32 = 36; // ExY ExZ EyZ EyX EzX EzY: 6 words
export const P_PSI_H: i32 = 42; // HxY HxZ HyZ HyX HzX HzY: 6 words
export const P_SRC_START: i32 = 48; // i32[NZ+1]: first source entry of each plane
export const P_SRC: i32 = 49; // port edges by plane: address, address of its new value
export const P_PORTS: i32 = 50; // number of lumped ports
export const P_PORT: i32 = 51; // per port 80 bytes, see updatePorts
export const P_DFT_COUNT: i32 = 52; // number of recorded regions
export const P_DFT: i32 = 53; // region descriptors, 14 words each
export const P_DFT_EVERY: i32 = 54; // steps between samples, 0 = none
export const P_DFT_NF: i32 = 55; // frequencies
export const P_DFT_TWIDDLE: i32 = 56; // f32 [sample][E|H][f][cos, -sin]
export const P_SCRATCH: i32 = 57; // per-thread row scratch, SCRATCH_BYTES each
export const P_SCRATCH_BYTES: i32 = 58;
export const P_ENERGY: i32 = 59; // f64 per thread: partial energies of the last asked step
export const P_ENERGY_WX: i32 = 60; // f32 row of dx; P_ENERGY_WY, WZ: f32 of dy, dz
export const P_ENERGY_WY: i32 = 61;
export const P_ENERGY_WZ: i32 = 62;
export const P_SLABS: i32 = 63; // i32[threads+1]: first plane of each thread
export const P_EDGE_START: i32 = 64; // i32[NZ+2]: first branch of the edges of each plane, then the end
export const P_EDGES: i32 = 65; // branches on edges, 48 bytes each, see branch.ts
export const P_FACE_START: i32 = 66; // i32[NZ+2]: the same of faces; those of the last plane are on cut faces, wherever they are
export const P_FACES: i32 = 67;
export const P_BRANCH: i32 = 68; // coefficients by class, 112 bytes each
export const P_GUIDES: i32 = 69; // addresses of guided ports, see guide.ts
export const P_GUIDE_COUNT: i32 = 70;
export const P_CUT_COUNT: i32 = 71; // faces cut by curved metal, see cut.ts
export const P_CUTS: i32 = 72;
export const P_CUT_LINKS: i32 = 73;
export const P_MIX_COUNT: i32 = 74; // edges at curved dielectric surfaces, see mix.ts
export const P_MIX: i32 = 75;
export const P_MIX_LINKS: i32 = 76;
export const P_MIX_START: i32 = 77; // i32[NZ+1][NY+1] and the end: first of them in each row
export const P_WAVE_STEPS: i32 = 78; // steps in which a plane wave enters, 0 = none
export const P_WAVE_TONES: i32 = 79;
export const P_WAVE_E: i32 = 80; // rows of E by plane, see wave.ts; then i32[NZ+1]: first of each plane; then turns f32 [step][tone][re, im]
export const P_WAVE_E_START: i32 = 81;
export const P_WAVE_E_TURN: i32 = 82;
export const P_WAVE_H: i32 = 83; // the same of H
export const P_WAVE_H_START: i32 = 84;
export const P_WAVE_H_TURN: i32 = 85;
export const P_PORTALS: i32 = 86; // guided ports before absorbing layers: u32 addresses, see portal.ts
export const P_PORTAL_COUNT: i32 = 87;
export const P_MEMORY_START: i32 = 88; // i32[NZ+1][NY+1] and the end: first run of media with memory in each row, see memory.ts; 0 = there is none
export const P_MEMORY: i32 = 89;
export const P_PROBES: i32 = 90; // samples kept at every step, see probe.ts
export const P_PROBE_COUNT: i32 = 91;
export const P_MIRROR: i32 = 92; // what stands behind magnetic and periodic walls, see mirror.ts; 0 = there are none
export const P_BUSY: i32 = 93; // f64 of each thread: milliseconds of the sweep in the last call, without waiting
export const P_WORDS: i32 = 94;
