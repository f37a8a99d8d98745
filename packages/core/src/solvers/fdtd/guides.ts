import { type Problem, problem } from '../../document/index.ts';
import { c0, eta0 } from '../../numerics/constants.ts';
import type { FrontKernel } from '../../numerics/factors.ts';
import { type GridScene, type SceneGuide, seenBy } from '../../scene/index.ts';
import { type Mode, modeNames, type Section, solveSection, stepsOf, uniformPermittivity } from '../modes/index.ts';
import { inhomogeneousModes, reversed } from './inhomogeneousModes.ts';
import { atRegionEnd, widened } from './widen.ts';
import { openRim } from './rim.ts';
import { type GuidePlane, type Index, indexOf } from './portPlane.ts';
import { type Dispersion, type PortMode, type GuideModes, discreteK } from './modeTypes.ts';
import { coefficients, type Discrete } from './discrete.ts';
import { guideSection } from './guideSection.ts';
import type { Axis } from '../../numerics/axis.ts';

/** Largest |E|^2 at a port's open rim, over its mean: with it, power is made or lost there by less than 2e-3. */
const faded = 3e-4;
/** The same where the rim stands at the end of the region: absorbing layers are there, and take what is left of the mode. */
const fadedAtEnd = 3e-3;

/** A share of |E|^2 as one of |E|, in words that do not round it up to what is refused. */
const percent = (share: number): string => `${Math.floor(1000 * Math.sqrt(share)) / 10} %`;

const shortFault = {
  code: 'port.shorted',
  message: (noun: string) => `The ${noun} lies wholly in metal.`,
  fix: 'Move it to where the guide is open, or look whether a later body fills the guide.',
};

/** What can be told of guided ports before there is a grid: whether anything but metal fills them just inside their planes. */
export const checkGuides = ({ guides, bodies }: GridScene): Problem[] =>
  guides.flatMap((g) => {
    if ([...seenBy(g, bodies)].some((b) => b?.material.kind !== 'conductor')) return [];
    const { code, message, fix } = shortFault;
    return [problem('error', code, { part: 'ports', name: g.name }, message('port'), fix)];
  });

/** Dispersion of a mode on the grid's cells from beta^2 and the ratio of H to E by beta, both in the section. */
type OnCells = (beta2: number, y: (b: number) => number) => Dispersion;

/** The same for cells of `step` metres along the guide: b = 2/step sin(beta step / 2); below cutoff the sine becomes a hyperbolic one. */
export function dispersionOnCells(step: number, beta2: number, y: (b: number) => number): Dispersion {
  const b = Math.sqrt(Math.abs(beta2));
  if (beta2 > 0) {
    const beta = (2 / step) * Math.asin(Math.min(1, (b * step) / 2));
    return { beta: [beta, 0], admittance: [y(b) * Math.cos((beta * step) / 2), 0], propagates: true };
  }
  const alpha = (2 / step) * Math.asinh((b * step) / 2);
  return { beta: [0, -alpha], admittance: [0, y(b) * Math.cosh((alpha * step) / 2)], propagates: false };
}

/** A mode of a section filled with one permittivity, solved at wave number `k0` (1/m): its shape is the same at all frequencies. */
function plainMode(mode: Mode, permittivity: number, k0: number, dt: number, onCells: OnCells): PortMode {
  const kc2 = Math.max(0, permittivity * k0 * k0 - mode.beta2);
  const tm = mode.kind === 'TM';
  return {
    mode,
    // The mode's field is of unit norm, so P = |V|^2 / 2 Z with Z = eta V^2 / sqrt(er).
    impedance: mode.voltage === null ? null : (eta0 * mode.voltage ** 2) / Math.sqrt(permittivity),
    line: { c: permittivity, l: 1, kc: Math.sqrt(kc2), form: tm ? 'series' : 'shunt' },
    at: (f) => {
      const k = discreteK(f, dt);
      const beta2 = permittivity * k * k - kc2;
      // H/E is b/k for TE and eps k/b for TM; below cutoff b is -j |b|.
      if (tm) return onCells(beta2, (b) => (permittivity * k) / b);
      const out = onCells(beta2, (b) => b / k);
      return out.propagates ? out : { ...out, admittance: [0, -out.admittance[1]] };
    },
  };
}

