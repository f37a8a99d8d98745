import type { SceneSource } from '../../../scene/index.ts';
import { dipoleSource } from './dipole.ts';
import type { GridSource, SourceGround } from './source.ts';
import { waveSource } from './wave.ts';

/** Sources from without, by their kind. */
const sources: { [K in SceneSource['kind']]: (source: Extract<SceneSource, { kind: K }>, ground: SourceGround) => GridSource } = {
  wave: waveSource,
  dipole: dipoleSource,
};

/** The source of a scene on its grid. */
export const gridSource = (source: SceneSource, ground: SourceGround): GridSource =>
  (sources[source.kind] as (s: SceneSource, g: SourceGround) => GridSource)(source, ground);
