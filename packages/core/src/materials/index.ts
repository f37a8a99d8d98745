export * from './library.ts';
export * from './response.ts';
export * from './poleModel.ts';
export { lossTangentPoles } from './levelLoss.ts';
export * from './poles.ts';
export * from './medium.ts';
