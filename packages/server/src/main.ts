import { readConfig } from './config.ts';
import { startServer } from './start.ts';

const running = await startServer(readConfig(process.env));
process.send?.({ address: running.address });
let closing = false;
const stop = (): void => {
  if (closing) return;
  closing = true;
  void running.close().finally(() => process.exit(0));
};
process.on('SIGTERM', stop);
process.on('SIGINT', stop);
process.on('disconnect', stop);
