/** A box, or a round rod along z that touches its sides. */
export interface StepSolid {
  name: string;
  min: readonly number[];
  max: readonly number[];
  round?: boolean;
}

/** Text of a STEP file (ISO 10303-21, AP214) with one solid per entry, in millimetres; for tests of the reader. */
export function stepSolids(solids: readonly StepSolid[]): string {
  const out: string[] = [];
  const add = (text: string): string => `#${out.push(text)}`;
  const real = (v: number): string => (Number.isInteger(v) ? `${v}.` : String(v));
  const point = (p: readonly number[]): string => add(`CARTESIAN_POINT('',(${p.map(real).join(',')}))`);
  const direction = (d: readonly number[]): string => add(`DIRECTION('',(${d.map(real).join(',')}))`);
  const place = (at: readonly number[], z: readonly number[], x: readonly number[]): string =>
    add(`AXIS2_PLACEMENT_3D('',${point(at)},${direction(z)},${direction(x)})`);
  const app = add(`APPLICATION_CONTEXT('automotive design')`);
  add(`APPLICATION_PROTOCOL_DEFINITION('international standard','automotive_design',2000,${app})`);
  const length = add(`(LENGTH_UNIT()NAMED_UNIT(*)SI_UNIT(.MILLI.,.METRE.))`);
  const angle = add(`(NAMED_UNIT(*)PLANE_ANGLE_UNIT()SI_UNIT($,.RADIAN.))`);
  const solid = add(`(NAMED_UNIT(*)SI_UNIT($,.STERADIAN.)SOLID_ANGLE_UNIT())`);
  const accuracy = add(`UNCERTAINTY_MEASURE_WITH_UNIT(LENGTH_MEASURE(1.E-07),${length},'','')`);
  const context = add(
    `(GEOMETRIC_REPRESENTATION_CONTEXT(3)GLOBAL_UNCERTAINTY_ASSIGNED_CONTEXT((${accuracy}))GLOBAL_UNIT_ASSIGNED_CONTEXT((${length},${angle},${solid}))REPRESENTATION_CONTEXT('',''))`,
  );
  const boxFaces = ({ min, max }: StepSolid): string[] => {
    const corner = (i: number): number[] => [i & 1 ? max[0] : min[0], i & 2 ? max[1] : min[1], i & 4 ? max[2] : min[2]];
    const vertices = Array.from({ length: 8 }, (_, i) => add(`VERTEX_POINT('',${point(corner(i))})`));
    const edges = new Map<string, string>();
    const edge = (a: number, b: number): string => {
      const [p, q] = a < b ? [a, b] : [b, a];
      const key = `${p} ${q}`;
      if (!edges.has(key)) {
        const d = corner(q).map((c, i) => Math.sign(c - corner(p)[i]));
        const vector = add(`VECTOR('',${direction(d)},1.)`);
        const line = add(`LINE('',${point(corner(p))},${vector})`);
        edges.set(key, add(`EDGE_CURVE('',${vertices[p]},${vertices[q]},${line},.T.)`));
      }
      return add(`ORIENTED_EDGE('',*,*,${edges.get(key)!},${a < b ? '.T.' : '.F.'})`);
    };
    // Corners of each face counter-clockwise seen from outside, with its normal and a direction in it.
    const faces: [number[], number[], number[]][] = [
      [[0, 2, 3, 1], [0, 0, -1], [1, 0, 0]],
      [[4, 5, 7, 6], [0, 0, 1], [1, 0, 0]],
      [[0, 1, 5, 4], [0, -1, 0], [1, 0, 0]],
      [[2, 6, 7, 3], [0, 1, 0], [1, 0, 0]],
      [[0, 4, 6, 2], [-1, 0, 0], [0, 1, 0]],
      [[1, 3, 7, 5], [1, 0, 0], [0, 1, 0]],
    ]; // prettier-ignore
    return faces.map(([loop, normal, along]) => {
      const sides = loop.map((v, i) => edge(v, loop[(i + 1) % 4]));
      const bound = add(`FACE_OUTER_BOUND('',${add(`EDGE_LOOP('',(${sides.join(',')}))`)},.T.)`);
      return add(`ADVANCED_FACE('',(${bound}),${add(`PLANE('',${place(corner(loop[0]), normal, along)})`)},.T.)`);
    });
  };
  /** A side wall that closes on itself along a seam, and two lids. */
  const rodFaces = ({ min, max }: StepSolid): string[] => {
    const radius = (max[0] - min[0]) / 2;
    const centre = (z: number): number[] => [(min[0] + max[0]) / 2, (min[1] + max[1]) / 2, z];
    const on = (z: number): number[] => [centre(z)[0] + radius, centre(z)[1], z];
    const ends = [min[2], max[2]].map((z) => {
      const vertex = add(`VERTEX_POINT('',${point(on(z))})`);
      const circle = add(`CIRCLE('',${place(centre(z), [0, 0, 1], [1, 0, 0])},${real(radius)})`);
      return { z, vertex, rim: add(`EDGE_CURVE('',${vertex},${vertex},${circle},.T.)`) };
    });
    const line = add(`LINE('',${point(on(min[2]))},${add(`VECTOR('',${direction([0, 0, 1])},1.)`)})`);
    const seam = add(`EDGE_CURVE('',${ends[0].vertex},${ends[1].vertex},${line},.T.)`);
    const along = (edge: string, forward: boolean): string => add(`ORIENTED_EDGE('',*,*,${edge},${forward ? '.T.' : '.F.'})`);
    const face = (edges: string[], surface: string, same: boolean): string => {
      const bound = add(`FACE_OUTER_BOUND('',${add(`EDGE_LOOP('',(${edges.join(',')}))`)},.T.)`);
      return add(`ADVANCED_FACE('',(${bound}),${surface},${same ? '.T.' : '.F.'})`);
    };
    const wall = add(`CYLINDRICAL_SURFACE('',${place(centre(min[2]), [0, 0, 1], [1, 0, 0])},${real(radius)})`);
    return [
      face([along(ends[0].rim, true), along(seam, true), along(ends[1].rim, false), along(seam, false)], wall, true),
      ...ends.map(({ z, rim }, top) => face([along(rim, !!top)], add(`PLANE('',${place(centre(z), [0, 0, 1], [1, 0, 0])})`), !!top)),
    ];
  };
  for (const solid of solids) {
    const { name } = solid;
    const made = solid.round ? rodFaces(solid) : boxFaces(solid);
    const brep = add(`MANIFOLD_SOLID_BREP('${name}',${add(`CLOSED_SHELL('',(${made.join(',')}))`)})`);
    const origin = place([0, 0, 0], [0, 0, 1], [1, 0, 0]);
    const shape = add(`ADVANCED_BREP_SHAPE_REPRESENTATION('${name}',(${origin},${brep}),${context})`);
    const product = add(`PRODUCT('${name}','${name}','',(${add(`PRODUCT_CONTEXT('',${app},'mechanical')`)}))`);
    const formation = add(`PRODUCT_DEFINITION_FORMATION('','',${product})`);
    const definition = add(`PRODUCT_DEFINITION('design','',${formation},${add(`PRODUCT_DEFINITION_CONTEXT('part definition',${app},'design')`)})`);
    add(`SHAPE_DEFINITION_REPRESENTATION(${add(`PRODUCT_DEFINITION_SHAPE('','',${definition})`)},${shape})`);
  }
  const data = out.map((text, i) => `#${i + 1}=${text};`).join('\n');
  return `ISO-10303-21;\nHEADER;\nFILE_DESCRIPTION((''),'2;1');\nFILE_NAME('','',(''),(''),'','','');\nFILE_SCHEMA(('AUTOMOTIVE_DESIGN { 1 0 10303 214 1 1 1 1 }'));\nENDSEC;\nDATA;\n${data}\nENDSEC;\nEND-ISO-10303-21;\n`;
}
