import type { Body } from '../../geometry/index.ts';
import { permittivityAt } from '../../materials/index.ts';
import type { Media } from '../../discretisation/media.ts';
import type { Axis } from '../../numerics/axis.ts';

/** What stands for a body's metal in marks: 1 where it is perfect, else 2 and the place of the body. */
export const metalMark = (body: Body, place: number): number => (body.conductor.perfect || !body.material.conductivity ? 1 : 2 + place);

/** Media of bodies at one frequency, as an axis sees them: formulas and tensors at their exact value, loss by loss tangent. */
export function sectionMedia(bodies: readonly Body[], frequency: number, axis: Axis): Media {
  const re = [1];
  const loss = [0];
  const conductor = [0];
  const ofBody = bodies.map((body, place) => {
    const { material: m } = body;
    if (m.kind === 'conductor') {
      re.push(1);
      loss.push(0);
      return conductor.push(metalMark(body, place)) - 1;
    }
    const mean = permittivityAt(m, frequency);
    const along = m.dispersion || !m.permittivityAlong ? mean.re : m.permittivityAlong[axis];
    re.push(along);
    loss.push(m.dispersion ? mean.loss : along * (m.lossTangent ?? 0));
    return conductor.push(0) - 1;
  });
  return { re: Float64Array.from(re), loss: Float64Array.from(loss), conductor: Uint16Array.from(conductor), ofBody, metals: [null] };
}

/** Whether any body's permittivity changes with frequency. */
export const disperses = (bodies: readonly Body[]): boolean => bodies.some((b) => b.material.dispersion !== undefined);
