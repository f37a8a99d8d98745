import type { Problem } from '@jadebell/core/document';
import type { z } from 'zod';

/** An answer of the server that was not good; `message` is a sentence for the user. */
export class ApiError extends Error {
  constructor(
    readonly status: number,
    message: string,
    readonly problems: Problem[] = [],
  ) {
    super(message);
  }
}

async function send(path: string, options?: RequestInit): Promise<Response> {
  let response: Response;
  try {
    response = await fetch(`/api${path}`, options);
  } catch {
    throw new ApiError(0, 'The server does not answer. Is it still running in its terminal?');
  }
  if (response.ok) return response;
  const body = (await response.json().catch(() => ({}))) as { detail?: string; problems?: Problem[] };
  throw new ApiError(response.status, body.detail ?? `The server answered ${response.status}.`, body.problems);
}

/** Holds an answer against what it should be: another version of the server may be running. */
function checked<T>(schema: z.ZodType<T>, data: unknown, path: string): T {
  const { data: good, error } = schema.safeParse(data);
  if (!error) return good;
  const [issue] = error.issues;
  throw new ApiError(
    0,
    `The server’s answer to ${path} does not fit at ${issue.path.join('.') || 'its beginning'}: ${issue.message}. Reload the page; if it stays so, restart the server.`,
  );
}

/** Reads JSON from the API that has to fit a schema. */
export const getJson = async <T>(path: string, schema: z.ZodType<T>): Promise<T> => checked(schema, await (await send(path)).json(), path);
/** The same as a fetcher of SWR, whose key is the path. */
export const reader =
  <T>(schema: z.ZodType<T>) =>
  (path: string): Promise<T> =>
    getJson(path, schema);

/** Sends JSON to the API and reads the answer, where one is expected. */
export async function sendJson(method: 'POST' | 'PUT' | 'DELETE', path: string, body?: unknown): Promise<void>;
export async function sendJson<T>(method: 'POST' | 'PUT' | 'DELETE', path: string, body: unknown, schema: z.ZodType<T>): Promise<T>;
export async function sendJson<T>(method: 'POST' | 'PUT' | 'DELETE', path: string, body?: unknown, schema?: z.ZodType<T>): Promise<T | void> {
  const response = await send(path, {
    method,
    headers: { 'Content-Type': 'application/json' },
    body: body === undefined ? undefined : JSON.stringify(body),
  });
  if (schema) return checked(schema, await response.json(), path);
}

/** An array of a result. */
export interface NumberArray {
  shape: number[];
  data: Float32Array | Float64Array;
}

/** Reads numbers of a result; `range` selects elements. */
export async function getArray(run: string, name: string, range?: { from: number; count: number }): Promise<NumberArray> {
  const query = range ? `?from=${range.from}&count=${range.count}` : '';
  const response = await send(`/runs/${run}/arrays/${encodeURIComponent(name)}${query}`);
  const buffer = await response.arrayBuffer();
  const shape = JSON.parse(response.headers.get('X-Shape') ?? '[]') as number[];
  return { shape, data: response.headers.get('X-Type') === 'f4' ? new Float32Array(buffer) : new Float64Array(buffer) };
}
