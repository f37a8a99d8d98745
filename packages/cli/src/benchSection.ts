import { denseKernel, emptySection, guidedModes, type Section } from '@jadebell/core/solvers/modes';
import { nodeHost } from '@jadebell/node';

/** A guide of 0.8 x 0.4 um of permittivity 8.3 in 2.1 on n x n cells of a square of 3 um. */
function guideSection(n: number): Section {
  const x = Float64Array.from({ length: n + 1 }, (_, i) => (i / n - 0.5) * 3e-6);
  const s = emptySection(x, x, 2.1);
  for (let j = 0; j <= n; j++)
    for (let i = 0; i <= n; i++) {
      if (Math.abs(x[i]) > 0.4e-6 || Math.abs(x[j]) > 0.2e-6) continue;
      for (const e of [s.eu, s.ev, s.ew]) e[j * (n + 1) + i] = 8.3;
    }
  return s;
}

/** Prints how long four modes of a section of 200 x 200 cells take on one thread, real and with losses, after a first, smaller one. */
export async function benchSection(print: (line: string) => void): Promise<void> {
  const kernel = await denseKernel((await nodeHost(1)).module);
  const k0 = (2 * Math.PI) / 1.55e-6;
  guidedModes(guideSection(60), k0, { count: 4, kernel });
  const seconds = [false, true].map((lossy) => {
    const s = guideSection(200);
    if (lossy) s.loss = { u: s.eu.map((e) => 1e-3 * e), v: s.ev.map((e) => 1e-3 * e), w: s.ew.map((e) => 1e-3 * e) };
    const started = performance.now();
    guidedModes(s, k0, { count: 4, kernel });
    return (performance.now() - started) / 1000;
  });
  print(`section 200 x 200, 4 modes  real ${seconds[0].toFixed(1)} s   with losses ${seconds[1].toFixed(1)} s   (aim: real below 5 s on one core)`); // prettier-ignore
}
