import type { CurveForm } from '../document/index.ts';
import { standingWaveRatio, unwrapped } from '../network/index.ts';

/** A curve's numbers: real ones, or complex. */
export interface Numbers {
  re: ArrayLike<number>;
  im?: ArrayLike<number>;
}

interface FormKind {
  label: string;
  /** Unit where it is the form's own; null: that of the quantity. */
  unit: string | null;
  of(v: Numbers): Float64Array;
}
const each = (v: Numbers, f: (re: number, im: number) => number): Float64Array =>
  Float64Array.from({ length: v.re.length }, (_, i) => f(v.re[i], v.im?.[i] ?? 0));
const degrees = 180 / Math.PI;

/** Ways to tell a curve. Decibels have a floor of -200. */
export const curveForms: Record<CurveForm, FormKind> = {
  db: { label: 'dB', unit: 'dB', of: (v) => each(v, (re, im) => Math.max(-200, 20 * Math.log10(Math.hypot(re, im)))) },
  dBpower: { label: 'dB', unit: 'dB', of: (v) => each(v, (re) => Math.max(-200, 10 * Math.log10(re))) },
  magnitude: { label: 'magnitude', unit: null, of: (v) => each(v, Math.hypot) },
  square: { label: 'size squared', unit: '', of: (v) => each(v, (re, im) => re * re + im * im) },
  real: { label: 'real part', unit: null, of: (v) => Float64Array.from(v.re) },
  imaginary: { label: 'imaginary part', unit: null, of: (v) => Float64Array.from(v.im ?? new Float64Array(v.re.length)) },
  phase: { label: 'phase', unit: 'deg', of: (v) => each(v, (re, im) => degrees * Math.atan2(im, re)) },
  unwrapped: { label: 'phase, unwrapped', unit: 'deg', of: (v) => unwrapped(each(v, (re, im) => Math.atan2(im, re))).map((p) => p * degrees) },
  vswr: { label: 'standing wave ratio', unit: '', of: (v) => each(v, (re, im) => standingWaveRatio([re, im])) },
  plain: { label: 'value', unit: null, of: (v) => Float64Array.from(v.re) },
};

/** The forms of complex numbers. */
export const complexForms: CurveForm[] = ['db', 'magnitude', 'real', 'imaginary', 'phase', 'unwrapped'];
