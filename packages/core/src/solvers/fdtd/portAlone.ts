import type { GridScene, ScenePort } from '../../scene/index.ts';

/** A scene with its port alone, as a reference solves it: nothing else excites it, and nothing is recorded. */
export const portAlone = (scene: GridScene, port: ScenePort, points: number): GridScene => ({
  ...scene,
  ports: [{ ...port, line: undefined, spread: undefined, reactance: undefined }],
  guides: [],
  source: null,
  excite: [port.name],
  combine: undefined,
  recorders: [],
  recordAt: [],
  band: { ...scene.band, points },
});
