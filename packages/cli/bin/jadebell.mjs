#!/usr/bin/env node
import { register } from 'tsx/esm/api';

register();
const { main } = await import('../src/main.ts');
const code = await main(process.argv.slice(2));
// What was printed into a pipe must be out before the end.
await new Promise((done) => process.stdout.write('', done));
process.exit(code);
