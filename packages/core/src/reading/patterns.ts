import { plus, times, type Vec3 } from '../numerics/vector.ts';
import { valueAt } from '../curves/index.ts';
import type { CardFrame, CutCard, PatternCard } from '../document/index.ts';
import { mul } from '../numerics/complex.ts';
import { c0, eta0 } from '../numerics/constants.ts';
import {
  alongCut,
  axialRatio,
  component,
  type CutFigures,
  cutFigures,
  type CutPath,
  type FarVector,
  frameTowards,
  globalFrame,
  type Pattern,
  type PatternFrame,
  patternPower,
  PatternSampler,
  type PhasePart,
  PhaseRays,
  polarisationNames,
  tilt,
} from '../radiation/index.ts';
import { farFrequencies, type IncidentWave, type PatternFigures, type ResultArray, type ResultMeta } from '../results/index.ts';
import { sameNumber } from '../numerics/tolerance.ts';

/** A far field and what it is held against. */
export interface PatternSource {
  pattern: Pattern;
  frequency: number;
  /** W for an antenna, by which intensity is divided; null for a scatterer lit with 1 V/m. */
  powers: { radiated: number; accepted: number; incident: number; lossless: number } | null;
}

/** The far field of a run at one of its frequencies; null where it has none. */
export function patternSource(meta: ResultMeta, f: number, pattern: Pattern): PatternSource | null {
  const frequency = farFrequencies(meta)[f];
  const figures = meta.farField?.figures[f];
  if (figures)
    return { pattern, frequency, powers: { lossless: figures.fromPattern, radiated: figures.radiated, accepted: figures.accepted, incident: 1 } };
  return meta.scattered ? { pattern, frequency, powers: null } : null;
}

type Reading = Pick<PatternCard, 'quantity' | 'part' | 'reference'>;

/** What a reading of a pattern is called, its unit, and whether it is a level in dB of a power. */
export function patternTitle(source: PatternSource, { quantity, part }: Reading): { label: string; unit: string; level: boolean } {
  if (part === 'axial-ratio') return { label: 'axial ratio', unit: 'dB', level: false };
  if (part === 'phase') return { label: 'phase, co-polar', unit: '°', level: false };
  const of = part === 'total' ? '' : `, ${polarisationNames[part]}`;
  if (!source.powers) return { label: `radar cross-section${of}`, unit: 'dBsm', level: true };
  if (quantity === 'field') return { label: `field at 1 m${of}`, unit: 'dBV/m', level: true };
  return { label: `${quantity === 'realised' ? 'realised gain' : quantity}${of}`, unit: 'dBi', level: true };
}

/**
 * Factor from |E|^2, V^2, to what is told: 4 pi U over the power radiated as integrated from the pattern (directivity), accepted, or incident,
 * with U = |E|^2 / (2 eta0). What the box saw over what the pattern sums to keeps losses out of the shape. A cross-section is 4 pi |E|^2 for 1 V/m.
 */
export function patternFactor({ powers }: PatternSource, quantity: Reading['quantity']): number {
  if (!powers) return 4 * Math.PI;
  if (quantity === 'field') return 1;
  const directivity = (4 * Math.PI) / (2 * eta0 * powers.lossless);
  if (quantity === 'directivity') return directivity;
  return (directivity * powers.radiated) / (quantity === 'gain' ? powers.accepted : powers.incident);
}

/** A level in dB from a size squared. */
const level = (v: number): number => Math.max(-200, 10 * Math.log10(v));

/** One direction told: dB of a level or of the axial ratio (at most 40), degrees of a phase. `phi` is the frame's own. */
export function readDirection(e: FarVector, phi: number, { part, reference }: Reading, factor: number): number {
  if (part === 'axial-ratio') return Math.min(40, 20 * Math.log10(axialRatio(e)));
  const [re, im] = component(e, part === 'phase' ? 'co' : part, phi, reference);
  return part === 'phase' ? (180 * Math.atan2(im, re)) / Math.PI : level((re * re + im * im) * factor);
}

/** All directions of the grid told, [theta][phi], in the unit that the measure says. */
export function readGrid(source: PatternSource, reading: Reading): Float64Array {
  const { nTheta, nPhi, values } = source.pattern;
  const factor = patternFactor(source, reading.quantity);
  return Float64Array.from({ length: nTheta * nPhi }, (_, n) =>
    readDirection([values[4 * n], values[4 * n + 1], values[4 * n + 2], values[4 * n + 3]], (2 * Math.PI * (n % nPhi)) / nPhi, reading, factor),
  );
}

/** The frame of a card; the global one where it is not turned or moved. */
export function frameOfCard(frame: CardFrame | undefined): PatternFrame {
  if (!frame || (frame.theta === 0 && frame.phi === 0 && frame.roll === 0 && frame.origin.every((v) => v === 0))) return globalFrame;
  return frameTowards(frame.theta, frame.phi, frame.roll, frame.origin);
}

