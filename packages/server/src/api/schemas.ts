import { projectSchema } from '@jadebell/core/document';
import { z } from 'zod';
import { runStates } from '../db/models.ts';

export const idParams = z.object({ id: z.uuid() });
export const problemItem = z.object({
  severity: z.enum(['error', 'warning']),
  code: z.string(),
  place: z.object({ part: z.string(), name: z.string().optional(), chip: z.string().optional() }),
  message: z.string(),
  fix: z.string(),
});

export const projectSummary = z.object({
  id: z.uuid(),
  title: z.string(),
  note: z.string().optional(),
  revision: z.int(),
  updatedAt: z.iso.datetime(),
  runs: z.int(),
});
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
export const runSchema = z.object({
  id: z.uuid(),
  projectId: z.uuid(),
  number: z.int(),
  state: z.enum(runStates),
  createdAt: z.iso.datetime(),
  startedAt: z.iso.datetime().nullable(),
  endedAt: z.iso.datetime().nullable(),
  accuracy: z.string(),
  parameters: z.array(z.object({ name: z.string(), expression: z.string(), si: z.number().nullable(), measure: z.string() })),
  progress: progressSchema.nullable(),
  problems: z.array(problemItem),
  kept: z.int().describe('Excitations of a run that was stopped or interrupted which are done and kept'),
  meta: z.any().describe('Figures and evidence of the result; null until there is one'),
});
export type RunView = z.infer<typeof runSchema>;