/** Solves the modes of a port, or of what `seen` says, on the grid. Gives problems where there is nothing to guide. */
export function guideModes(
  d: Discrete,
  guide: SceneGuide,
  drawn: GuidePlane,
  band: { from: number; to: number },
  kernel?: FrontKernel,
  { part, noun }: { part: 'ports' | 'recorders'; noun: string } = { part: 'ports', noun: 'port' },
): { found: GuideModes } | { problems: Problem[] } {
  const place = { part, name: guide.name } as const;
  const fail = (code: string, message: string, fix: string): { problems: Problem[] } => ({ problems: [problem('error', code, place, message, fix)] });
  // Of a port cut by planes of symmetry the impedance is that of the whole.
  const whole = (z: number | null): number | null => z && z * (guide.wholeImpedance ?? 1);
  const plane = part === 'ports' && guide.inhomogeneous && !guide.ends ? widened(d, drawn) : drawn;
  const section = guideSection(d, plane);
  const x = d.grid.lines[plane.normal];
  const inner = plane.plane + plane.into;
  if (inner < 0 || inner >= x.length)
    return fail('port.outside', `The ${noun} looks out of the computed region.`, 'Turn its direction, or move it to where the structure begins.');
  const step = Math.abs(x[inner] - x[plane.plane]);
  const uniform = uniformPermittivity(section);
  if (![...section.eu, ...section.ev].some((e) => e > 0)) return fail(shortFault.code, shortFault.message(noun), shortFault.fix);
  const k0 = discreteK((band.from + band.to) / 2, d.dt);
  const onCells: OnCells = (beta2, y) => dispersionOnCells(step, beta2, y);
  /** Modes as the port has them: of the whole of it, along its path, with their names. */
  const told = (of: readonly PortMode[]): { found: GuideModes } => ({
    found: {
      plane,
      section,
      step,
      modes: of.map((m) => directed({ ...m, impedance: whole(m.impedance) }, guide, plane, section, band)),
      names: modeNames(
        section,
        of.map(({ mode: { kind, e, ew, hw }, line }) => ({ kind, cutoff: line && line.kc, eu: e.u, ev: e.v, ew, hw })),
        [!!guide.halved?.[plane.u], !!guide.halved?.[plane.v]],
      ),
    },
  });
  const few = (found: number): { problems: Problem[] } =>
    fail('port.modes', `The cross-section has only ${found} modes on this grid.`, 'Ask for fewer, or take a finer accuracy.');
  const cutoffFault = (): { problems: Problem[] } =>
    fail('port.cutoff', `No mode of the ${noun} propagates anywhere in the band.`, 'Raise the band, widen the guide, or look for a wrong unit.');
  if (uniform === null && !guide.inhomogeneous)
    return fail(
      'port.media',
      'On the grid the guided port sees several media, though only one could be seen before.',
      'Look whether a thin body crosses the port or its rim; let one medium fill the guide there.',
    );
  if (uniform === null || guide.inhomogeneous) {
    const mixed = inhomogeneousModes(
      (f) => guideSection(d, plane, f),
      band,
      guide.modes,
      (f) => discreteK(f, d.dt),
      onCells,
      kernel,
    );
    if (mixed.length < guide.modes) return few(mixed.length);
    if (!mixed.some((m) => m.at(band.to).propagates)) return cutoffFault();
    const ends = atRegionEnd(d.grid, plane);
    const rimOn = (sides: readonly boolean[]): number => openRim(d, plane, section, mixed.flatMap((m) => m.shape!.profiles), sides); // prettier-ignore
    const strong = (rim: number, where: string, fix: string): { problems: Problem[] } =>
      fail('port.rim', `A mode still has ${Math.ceil(1000 * Math.sqrt(rim)) / 10} % of its mean field ${where}.`, fix);
    const [inside, atEnd] = [rimOn(ends.map((end) => !end)), rimOn(ends)];
    // Where the model ends at the port the rim is metal indeed.
    if (inside > faded && !guide.ends)
      return strong(
        inside,
        `at parts of the ${noun}’s rim where there is no metal, and the rim acts like metal`,
        `Make the ${noun} larger, up to electric walls, metal, or to where the field has faded to ${percent(faded)}; keep other metal away from it.`,
      );
    if (atEnd > fadedAtEnd && !guide.ends)
      return strong(
        atEnd,
        'at the end of the computed region, where absorbing layers take it',
        `Widen the margin until it has faded to ${percent(fadedAtEnd)}.`,
      );
    return told(mixed);
  }
  const modes = solveSection(section, k0, { count: guide.modes, kernel });
  if (modes.length < guide.modes) return few(modes.length);
  const made = modes.map((m) => plainMode(m, uniform, k0, d.dt, onCells));
  if (made.every((m) => !m.at(band.to).propagates)) return cutoffFault();
  return told(made);
}

