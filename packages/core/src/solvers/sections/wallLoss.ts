import type { Complexes } from '../../numerics/complex.ts';
import type { Body } from '../../geometry/index.ts';
import { surfaceImpedance } from '../../discretisation/immittance.ts';
import { type GuidedMode, stepsOf } from '../modes/index.ts';
import type { FilledSection } from './fillSection.ts';

const square = (f: Complexes, n: number): number => f.re[n] ** 2 + f.im[n] ** 2;

/** Surface resistance of one face of a body's metal, ohm: a sheet's current is shared by its two faces. */
function resistanceOf(body: Body, frequency: number): number {
  const sheet = body.shape.form === 'sheet';
  const { thickness, sides } = body.conductor;
  const metal = {
    conductivity: body.material.conductivity!,
    permeability: body.material.permeability ?? 1,
    thickness: thickness !== null && sheet ? thickness / sides : thickness,
  };
  return surfaceImpedance(metal, frequency)[0];
}

/**
 * Power lost in the metal of a section for each metre, W/m, by the tangential H of the mode without loss (the power-loss method:
 * D. M. Pozar, Microwave Engineering, 4th ed., sec. 2.7). H stands half a cell off and is carried to the face in a line.
 */
export function wallLoss({ section: s, metal, cut, bodies }: FilledSection, { h }: Pick<GuidedMode, 'h'>, frequency: number): number {
  if (!bodies.some((b) => b.material.kind === 'conductor' && b.material.conductivity && !b.conductor.perfect)) return 0;
  const st = stepsOf(s);
  const w = st.nu + 1;
  const known = new Map<number, number>();
  const resistance = (mark: number): number => {
    if (mark < 2) return 0;
    let r = known.get(mark);
    if (r === undefined) known.set(mark, (r = resistanceOf(bodies[mark - 2], frequency)));
    return r;
  };
  const cellOpen = (i: number, j: number): boolean => {
    if (i < 0 || j < 0 || i >= st.nu || j >= st.nv) return false;
    const n = j * w + i;
    return (s.area?.[n] ?? 1) > 0 && (s.eu[n] !== 0 || s.eu[n + w] !== 0 || s.ev[n] !== 0 || s.ev[n + 1] !== 0);
  };
  /** |H tangential|^2 at a face from the first and the second cell before it; a is along the face. */
  const at = (first: [Complexes, number][], second: [Complexes, number][] | null, ratio: number): number => {
    let [re, im] = [0, 0];
    let sum = 0;
    first.forEach(([f, n], k) => {
      [re, im] = [f.re[n], f.im[n]];
      if (second) {
        const [g, m] = second[k];
        re += ratio * (re - g.re[m]);
        im += ratio * (im - g.im[m]);
      }
      sum += (re * re + im * im) * (k === 0 ? 1 : 0.5);
    });
    return sum;
  };
  let power = 0;
  for (let j = 0; j < st.nv; j++)
    for (let i = 0; i < st.nu; i++) {
      if (!cellOpen(i, j)) continue;
      const n = j * w + i;
      if (cut && cut.length[n] > 0) {
        // H across stands on edges; where one of a pair lies in metal the other stands for both.
        const across = (f: Complexes, e: Float64Array, a: number, b: number): number =>
          e[a] !== 0 && e[b] !== 0 ? (square(f, a) + square(f, b)) / 2 : square(f, a) + square(f, b);
        power += (resistance(cut.mark[n]) * cut.length[n] * (square(h.w, n) + across(h.u, s.ev, n, n + 1) + across(h.v, s.eu, n, n + w))) / 2;
        continue;
      }
      // Faces along u below and above the cell, then faces along v left and right of it.
      for (const side of [-1, 1]) {
        const edge = side < 0 ? n : n + w;
        if (metal.u[edge]) {
          const beyond = cellOpen(i, j - side) && !metal.u[side < 0 ? n + w : n];
          const ratio = beyond ? st.dv[j] / (st.dv[j] + st.dv[j - side]) : 0;
          const next = n - side * w;
          power += (resistance(metal.u[edge]) * st.du[i] * at([[h.w, n], [h.u, n], [h.u, n + 1]], beyond ? [[h.w, next], [h.u, next], [h.u, next + 1]] : null, ratio)) / 2; // prettier-ignore
        }
        const post = side < 0 ? n : n + 1;
        if (metal.v[post]) {
          const beyond = cellOpen(i - side, j) && !metal.v[side < 0 ? n + 1 : n];
          const ratio = beyond ? st.du[i] / (st.du[i] + st.du[i - side]) : 0;
          const next = n - side;
          power += (resistance(metal.v[post]) * st.dv[j] * at([[h.w, n], [h.v, n], [h.v, n + w]], beyond ? [[h.w, next], [h.v, next], [h.v, next + w]] : null, ratio)) / 2; // prettier-ignore
        }
      }
    }
  return power;
}