/** The path of a cut. */
export function pathOf(card: Pick<CutCard, 'path' | 'at' | 'through' | 'tilt'>, meta: ResultMeta): CutPath {
  if (card.path === 'theta') return { kind: 'theta', theta: card.at };
  if (card.path === 'great') return { kind: 'great', theta: card.at, phi: card.through, tilt: card.tilt };
  return { kind: 'phi', phi: card.path === 'wave' ? (meta.wave?.phi ?? 0) : card.at };
}

export interface ReadCut {
  values: Float64Array;
  figures: CutFigures | null;
}

/** A cut at n equally spaced angles over a full turn, told, with its figures where it is a level. */
export function readCut(source: PatternSource, sampler: PatternSampler, path: CutPath, frame: PatternFrame, reading: Reading, n: number): ReadCut {
  const factor = patternFactor(source, reading.quantity);
  const k = (2 * Math.PI * source.frequency) / c0;
  const along = alongCut(sampler, path, n, frame, k);
  const told = (part: Reading['part']): Float64Array => Float64Array.from(along, ({ e, phi }) => readDirection(e, phi, { ...reading, part }, factor));
  const values = told(reading.part);
  const figures = patternTitle(source, reading).level ? cutFigures(values, reading.part === 'total' ? values : told('total')) : null;
  return { values, figures };
}

/** Levels of which no more is told than that they are so far apart, dB: beyond it lie the figures of nulls. */
const farApart = 40;
/** Levels that are told as one, dB: half of the last digit. */
const alike = 0.05;
/** A level in decibels below another, such as 21.3 dB. */
export const belowText = (db: number): string => (db > farApart ? `over ${farApart} dB` : `${db.toFixed(1).replace(/^-(0\.0)$/, '$1')} dB`);

/** What the figures of a cut say, in words; of cross-polar parts their peak alone, as their lobes have no front. Angles from -180 to 180 degrees. */
export function cutText({ peak, angle, width3, sideLobe, frontToBack }: CutFigures, unit: string, part: Reading['part']): string {
  const degrees = (a: number): string => `${((180 * a) / Math.PI).toFixed(1).replace(/^-(0\.0)$/, '$1')}°`;
  return [
    `peak ${peak.toFixed(2)} ${unit} at ${degrees(angle > Math.PI ? angle - 2 * Math.PI : angle)}`,
    ...(part === 'cross'
      ? []
      : [
          ...(width3 === null ? [] : [`width ${degrees(width3)}`]),
          ...(!sideLobe ? [] : [Math.abs(sideLobe.below) < alike ? 'a second lobe as high' : `next lobe ${belowText(sideLobe.below)} below`]),
          Math.abs(frontToBack) < alike ? 'as much behind' : `front to back ${belowText(frontToBack)}`,
        ]),
  ].join(', ');
}

/** Figures of a far field at a glance. Angles in radians, levels in dB. */
export interface GlanceFigures {
  /** Directivity, or cross-section of a scatterer. */
  peak: number;
  theta: number;
  phi: number;
  gain: number | null;
  realised: number | null;
  /** In the two planes through the peak: that of the field and that across it. */
  planes: { name: 'E' | 'H'; figures: CutFigures }[];
  /** Of the polarisation ellipse at the peak: axial ratio, dB, tilt from theta, and sense. */
  axialRatio: number;
  tilt: number;
  sense: 'right' | 'left' | 'linear';
  /** Axial ratio straight up (theta = 0), dB. */
  boresight: number;
}

/**
 * Figures of a pattern: the peak is that of the grid, refined along both planes by cuts half a degree fine. Planes go through the peak along the long axis
 * of its polarisation ellipse and across.
 */
export function glance(source: PatternSource, sampler: PatternSampler): GlanceFigures {
  const { nTheta, nPhi, values } = source.pattern;
  const size = (n: number): number => values[4 * n] ** 2 + values[4 * n + 1] ** 2 + values[4 * n + 2] ** 2 + values[4 * n + 3] ** 2;
  let top = 0;
  for (let n = 1; n < nTheta * nPhi; n++) if (size(n) > size(top) * (1 + 1e-6)) top = n;
  const theta = (Math.PI * Math.floor(top / nPhi)) / (nTheta - 1);
  const phi = (2 * Math.PI * (top % nPhi)) / nPhi;
  const e = sampler.at(theta, phi);
  const reading: Reading = { quantity: 'directivity', part: 'total', reference: 0 };
  const along = tilt(e);
  const planes = ([['E', along], ['H', along + Math.PI / 2]] as const).map(([name, turn]) => ({
    name,
    figures: readCut(source, sampler, { kind: 'great', theta, phi, tilt: turn }, globalFrame, reading, 720).figures!,
  })); // prettier-ignore
  const peak = Math.max(...planes.map((p) => p.figures.peak));
  const over = (q: 'gain' | 'realised'): number | null =>
    source.powers ? peak + level(patternFactor(source, q) / patternFactor(source, 'directivity')) : null;
  const [right, left] = (['right', 'left'] as const).map((part) => Math.hypot(...component(e, part)));
  const ratio = 20 * Math.log10(axialRatio(e));
  return {
    peak,
    theta,
    phi,
    gain: over('gain'),
    realised: over('realised'),
    planes,
    axialRatio: Math.min(99, ratio),
    tilt: along,
    sense: ratio > 30 ? 'linear' : right > left ? 'right' : 'left',
    boresight: Math.min(99, 20 * Math.log10(axialRatio(sampler.at(0, 0)))),
  };
}

