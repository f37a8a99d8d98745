#!/usr/bin/env node
import { buildNode } from '../../../scripts/build.mjs';

await buildNode();
const { main } = await import('../../node/dist/cli.mjs');
const code = await main(process.argv.slice(2));
// What was printed into a pipe must be out before the end.
await new Promise((done) => process.stdout.write('', done));
process.exit(code);
