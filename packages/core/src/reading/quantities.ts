import { termsOfS } from '../cards/index.ts';
import { spectrumAt } from '../curves/index.ts';
import type { CurveForm } from '../document/index.ts';
import { activeReflection, derivative, groupDelay } from '../network/index.ts';
import type { Complex } from '../numerics/complex.ts';
import { c0, eta0 } from '../numerics/constants.ts';
import { freePower } from '../radiation/index.ts';
import { recorderKinds, type RecorderTold } from '../recorders/index.ts';
import {
  channelKeys,
  channelNames,
  decibel,
  farFrequencies,
  frequenciesKept,
  impedance,
  recordedOf,
  type ResultMeta,
  sCurve,
  excitationKey,
} from '../results/index.ts';
import { formatSI } from '../expressions/format.ts';
import { complexForms, type Numbers } from './forms.ts';
import { patternCurves } from './patternCurves.ts';
import type { QuantityCurve, QuantityKind, RunReading } from './quantity.ts';
import { immittanceOf } from './view.ts';
import { sameNumber } from '../numerics/tolerance.ts';

type Terms = QuantityKind['terms'];
const plainForms: CurveForm[] = ['plain'];
const powerForms: CurveForm[] = ['dBpower', 'plain'];

const termOf = (meta: ResultMeta, key: string) => termsOfS(meta).find((t) => t.key === key);
const sOf = (run: RunReading, key: string) => {
  const term = run.network && termOf(run.meta, key);
  return term ? { ...term, s: sCurve(run.network!.s, term.to, term.from) } : null;
};
const parts = (c: readonly Complex[]): Numbers => ({ re: c.map((v) => v[0]), im: c.map((v) => v[1]) });

const channelTerms = (ports: ResultMeta['ports']): { key: string; label: string }[] => {
  const names = channelNames(ports);
  return channelKeys(ports).map((key, n) => ({ key, label: names[n] }));
};
/** How a term of S or a channel is read in a run's results; other keys are read as they are. */
const termText = (meta: ResultMeta | undefined, key: string): string =>
  (meta && [...termsOfS(meta), ...channelTerms(meta.ports)].find((t) => t.key === key)?.label) ?? key;
const channels: Terms = (meta) => (meta.excitations.length ? channelTerms(meta.ports) : []);
const excited: Terms = (meta) => meta.excitations.map((c) => channelTerms(meta.ports)[c]);
const guided: Terms = (meta) => channels(meta).filter((_, n) => meta.ports[n].mode !== undefined);
const whole: Terms = (meta) => {
  const { ports, excitations } = meta;
  if (excitations.length !== ports.length || excitations.some((c, e) => c !== e)) return [];
  return termsOfS(meta);
};
const channelAt = (run: RunReading, name: string): number => channelKeys(run.meta.ports).indexOf(name);

/** Entries of the impedance or admittance matrix are named as those of S are. */
const matrixEntry = (kind: 'Z' | 'Y', title: string, unit: string): QuantityKind => ({
  title,
  group: 'network',
  over: 'frequency',
  unit,
  forms: ['real', 'imaginary', 'magnitude', 'phase', 'db'],
  terms: (meta) => whole(meta).map(({ key, label }) => ({ key, label: kind + label.slice(1) })),
  named: (of) => kind + of.slice(1),
  curve(run, of) {
    const term = run.network && termOf(run.meta, of);
    const matrix = term && immittanceOf(run.network!, kind);
    return matrix ? { x: run.frequency, ...parts(sCurve(matrix, term.to, term.from)) } : null;
  },
});

/** A curve made of one term of S. */
const ofTerm = (title: string, unit: string, terms: Terms, make: (run: RunReading, s: Complex[]) => ArrayLike<number>): QuantityKind => ({
  title,
  group: 'network',
  over: 'frequency',
  unit,
  forms: plainForms,
  terms,
  curve(run, of) {
    const found = sOf(run, of);
    return found && { x: run.frequency, re: make(run, found.s) };
  },
});
const reflections: Terms = (meta) => termsOfS(meta).filter((t) => t.to === meta.excitations[t.from]);
const transfers: Terms = (meta) => termsOfS(meta).filter((t) => t.to !== meta.excitations[t.from]);

