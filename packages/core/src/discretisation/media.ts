import type { MaterialEntry } from '../document/index.ts';
import type { Body } from '../geometry/index.ts';
import { compactPoles, type Dielectric, materialPoles, modelAt, type PoleModel } from '../materials/index.ts';
import type { Filled, FilledOverBand } from '../geometry/index.ts';
import { fitImmittance, type Immittance, type Metal, sheetAdmittance, surfaceImpedance } from './immittance.ts';
import { pulseFor } from '../numerics/pulse.ts';
import type { Axis } from '../numerics/axis.ts';
import { type Complex, div } from '../numerics/complex.ts';

/** A metal with its losses, as one line has it. Class 0 is the perfect conductor. */
export interface MetalClass {
  line: string;
  metal: Metal;
  /** Axis across which a sheet stands; null for a solid. */
  normal: Axis | null;
  /** Of solids: surface impedance, 'series'. Of sheets: admittance per square, 'parallel'; its inverse, 'series', of those across no axis. */
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
function metalClass(body: Body, { from, to }: FilledOverBand['band'], metals: (MetalClass | null)[]): number {
  const { material, conductor, line } = body;
  if (conductor.perfect || !material.conductivity) return 0;
  const normal = body.shape.form === 'sheet' ? body.shape.normal : null;
  const metal: Metal = { conductivity: material.conductivity, permeability: material.permeability ?? 1, thickness: conductor.thickness };
  const known = metals.findIndex((m) => m?.line === line && m.normal === normal);
  if (known > 0) return known;
  const { sides } = conductor;
  // A sheet across no axis has the jump of H as its current, against which it sets a voltage.
  const tilted = body.shape.form === 'tilted sheet';
  const over = (f: number): Complex => div([1, 0], sheetAdmittance(metal, sides, f));
  const fit = tilted
    ? fitImmittance('series', over, from, to)
    : normal !== null
      ? fitImmittance('parallel', (f) => sheetAdmittance(metal, sides, f), from, to)
      : fitImmittance('series', (f) => surfaceImpedance(metal, f), from, to);
  return metals.push({ line, metal, normal, fit }) - 1;
}

/** Dielectric of each body along an axis; null for conductors. */
export function dielectricsOf(scene: FilledOverBand, axis: Axis): readonly (Dielectric | null)[] {
  const made = dielectrics.get(scene) ?? [];
  dielectrics.set(scene, made);
  return (made[axis] ??= fitted(scene, axis));
}
/** Fits take a while and are asked for at each frequency. */
const dielectrics = new WeakMap<FilledOverBand, (readonly (Dielectric | null)[])[]>();

function fitted(scene: FilledOverBand, axis: Axis): (Dielectric | null)[] {
  const band = [scene.band.from, scene.band.to] as const;
  const clear = pulseFor(...band).highest;
  const known = new Map<MaterialEntry, Dielectric>();
  return scene.bodies.map(({ material: m }) => {
    if (m.kind === 'conductor') return null;
    let d = known.get(m);
    if (!d) {
      const model = materialPoles(m, band, axis);
      d = { level: m.permittivityAlong?.[axis] ?? m.permittivity ?? 1, model: model && compactPoles(model, band, clear) };
      known.set(m, d);
    }
    return d;
  });
}

/** Whether the time stepping sees the scene's bodies differently along the axes. */
export const anisotropic = (scene: Filled): boolean => scene.bodies.some((b) => b.material.permittivityAlong && !b.material.dispersion);

/**
 * Collects the distinct media, their permittivities at a frequency in hertz as an axis sees them; absent: the band's centre. Their numbers are the same at all
 * frequencies.
 */
export function collectMedia(
  scene: FilledOverBand,
  frequency = (scene.band.from + scene.band.to) / 2,
  of: readonly (Dielectric | null)[] = dielectricsOf(scene, 0),
): Media {
  const re = [1];
  const loss = [0];
  const conductor = [0];
  const metals: (MetalClass | null)[] = [null];
  const known = new Map<PoleModel | string, number>([['e 1', 0]]);
  const ofBody = scene.bodies.map((body, n) => {
    const d = of[n];
    const metal = d ? 0 : 1 + metalClass(body, scene.band, metals);
    const e = !d ? { re: 1, loss: 0 } : d.model ? modelAt(d.model, 2 * Math.PI * frequency) : { re: d.level, loss: 0 };
    const key = d ? (d.model ?? `e ${d.level}`) : `metal ${metal}`;
    const old = known.get(key);
    if (old !== undefined) return old;
    known.set(key, re.length);
    re.push(e.re);
    loss.push(e.loss);
    conductor.push(metal);
    return re.length - 1;
  });
  return { re: Float64Array.from(re), loss: Float64Array.from(loss), conductor: Uint16Array.from(conductor), ofBody, metals };
}