/**
 * What is told of a port at which the model ends: a mode more than it is asked for that propagates in the band (hertz) between its metal sides, which takes power that
 * no wave counts.
 */
export function modesUntold(d: Discrete, guide: SceneGuide, { plane }: GuideModes, band: { to: number }, kernel?: FrontKernel): Problem[] {
  if (!guide.ends || !guide.inhomogeneous) return [];
  const found = solveSection(guideSection(d, plane, band.to), discreteK(band.to, d.dt), { count: guide.modes + 1, kernel });
  if (found.length <= guide.modes || !(found[guide.modes].beta2 > 0)) return [];
  return [
    problem(
      'warning',
      'port.further-mode',
      { part: 'ports', name: guide.name },
      `At the upper end of the band ${guide.modes === 1 ? 'a second mode' : 'a further mode'} goes into the port between its metal sides; what it takes is in no wave that is told.`,
      'Make the port smaller, or ask for more modes.',
    ),
  ];
}

/** Samples along a voltage path. */
const pathSamples = 400;

/** Integral of a mode's E along a straight path of its section, from end to end. */
function pathVoltage({ u, v }: Section, e: Mode['e'], from: readonly [number, number], to: readonly [number, number]): number {
  const place = (x: Float64Array, at: number): [number, number] => {
    let i = 0;
    while (i < x.length - 2 && x[i + 1] < at) i++;
    return [i, Math.min(1, Math.max(0, (at - x[i]) / (x[i + 1] - x[i])))];
  };
  let sum = 0;
  for (let n = 0; n < pathSamples; n++) {
    const t = (n + 0.5) / pathSamples;
    const [i, a] = place(u, from[0] + t * (to[0] - from[0]));
    const [j, b] = place(v, from[1] + t * (to[1] - from[1]));
    const at = j * u.length + i;
    // E along u is level along its edge and runs straight from row to row; the other likewise.
    sum += ((1 - b) * e.u[at] + b * e.u[at + u.length]) * (to[0] - from[0]) + ((1 - a) * e.v[at] + a * e.v[at + 1]) * (to[1] - from[1]);
  }
  return sum / pathSamples;
}

/** A mode with its sign set by the port's voltage path, and the voltage along it. */
function directed(mode: PortMode, guide: SceneGuide, plane: GuidePlane, section: Section, band: { from: number; to: number }): PortMode {
  if (!guide.path) return mode;
  // The path's coordinates stand in the order of the axes, the section's need not.
  const swap = plane.u > plane.v;
  const [from, to] = guide.path.map(([p, q]): [number, number] => (swap ? [q, p] : [p, q]));
  const volts = pathVoltage(section, mode.mode.e, from, to);
  const out: PortMode =
    volts >= 0
      ? mode
      : { ...mode, mode: reversed(mode.mode), ...(mode.shape ? { shape: { ...mode.shape, profiles: mode.shape.profiles.map(reversed) } } : {}) };
  const { propagates, admittance, beta } = mode.at((band.from + band.to) / 2);
  if (!propagates) return out;
  // Power of the profile as it is, of the part that is computed and of its images.
  const power = ((guide.images ?? 1) * (mode.shape ? mode.mode.flux / beta[0] : admittance[0])) / (2 * eta0);
  return { ...out, voltage: Math.abs(volts) / Math.sqrt(power) };
}