/** A curve of a guided mode's propagation: real and imaginary part of beta, 1/m. */
const ofMode = (
  title: string,
  unit: string,
  make: (re: number, im: number, k0: number, meta: ResultMeta, c: number) => number,
  terms: Terms = guided,
): QuantityKind => ({
  title,
  group: 'lines',
  over: 'frequency',
  unit,
  forms: plainForms,
  terms,
  needs: () => ['beta'],
  curve(run, of) {
    const beta = run.array('beta');
    const c = channelAt(run, of);
    if (!beta || c < 0) return null;
    const n = run.meta.ports.length;
    const re = Float64Array.from({ length: run.frequency.length }, (_, f) =>
      make(beta.data[2 * (f * n + c)], beta.data[2 * (f * n + c) + 1], (2 * Math.PI * run.frequency[f]) / c0, run.meta, c),
    );
    return { x: run.frequency, re };
  },
});

/** d(beta)/d(omega) of a guided mode, s/m, told in some way; a mode below cutoff carries nothing and has none. */
const ofDispersion = (title: string, unit: string, tell: (delay: number) => number): QuantityKind => ({
  ...ofMode(title, unit, (re) => (re > 0 ? re : NaN)),
  curve(run, of) {
    const beta = quantities.beta.curve(run, of);
    if (!beta) return null;
    const omega = Float64Array.from(run.frequency, (f) => 2 * Math.PI * f);
    const delay = derivative(
      omega,
      Float64Array.from(beta.re, (re) => (re > 0 ? re : NaN)),
    );
    return { x: run.frequency, re: delay.map(tell) };
  },
});

/** A figure of the far field over the recorded frequencies. */
const figure = (
  title: string,
  unit: string,
  forms: readonly CurveForm[],
  key: 'directivity' | 'gain' | 'realisedGain' | 'radiationEfficiency' | 'totalEfficiency',
): QuantityKind => ({
  title,
  group: 'antenna',
  over: 'frequency',
  unit,
  forms,
  terms: (meta) => (meta.farField ? [{ key: '', label: 'far field' }] : []),
  curve: ({ meta, figures = meta.farField?.figures }) => (figures ? { x: figures.map((f) => f.frequency), re: figures.map((f) => f[key]) } : null),
});
const crossSection = (
  title: string,
  unit: string,
  forms: readonly CurveForm[],
  key: 'back' | 'largest' | 'scattering' | 'absorption' | 'extinction',
): QuantityKind => ({
  title,
  group: 'antenna',
  over: 'frequency',
  unit,
  forms,
  terms: (meta) => (meta.scattered ? [{ key: '', label: 'scattered field' }] : []),
  curve: ({ meta }) => (meta.scattered ? { x: farFrequencies(meta), re: meta.scattered.figures.map((f) => f[key]) } : null),
});

/** Curves that kinds of recorders bring, over the frequencies that each kept. */
const recordedCurves: Record<string, QuantityKind> = Object.fromEntries(
  recorderKinds.flatMap((kind) =>
    Object.entries(kind.curves ?? {}).map(([key, { title, unit, forms, terms, values }]): [string, QuantityKind] => {
      const of = (meta: ResultMeta): RecorderTold[] => meta.recorded.filter((r) => r.kind === kind.kind);
      return [
        key,
        {
          title,
          group: 'recorded',
          over: 'frequency',
          unit,
          forms,
          terms: (meta) => of(meta).flatMap((told) => terms(told)),
          curve({ meta }, term) {
            for (const told of of(meta)) {
              const found = values(told, term);
              if (!found) continue;
              const pairs = found.map((x) => (typeof x === 'number' ? ([x, 0] as const) : x));
              const complex = found.some((x) => typeof x !== 'number');
              return { x: frequenciesKept(meta, told), re: pairs.map((x) => x[0]), ...(complex ? { im: pairs.map((x) => x[1]) } : {}) };
            }
            return null;
          },
        },
      ];
    }),
  ),
);

