// A solver thread: loads TypeScript through tsx, then waits for one job.
import { register } from 'tsx/esm/api';

register();
await import('./worker.ts');
