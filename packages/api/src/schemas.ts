import { type Problem, projectSchema } from '@jadebell/core/document';
import { type ResultMeta, storedMetaSchema } from '@jadebell/core/results';
import { z } from 'zod';

// What the server and whoever asks it agree on: it checks its answers by these, they theirs.

export const runStates = ['queued', 'running', 'done', 'stopped', 'failed', 'interrupted'] as const;
export type RunState = (typeof runStates)[number];

export const idParams = z.object({ id: z.uuid() });
/** The parts of a document that a place names grow with its kinds: they are strings here. */
export const problemItem = z.object({
  severity: z.enum(['error', 'warning']),
  code: z.string(),
  place: z.object({ part: z.string(), name: z.string().optional(), chip: z.string().optional() }),
  message: z.string(),
  fix: z.string(),
}) as unknown as z.ZodType<Problem>;

/** Facts of a result: what all readers count on is checked, the rest is as its kinds have it. */
const metaSchema = storedMetaSchema as unknown as z.ZodType<ResultMeta>;

export const projectSummary = z.object({
  id: z.uuid(),
  title: z.string(),
  note: z.string().optional(),
  revision: z.int(),
  updatedAt: z.iso.datetime(),
  runs: z.int(),
  folder: z.string().describe('Folder of the shelf; empty: none'),
});
/** Most characters of a folder’s name. */
export const folderName = z.string().trim().max(60);
/** Curves of the newest result of a project, for its picture. */
export const sketchSchema = z.object({
  run: z.int(),
  from: z.number(),
  to: z.number(),
  curves: z.array(z.object({ name: z.string(), x: z.array(z.number()), y: z.array(z.number()) })),
});
export type Sketch = z.infer<typeof sketchSchema>;
export const projectFull = z.object({ id: z.uuid(), revision: z.int(), updatedAt: z.iso.datetime(), document: projectSchema });

