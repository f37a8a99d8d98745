import { join } from 'node:path';
import { coreVersion } from '@jadebell/core/version';
import compression from 'compression';
import express, { type ErrorRequestHandler, type Express, type RequestHandler } from 'express';
import { rateLimit } from 'express-rate-limit';
import helmet from 'helmet';
import type { Logger } from 'pino';
import { HttpProblem, mount, openApi } from './api/route.ts';
import { projectRoutes } from './api/projects.ts';
import { resultRoutes } from './api/results.ts';
import { runRoutes } from './api/runs.ts';
import { searchRoutes } from './api/searches.ts';
import { studyRoutes } from './api/studies.ts';
import { Searches } from './exploring/searches.ts';
import { systemRoutes } from './api/system.ts';
import { variantRoutes } from './api/variants.ts';
import type { Pictures } from './model/pictures.ts';
import type { ModelService } from './model/service.ts';
import type { RunQueue } from './queue/queue.ts';

const local = /^(127\.0\.0\.1|localhost|\[::1\])(:\d+)?$/;

/** Lets in only requests addressed to this machine and, where they change something, sent by our own pages. */
const sameOrigin: RequestHandler = (request, _response, next) => {
  const { host, origin } = request.headers;
  if (!host || !local.test(host)) return next(new HttpProblem(403, 'Not allowed', 'The server answers only at its address on this machine.'));
  const site = request.headers['sec-fetch-site'];
  const foreign = (origin !== undefined && origin !== `http://${host}`) || site === 'cross-site' || site === 'same-site';
  if (foreign && request.path.startsWith('/api')) return next(new HttpProblem(403, 'Not allowed', 'Requests from other pages are not accepted.'));
  next();
};

interface BodyError extends Error {
  type?: string;
  status?: number;
}

const problems =
  (log: Logger): ErrorRequestHandler =>
  (error: BodyError | HttpProblem, request, response, _next) => {
    let answer: HttpProblem;
    if (error instanceof HttpProblem) answer = error;
    else if (error.type === 'entity.too.large')
      answer = new HttpProblem(413, 'Too large', 'The project is larger than 25 MB. Split it, or remove imported outlines it does not need.');
    else if (error.type === 'entity.parse.failed') answer = new HttpProblem(400, 'Not JSON', 'The request’s body is not JSON.');
    else {
      log.error({ err: error, path: request.path }, 'request failed');
      answer = new HttpProblem(500, 'The server failed', 'The server could not do this. Nothing was changed; its log has the cause.');
    }
    if (response.headersSent) return void response.destroy();
    response
      .status(answer.status)
      .type('application/problem+json')
      .send(JSON.stringify({ type: 'about:blank', title: answer.title, status: answer.status, detail: answer.detail, problems: answer.problems }));
  };

/**
 * The worker that reads files of other programs: its STEP reader makes small functions from text when it starts, which the policy of the pages forbids. A
 * worker has the policy of its own file, and this one has no page to touch.
 */
const fileWorker = /^\/assets\/exchange\.worker-[\w-]+\.js$/;
const fileWorkerPolicy = "default-src 'self'; script-src 'self' 'unsafe-eval'; connect-src 'self' blob: data:; object-src 'none'";

/** The Express application: API under /api, the built interface elsewhere. */
export function createApp(queue: RunQueue, models: ModelService, pictures: Pictures, log: Logger, web?: string): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'self'"],
          scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
          styleSrc: ["'self'", "'unsafe-inline'"],
          imgSrc: ["'self'", 'data:', 'blob:'],
          fontSrc: ["'self'", 'data:'],
          connectSrc: ["'self'", 'blob:', 'data:'],
          workerSrc: ["'self'", 'blob:'],
          objectSrc: ["'none'"],
          baseUri: ["'none'"],
          frameAncestors: ["'none'"],
          formAction: ["'self'"],
        },
      },
      crossOriginEmbedderPolicy: { policy: 'require-corp' },
      crossOriginOpenerPolicy: { policy: 'same-origin' },
      strictTransportSecurity: false,
    }),
  );
  app.use(sameOrigin);
  app.use((request, response, next) => {
    if (fileWorker.test(request.path)) response.setHeader('Content-Security-Policy', fileWorkerPolicy);
    next();
  });
  app.use('/api', rateLimit({ windowMs: 10_000, limit: 2000, standardHeaders: false, legacyHeaders: false, validate: false }));
  app.use(compression({ filter: (request, response) => !request.path.endsWith('/events') && compression.filter(request, response) }));
  app.use('/api', express.json({ limit: '25mb' }));
  const api = express.Router();
  const routes = [
    ...projectRoutes(pictures),
    ...runRoutes(queue, models),
    ...resultRoutes,
    ...studyRoutes(queue, models),
    ...searchRoutes(queue, new Searches(queue, log)),
    ...variantRoutes,
    ...systemRoutes(queue),
  ];
  mount(api, routes);
  api.get('/openapi.json', (_request, response) => void response.json(openApi(routes, coreVersion)));
  api.use((_request, _response, next) =>
    next(new HttpProblem(404, 'Not found', 'There is no such address in the API; /api/openapi.json lists them.')),
  );
  app.use('/api', api);
  if (web) {
    app.use('/assets', express.static(join(web, 'assets'), { immutable: true, maxAge: '1y', fallthrough: false }));
    app.use(express.static(web, { maxAge: 0 }));
    app.get('/{*path}', (_request, response) => void response.sendFile(join(web, 'index.html')));
  }
  app.use(problems(log));
  return app;
}