const signalTerms: Terms = (meta) => [
  ...(meta.excitations.length ? channels(meta).map(({ key }) => ({ key: `port/${key}`, label: `port ${key}` })) : []),
  ...recordedOf(meta, 'signal').flatMap(({ name }) => [...'xyz'].map((c) => ({ key: `point/${name}/${c}`, label: `E${c} at ${name}` }))),
];
const signalArrays = (_: ResultMeta, of: string): string[] =>
  of.startsWith('port/') ? ['time', 'signal'] : [`point:${of.split('/')[1]}:time`, `point:${of.split('/')[1]}`];
function signalOf(run: RunReading, of: string): QuantityCurve | null {
  const [kind, name, part] = of.split('/');
  const [time, values] = signalArrays(run.meta, of).map((n) => run.array(n));
  if (!time || !values) return null;
  const width = kind === 'port' ? run.meta.ports.length : 3;
  const at = kind === 'port' ? channelAt(run, name) : 'xyz'.indexOf(part);
  if (at < 0) return null;
  return { x: time.data, re: Float64Array.from({ length: time.data.length }, (_, i) => values.data[i * width + at]) };
}

/** Arrays of a probe, one for each excitation. */
const probeArrays = (meta: ResultMeta, of: string): string[] =>
  Array.from({ length: Math.max(1, meta.excitations.length) }, (_, turn) => excitationKey(`probe:${of}`, turn));

/** What voltages and currents in wires are told for: as excited (1 W in, or the wave's strength), a wave of 1 V/m, or 1 V or 1 A at the port that sends. */
type ProbeBase = 'excited' | 'field' | 'volt' | 'ampere';

/** A voltage or current over the band for the excitation of the lens; null where it was not kept. */
function probeValues(run: RunReading, name: string, part: 0 | 1): { re: Float64Array; im: Float64Array } | null {
  const arrays = probeArrays(run.meta, name).map((n) => run.array(n));
  const waves = run.meta.wave || !run.waves.length ? [{ column: 0, amplitude: [1, 0] as Complex }] : run.waves;
  if (waves.some((w) => !arrays[w.column]) || !run.frequency.length) return null;
  const size = 1 / (Math.hypot(...waves.flatMap((w) => w.amplitude)) || 1);
  const re = new Float64Array(run.frequency.length);
  const im = new Float64Array(run.frequency.length);
  for (const w of waves) {
    const { data } = arrays[w.column]!;
    const [a, b] = w.amplitude;
    for (let f = 0; f < re.length; f++) {
      const [x, y] = [data[4 * f + 2 * part], data[4 * f + 2 * part + 1]];
      re[f] += size * (a * x - b * y);
      im[f] += size * (a * y + b * x);
    }
  }
  return { re, im };
}

/** The port that sends, by its name: the first of the excitation. */
const sendingPort = ({ meta, waves }: Pick<RunReading, 'meta' | 'waves'>): string | undefined =>
  meta.ports[meta.excitations[waves[0]?.column ?? 0]]?.name;

