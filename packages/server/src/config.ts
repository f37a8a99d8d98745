import { z } from 'zod';

const schema = z.object({
  JADEBELL_PORT: z.coerce.number().int().min(0).max(65535).default(4470),
  JADEBELL_DB_PORT: z.coerce.number().int(),
  JADEBELL_DB_PASSWORD: z.string().min(1),
  JADEBELL_DB_NAME: z.string().default('jadebell'),
  JADEBELL_WEB: z.string().optional(),
  JADEBELL_DEMO: z.string().optional(),
  JADEBELL_LOG: z.enum(['silent', 'error', 'warn', 'info']).default('warn'),
});

/** Settings of the server, from the environment that the start script prepares. */
export const readConfig = (env: NodeJS.ProcessEnv): Config => {
  const e = schema.parse(env);
  return {
    port: e.JADEBELL_PORT,
    database: { port: e.JADEBELL_DB_PORT, password: e.JADEBELL_DB_PASSWORD, name: e.JADEBELL_DB_NAME },
    web: e.JADEBELL_WEB,
    demo: e.JADEBELL_DEMO,
    log: e.JADEBELL_LOG,
  };
};

export interface Config {
  port: number;
  database: { port: number; password: string; name: string };
  /** Folder of the built interface. */
  web?: string;
  /** Folder of the demo projects. */
  demo?: string;
  log: string;
}
