import { mkdtempSync } from 'node:fs';
import { startService } from '../scripts/service.mjs';
const folder = mkdtempSync('/tmp/jblook-');
const s = await startService({ folder, port: 4470, databasePort: 4480 });
console.log(s.address);
process.on('SIGTERM', async () => {
  await s.stop();
  process.exit(0);
});
setInterval(() => {}, 1000);
