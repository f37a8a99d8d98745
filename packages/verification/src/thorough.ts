import { test } from '@jest/globals';

/** A test that takes long and has shorter ones beside it: `npm run thorough` makes it, as `npm run verify` solves the slow cases. */
export const thorough = process.env.JADEBELL_THOROUGH ? test : test.skip;
