import { z } from 'zod';
import { expression, measureName, nameText, parameterName } from '../entries/index.ts';
import { accuracies } from '../methods/index.ts';
import { type Method, methods } from '../searching/index.ts';

export const aims = { 'at-most': 'at most', 'at-least': 'at least', equal: 'equal to' } as const;
export type Aim = keyof typeof aims;

/** What a measure should be. */
export const goalSchema = z.strictObject({
  measure: measureName.min(1).describe('Name of a measure of the project'),
  aim: z.enum(Object.keys(aims) as [Aim, ...Aim[]]),
  value: expression.describe('In the unit of the measure; a plain number for decibels and plain figures'),
  within: expression
    .optional()
    .describe('By so much it may miss a value, and missing by so much counts as one; absent: 1 dB, or one per cent of the value'),
  weight: z.number().positive().default(1).describe('How much missing it counts beside the others'),
});
export type Goal = z.infer<typeof goalSchema>;

const boundSchema = z.strictObject({
  parameter: parameterName.min(1),
  from: expression,
  to: expression,
  start: expression.optional().describe('Absent: its value in the project, where that lies between'),
});
export type Bound = z.infer<typeof boundSchema>;

/** A search for values of parameters at which goals on measures are met; its points are ordinary runs. */
export const searchSchema = z.strictObject({
  name: nameText,
  note: z.string().max(500).optional(),
  bounds: z.array(boundSchema).min(1).max(20),
  keep: z.array(expression).max(20).optional().describe('Expressions of parameters that must not be below zero, such as gap - 0.2 mm'),
  goals: z.array(goalSchema).max(20).describe('What is sought; without one nothing is'),
  method: z
    .enum(Object.keys(methods) as [Method, ...Method[]])
    .optional()
    .describe('Absent: by how many parameters move'),
  points: z.number().int().min(1).max(10_000).default(60).describe('Most points that it may take'),
  together: z.number().int().min(1).max(16).default(1).describe('Points that are asked for at once, where the method leaves that open'),
  seed: z.number().int().min(0).max(1e9).default(1).describe('Another one tries other points, where chance has a part'),
  accuracy: z.enum(accuracies).optional().describe('Absent: that of the project'),
});
export type SearchPlan = z.infer<typeof searchSchema>;
