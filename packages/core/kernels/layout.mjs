// What host and kernels tell each other by: words of the time domain's parameter block, and the tables whose addresses stand in it or in those of wires. From
// this one description come the host's packing (src/solvers/layout.ts) and the kernels' offsets (assembly/layout.ts); a test sends every table from one to the other.

/** Words of the parameter block, four bytes each: name, what it is, and how many it takes where it is more than one. */
export const words = [
  ['SX', 'row length in floats, a multiple of 4'],
  ['NY', 'cells along y; rows per plane are NY + 1'],
  ['NZ', 'cells along z'],
  ['NX', 'cells along x'],
  ['EX', 'byte addresses of the six field arrays'],
  ['EY'],
  ['EZ'],
  ['HX'],
  ['HY'],
  ['HZ'],
  ['ROWS', 'row dictionary: u32 [k][component][j], 0 = row is a wall, bit 0 = uniform vacuum'],
  ['VACUUM', 'f32: c*dt'],
  ['EX_INV', 'f32 rows: 1/(kappa*dual step) for E along x, y, z'],
  ['EY_INV'],
  ['EZ_INV'],
  ['HX_INV', 'f32 rows: c*dt/(kappa*step) for H along x, y, z'],
  ['HY_INV'],
  ['HZ_INV'],
  ['BARRIER', 'two i32: arrivals, generation'],
  ['X_LOW', 'x-PML: floats in the low block'],
  ['X_HIGH', 'x-PML: first float of the high block (SX if none)'],
  ['Y_SLOT', 'i32[NY+1]: row slot in the y-PML arrays or -1'],
  ['Z_SLOT', 'i32[NZ+1]: plane slot in the z-PML arrays or -1'],
  ['Y_SLOTS', 'number of y slots'],
  ['PML_E', 'addresses of b, c for x (rows), y, z', 6],
  ['PML_H', 'the same for H', 6],
  ['PSI_E', 'ExY ExZ EyZ EyX EzX EzY', 6],
  ['PSI_H', 'HxY HxZ HyZ HyX HzX HzY', 6],
  ['SRC_START', 'i32[NZ+1]: first source entry of each plane'],
  ['SRC', 'table portSource by plane'],
  ['PORTS', 'number of lumped ports'],
  ['PORT', 'table port'],
  ['DFT_COUNT', 'number of recorded regions'],
  ['DFT', 'table region'],
  ['DFT_EVERY', 'steps between samples, 0 = none'],
  ['DFT_NF', 'frequencies'],
  ['DFT_TWIDDLE', 'f32 [sample][E|H][f][cos, -sin]'],
  ['SCRATCH', 'per-thread row scratch, SCRATCH_BYTES each'],
  ['SCRATCH_BYTES'],
  ['ENERGY', 'f64 per thread: partial energies of the last asked step'],
  ['ENERGY_WX', 'f32 row of dx; ENERGY_WY, WZ: f32 of dy, dz'],
  ['ENERGY_WY'],
  ['ENERGY_WZ'],
  ['SLABS', 'i32[threads+1]: first plane of each thread'],
  ['EDGE_START', 'i32[NZ+2]: first branch of the edges of each plane, then the end'],
  ['EDGES', 'table branch of edges'],
  ['FACE_START', 'i32[NZ+2]: the same of faces; those of the last plane are on cut faces, wherever they are'],
  ['FACES', 'table branch of faces'],
  ['BRANCH', 'table branchClass'],
  ['GUIDES', 'u32 addresses of tables guide'],
  ['GUIDE_COUNT'],
  ['CUT_COUNT', 'faces cut by curved metal'],
  ['CUTS', 'table cutFace'],
  ['CUT_LINKS', 'table cutLink'],
  ['SPLIT_E_COUNT', 'edges, and parts of edges, beside sheets across no axis'],
  ['SPLIT_E', 'table splitSample'],
  ['SPLIT_H_COUNT', 'the same of faces'],
  ['SPLIT_H', 'table splitSample'],
  ['SPLIT_SUM_E_COUNT', 'samples of the grid that stand for the parts of an edge'],
  ['SPLIT_SUM_E', 'table splitSum'],
  ['SPLIT_SUM_H_COUNT', 'the same of faces'],
  ['SPLIT_SUM_H', 'table splitSum'],
  ['SPLIT_JUMP_COUNT', 'jumps of H at lossy sheets across no axis'],
  ['SPLIT_JUMP', 'table splitJump'],
  ['MIX_COUNT', 'edges at curved dielectric surfaces'],
  ['MIX', 'table mixedEdge'],
  ['MIX_LINKS', 'table mixLink'],
  ['MIX_START', 'i32[NZ+1][NY+1] and the end: first of them in each row'],
  ['WAVE_STEPS', 'steps in which a source from without adds to the fields, 0 = none'],
  ['WAVE_TONES'],
  ['WAVE_E', 'table injectedRow of E by plane'],
  ['WAVE_E_START', 'i32[NZ+1]: first of each plane'],
  ['WAVE_E_TURN', 'turns f32 [step][tone][re, im]'],
  ['WAVE_H', 'the same of H'],
  ['WAVE_H_START'],
  ['WAVE_H_TURN'],
  ['PORTALS', 'u32 addresses of tables portal: guided ports before absorbing layers'],
  ['PORTAL_COUNT'],
  ['MEMORY_START', 'i32[NZ+1][NY+1] and the end: first run of media with memory in each row; 0 = there is none'],
  ['MEMORY', 'table memoryRun'],
  ['PROBES', 'table probe: samples kept at every step'],
  ['PROBE_COUNT'],
  ['MIRROR', 'table side: what stands behind magnetic and periodic walls; 0 = there are none'],
  ['ANNEXES', 'table annex: guides that go on behind a port in cells of their own'],
  ['ANNEX_COUNT'],
  ['BUSY', 'f64 of each thread: milliseconds of the sweep in the last call, without waiting'],
];

