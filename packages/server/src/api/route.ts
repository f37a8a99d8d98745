import type { NextFunction, Request, Response, Router } from 'express';
import { z } from 'zod';
import type { Problem } from '@jadebell/core/document';

/** An error that becomes a problem-details answer (RFC 9457). */
export class HttpProblem extends Error {
  constructor(
    readonly status: number,
    readonly title: string,
    readonly detail: string,
    readonly problems: Problem[] = [],
  ) {
    super(detail);
  }
}

export const notFound = (what: string): HttpProblem => new HttpProblem(404, 'Not found', `There is no such ${what}. It may have been removed.`);

interface Shape {
  params?: z.ZodType;
  query?: z.ZodType;
  body?: z.ZodType;
  /** Absent: the handler answers by itself (files, streams). */
  answer?: z.ZodType;
}
type Of<T> = T extends z.ZodType ? z.infer<T> : undefined;
type Input<S extends Shape> = { params: Of<S['params']>; query: Of<S['query']>; body: Of<S['body']>; request: Request; response: Response };

/** One operation of the API: its path in OpenAPI notation, its schemas, its handler. */
export interface Route<S extends Shape = Shape> {
  method: 'get' | 'post' | 'put' | 'delete';
  path: string;
  summary: string;
  status?: number;
  /** Media type of an answer that is not JSON. */
  media?: string;
  schemas: S;
  handle(input: Input<S>): Promise<Of<S['answer']> | void>;
}

/** Types a route by its schemas. */
export const route = <S extends Shape>(r: Route<S>): Route => r as unknown as Route;

const parse = <T>(schema: z.ZodType | undefined, value: unknown, where: string): T => {
  if (!schema) return undefined as T;
  const result = schema.safeParse(value);
  if (result.success) return result.data as T;
  const [issue] = result.error.issues;
  throw new HttpProblem(400, 'Bad request', `The ${where} does not fit: ${issue.path.join('.') || 'value'}: ${issue.message}.`);
};

/** Registers routes on an Express router, checking every input and output against its schema. */
export function mount(router: Router, routes: readonly Route[]): void {
  for (const r of routes)
    router[r.method](r.path.replaceAll(/\{(\w+)\}/g, ':$1'), (request: Request, response: Response, next: NextFunction) => {
      const run = async (): Promise<void> => {
        const { params, query, body, answer } = r.schemas;
        const result = await r.handle({
          params: parse(params, request.params, 'address'),
          query: parse(query, request.query, 'query'),
          body: parse(body, request.body, 'body'),
          request,
          response,
        } as never);
        if (!answer) {
          if (!response.headersSent && !r.media) response.status(r.status ?? 204).end();
          return;
        }
        response.status(r.status ?? 200).json(answer.parse(result));
      };
      run().catch(next);
    });
}

/** An OpenAPI 3.1 description made from the same schemas. */
export function openApi(routes: readonly Route[], version: string): object {
  const paths: Record<string, Record<string, object>> = {};
  const json = (s: z.ZodType): object => z.toJSONSchema(s, { target: 'draft-2020-12', unrepresentable: 'any', io: 'input' });
  for (const r of routes) {
    const parameters = (['params', 'query'] as const).flatMap((where) => {
      const schema = r.schemas[where] && (json(r.schemas[where]) as { properties?: Record<string, object>; required?: string[] });
      return Object.entries(schema?.properties ?? {}).map(([name, s]) => ({
        name,
        in: where === 'params' ? 'path' : 'query',
        required: where === 'params' || (schema?.required?.includes(name) ?? false),
        schema: s,
      }));
    });
    const good = r.schemas.answer
      ? { description: 'Done', content: { 'application/json': { schema: json(r.schemas.answer) } } }
      : { description: 'Done', ...(r.media ? { content: { [r.media]: {} } } : {}) };
    (paths[`/api${r.path}`] ??= {})[r.method] = {
      summary: r.summary,
      parameters,
      ...(r.schemas.body ? { requestBody: { required: true, content: { 'application/json': { schema: json(r.schemas.body) } } } } : {}),
      responses: {
        [r.status ?? (r.schemas.answer || r.media ? 200 : 204)]: good,
        default: { description: 'A problem (RFC 9457)', content: { 'application/problem+json': {} } },
      },
    };
  }
  return { openapi: '3.1.0', info: { title: 'Jade Bell', version }, paths };
}
