import type { MaterialEntry } from '@jadebell/core/document';
import { c0 } from '@jadebell/core/numerics';
import { type ResultSet } from '@jadebell/core/results';
import { type GridScene, waveOf } from '@jadebell/core/scene';
import { solvers, type SolverHost } from '@jadebell/core/solvers';
import { plainBody, plainScene } from './bench.ts';
import { type Case, percent, type Row } from './case.ts';
import { mie } from './mie.ts';
import { sizeOf } from '@jadebell/core/methods';

const radius = 10e-3;
const conductor: MaterialEntry = { name: 'metal', kind: 'conductor' };

/** A sphere lit by a plane wave; `sizes` are the k a at which fields are kept. */
export function litSphere(material: MaterialEntry, sizes: number[], accuracy: GridScene['accuracy'], more: Partial<GridScene> = {}): GridScene {
  const at = sizes.map((x) => (x * c0) / (2 * Math.PI * radius));
  const to = Math.max(...at);
  const far = radius + Math.max(c0 / to / 2, 0.6 * radius);
  return plainScene({
    bodies: [plainBody('sphere', 0, material, { form: 'ball', centre: [0, 0, 0], radii: [radius, radius, radius] })],
    ports: [],
    // From a direction that no axis has, with E at an angle, right-hand elliptical.
    source: waveOf('wave', 0, 0.7, 0.4, 0.3, 0),
    min: [-far, -far, -far],
    max: [far, far, far],
    band: { from: Math.min(...at), to, points: 2 },
    recorders: [{ kind: 'far-field', name: 'far', step: Math.PI / 36 }],
    recordAt: at,
    accuracy,
    ...more,
  });
}

/** Rows of a solved sphere: back scattering, total scattering and extinction at each size. */
function against(result: ResultSet, sizes: number[], index: number | null, seconds: number, allowed: { decibel: number; percent: number }): Row[] {
  const disc = Math.PI * radius ** 2;
  const cells = sizeOf(result.meta).count;
  return result.meta.scattered!.figures.flatMap((f, n): Row[] => {
    const exact = mie(sizes[n], index);
    const back = exact.radar(Math.PI, 'E');
    const error = Math.abs(10 * Math.log10(f.back / disc / back));
    const common = { cells, seconds, source: 'Mie series (Bohren and Huffman 1983, ch. 4)' };
    const where = `ka = ${sizes[n]}`;
    return [
      { ...common, quantity: `radar cross-section back, ${where}`, reference: `${back.toFixed(4)} pi a^2`, computed: `${(f.back / disc).toFixed(4)} pi a^2`, error, allowed: allowed.decibel, unit: 'dB' },
      { ...common, quantity: `scattering cross-section, ${where}`, reference: `${exact.scattering.toFixed(4)} pi a^2`, computed: `${(f.scattering / disc).toFixed(4)} pi a^2`, error: percent(f.scattering / disc, exact.scattering), allowed: allowed.percent, unit: '%' },
      { ...common, quantity: `extinction by the forward field, ${where}`, reference: `${exact.extinction.toFixed(4)} pi a^2`, computed: `${(f.extinction / disc).toFixed(4)} pi a^2`, error: percent(f.extinction / disc, exact.extinction), allowed: allowed.percent, unit: '%' },
    ]; // prettier-ignore
  });
}

async function sphere(
  host: SolverHost,
  material: MaterialEntry,
  index: number | null,
  sizes: number[],
  accuracy: GridScene['accuracy'],
  allowed: { decibel: number; percent: number },
  more: Partial<GridScene> = {},
): Promise<Row[]> {
  const started = host.now();
  const result = await solvers.fdtd.solve(litSphere(material, sizes, accuracy, more), { host });
  return against(result, sizes, index, host.now() - started, allowed);
}

/** A conducting sphere lit from an odd direction. */
export const conductingSphere: Case = {
  name: 'conducting-sphere',
  title: 'Conducting sphere lit by a plane wave',
  slow: true,
  run: async (host) => [
    ...(await sphere(host, conductor, null, [0.5, 0.75, 1, 1.25], 'normal', { decibel: 0.3, percent: 3 }, { details: { cellsPerWavelength: 60 } })),
    ...(await sphere(host, conductor, null, [1.5, 2, 3, 4, 5], 'normal', { decibel: 0.3, percent: 3 }, { details: { cellsPerWavelength: 20 } })),
  ],
};

/** A dielectric sphere lit alike. */
export const dielectricSphere: Case = {
  name: 'dielectric-sphere',
  title: 'Dielectric sphere, permittivity 4, lit by a plane wave',
  slow: true,
  run: (host) =>
    sphere(host, { name: 'glass', kind: 'dielectric', permittivity: 4, lossTangent: 0 }, 2, [0.75, 1, 1.5, 2], 'normal', {
      decibel: 0.3,
      percent: 3,
    }),
};
