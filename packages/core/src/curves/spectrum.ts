/**
 * Spectrum of a signal sampled at equal steps `dt`, s, at given frequencies, Hz: dt sum s(t) exp(-j 2 pi f t), the Fourier integral with the
 * rectangle rule, in the signal's unit times seconds. `first` is the time of the first sample.
 */
export function spectrumAt(
  signal: ArrayLike<number>,
  dt: number,
  first: number,
  frequencies: ArrayLike<number>,
): { re: Float64Array; im: Float64Array } {
  const re = new Float64Array(frequencies.length);
  const im = new Float64Array(frequencies.length);
  for (let f = 0; f < frequencies.length; f++) {
    const step = -2 * Math.PI * frequencies[f] * dt;
    const [c, s] = [Math.cos(step), Math.sin(step)];
    // A turning pointer, set anew now and then against the creep of rounding.
    let [p, q] = [1, 0];
    let [sr, si] = [0, 0];
    for (let i = 0; i < signal.length; i++) {
      if ((i & 1023) === 0) [p, q] = [Math.cos(step * i), Math.sin(step * i)];
      sr += signal[i] * p;
      si += signal[i] * q;
      [p, q] = [p * c - q * s, p * s + q * c];
    }
    const turn = -2 * Math.PI * frequencies[f] * first;
    re[f] = dt * (sr * Math.cos(turn) - si * Math.sin(turn));
    im[f] = dt * (sr * Math.sin(turn) + si * Math.cos(turn));
  }
  return { re, im };
}