/** Edges of a portal: E on the plane, H half a cell inside, what the current of each mode does to E, weights of each profile. */
export function portalEdges(
  d: Discrete,
  { plane: g, section, modes }: GuideModes,
): { c: Axis; at: Index; other: Axis; beyond: Index; source: number[]; e: number[]; h: number[] }[] {
  const st = stepsOf(section);
  const nu = st.nu + 1;
  const cell = g.into > 0 ? g.plane : g.plane - 1;
  const profiles = modes.flatMap((m) => m.shape!.profiles);
  const out: ReturnType<typeof portalEdges> = [];
  for (let n = 0; n < section.eu.length; n++) {
    const [i, j] = [n % nu, Math.floor(n / nu)];
    const place = (k: number): Index => indexOf(g, k, g.lo[0] + i, g.lo[1] + j);
    // Power along the normal is E_u H_v - E_v H_u. The grid keeps E times the free part of its edge.
    const one = (
      c: Axis,
      other: Axis,
      eps: number,
      free: number,
      area: number,
      sign: number,
      e: (m: Mode) => number,
      h: (m: Mode) => number,
    ): void => {
      if (!(eps > 0)) return;
      const at = place(g.plane);
      const [, cb] = coefficients(d, c, at);
      out.push({
        c,
        at,
        other,
        beyond: place(cell),
        // A current like n x h sends this mode alone.
        source: modes.map((m) => (sign * cb * h(m.mode)) / (c0 * d.dt)),
        e: profiles.map((m) => sign * h(m) * area),
        h: profiles.map((m) => sign * g.into * e(m) * free * area),
      });
    };
    one(g.u, g.v, section.eu[n], section.lu?.[n] ?? 1, st.du[i] * st.dualV[j], 1, (m) => m.e.u[n], (m) => m.h.v[n]); // prettier-ignore
    one(g.v, g.u, section.ev[n], section.lv?.[n] ?? 1, st.dualU[i] * st.dv[j], -1, (m) => m.e.v[n], (m) => m.h.u[n]); // prettier-ignore
  }
  return out;
}

/** Edges of a port's plane with, for each mode, its field and the weight of the H sample beyond in the mode's current. */
export function weightedEdges({
  plane: g,
  section,
  modes,
}: GuideModes): { c: Axis; at: Index; other: Axis; beyond: Index; e: number[]; w: number[] }[] {
  const st = stepsOf(section);
  const nu = st.nu + 1;
  const cell = g.into > 0 ? g.plane : g.plane - 1;
  const out: ReturnType<typeof weightedEdges> = [];
  for (let n = 0; n < section.eu.length; n++) {
    const [i, j] = [n % nu, Math.floor(n / nu)];
    const place = (k: number): Index => indexOf(g, k, g.lo[0] + i, g.lo[1] + j);
    const [lu, lv] = [section.lu?.[n] ?? 1, section.lv?.[n] ?? 1];
    // Power along the normal is E_u H_v - E_v H_u.
    if (section.eu[n] > 0)
      out.push({
        c: g.u,
        at: place(g.plane),
        other: g.v,
        beyond: place(cell),
        // The grid keeps E times the free part of its edge.
        e: modes.map((m) => m.mode.e.u[n] * lu),
        w: modes.map((m) => g.into * m.mode.e.u[n] * lu * st.du[i] * st.dualV[j]),
      });
    if (section.ev[n] > 0)
      out.push({
        c: g.v,
        at: place(g.plane),
        other: g.u,
        beyond: place(cell),
        e: modes.map((m) => m.mode.e.v[n] * lv),
        w: modes.map((m) => -g.into * m.mode.e.v[n] * lv * st.dualU[i] * st.dv[j]),
      });
  }
  return out;
}
