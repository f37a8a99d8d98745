import { z } from 'zod';

/** What came from a file: a mesh or outlines, packed. */
export const partSchema = z.strictObject({
  name: z.string().min(1).max(80),
  kind: z.enum(['mesh', 'outlines']),
  source: z.string().max(200).describe('File it came from'),
  data: z
    .string()
    .max(12_000_000)
    .describe('Base64 of deflated little-endian data: counts, then coordinates in metres (float32 of a mesh, float64 of outlines), then triangles'),
});
export type Part = z.infer<typeof partSchema>;
