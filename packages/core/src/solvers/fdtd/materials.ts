import type { Body } from '../../geometry/index.ts';
import type { Scene } from '../../scene/index.ts';
import { fitImmittance, type Immittance, type Metal, sheetAdmittance, surfaceImpedance } from './immittance.ts';

/** A metal with its losses, as one line has it. Class 0 is the perfect conductor. */
export interface MetalClass {
  line: string;
  metal: Metal;
  /** Axis across which a sheet stands; null for a solid. */
  normal: 0 | 1 | 2 | null;
  /** Of solids: surface impedance, 'series'. Of sheets: admittance per square, 'parallel'. */
  fit: Immittance;
}

/** Media of a scene by index; 0 is vacuum. Complex relative permittivity at band centre; conductors are marked. */
export interface Media {
  re: Float64Array;
  /** Loss part e'' (positive). */
  loss: Float64Array;
  /** 0: no conductor, 1: a perfect one, otherwise 1 + number of its class. */
  conductor: Uint16Array;
  /** Medium of each body. */
  ofBody: number[];
  /** Classes of lossy metal; entry 0 is a place holder for the perfect conductor. */
  metals: (MetalClass | null)[];
}

/** Number of the class of a body's metal, a new one if need be. */
function metalClass(body: Body, { from, to }: Scene['band'], metals: (MetalClass | null)[]): number {
  const { material, conductor, line } = body;
  if (conductor.perfect || !material.conductivity) return 0;
  const normal = body.shape.form === 'sheet' ? body.shape.normal : null;
  const metal: Metal = { conductivity: material.conductivity, permeability: material.permeability ?? 1, thickness: conductor.thickness };
  const known = metals.findIndex((m) => m?.line === line && m.normal === normal);
  if (known > 0) return known;
  const { sides } = conductor;
  const fit =
    normal !== null
      ? fitImmittance('parallel', (f) => sheetAdmittance(metal, sides, f), from, to)
      : fitImmittance('series', (f) => surfaceImpedance(metal, f), from, to);
  return metals.push({ line, metal, normal, fit }) - 1;
}

/** Collects the distinct media. Loss tangents count as given: constant conductivity equal to them at band centre. */
export function collectMedia(scene: Scene): Media {
  const re = [1];
  const loss = [0];
  const conductor = [0];
  const metals: (MetalClass | null)[] = [null];
  const known = new Map<string, number>([['1 0 0', 0]]);
  const ofBody = scene.bodies.map((body) => {
    const m = body.material;
    const metal = m.kind === 'conductor' ? 1 + metalClass(body, scene.band, metals) : 0;
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
  return { re: Float64Array.from(re), loss: Float64Array.from(loss), conductor: Uint16Array.from(conductor), ofBody, metals };
}
