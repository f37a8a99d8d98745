import { z } from 'zod';
import { forms } from '../cards/index.ts';
import { measureName, parameterName } from '../entries/index.ts';

const title = z.string().max(60).optional();
const axisSettings = z
  .strictObject({
    title,
    unit: z.string().max(12).optional(),
    log: z.boolean().optional(),
    min: z.number().optional().describe('In SI'),
    max: z.number().optional(),
  })
  .default({});
const common = { title };

/** Measures over one parameter, a line for each value of another. */
const over = z.strictObject({
  ...common,
  kind: z.literal('over'),
  measures: z.array(measureName).max(8).default([]).describe('Absent: the first of the project'),
  over: parameterName.optional().describe('Absent: the last that moves'),
  by: parameterName.optional().describe('A line for each of its values; absent: those of all others'),
  x: axisSettings,
  y: axisSettings,
});
/** A measure over two parameters. */
const map = z.strictObject({
  ...common,
  kind: z.literal('map'),
  measure: measureName.optional(),
  x: parameterName.optional(),
  y: parameterName.optional(),
  contours: z.number().int().min(0).max(40).default(8).describe('Lines of equal values'),
});
/** A curve of each point, coloured by a parameter. */
const curves = z.strictObject({
  ...common,
  kind: z.literal('curves'),
  quantity: z.string().max(40).default('s'),
  of: z.string().max(300).default(''),
  form: z.enum(forms).optional(),
  by: parameterName.optional().describe('Colours the curves; absent: the first that moves'),
  x: axisSettings,
  y: axisSettings,
});
/** All points with their values and measures. */
const table = z.strictObject({ ...common, kind: z.literal('table') });

/** Which parameters make a measure what it is. */
const influence = z.strictObject({ ...common, kind: z.literal('influence'), measure: measureName.optional() });

/** How many of all that may come keep the goals, and the worst of them. */
const tolerance = z.strictObject({ ...common, kind: z.literal('tolerance') });

/** How a measure is spread over all that may come. */
const histogram = z.strictObject({ ...common, kind: z.literal('histogram'), measure: measureName.optional(), x: axisSettings });

/** All that moves and is read side by side, a line a point. */
const parallel = z.strictObject({
  ...common,
  kind: z.literal('parallel'),
  by: z.string().max(64).optional().describe('Parameter or measure that colours the lines; absent: the first measure'),
});

/** What a measure comes to on ever finer meshes. */
const limit = z.strictObject({
  ...common,
  kind: z.literal('limit'),
  measure: measureName.optional(),
  wanted: z.number().positive().optional().describe('Error for which a mesh is sought, in the unit of the measure (SI)'),
  x: axisSettings,
  y: axisSettings,
});

/** What can be shown of a study. A new kind is an entry here. */
export const studyCardSchema = z.discriminatedUnion('kind', [over, map, curves, parallel, limit, tolerance, histogram, influence, table]);
export type StudyCard = z.infer<typeof studyCardSchema>;
export type StudyCardOf<K extends StudyCard['kind']> = Extract<StudyCard, { kind: K }>;
export const studyCardTitles: Record<StudyCard['kind'], string> = {
  over: 'Measures over a parameter',
  map: 'Map of two parameters',
  curves: 'Curves of all points',
  parallel: 'Parallel coordinates',
  limit: 'Limit of finer meshes',
  tolerance: 'Yield and worst case',
  histogram: 'Spread of a measure',
  influence: 'What matters how much',
  table: 'Table of points',
};

/** A card of a kind as it is new. */
export const freshStudyCard = (kind: StudyCard['kind']): StudyCard => studyCardSchema.parse({ kind });

/** What a study is like, for what is shown of it. */
interface Looks {
  /** How many parameters move. */
  moving: number;
  /** Its points are spread over them. */
  spread: boolean;
  /** They vary about their values. */
  varies: boolean;
  /** It is the mesh that gets finer. */
  finer: boolean;
}
/** What is shown of a study that says nothing. */
export function studyCardsFor({ moving, spread, varies, finer }: Looks): StudyCard[] {
  const kinds: StudyCard['kind'][] = finer
    ? ['limit', 'curves', 'table']
    : varies
      ? ['tolerance', 'histogram', 'influence', 'table']
      : spread
        ? ['influence', 'parallel', 'over', 'curves', 'table']
        : moving === 2
          ? ['map', 'over', 'curves', 'table']
          : ['over', 'curves', 'table'];
  return kinds.map(freshStudyCard);
}
