import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { pino } from 'pino';
import { createApp } from './app.ts';
import type { Config } from './config.ts';
import { connect } from './db/connect.ts';
import { loadDemo } from './demo.ts';
import { Pictures } from './model/pictures.ts';
import { ModelService } from './model/service.ts';
import { RunQueue } from './queue/queue.ts';

export interface Running {
  address: string;
  close(): Promise<void>;
}

const listen = (app: ReturnType<typeof createApp>, port: number): Promise<Server> =>
  new Promise((resolve, reject) => {
    const server = app.listen(port, '127.0.0.1', (error?: Error) => (error ? reject(error) : resolve(server)));
  });

/** Connects, migrates, loads the demo once, and listens on loopback at the configured port or the next free one. */
export async function startServer(config: Config): Promise<Running> {
  const log = pino({ level: config.log });
  const sequelize = await connect(config);
  const models = new ModelService();
  const pictures = new Pictures(models);
  if (config.demo) await loadDemo(config.demo, sequelize, pictures);
  const queue = new RunQueue(sequelize, log);
  await queue.open();
  const app = createApp(queue, models, pictures, log, config.web);
  let server: Server | null = null;
  for (let port = config.port; !server; port++) {
    try {
      server = await listen(app, port);
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== 'EADDRINUSE' || config.port === 0 || port > config.port + 50) throw error;
    }
  }
  const open = server;
  return {
    address: `http://127.0.0.1:${(open.address() as AddressInfo).port}`,
    async close() {
      open.closeAllConnections();
      await new Promise((resolve) => open.close(resolve));
      await queue.close();
      await models.close();
      await sequelize.close();
    },
  };
}