export const progressSchema = z.object({
  fraction: z.number(),
  step: z.number(),
  steps: z.number(),
  turn: z.number(),
  turns: z.number(),
  pass: z.number().optional(),
  change: z.number().nullable().optional(),
  energy: z.number().optional(),
  secondsLeft: z.number().nullable(),
  s: z.object({ frequencies: z.array(z.number()), re: z.array(z.number()), im: z.array(z.number()) }).optional(),
});
/** What is said of a run besides what it has solved. */
export const runTold = z.object({
  name: z.string().trim().max(60).describe('What it is called beside its number'),
  note: z.string().trim().max(500),
  starred: z.boolean().describe('It is one to come back to'),
});
export const runSchema = runTold.extend({
  id: z.uuid(),
  projectId: z.uuid(),
  number: z.int(),
  state: z.enum(runStates),
  createdAt: z.iso.datetime(),
  startedAt: z.iso.datetime().nullable(),
  endedAt: z.iso.datetime().nullable(),
  accuracy: z.string(),
  study: z.string().nullable().describe('The study or search that asked for it; null: it was asked for by itself'),
  parameters: z.array(z.object({ name: z.string(), expression: z.string(), si: z.number().nullable(), measure: z.string() })),
  progress: progressSchema.nullable(),
  problems: z.array(problemItem),
  kept: z.int().describe('Excitations of a run that was stopped or interrupted which are done and kept'),
  meta: metaSchema.nullable().describe('Figures and evidence of the result; null until there is one'),
});
/** A run that is queued or under way, with the title of its project. */
export const activeRunSchema = runSchema.extend({ title: z.string() });
/** A study of a project by its name. */
export const studyParams = idParams.extend({ name: z.string().min(1).max(40) });
const studyPoint = z.object({
  values: z.record(z.string(), z.number()).describe('Of the parameters that move, in SI'),
  digest: z.string().describe('Of what the point solves'),
  run: z
    .object({ id: z.uuid(), projectId: z.uuid(), number: z.int(), state: z.enum(runStates) })
    .nullable()
    .describe('What stands for it'),
  check: z.boolean().optional().describe('It is kept to check a model through the others'),
});
export type StudyPoint = z.infer<typeof studyPoint>;
const movedSchema = z.object({
  parameter: z.string(),
  measure: z.string(),
  values: z.array(z.object({ si: z.number(), text: z.string() })),
  between: z.boolean().optional().describe('Points may have any value between the first and the last'),
});
export const studyViewSchema = z.object({ moved: z.array(movedSchema), points: z.array(studyPoint), problems: z.array(problemItem) });
export type StudyView = z.infer<typeof studyViewSchema>;
export const studyCostSchema = z.object({
  seconds: z.number().nullable().describe('Of all points; null where none that was looked at can be solved'),
  dearest: z.object({ at: z.int(), seconds: z.number() }).nullable().describe('By its place among the points'),
  faults: z.array(z.object({ at: z.int(), fault: z.string() })).describe('Points that were looked at and cannot be solved'),
});
const readSchema = z.object({
  name: z.string(),
  value: z.number().nullable(),
  unit: z.string(),
  open: z.boolean().optional().describe('It is at least so much'),
  why: z.string().optional().describe('Why there is no value'),
});
export const studyMeasuresSchema = z.array(z.object({ digest: z.string(), measures: z.array(readSchema) }));
export const studyInfluenceSchema = z.object({
  points: z.int().describe('Those that have the figure'),
  influence: z
    .object({
      error: z.number().describe('Root mean square of what is missed at a point by what the others foretell'),
      spread: z.number().describe('Standard deviation of the figure'),
      unit: z.string(),
      each: z.array(
        z.object({
          parameter: z.string(),
          first: z.number().describe('Sobol index: the share of the variance that it brings by itself'),
          total: z.number().describe('The same with all that it does together with others'),
          percent: z.number().nullable().describe('Change of the figure for one per cent more of it, in the middle; null where that is zero'),
          deviation: z.number().describe('Change of the figure for one standard deviation more of it, in the middle'),
        }),
      ),
    })
    .nullable()
    .describe('Null where the points are too few'),
});
export type StudyInfluence = z.infer<typeof studyInfluenceSchema>;
const keptSchema = z.object({
  share: z.number().describe('Of all that may come'),
  least: z.number().describe('The same, if the models err by their error for the worse'),
  most: z.number().describe('The same, if they err for the better'),
});
const parameterValues = z.record(z.string(), z.number()).describe('By parameter, in SI');
/** What parameters that vary make of the measures of a study. */
export const studyToleranceSchema = z.object({
  figures: z.array(
    z.object({
      measure: z.string(),
      unit: z.string(),
      fewest: z.int().describe('Points that a model of it needs'),
      spread: z
        .object({
          points: z.int(),
          error: z.number().describe('Root mean square of what the model misses at a point by what the others foretell'),
          checked: z.object({ error: z.number(), points: z.int() }).nullable().describe('The same at points that were kept for it'),
          mean: z.number(),
          deviation: z.number(),
          percentiles: z.array(z.number()).length(3).describe('Values below which 1 %, half and 99 % lie'),
          bars: z.object({ from: z.number(), to: z.number(), shares: z.array(z.number()) }),
          worst: z
            .array(z.object({ value: z.number(), values: parameterValues }))
            .length(2)
            .describe('The least and the largest'),
        })
        .nullable()
        .describe('Absent where its points are too few'),
    }),
  ),
  goals: z.array(
    z.object({
      measure: z.string(),
      low: z.number().nullable(),
      high: z.number().nullable(),
      unit: z.string(),
      kept: keptSchema.nullable(),
    }),
  ),
  kept: keptSchema.nullable().describe('All goals together'),
  standardError: z.number(),
  centre: z.object({ values: parameterValues, kept: keptSchema }).nullable().describe('Middles at which most keep all goals'),
});
/** What a measure comes to on ever finer meshes. */
export const studyLimitSchema = z.object({
  parameter: z.string().describe('What makes the mesh finer'),
  sizes: z.array(z.number()).describe('Of the meshes, the finest first: one over the parameter'),
  figures: z.array(z.number()),
  limit: z
    .object({
      value: z.number(),
      order: z.number(),
      found: z.boolean().describe('Whether the order was found, or taken'),
      off: z.number().describe('What a mesh of size 1 is off by'),
      scatter: z.number(),
      errors: z.array(z.number()).describe('How far each figure may be off'),
    })
    .nullable()
    .describe('Absent of fewer than three meshes'),
});
export type StudyTolerance = z.infer<typeof studyToleranceSchema>;
export const studyCurvesSchema = z.object({
  unit: z.string(),
  over: z.enum(['frequency', 'time', 'angle']),
  curves: z.array(z.object({ digest: z.string(), x: z.array(z.number()), y: z.array(z.number().nullable()) })),
  missing: z.array(z.object({ digest: z.string(), why: z.string() })),
});
const triedSchema = studyPoint.extend({
  cost: z.number().nullable().describe('Sum of the squares of what is missed; null where a measure has no value'),
  misses: z.array(z.number().nullable()).describe('Of each goal, in what it may miss'),
  met: z.array(z.boolean()),
  reads: z.array(readSchema),
  beyond: z.boolean().optional().describe('It was not solved: it lies beyond what has to be kept'),
});
export const searchViewSchema = z.object({
  bounded: z.array(z.object({ parameter: z.string(), measure: z.string(), from: z.number(), to: z.number(), start: z.number() })),
  sought: z.array(
    z.object({
      measure: z.string(),
      aim: z.enum(['at-most', 'at-least', 'equal']),
      value: z.number(),
      within: z.number(),
      weight: z.number(),
      unit: z.string(),
    }),
  ),
  problems: z.array(problemItem),
  going: z.boolean().describe('It asks on as its points are solved'),
  ended: z.enum(['goals', 'points', 'method']).nullable().describe('Why it is over'),
  best: z.int().nullable().describe('Place of the best among those that were tried'),
  solved: z.int(),
  tried: z.array(triedSchema),
  open: z.array(studyPoint).describe('What it asks for now'),
});
export type SearchView = z.infer<typeof searchViewSchema>;
export const variantsSchema = z.array(
  z.object({
    name: z.string().describe('Empty: the project as it stands'),
    digest: z.string(),
    run: studyPoint.shape.run,
    measures: z.array(readSchema).describe('Of the run, where it is done'),
  }),
);
export const machineSchema = z.object({ memory: z.number(), threads: z.int(), cellsPerSecond: z.number(), version: z.string() });
export type ProjectSummary = z.infer<typeof projectSummary>;
export type ProjectFull = z.infer<typeof projectFull>;
export type Run = z.infer<typeof runSchema>;
export type ActiveRun = z.infer<typeof activeRunSchema>;
export type Machine = z.infer<typeof machineSchema>;
