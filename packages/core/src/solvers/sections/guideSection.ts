import type { GridScene, SceneGuide, SceneSection } from '../../scene/index.ts';
import { gridAccuracy } from '../../methods/index.ts';

/** The cross-section of a guided port, or of the part of it that is computed, just inside its plane, at the middle of the band. */
export function sectionOfGuide(guide: SceneGuide, band: { from: number; to: number }, accuracy: GridScene['accuracy']): SceneSection {
  const axes = ([0, 1, 2] as const).filter((a) => a !== guide.normal) as unknown as SceneSection['axes'];
  const [min, max] = [guide.min, guide.max].map((p) => axes.map((a) => p[a]) as [number, number]);
  const size = Math.min(max[0] - min[0], max[1] - min[1]);
  return {
    name: guide.name,
    normal: guide.normal,
    axes,
    at: guide.min[guide.normal] + 3e-3 * size * guide.into,
    min,
    max,
    edges: axes.flatMap((a) => [0, 1].map((side) => (guide.magnetic?.[2 * a + side] ? 'magnetic' : 'electric'))) as SceneSection['edges'],
    ...(guide.wholeImpedance === undefined ? {} : { wholeImpedance: guide.wholeImpedance }),
    ...(guide.halved ? { halved: guide.halved } : {}),
    modes: guide.modes,
    frequency: (band.from + band.to) / 2,
    near: 0,
    bend: null,
    grid: { perWavelength: gridAccuracy[accuracy].cellsPerWavelength },
    finer: 3,
    boxes: [],
  };
}