/** Fields that follow each other where a type's size allows it: name, type, and how many where it is more than one; `size` where the rest is room. */
export const tables = {
  port: {
    about: 'a lumped port',
    fields: [
      ['edges', 'u32'],
      ['count', 'u32'],
      ['source', 'u32', 'f32 of all steps'],
      ['voltages', 'u32', 'f64 of all steps'],
      ['gain', 'f64', 'one over its impedance and half of what its own current adds'],
      ['own', 'f64', 'sum of weight times push'],
      ['factor', 'f64', 'of what it remembers'],
      ['rising', 'f64'],
      ['falling', 'f64'],
      ['parallel', 'f64', '1 for a parallel load'],
      ['heldA', 'f64', 'what it remembers'],
      ['heldB', 'f64'],
    ],
  },
  portEdge: {
    about: 'an edge of a lumped port: E is driven by H on either side along one axis, less the other H along the other',
    fields: [['field', 'u32'], ['value', 'u32'], ['p', 'u32'], ['backP', 'u32'], ['q', 'u32'], ['backQ', 'u32'], ['ca', 'f32'], ['driveP', 'f32'], ['driveBackP', 'f32'], ['driveQ', 'f32'], ['driveBackQ', 'f32'], ['weight', 'f32'], ['push', 'f32']], // prettier-ignore
    size: 56,
  },
  portSource: { about: 'where the new value of a port’s edge goes', fields: [['field', 'u32'], ['value', 'u32']] }, // prettier-ignore
  region: {
    about: 'a recorded region: two samples, their weights, rows and their strides, where the sums are',
    fields: [['a', 'u32'], ['b', 'u32'], ['wa', 'f32'], ['wb', 'f32'], ['inner', 'i32'], ['innerStride', 'u32'], ['outer', 'i32'], ['outerStride', 'u32'], ['sums', 'u32'], ['padded', 'u32'], ['magnetic', 'i32'], ['kept', 'i32'], ['list', 'u32']], // prettier-ignore
    size: 56,
  },
  branch: { about: 'a branch with memory on an edge or face; u are its eight states', fields: [['field', 'u32'], ['kind', 'u32'], ['q', 'f32'], ['before', 'f32'], ['u', 'f32', '', 8]] }, // prettier-ignore
  branchClass: { about: 'coefficients of a class of branches', fields: [['g', 'f32', '', 4], ['s', 'f32', '', 8], ['kappa', 'f32', '', 8], ['w', 'f32', '', 8]] }, // prettier-ignore
  guide: {
    about: 'a guided port that ends in lines',
    fields: [['edges', 'u32'], ['count', 'i32'], ['modes', 'i32'], ['cells', 'i32', 'of a line'], ['lines', 'u32'], ['sources', 'u32', 'f32 of all steps, a mode each'], ['records', 'u32', 'f64 v, then i, of all steps, a mode each'], ['steps', 'i32'], ['reach', 'f64', 'cells a wave goes in a step']], // prettier-ignore
  },
  guideMode: { about: 'a line of a mode, after its guide', fields: [['cv', 'f64'], ['ci', 'f64'], ['cs', 'f64'], ['cq', 'f64'], ['pull', 'f64'], ['charge', 'f64']] }, // prettier-ignore
  guideEdge: { about: 'an edge of a guide; then f32 e and weight of H for each mode', fields: [['field', 'u32'], ['beyond', 'u32']] }, // prettier-ignore
  portal: {
    about: 'a guided port before absorbing layers',
    fields: [['edges', 'u32'], ['count', 'i32'], ['modes', 'i32'], ['profiles', 'i32'], ['sources', 'u32'], ['records', 'u32'], ['steps', 'i32']], // prettier-ignore
  },
  portalEdge: { about: 'an edge of a portal; then f32 what each mode’s current does to E, then f32 weights of E and of H for each profile', fields: [['field', 'u32'], ['beyond', 'u32']] }, // prettier-ignore
  annex: {
    about: 'a guide that goes on behind its port in cells of its own: its parameter block, samples of H that come from the model, of E that go to it',
    fields: [['config', 'u32'], ['inward', 'u32'], ['inwardCount', 'i32'], ['outward', 'u32'], ['outwardCount', 'i32']], // prettier-ignore
  },
  annexLink: { about: 'a sample that is copied', fields: [['from', 'u32'], ['to', 'u32']] }, // prettier-ignore
  cutFace: { about: 'a face cut by curved metal, or a lender', fields: [['field', 'u32'], ['before', 'f32'], ['change', 'f32'], ['own', 'f32'], ['first', 'i32'], ['end', 'i32']] }, // prettier-ignore
  cutLink: { about: 'of a cut face to another', fields: [['face', 'i32'], ['factor', 'f32']] }, // prettier-ignore
  splitSample: {
    about: 'a sample beside a sheet across no axis: two derivatives, each a sum of links and what the layers remember of it',
    fields: [['field', 'u32'], ['keep', 'f32'], ['first', 'u32'], ['middle', 'u32'], ['end', 'u32'], ['factorA', 'f32'], ['fadeA', 'f32'], ['feedA', 'f32'], ['memoryA', 'f32'], ['factorB', 'f32'], ['fadeB', 'f32'], ['feedB', 'f32'], ['memoryB', 'f32']], // prettier-ignore
  },
  splitLink: {
    about: 'a sample and its weight',
    fields: [
      ['from', 'u32'],
      ['weight', 'f32'],
    ],
  },
  splitSum: {
    about: 'a sample that is the sum of links',
    fields: [
      ['field', 'u32'],
      ['first', 'u32'],
      ['end', 'u32'],
    ],
  },
  splitJump: { about: 'the jump of H between two samples, and the share that the first has in its changes', fields: [['field', 'u32'], ['one', 'u32'], ['other', 'u32'], ['share', 'f32']] }, // prettier-ignore
  mixedEdge: {
    about: 'an edge at a curved dielectric surface; the last three are of a medium with memory, else 0',
    fields: [['field', 'u32'], ['p', 'u32'], ['backP', 'u32'], ['q', 'u32'], ['backQ', 'u32'], ['less', 'f32', 'ca - 1'], ['driveP', 'f32'], ['driveQ', 'f32'], ['change', 'f32'], ['share', 'f32'], ['first', 'i32'], ['end', 'i32'], ['kind', 'u32'], ['states', 'u32'], ['next', 'u32']], // prettier-ignore
    size: 64,
  },
  mixLink: { about: 'of a mixed edge to another', fields: [['edge', 'i32'], ['factor', 'f32']] }, // prettier-ignore
  injectedRow: {
    about: 'a row to which a source adds: factors are re, im a tone, then as much room; `toIm` bytes from a table’s re to its im',
    fields: [['first', 'u32'], ['stride', 'u32'], ['count', 'i32'], ['factors', 'u32'], ['table', 'u32'], ['toIm', 'u32']], // prettier-ignore
    size: 32,
  },
  memoryRun: { about: 'edges along x in one medium with memory', fields: [['field', 'u32'], ['kind', 'u32'], ['count', 'i32'], ['states', 'u32']] }, // prettier-ignore
  memoryClass: { about: 'a medium with memory; then f32 turn, pull, drive of each real state, and the same as re, im of each pair', fields: [['reals', 'i32'], ['pairs', 'i32']] }, // prettier-ignore
  probe: { about: 'the mean of two samples kept at every step', fields: [['a', 'u32'], ['b', 'u32'], ['wa', 'f32'], ['wb', 'f32'], ['series', 'u32']] }, // prettier-ignore
  side: { about: 'what the cell behind a wall holds: cell to fill or -1, cell to read, sign', fields: [['to', 'i32'], ['from', 'i32'], ['sign', 'f32']] }, // prettier-ignore
  wireFill: {
    about: 'what fills the matrix of wires: factors at a frequency, and where all of it lies',
    fields: [
      ['k', 'f64', 'wave number, 1/m'],
      ['vector', 'f64', 'factor of the vector part, times j'],
      ['scalar', 'f64', 'factor of the scalar part, times -j'],
      ['bases', 'i32'],
      ['width', 'u32', 'bytes of a row of the matrix'],
      ['matrix', 'u32', 'pairs of columns as re, re, im, im'],
      ['segments', 'u32', 'table wireSegment'],
      ['count', 'i32', 'segments'],
      ['images', 'u32', 'table wireSegment of the images over a perfect ground; 0 = there are none'],
      ['nearFirst', 'u32', 'i32[count+1]: first close pair of each segment'],
      ['nearList', 'u32', 'table wireNear'],
      ['imageFirst', 'u32', 'the same of segments and images'],
      ['imageList', 'u32'],
      ['halfFirst', 'u32', 'i32[bases+1]: first half of each basis'],
      ['halves', 'u32', 'table wireHalf'],
      ['endFirst', 'u32', 'i32[2 count+1]: first basis at each end, by 2 segment + end'],
      ['ends', 'u32', 'table wireEnd'],
      ['scratch', 'u32', 'table wireSums of each segment, for each thread'],
      ['firstSource', 'u32', 'i32[bases]: first segment that has a basis from each on'],
      ['half', 'i32', '1 to fill the upper half alone'],
    ],
  },
  wireSegment: { about: 'a segment: where it begins, its direction, length and radius', fields: [['x', 'f64'], ['y', 'f64'], ['z', 'f64'], ['ux', 'f64'], ['uy', 'f64'], ['uz', 'f64'], ['length', 'f64'], ['radius', 'f64']] }, // prettier-ignore
  wireNear: { about: 'a close pair: its source, what is added to squared distances, and the static integrals of the products of shape functions', fields: [['source', 'i32'], ['rho2', 'f64'], ['t00', 'f64'], ['t01', 'f64'], ['t10', 'f64'], ['t11', 'f64']] }, // prettier-ignore
  wireHalf: { about: 'half of a basis: the end of a segment where it peaks, and its sign along it', fields: [['segment', 'i32'], ['end', 'i32'], ['sign', 'f64']] }, // prettier-ignore
  wireEnd: { about: 'a basis at an end of a segment', fields: [['basis', 'i32'], ['sign', 'f64']] }, // prettier-ignore
  wireSums: { about: 'sums of a segment and a source: vector part of each product of shape functions, re and im, and the scalar part', fields: [['v00', 'f64'], ['v00Im', 'f64'], ['v01', 'f64'], ['v01Im', 'f64'], ['v10', 'f64'], ['v10Im', 'f64'], ['v11', 'f64'], ['v11Im', 'f64'], ['s', 'f64'], ['sIm', 'f64']] }, // prettier-ignore
};

