export { eliminate } from './dense';
export { run } from './fdtd';
export { bare, triad } from './bare';
