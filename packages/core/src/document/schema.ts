import { lensSchema } from './lens.ts';
import { z } from 'zod';
import { boardSchema, dataSchema } from '../cards/index.ts';
import { expression, parameterSchema, materialSchema, partSchema, portName } from '../entries/index.ts';
import { accuracies, detailsSchema, solverSchema } from '../methods/index.ts';
import { lineSchema } from '../shapes/index.ts';
import { portSchema } from '../ports/index.ts';
import { recorderSchema } from '../recorders/index.ts';
import { measureSchema, searchSchema, studySchema, variantSchema } from '../studies/index.ts';
import { sectionSchema } from './sections/index.ts';

export const documentFormat = 'jadebell-project';
export const documentVersion = 3;

export const sides = ['xMin', 'xMax', 'yMin', 'yMax', 'zMin', 'zMax'] as const;
export type Side = (typeof sides)[number];
const boundarySchema = z.enum(['open', 'electric', 'magnetic', 'periodic']);
export type Boundary = z.infer<typeof boundarySchema>;

export const axes = ['x', 'y', 'z'] as const;
const symmetrySchema = z.strictObject({
  wall: z.enum(['electric', 'magnetic']).describe('What the fields make of the plane: electric, E stands across it; magnetic, E lies along it'),
  at: expression.describe('Coordinate of the plane'),
});
export type Symmetry = z.infer<typeof symmetrySchema>;

/** What lies under wires; the time-domain solver has boundaries in its place. */
const groundSchema = z.strictObject({
  kind: z.enum(['perfect', 'earth']).describe('perfect: a boundless conducting plane; earth: a boundless half-space of soil or water'),
  at: expression.describe('Its height, z'),
  permittivity: expression.optional().describe('Relative permittivity of earth; absent: 13'),
  conductivity: expression.optional().describe('Conductivity of earth; absent: 0.005 S/m'),
});
/** What is taken where a project says nothing of its earth: average soil. */
export const averageEarth = { permittivity: '13', conductivity: '0.005 S/m' } as const;
/**
 * Kinds of earth by permittivity and conductivity as they are at low frequencies: up to some 100 MHz for sea water, some 10 MHz for soils, whose
 * conductivity then grows. (Recommendation ITU-R P.527-3, 1992, figure 1, curves A to E)
 */
export const earths = [
  { title: 'sea water of average salt, 20 °C', permittivity: '70', conductivity: '5 S/m' },
  { title: 'fresh water, 20 °C', permittivity: '80', conductivity: '0.003 S/m' },
  { title: 'wet ground', permittivity: '30', conductivity: '0.01 S/m' },
  { title: 'ground of medium dryness', permittivity: '15', conductivity: '0.001 S/m' },
  { title: 'very dry ground', permittivity: '3', conductivity: '0.0001 S/m' },
] as const;
export type GroundChoice = z.infer<typeof groundSchema>;

const solveSchema = z.strictObject({
  solver: solverSchema,
  from: expression.describe('Lowest frequency of the band'),
  to: expression.describe('Highest frequency of the band'),
  points: z.number().int().min(2).max(10001).describe('Frequencies at which S-parameters are given'),
  accuracy: z.enum(accuracies),
  excite: z.array(portName).max(100).optional().describe('Ports to excite, one after the other; absent: all'),
  combine: z
    .array(
      z.strictObject({
        port: portName,
        mode: z.number().int().min(1).max(100).default(1).describe('Mode of a guided port, from 1'),
        amplitude: expression.describe('Of the wave; only ratios count'),
        phase: expression,
      }),
    )
    .min(1)
    .max(400)
    .optional()
    .describe('Waves whose fields are recorded together; absent: those of the first excitation'),
  keep: z.literal('each').optional().describe('Fields and patterns of every excitation are kept, to be combined when they are read'),
  details: detailsSchema.optional().describe('Settings that override what the accuracy implies'),
});
export type SolveSettings = z.infer<typeof solveSchema>;

/**
 * What a part of the project bears on: the words by which a result is told to be older than it, or null where no result depends on it. A part that
 * says nothing counts, by its key.
 */
export const stakes = z.registry<{ word: string | null }>();
const bears = <S extends z.ZodType>(word: string | null, schema: S): S => {
  stakes.add(schema, { word });
  return schema;
};

export const projectSchema = z.strictObject({
  format: z.literal(documentFormat),
  version: z.literal(documentVersion),
  title: bears(null, z.string().min(1).max(120)),
  note: bears(null, z.string().max(5000).optional()),
  parameters: z.array(parameterSchema).max(2000),
  materials: z.array(materialSchema).max(500),
  parts: bears('imported parts', z.array(partSchema).max(200).optional().describe('What came from files: meshes and outlines')),
  lines: bears('bodies', z.array(lineSchema).max(5000).describe('Bodies in order: where two overlap the later one wins')),
  ports: z.array(portSchema).max(100),
  boundaries: z.strictObject(Object.fromEntries(sides.map((s) => [s, boundarySchema])) as Record<Side, typeof boundarySchema>),
  symmetry: z
    .strictObject({ x: symmetrySchema.optional(), y: symmetrySchema.optional(), z: symmetrySchema.optional() })
    .optional()
    .describe('Planes of symmetry across the axes: only the half towards larger coordinates is computed'),
  ground: groundSchema.optional().describe('Ground under wires; absent: none'),
  margin: bears(
    'distance to the boundary',
    expression.optional().describe('Distance from the bodies to the boundary; absent: a quarter of the longest wavelength'),
  ),
  recorders: z.array(recorderSchema).max(100),
  recordAt: bears('recorded frequencies', z.array(expression).max(50).describe('Frequencies at which recorders keep fields')),
  sections: bears(null, z.array(sectionSchema).max(50).default([]).describe('Cross-sections whose modes are solved by themselves')),
  solve: bears('solve settings', solveSchema),
  boards: bears(null, z.array(boardSchema).max(40).optional().describe('Boards of the Read stage; absent: those that suit what was solved')),
  lens: bears(null, lensSchema.optional().describe('How results are looked at')),
  measures: bears(null, z.array(measureSchema).max(100).optional().describe('Figures that are read from each result')),
  studies: bears(null, z.array(studySchema).max(50).optional().describe('Planned sets of points')),
  variants: bears(null, z.array(variantSchema).max(100).optional().describe('Named sets of values of parameters and of muted lines')),
  searches: bears(null, z.array(searchSchema).max(50).optional().describe('Searches for values at which goals are met')),
  data: bears(null, z.array(dataSchema).max(60).optional().describe('Curves that were brought in to compare with')),
});
/** A whole project: what the engineer wrote, nothing computed. */
export type Project = z.infer<typeof projectSchema>;

/** JSON Schema (draft 2020-12) of the project document. */
export const projectJsonSchema = (): object => ({
  ...z.toJSONSchema(projectSchema, { target: 'draft-2020-12', io: 'input' }),
  title: `Jade Bell project, version ${documentVersion}`,
});

/** A project with nothing in it, ready to be built on. */
export const emptyProject = (title: string): Project => ({
  format: documentFormat,
  version: documentVersion,
  title,
  parameters: [],
  materials: [],
  lines: [],
  ports: [],
  boundaries: { xMin: 'open', xMax: 'open', yMin: 'open', yMax: 'open', zMin: 'open', zMax: 'open' },
  recorders: [{ kind: 'far-field', name: 'pattern', step: '5 deg' }],
  recordAt: ['1 GHz'],
  sections: [],
  solve: { solver: 'fdtd', from: '0.8 GHz', to: '1.2 GHz', points: 101, accuracy: 'normal' },
});
