// What a browser's page has and the page of the tests lacks.
import { TextDecoder, TextEncoder } from 'node:util';

globalThis.TextEncoder ??= TextEncoder;
globalThis.TextDecoder ??= TextDecoder;
// Of plain values, as documents are.
globalThis.structuredClone ??= (value) => (value === undefined ? value : JSON.parse(JSON.stringify(value)));
