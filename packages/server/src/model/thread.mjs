// The model thread: loads TypeScript through tsx, then answers questions about projects.
import { register } from 'tsx/esm/api';

register();
await import('./thread.ts');