/** Voltage or current at ports, loads and points of wires over the band. */
const probe = (title: string, unit: string, part: 0 | 1, base: ProbeBase): QuantityKind => ({
  title,
  group: 'recorded',
  over: 'frequency',
  unit,
  forms: ['magnitude', 'real', 'imaginary', 'phase', 'db'],
  terms: ({ probes = [], wave }) => {
    if (base !== 'excited' && (base === 'field') !== !!wave) return [];
    return probes.filter((p) => part || p.kind !== 'point').map(({ name }) => ({ key: name, label: name }));
  },
  needs: (meta, of) => ['frequency', ...probeArrays(meta, of), ...(base === 'volt' || base === 'ampere' ? meta.excitations.flatMap((c) => probeArrays(meta, meta.ports[c].name)) : [])], // prettier-ignore
  named: (of) => `${part ? 'I' : 'V'} at ${of}`,
  curve(run, of) {
    const own = probeValues(run, of, part);
    if (!own) return null;
    if (base === 'volt' || base === 'ampere') {
      const sender = sendingPort(run);
      const by = sender === undefined ? null : probeValues(run, sender, base === 'volt' ? 0 : 1);
      if (!by) return null;
      own.re.forEach((x, f) => {
        const [y, u, v] = [own.im[f], by.re[f], by.im[f]];
        const d = u * u + v * v;
        own.re[f] = (x * u + y * v) / d;
        own.im[f] = (y * u - x * v) / d;
      });
    } else if (base === 'excited' && run.meta.wave?.strength) {
      const { strength } = run.meta.wave;
      own.re.forEach((_, f) => {
        own.re[f] *= strength;
        own.im[f] *= strength;
      });
    }
    return { x: run.frequency, ...own };
  },
});

/** The angle of a sweep that changes, degrees: theta, or phi where theta stays. */
function sweptAngles(directions: readonly (readonly [number, number])[]): Float64Array {
  const [first, last] = [directions[0], directions[directions.length - 1]];
  const which = Math.abs(last[0] - first[0]) > sameNumber ? 0 : 1;
  return Float64Array.from(directions, (d) => (180 * d[which]) / Math.PI);
}

/** Of a wave from each direction of a sweep, at one recorded frequency; a term is the probe and the frequency in hertz, parted by '/'. */
const swept = (title: string, unit: string, part: 0 | 1 | null): QuantityKind => ({
  title,
  group: 'recorded',
  over: 'angle',
  unit,
  forms: part === null ? powerForms : ['magnitude', 'real', 'imaginary', 'phase', 'db'],
  terms: ({ probes = [], wave, recordAt }) =>
    wave?.directions
      ? recordAt.flatMap((f) =>
          (part === null ? [''] : probes.filter((p) => part || p.kind !== 'point').map((p) => p.name)).map((name) => ({
            key: `${name}/${f}`,
            label: `${name ? `${name} at ` : ''}${formatSI(f, 'frequency')}`,
          })),
        )
      : [],
  needs: (_, of) => [part === null ? 'sweep:back' : `sweep:probe:${of.split('/')[0]}`],
  named: (of) => `${part === null ? 'back' : `${part ? 'I' : 'V'} at ${of.split('/')[0]}`}, ${formatSI(Number(of.split('/')[1]), 'frequency')}`,
  curve(run, of) {
    const [name, at] = of.split('/');
    const values = run.array(part === null ? 'sweep:back' : `sweep:probe:${name}`);
    const directions = run.meta.wave?.directions;
    if (!values || !directions) return null;
    const n = directions.length;
    const f = run.meta.recordAt.indexOf(Number(at));
    if (f < 0) return null;
    const strength = run.meta.wave!.strength ?? 1;
    const take = (c: number): Float64Array => Float64Array.from({ length: n }, (_, d) => strength * values.data[4 * (f * n + d) + c]);
    const x = sweptAngles(directions);
    return part === null ? { x, re: values.data.slice(f * n, (f + 1) * n) } : { x, re: take(2 * part), im: take(2 * part + 1) };
  },
});

/** What a dipole gives over the band, for moment 1, or over what it would give in free space. */
const given = (title: string, unit: string, over: (of: 'electric' | 'magnetic', frequency: number) => number): QuantityKind => ({
  title,
  group: 'recorded',
  over: 'frequency',
  unit,
  forms: ['plain', 'dBpower'],
  terms: ({ dipole }) => (dipole ? [{ key: '', label: dipole.name }] : []),
  needs: () => ['frequency', 'source:power'],
  curve({ meta, frequency, array }) {
    const power = array('source:power');
    const { dipole } = meta;
    return power && dipole ? { x: frequency, re: Float64Array.from(power.data, (p, f) => p / over(dipole.of, frequency[f])) } : null;
  },
});

