// mathjs as one file: its thousand modules take two seconds to load one by one.
declare module 'mathjs/lib/browser/math.js' {
  const mathjs: typeof import('mathjs');
  export default mathjs;
}
