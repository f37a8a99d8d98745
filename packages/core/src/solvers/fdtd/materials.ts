import type { Scene } from '../../scene/index.ts';

/** Media of a scene by index; 0 is vacuum. Complex relative permittivity at band centre; conductors are marked. */
export interface Media {
  re: Float64Array;
  /** Loss part e'' (positive). */
  loss: Float64Array;
  conductor: Uint8Array;
  /** Medium of each body. */
  ofBody: number[];
}

/** Collects the distinct media. Loss tangents count as given: constant conductivity equal to them at band centre. */
export function collectMedia(scene: Scene): Media {
  const re = [1];
  const loss = [0];
  const conductor = [0];
  const known = new Map<string, number>([['1 0 0', 0]]);
  const ofBody = scene.bodies.map(({ material: m }) => {
    const metal = m.kind === 'conductor' ? 1 : 0;
    const er = metal ? 1 : (m.permittivity ?? 1);
    const er2 = metal ? 0 : er * (m.lossTangent ?? 0);
    const key = `${er} ${er2} ${metal}`;
    const old = known.get(key);
    if (old !== undefined) return old;
    known.set(key, re.length);
    re.push(er);
    loss.push(er2);
    conductor.push(metal);
    return re.length - 1;
  });
  return { re: Float64Array.from(re), loss: Float64Array.from(loss), conductor: Uint8Array.from(conductor), ofBody };
}
