import { formatSI } from '../expressions/format.ts';
import { type CutPath, globalFrame, PatternSampler } from '../radiation/index.ts';
import { farFrequencies, type ResultArray, type ResultMeta } from '../results/index.ts';
import { type PatternSource, patternFactor, patternSource, readCut } from './patterns.ts';
import type { QuantityKind, RunReading } from './quantity.ts';

/** Cuts of which curves are told. */
const cuts: Record<string, { label: string; path: CutPath }> = {
  xz: { label: 'phi 0°', path: { kind: 'phi', phi: 0 } },
  yz: { label: 'phi 90°', path: { kind: 'phi', phi: Math.PI / 2 } },
  xy: { label: 'theta 90°', path: { kind: 'theta', theta: Math.PI / 2 } },
};
/** Angles of a cut. */
const points = 720;
const reading = { quantity: 'realised', part: 'total', reference: 0 } as const;

interface Far {
  source: PatternSource;
  sampler: PatternSampler;
}
const known = new WeakMap<ResultArray, Map<number, Far>>();

/** The recorded far field at one of its frequencies, worked out once; null where there is none. */
function farOf({ meta, array }: RunReading, f: number): Far | null {
  const field = array('farField');
  if (!field || !meta.farField || f < 0 || f >= field.shape[0]) return null;
  let all = known.get(field);
  if (!all) known.set(field, (all = new Map()));
  let own = all.get(f);
  if (!own) {
    const [, nTheta, nPhi] = field.shape;
    const size = nTheta * nPhi * 4;
    const source = patternSource(meta, f, { nTheta, nPhi, values: field.data.subarray(f * size, (f + 1) * size) as Float64Array });
    if (!source) return null;
    all.set(f, (own = { source, sampler: new PatternSampler(source.pattern) }));
  }
  return own;
}

const cutOf = (far: Far, cut: string): ReturnType<typeof readCut> => readCut(far.source, far.sampler, cuts[cut].path, globalFrame, reading, points);

const common = { group: 'antenna', needs: () => ['farField'] } as const;
const planes = (meta: ResultMeta): { key: string; label: string }[] =>
  meta.farField ? Object.entries(cuts).map(([key, { label }]) => ({ key, label })) : [];

/** A figure of cuts through the far field over the recorded frequencies. */
const ofCut = (title: string, unit: string, figure: (cut: NonNullable<ReturnType<typeof readCut>['figures']>) => number | null): QuantityKind => ({
  ...common,
  title,
  unit,
  over: 'frequency',
  forms: ['plain'],
  terms: planes,
  curve(run, of) {
    const x = farFrequencies(run.meta);
    if (!(of in cuts) || !x.length) return null;
    const re = Array.from(x, (_, f) => {
      const far = farOf(run, f);
      const figures = far && cutOf(far, of).figures;
      return (figures && figure(figures)) ?? NaN;
    });
    return { x, re };
  },
});

/** Curves that are read from far fields: the fields as they were recorded, of the first excitation. */
export const patternCurves: Record<string, QuantityKind> = {
  'gain-cut': {
    ...common,
    title: 'Realised gain over the angle',
    unit: '',
    over: 'angle',
    forms: ['dBpower', 'plain'],
    terms: (meta) =>
      planes(meta).flatMap(({ key, label }) =>
        Array.from(farFrequencies(meta), (f) => ({ key: `${key}/${f}`, label: `${label} at ${formatSI(f, 'frequency')}` })),
      ),
    curve(run, of) {
      const [cut, frequency] = of.split('/');
      const far = cut in cuts ? farOf(run, Array.from(farFrequencies(run.meta)).indexOf(Number(frequency))) : null;
      if (!far) return null;
      const { values } = cutOf(far, cut);
      // From -180 to 180 degrees.
      const half = points / 2;
      const x = Float64Array.from({ length: points + 1 }, (_, i) => (360 * (i - half)) / points);
      return { x, re: x.map((_, i) => 10 ** (values[(i + half) % points] / 10)) };
    },
  },
  'front-to-back': {
    ...common,
    title: 'Front to back ratio',
    unit: '',
    over: 'frequency',
    forms: ['dBpower', 'plain'],
    terms: (meta) => (meta.farField ? [{ key: '', label: 'far field' }] : []),
    curve(run) {
      const figures = run.meta.farField?.figures;
      if (!figures) return null;
      const level = ({ source, sampler }: Far, theta: number, phi: number): number =>
        sampler.at(theta, phi).reduce((sum, v) => sum + v * v, 0) * patternFactor(source, 'realised');
      const re = figures.map(({ theta, phi }, f) => {
        const far = farOf(run, f);
        return far ? level(far, theta, phi) / level(far, Math.PI - theta, phi + Math.PI) : NaN;
      });
      return { x: figures.map((f) => f.frequency), re };
    },
  },
  beamwidth: ofCut('Beamwidth, 3 dB below the peak', 'deg', ({ width3 }) => width3 && (180 * width3) / Math.PI),
  'side-lobe': ofCut('Next lobe below the peak', 'dB', ({ sideLobe }) => sideLobe && sideLobe.below),
};