/** Everything a curve can be of. A new quantity is an entry here. */
export const quantities: Readonly<Record<string, QuantityKind>> = {
  s: {
    title: 'S-parameter',
    group: 'network',
    over: 'frequency',
    unit: '',
    forms: [...complexForms, 'square', 'vswr'],
    terms: termsOfS,
    curve(run, of) {
      const found = sOf(run, of);
      return found && { x: run.frequency, ...parts(found.s) };
    },
  },
  input: {
    title: 'Input impedance',
    group: 'network',
    over: 'frequency',
    unit: 'ohm',
    forms: ['real', 'imaginary', 'magnitude', 'phase'],
    terms: (meta) =>
      excited(meta).filter(
        ({ key }) =>
          meta.ports[channelKeys(meta.ports).indexOf(key)].mode === undefined ||
          meta.ports[channelKeys(meta.ports).indexOf(key)].impedance !== undefined,
      ),
    named: (of) => `Z at ${of}`,
    curve(run, of) {
      const c = channelAt(run, of);
      const from = run.meta.excitations.indexOf(c);
      const z = run.network?.references[c];
      return z && from >= 0 ? { x: run.frequency, ...parts(sCurve(run.network!.s, c, from).map((v) => impedance(v, z))) } : null;
    },
  },
  z: matrixEntry('Z', 'Impedance matrix', 'ohm'),
  y: matrixEntry('Y', 'Admittance matrix', 'S'),
  vswr: { ...ofTerm('Standing wave ratio', '', reflections, () => []), forms: ['vswr'], curve: (run, of) => quantities.s.curve(run, of) },
  'return-loss': ofTerm('Return loss', 'dB', reflections, (_, s) => s.map((v) => -decibel(v))),
  'insertion-loss': ofTerm('Insertion loss', 'dB', transfers, (_, s) => s.map((v) => -decibel(v))),
  delay: ofTerm('Group delay', 's', termsOfS, (run, s) => groupDelay(run.frequency, s)),
  active: {
    title: 'Active reflection',
    group: 'network',
    over: 'frequency',
    unit: '',
    forms: [...complexForms, 'square', 'vswr'],
    terms: excited,
    named: (of) => `active, ${of}`,
    curve(run, of) {
      const c = channelAt(run, of);
      const own = run.meta.excitations.indexOf(c);
      return run.network && own >= 0 ? { x: run.frequency, ...parts(activeReflection(run.network.s, c, run.waves, own)) } : null;
    },
  },
  beta: ofMode('Phase constant', 'rad/m', (re) => re),
  alpha: ofMode('Attenuation of a mode', 'Np/m', (_, im) => -im),
  index: ofMode('Effective index', '', (re, _, k0) => re / k0),
  'group-velocity': ofDispersion('Group velocity of a mode', 'm/s', (delay) => 1 / delay),
  'delay-per-length': ofDispersion('Group delay per length', 's/m', (delay) => delay),
  'mode-impedance': ofMode(
    'Wave impedance of a mode',
    'ohm',
    // A TE mode has omega mu / beta whatever fills the guide; that of a TEM mode is the line's.
    (re, _, k0, meta, c) => (meta.ports[c].family === 'TE' ? (re > 0 ? (eta0 * k0) / re : NaN) : (meta.ports[c].impedance ?? NaN)),
    (meta) => guided(meta).filter(({ key }) => ['TE', 'TEM'].includes(meta.ports[channelKeys(meta.ports).indexOf(key)].family ?? '')),
  ),
  directivity: figure('Directivity', '', ['dBpower', 'plain'], 'directivity'),
  gain: figure('Gain', '', ['dBpower', 'plain'], 'gain'),
  'realised-gain': figure('Realised gain', '', ['dBpower', 'plain'], 'realisedGain'),
  'radiation-efficiency': figure('Radiation efficiency', '', ['plain', 'dBpower'], 'radiationEfficiency'),
  'total-efficiency': figure('Total efficiency', '', ['plain', 'dBpower'], 'totalEfficiency'),
  ...patternCurves,
  'rcs-back': crossSection('Radar cross-section back', 'm²', powerForms, 'back'),
  'rcs-largest': crossSection('Largest radar cross-section', 'm²', powerForms, 'largest'),
  scattering: crossSection('Scattering cross-section', 'm²', ['plain', 'dBpower'], 'scattering'),
  absorption: crossSection('Absorption cross-section', 'm²', ['plain', 'dBpower'], 'absorption'),
  'dipole-enhancement': given('Power of the dipole over that in free space', '', freePower),
  'dipole-power': given('Power of the dipole for moment 1 (A m, or V m)', 'W', () => 1),
  ...recordedCurves,
  'probe-current': probe('Current in a wire', 'A', 1, 'excited'),
  'probe-voltage': probe('Voltage in a wire', 'V', 0, 'excited'),
  'probe-current-field': probe('Current for a field of 1 V/m', 'A', 1, 'field'),
  'probe-voltage-field': probe('Voltage for a field of 1 V/m', 'V', 0, 'field'),
  'probe-current-volt': probe('Current for 1 V at the port', 'A', 1, 'volt'),
  'probe-voltage-volt': probe('Voltage for 1 V at the port', 'V', 0, 'volt'),
  'probe-current-ampere': probe('Current for 1 A at the port', 'A', 1, 'ampere'),
  'probe-voltage-ampere': probe('Voltage for 1 A at the port', 'V', 0, 'ampere'),
  'sweep-voltage': swept('Voltage over the direction', 'V', 0),
  'sweep-current': swept('Current over the direction', 'A', 1),
  'sweep-back': swept('Cross-section back', 'm²', null),
  signal: {
    title: 'Signal over time',
    group: 'time',
    over: 'time',
    unit: '',
    forms: plainForms,
    terms: signalTerms,
    needs: signalArrays,
    named: signalName,
    curve: signalOf,
  },
  spectrum: {
    title: 'Spectrum of a signal',
    group: 'time',
    over: 'frequency',
    unit: '',
    forms: ['db', 'magnitude', 'phase'],
    terms: signalTerms,
    needs: signalArrays,
    named: (of) => `spectrum, ${signalName(of)}`,
    curve(run, of) {
      const signal = signalOf(run, of);
      if (!signal || signal.x.length < 2) return null;
      const at = run.frequency.length ? run.frequency : run.meta.recordAt;
      return { x: at, ...spectrumAt(signal.re, signal.x[1] - signal.x[0], signal.x[0], at) };
    },
  },
};

function signalName(of: string): string {
  const [kind, name, part] = of.split('/');
  return kind === 'port' ? `signal of ${name}` : `E${part} at ${name}`;
}

/** How a trace is called: the term, as `meta` names its ports and modes, where it says enough, else the quantity with it. */
export function curveName(quantity: string, key: string, form: CurveForm | undefined, meta?: ResultMeta): string {
  const kind = quantities[quantity];
  if (!kind) return quantity;
  const of = termText(meta, key);
  const term = kind.named?.(of) ?? (quantity === 's' ? of : of ? `${kind.title.toLowerCase()}, ${of}` : kind.title.toLowerCase());
  const own = form ?? kind.forms[0];
  return own === kind.forms[0] && quantity !== 'input'
    ? term
    : `${term} ${own === 'real' ? 're' : own === 'imaginary' ? 'im' : own === 'dBpower' ? 'dB' : own === 'plain' ? '' : own === 'unwrapped' ? 'phase' : own}`.trim();
}
