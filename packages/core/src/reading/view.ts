import { immittanceMatrix, knowsGaps, referenceOf, renormalised, shifted, deembedded } from '../network/index.ts';
import { channelKeys, type Complex, type ResultArray, type ResultMeta } from '../results/index.ts';

/** How the reader sees a network: nothing here needs a new run. */
export interface NetworkView {
  /** Gaps of lumped ports kept, as solved, or taken out. */
  gaps: 'kept' | 'out';
  /** By port: how far its plane is moved into the structure, metres. */
  shifts: Readonly<Record<string, number>>;
  /** By channel: the impedance that S refers to in place of its own, ohms; '' stands for all. */
  references: Readonly<Record<string, Complex>>;
}

export const asSolved: NetworkView = { gaps: 'kept', shifts: {}, references: {} };

/** S as it is seen, and what it stands on. */
export interface ViewedNetwork {
  /** [n, channels, excitations, 2]. */
  s: ResultArray;
  /** Impedance that each channel refers to, ohms; null for a mode without one. */
  references: (Complex | null)[];
  /** Whether the gaps are out. */
  bare: boolean;
  /** What was asked for and cannot be, in words. */
  refused: string[];
}

/**
 * S [n, channels, excitations, 2] with gaps taken out, planes moved and references changed, in this order: the gap stands next to the port, and a
 * plane moves along the line on the mode's own impedance.
 */
export function viewNetwork(
  meta: ResultMeta,
  frequency: ArrayLike<number>,
  s: ResultArray,
  beta: ResultArray | undefined,
  view: NetworkView,
): ViewedNetwork {
  const { ports, excitations } = meta;
  const refused: string[] = [];
  // Results of version 1 have one excitation, and no axis for it.
  let seen: ResultArray = s.shape.length === 4 ? s : { shape: [s.shape[0], s.shape[1], 1, 2], data: s.data };
  let bare = false;
  if (view.gaps === 'out' && knowsGaps(meta)) {
    const without = deembedded(seen, frequency, meta);
    if (without) [seen, bare] = [without, true];
  }
  const shifts = ports.map((p) => view.shifts[p.name] ?? 0);
  if (shifts.some((l) => l !== 0)) {
    const movable = ports.map((p) => p.mode !== undefined && beta !== undefined);
    ports.forEach((p, c) => {
      if (shifts[c] !== 0 && !movable[c]) refused.push(`The plane of ${p.name} cannot be moved: a lumped port has no line of its own.`);
    });
    const n = ports.length;
    // exp(-gamma z), gamma = j (re + j im).
    const gamma = (f: number, c: number): [number, number] => [-beta!.data[2 * (f * n + c) + 1], beta!.data[2 * (f * n + c)]];
    seen = shifted(seen, shifts.map((l, c) => (movable[c] ? l : 0)), gamma, excitations); // prettier-ignore
  }
  const own = ports.map(referenceOf);
  const names = channelKeys(ports);
  const wanted = names.map((name, c) => view.references[name] ?? view.references[ports[c].name] ?? view.references[''] ?? null);
  let references = own;
  if (wanted.some((z) => z)) {
    const whole = excitations.length === ports.length && excitations.every((c, e) => c === e);
    const to = own.map((z, c) => (z && wanted[c] ? wanted[c] : z));
    const changed = whole ? renormalised(seen, own, to) : null;
    if (changed) [seen, references] = [changed, to];
    else refused.push('S can be referred to another impedance only where every port was excited.');
    names.forEach((name, c) => {
      if (changed && !own[c] && (view.references[name] ?? view.references[ports[c].name]))
        refused.push(`${name} keeps its own reference: its mode has no impedance to come from.`);
    });
  }
  return { s: seen, references, bare, refused };
}

/** Impedance or admittance matrix of a viewed network; null where not every port was excited or one has no impedance. */
export const immittanceOf = (network: ViewedNetwork, kind: 'Z' | 'Y'): ResultArray | null => immittanceMatrix(network.s, network.references, kind);
