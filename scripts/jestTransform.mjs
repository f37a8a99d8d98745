// Jest runs modules in a context of their own, where each look at a global (Math, Float64Array) goes through an interceptor: hot loops become fifty times
// slower. So each module is given the ones that it uses as constants of its own.
import swc from '@swc/jest';

const globals =
  'Array,ArrayBuffer,BigInt,Boolean,DataView,Date,Error,Float32Array,Float64Array,Infinity,Int32Array,JSON,Map,Math,NaN,Number,Object,Promise,Set,String,Uint16Array,Uint32Array,Uint8Array,WeakMap'.split(
    ',',
  );

/** The source with what it uses of the globals as constants, on its first line, so that line numbers stay. */
const withConstants = (source) => {
  const used = globals.filter(
    (name) => new RegExp(`\\b${name}\\b`).test(source) && !new RegExp(`\\b(?:const|let|class|function|enum|as)\\s+${name}\\b`).test(source),
  );
  return used.length && !source.startsWith('#!') ? `const { ${used.join(', ')} } = globalThis; ${source}` : source;
};

const options = { jsc: { target: 'es2022', parser: { syntax: 'typescript', tsx: true }, transform: { react: { runtime: 'automatic' } } } };
const inner = swc.createTransformer(options);
export default {
  ...inner,
  process: (source, ...rest) => inner.process(withConstants(source), ...rest),
  processAsync: (source, ...rest) => inner.processAsync(withConstants(source), ...rest),
  getCacheKey: (source, ...rest) => inner.getCacheKey(withConstants(source), ...rest),
};