const sizes = { u32: 4, i32: 4, f32: 4, f64: 8 };

/** Offsets of a table's fields and its size, bytes. */
function placed({ fields, size }) {
  let next = 0;
  const out = fields.map(([name, type, about = '', count = 1]) => {
    next = Math.ceil(next / sizes[type]) * sizes[type];
    const field = { name, type, about, count, at: next };
    next += count * sizes[type];
    return field;
  });
  return { fields: out, size: size ?? next };
}
const upper = (name) => name.replaceAll(/[A-Z]/g, (c) => `_${c}`).toUpperCase();
const note = (about) => (about ? ` // ${about}` : '');

/** The kernel's side. */
export function kernelLayout() {
  let at = 0;
  const lines = ['// Made from kernels/layout.mjs.', ''];
  for (const [name, about, count = 1] of words) {
    lines.push(`export const P_${name}: i32 = ${at};${note(about)}`);
    at += count;
  }
  lines.push(`export const P_WORDS: i32 = ${at};`);
  const echo = [];
  Object.entries(tables).forEach(([table, t], n) => {
    const { fields, size } = placed(t);
    lines.push('', `/** ${t.about[0].toUpperCase()}${t.about.slice(1)}. */`);
    for (const f of fields) lines.push(`export const ${upper(table)}_${upper(f.name)}: usize = ${f.at};${note(f.about)}`);
    lines.push(`export const ${upper(table)}_SIZE: usize = ${size};`);
    echo.push(`  if (table === ${n}) {`);
    fields.forEach((f, i) => echo.push(`    store<f64>(out, <f64>load<${f.type}>(at, ${upper(table)}_${upper(f.name)}), ${8 * i});`));
    echo.push(`    return ${upper(table)}_SIZE;`, '  }');
  });
  lines.push('', '/** Reads the fields of an entry of a table, by its number, as f64 into `out`, and gives its size: the test of both sides. */');
  lines.push('export function echo(table: i32, at: usize, out: usize): usize {', ...echo, '  return 0;', '}', '');
  return lines.join('\n');
}

/** The host's side. */
export function hostLayout() {
  let at = 0;
  const lines = ['// Made from kernels/layout.mjs.', '', '/** Word numbers of the kernel’s parameter block. */', 'export const P = {'];
  for (const [name, , count = 1] of words) {
    lines.push(`  ${name}: ${at},`);
    at += count;
  }
  lines.push(`  WORDS: ${at},`, '} as const;', '', '/** Tables that the kernel reads: size of an entry, and its fields with their types and offsets, bytes. */', 'export const tables = {'); // prettier-ignore
  for (const [table, t] of Object.entries(tables)) {
    const { fields, size } = placed(t);
    lines.push(`  /** ${t.about[0].toUpperCase()}${t.about.slice(1)}. */`, `  ${table}: {`, `    size: ${size},`, '    fields: {');
    for (const f of fields) lines.push(`      ${f.name}: ['${f.type}', ${f.at}],`);
    lines.push('    },', '  },');
  }
  lines.push('} as const;', '');
  return lines.join('\n');
}
