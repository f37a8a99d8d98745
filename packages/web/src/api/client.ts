import type { Problem } from '@jadebell/core/document';

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

/** Reads JSON from the API. */
export const getJson = async <T>(path: string): Promise<T> => (await send(path)).json() as Promise<T>;

/** Sends JSON to the API and reads the answer, if there is one. */
export async function sendJson<T = void>(method: 'POST' | 'PUT' | 'DELETE', path: string, body?: unknown): Promise<T> {
  const response = await send(path, {
    method,
    headers: { 'Content-Type': 'application/json' },
    body: body === undefined ? undefined : JSON.stringify(body),
  });
  const text = await response.text();
  return (text ? JSON.parse(text) : undefined) as T;
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
