import type { FrontKernel } from '../../numerics/factors.ts';
import { homogeneousModes, uniformPermittivity } from './homogeneous.ts';
import { curlOf, divergenceOf, type Transverse } from './operator.ts';
import { type Section, stepsOf } from './section.ts';
import { seek } from './seek.ts';
import { sameSolved } from '../../numerics/tolerance.ts';

/**
 * A mode of a section, exp(-j beta z). Fields are real, scaled so that the sum of |e|^2 over area is 1 m^2 (V/m); H is
 * multiplied by the impedance of free space. E_transverse = e, H_transverse = h / b, E_w = -j ew / b, H_w = j hw, where
 * b is beta / 1 m^-1 (imaginary, -j |b|, below cutoff).
 */
export interface Mode {
  /** beta^2, 1/m^2; negative below cutoff. */
  beta2: number;
  /** Imaginary part of beta^2 where two modes have formed a complex pair; 0 otherwise. */
  beta2Im: number;
  e: Transverse;
  h: Transverse;
  ew: Float64Array;
  hw: Float64Array;
  /** Integral of e x h over the section: of power / b. */
  flux: number;
  kind: 'TEM' | 'TE' | 'TM' | 'hybrid';
  /** Of TEM modes in one medium: their conductor's voltage against the others. */
  voltage: number | null;
  /** Relative size of the residual of the eigenvalue problem. */
  residual: number;
}

export interface SectionOptions {
  count: number;
  /** beta^2 nearest to which modes are sought, 1/m^2; absent: above all that the permittivities allow. */
  near?: number;
  /** Elimination of the compiled kernels, where there are any. */
  kernel?: FrontKernel;
}

/**
 * Modes of a section at free-space wave number k0 (1/m), those of largest beta^2 first. Real media only. Sections of one
 * medium are divided into TEM, TE and TM modes, which then hold at all frequencies: only beta^2 and h change.
 */
export function solveSection(s: Section, k0: number, { count, near, kernel }: SectionOptions): Mode[] {
  const uniform = near === undefined ? uniformPermittivity(s) : null;
  if (uniform !== null)
    return homogeneousModes(s, count, kernel).map(({ kc2, e, residual, ...pure }) =>
      completeMode(s, k0, uniform * k0 * k0 - kc2, 0, e, residual, pure),
    );
  const { unknowns, pairs } = seek(s, k0, { count, kernel, ...(near === undefined ? {} : { near: [near, 0] }) });
  const size = s.u.length * s.v.length;
  return pairs
    .map(({ re, im, vector, residual }) => {
      const pick = (of: Int32Array): Float64Array => Float64Array.from({ length: size }, (_, n) => (of[n] >= 0 ? vector[of[n]] : 0));
      return completeMode(s, k0, re, im, { u: pick(unknowns.ofU), v: pick(unknowns.ofV) }, residual);
    })
    .sort((a, b) => b.beta2 - a.beta2);
}

/** All fields of a mode from its transverse E. */
function completeMode(
  s: Section,
  k0: number,
  beta2: number,
  beta2Im: number,
  e: Transverse,
  residual: number,
  pure?: { kind: Mode['kind']; voltage?: number },
): Mode {
  const st = stepsOf(s);
  const w = st.nu + 1;
  const size = w * (st.nv + 1);
  let norm = 0;
  let peak = 0;
  for (let n = 0; n < size; n++) {
    const [i, j] = [n % w, Math.floor(n / w)];
    if (e.u[n] !== 0) norm += e.u[n] ** 2 * st.du[i] * st.dualV[j] * (s.lu?.[n] ?? 1);
    if (e.v[n] !== 0) norm += e.v[n] ** 2 * st.dualU[i] * st.dv[j] * (s.lv?.[n] ?? 1);
    for (const x of [e.u[n], e.v[n]]) if (Math.abs(x) > Math.abs(peak) * 1.0001) peak = x;
  }
  const scale = Math.sign(peak) / Math.sqrt(norm);
  for (let n = 0; n < size; n++) {
    e.u[n] *= scale;
    e.v[n] *= scale;
  }
  const curl = curlOf(s, st, e);
  const h: Transverse = { u: new Float64Array(size), v: new Float64Array(size) };
  let flux = 0;
  // H_v stands at the edges along u, H_u at those along v.
  for (let j = 0; j <= st.nv; j++)
    for (let i = 0; i <= st.nu; i++) {
      const n = j * w + i;
      if (i < st.nu && s.eu[n] > 0) {
        h.v[n] = k0 * s.eu[n] * e.u[n] - ((j < st.nv ? curl[n] : 0) - (j > 0 ? curl[n - w] : 0)) / st.dualV[j] / k0;
        flux += e.u[n] * h.v[n] * st.du[i] * st.dualV[j] * (s.lu?.[n] ?? 1);
      }
      if (j < st.nv && s.ev[n] > 0) {
        h.u[n] = -k0 * s.ev[n] * e.v[n] - ((i < st.nu ? curl[n] : 0) - (i > 0 ? curl[n - 1] : 0)) / st.dualU[i] / k0;
        flux -= e.v[n] * h.u[n] * st.dualU[i] * st.dv[j] * (s.lv?.[n] ?? 1);
      }
    }
  const displaced: Transverse = { u: e.u.map((x, n) => x * s.eu[n]), v: e.v.map((x, n) => x * s.ev[n]) };
  const ew = divergenceOf(s, st, displaced).map((d, n) => (s.ew[n] > 0 ? d / s.ew[n] : 0));
  const hw = curl.map((c) => c / k0);
  const kind = pure?.kind ?? kindOf(s, st, ew, curl, k0);
  return { beta2, beta2Im, e, h, ew, hw, flux, kind, voltage: pure?.voltage ? pure.voltage * Math.abs(scale) : null, residual };
}

function kindOf(s: Section, st: ReturnType<typeof stepsOf>, ew: Float64Array, curl: Float64Array, k0: number): Mode['kind'] {
  const w = st.nu + 1;
  let along = 0;
  let turning = 0;
  for (let j = 0; j <= st.nv; j++)
    for (let i = 0; i <= st.nu; i++) {
      const n = j * w + i;
      along += ew[n] ** 2 * st.dualU[i] * st.dualV[j];
      if (i < st.nu && j < st.nv) turning += curl[n] ** 2 * st.du[i] * st.dv[j] * (s.area?.[n] ?? 1);
    }
  // Against the size that a mode of this frequency or of this section would have.
  const span = Math.max(s.u[s.u.length - 1] - s.u[0], s.v[s.v.length - 1] - s.v[0]);
  const small = sameSolved * Math.max(k0, 1 / span) ** 2;
  const [te, tm] = [along < small, turning < small];
  return te && tm ? 'TEM' : te ? 'TE' : tm ? 'TM' : 'hybrid';
}
