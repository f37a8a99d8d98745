import { type Complex, div, mul } from '../../numerics/complex.ts';
import { fitPoles, modelAt, type PoleModel } from '../../materials/index.ts';
import { c0, eps0 } from '../../numerics/constants.ts';
import { sameNumber } from '../../numerics/tolerance.ts';

/** A medium with memory as the time stepping has it. */
export interface MediumClass {
  model: PoleModel;
  /** Update E = ca E + cb curl H' before the memory's pull. */
  ca: number;
  cb: number;
  /** Real states: turn, pull and drive of each; complex ones with real and imaginary parts. */
  real: [turn: number, pull: number, drive: number][];
  paired: [turn: [number, number], pull: [number, number], drive: [number, number]][];
}

/**
 * Steps of a pole model by the trapezoid rule, which keeps a passive medium passive at any step (auxiliary equations: M. Okoniewski
 * et al., IEEE MGWL 7, 121, 1997; pole pairs: M. Han et al., IEEE MWCL 16, 119, 2006). With u the current's state of a pole,
 * y = u + c E is kept in its place: then E+ = ca E + cb curl - sum Re(pull y) and y+ = turn y + drive E+ need no older E.
 */
export function stepsOfModel(model: PoleModel, dt: number): MediumClass {
  const q = dt / model.infinity;
  const states = model.poles.map(({ p, r }) => {
    const twice = p[1] === 0 ? 1 : 2;
    let a: Complex = [(p[0] * dt) / 2, (p[1] * dt) / 2];
    let turn = div([1 + a[0], a[1]], [1 - a[0], -a[1]]);
    // A pole that the step would forget at once is moved a little; it is far above every frequency that the grid carries.
    if (Math.hypot(...turn) < 0.05) {
      a = [-0.9, a[1]];
      turn = div([1 + a[0], a[1]], [1 - a[0], -a[1]]);
    }
    const w = div([dt / 2, 0], [1 - a[0], -a[1]]);
    const rp = mul([r[0], r[1]], [(2 * a[0]) / dt, (2 * a[1]) / dt]);
    const pull = mul(rp, [1 + turn[0], turn[1]]).map((x) => (x * twice) / 2) as Complex;
    const c = div(w, turn);
    const own = mul(rp, w);
    return { turn, pull, drive: [w[0] + c[0], w[1] + c[1]] as Complex, shift: mul(pull, c)[0], conductance: (twice * (r[0] + own[0])) / 2, still: p[0] === 0 && p[1] === 0 }; // prettier-ignore
  });
  const g = q * states.reduce((s, x) => s + x.conductance, 0);
  const shift = q * states.reduce((s, x) => s + (x.still ? 0 : x.shift), 0);
  const out: MediumClass = { model, ca: (1 - g + shift) / (1 + g), cb: (c0 * q) / (1 + g), real: [], paired: [] };
  model.poles.forEach(({ p }, n) => {
    const { turn, pull, drive, still } = states[n];
    // A conductivity remembers nothing.
    if (still) return;
    const scaled: Complex = [(q * pull[0]) / (1 + g), (q * pull[1]) / (1 + g)];
    if (p[1] === 0) out.real.push([turn[0], scaled[0], drive[0]]);
    else out.paired.push([turn, scaled, drive]);
  });
  return out;
}

/** Conductivity that a medium has at a frequency in hertz as steps of dt see it, S/m. */
export function conductivityAt({ model }: MediumClass, frequency: number, dt: number): number {
  const w = (2 / dt) * Math.tan(Math.PI * frequency * dt);
  return eps0 * w * modelAt(model, w).loss;
}

/** How close two permittivities are, as a part, to be taken as one medium. */
const alike = 1e-3;

/**
 * How far a mixture's fit may be off for the sake of fewer states, as a part of its permittivity: a fiftieth of its loss, far below what makes media
 * alike.
 */
function slackOf(values: Float64Array): number {
  let loss = 0;
  for (let i = 0; i < values.length; i += 2) loss = Math.max(loss, values[i + 1] / Math.hypot(values[i], values[i + 1]));
  return Math.min(alike / 5, Math.max(2e-6, 0.02 * loss));
}

/** Classes of media with memory; 0 is none. */
export class MediumClasses {
  readonly list: MediumClass[] = [];
  private readonly known = new Map<string, number>();
  private readonly plain: { values: Float64Array; number: number }[] = [];
  private readonly media: PoleModel['poles'][];
  /** Largest error of a mixture's fit over its permittivity. */
  worst = 0;

  /** `pure` are the media of the scene: their models and their permittivities [re, loss] at the frequencies in turn. */
  constructor(
    private readonly dt: number,
    private readonly frequencies: readonly number[],
    private readonly band: readonly [number, number],
    pure: readonly { model: PoleModel; values: Float64Array }[],
  ) {
    this.media = pure.map((m) => m.model.poles);
    for (const { model, values } of pure) this.plain.push({ values, number: this.add(model) });
  }

  /** Adds a class and gives its number, from 1. */
  add(model: PoleModel): number {
    return this.list.push(stepsOfModel(model, this.dt));
  }

  /** Number of the medium with these permittivities; a mixture is fitted once. 0 where it has neither loss nor dispersion. */
  of(values: Float64Array): number {
    for (const p of this.plain) if (p.values.every((v, i) => Math.abs(v - values[i]) < sameNumber * (1 + Math.abs(v)))) return p.number;
    let level = true;
    for (let i = 0; i < values.length && level; i += 2) level = values[i + 1] === 0 && Math.abs(values[i] - values[0]) < sameNumber;
    if (level && values[0] >= 1) return 0;
    const grain = alike * 2 ** Math.floor(Math.log2(Math.hypot(values[0], values[1])));
    let key = '';
    for (let i = 0; i < values.length; i++) key += `${Math.round(values[i] / grain)} `;
    const old = this.known.get(key);
    if (old !== undefined) return old;
    const { model, error } = fitPoles(
      this.frequencies,
      this.frequencies.map((_, f) => ({ re: values[2 * f], loss: values[2 * f + 1] })),
      this.media,
      this.band,
      slackOf(values),
    );
    this.worst = Math.max(this.worst, error);
    const number = this.add(model);
    this.known.set(key, number);
    return number;
  }
}
