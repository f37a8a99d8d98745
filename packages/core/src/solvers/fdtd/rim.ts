import { type Mode, type Section, stepsOf } from '../modes/index.ts';
import type { GuidePlane } from './portPlane.ts';
import { type Discrete, isMetal } from './discrete.ts';
import type { Axis } from '../../numerics/axis.ts';

/**
 * How strong a mode still is at those parts of a port's rim that lie in the open, on given sides (uMin, uMax, vMin, vMax): mean |E|^2 across the rim there over that
 * of the whole section. The mode is solved as if the rim were metal, so what is not metal must be where the mode has faded.
 */
export function openRim(d: Discrete, g: GuidePlane, section: Section, modes: readonly Mode[], sides: readonly boolean[]): number {
  const st = stepsOf(section);
  const [nu, nv] = [st.nu, st.nv];
  const cell = g.into > 0 ? g.plane : g.plane - 1;
  const inner = g.plane + g.into;
  const metal = (c: Axis, i: number, j: number): boolean => {
    const at = [0, 0, 0];
    at[g.normal] = c === g.normal ? cell : inner;
    at[g.u] = g.lo[0] + i;
    at[g.v] = g.lo[1] + j;
    return isMetal(d, c, at);
  };
  let worst = 0;
  for (const { e } of modes) {
    let [rim, length, all, area] = [0, 0, 0, 0];
    for (let n = 0; n < e.u.length; n++) {
      const [i, j] = [n % (nu + 1), Math.floor(n / (nu + 1))];
      const [au, av] = [i < nu ? st.du[i] * st.dualV[j] : 0, j < nv ? st.dualU[i] * st.dv[j] : 0];
      all += au * e.u[n] ** 2 + av * e.v[n] ** 2;
      area += (au + av) / 2;
    }
    for (const j of [0, nv].filter((_, k) => sides[2 + k] && !g.free[2 + k]))
      for (let i = 0; i <= nu; i++) {
        length += st.dualU[i];
        if (!metal(g.normal, i, j)) rim += st.dualU[i] * e.v[(j ? nv - 1 : 0) * (nu + 1) + i] ** 2;
      }
    for (const i of [0, nu].filter((_, k) => sides[k] && !g.free[k]))
      for (let j = 0; j <= nv; j++) {
        length += st.dualV[j];
        if (!metal(g.normal, i, j)) rim += st.dualV[j] * e.u[j * (nu + 1) + (i ? nu - 1 : 0)] ** 2;
      }
    if (length) worst = Math.max(worst, rim / length / (all / area));
  }
  return worst;
}