/** The figures that a run tells of its far field, from a pattern and what was worked out of it; null for a scatterer. Lost is what is neither radiated nor comes back. */
export function figuresOf({ frequency, powers }: PatternSource, g: GlanceFigures): PatternFigures | null {
  if (!powers) return null;
  const ratio = (db: number | null): number => 10 ** ((db ?? -200) / 10);
  return {
    frequency,
    radiated: powers.radiated,
    fromPattern: powers.lossless,
    accepted: powers.accepted,
    lost: Math.max(0, powers.accepted - powers.radiated),
    directivity: ratio(g.peak),
    gain: ratio(g.gain),
    realisedGain: ratio(g.realised),
    theta: g.theta,
    phi: g.phi,
    radiationEfficiency: powers.radiated / powers.accepted,
    totalEfficiency: powers.radiated,
  };
}

export interface PhaseCentreReading {
  theta: number;
  phi: number;
  reference: number;
  found: { at: Vec3; rms: number; spread: number } | null;
  /** Spread of the phase, radians, over origins along the axis through what was found, metres from it. */
  along: { offset: Float64Array; spread: Float64Array };
}

/**
 * The phase centre of a pattern over a cone or a plane about an axis (by default the peak), of one component, co-polar to the field there if no direction is
 * given, and how the spread grows along the axis by up to half a wavelength.
 */
export function readPhaseCentre(
  source: PatternSource,
  sampler: PatternSampler,
  peak: { theta: number; phi: number },
  card: { part: PhasePart; reference?: number; theta?: number; phi?: number; half: number; plane?: number },
): PhaseCentreReading {
  const theta = card.theta ?? peak.theta;
  const phi = card.phi ?? peak.phi;
  // Straight up and down phi has no meaning: the frame stays along the global axes.
  const onAxis = Math.sin(theta) < sameNumber;
  const frame = onAxis && theta < 1 ? { ...globalFrame } : frameTowards(theta, onAxis ? 0 : phi);
  const k = (2 * Math.PI * source.frequency) / c0;
  const reference = card.reference ?? tilt(sampler.inFrame(frame, k, 0, 0));
  const rays = new PhaseRays(sampler, frame, k, { half: card.half, plane: card.plane }, card.part, reference);
  const found = rays.centre();
  const centre = found?.at ?? frame.origin;
  const reach = Math.PI / k;
  const offset = Float64Array.from({ length: 61 }, (_, i) => ((i - 30) / 30) * reach);
  const spread = offset.map((d) => rays.spread(plus(centre, times(d, frame.z))).spread);
  return { theta, phi, reference, found, along: { offset, spread } };
}

/**
 * The far field of waves that run in together, 1 W in all: `values` is the sum of those of each. What the waves bring in less what comes out of the ports
 * (channels below cutoff carry nothing), by S between its points, is accepted; what the box saw over what the pattern sums to is that of the first
 * excitation, as no other is kept, so that what is lost is what remains.
 */
export function mixedSource(
  meta: ResultMeta,
  recorded: PatternSource,
  values: Float64Array,
  network: { frequency: ResultArray; s: ResultArray; beta?: ResultArray },
  shares: readonly IncidentWave[],
): PatternSource {
  const pattern = { ...recorded.pattern, values };
  if (!recorded.powers) return { ...recorded, pattern };
  const { data: band } = network.frequency;
  const [, n, m] = network.s.shape;
  const at = Math.min(Math.max(recorded.frequency, band[0]), band[band.length - 1]);
  const s = (row: number, column: number, part: number): number => {
    const y = Float64Array.from({ length: band.length }, (_, f) => network.s.data[2 * ((f * n + row) * m + column) + part]);
    return valueAt({ x: band, y }, at);
  };
  let out = 0;
  for (let row = 0; row < n; row++) {
    if (meta.ports[row].mode !== undefined && network.beta) {
      const y = Float64Array.from({ length: band.length }, (_, f) => network.beta!.data[2 * (f * n + row)]);
      if (!(valueAt({ x: band, y }, at) > 0)) continue;
    }
    let [re, im] = [0, 0];
    for (const { column, amplitude } of shares) {
      const [x, y] = mul([s(row, column, 0), s(row, column, 1)], amplitude);
      re += x;
      im += y;
    }
    out += re * re + im * im;
  }
  const { lossless, radiated } = recorded.powers;
  // Where walls are left out of the pattern its sum is not the power: the first excitation tells by how much.
  const own = (lossless / patternPower(recorded.pattern).power) * patternPower(pattern).power;
  return { ...recorded, pattern, powers: { lossless: own, radiated: (own * radiated) / lossless, accepted: Math.max(1e-12, 1 - out), incident: 1 } };
}
