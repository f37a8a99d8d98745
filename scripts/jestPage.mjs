// What a browser's page has and the page of the tests lacks.
import { TextDecoder, TextEncoder } from 'node:util';

globalThis.TextEncoder ??= TextEncoder;
globalThis.TextDecoder ??= TextDecoder;
// Of plain values, as documents are.
globalThis.structuredClone ??= (value) => (value === undefined ? value : JSON.parse(JSON.stringify(value)));

// Whether a thing can be seen is not asked of each that might be meant: without layout nearly all can, and the asking takes most of a page test's time.
if (globalThis.document) (await import('@testing-library/dom')).configure({ defaultHidden: true });
