import { abs, abs2, arg, type Complex, div, mul } from '../../numerics/complex.ts';
import type { PatternFigures, ResultMeta } from '../../results/index.ts';
import { directionsOf, type RecorderTold } from '../../recorders/index.ts';
import type { ProductKernel } from '../../numerics/product.ts';
import { farFieldOf, numbersOf, type GridScene } from '../../scene/index.ts';
import { type Channel, ChannelSpectra } from './channels.ts';
import { antennaFigures, readFar, voltageSpectrum } from './farReading.ts';
import { wavesThrough } from './guidedWave.ts';
import { PortSpectrum } from './portSpectrum.ts';
import { hasReactance, onReference, sharesOfRuns } from './references.ts';
import { type Pulse, pulseAt } from '../../numerics/pulse.ts';
import { type RecordedArrays, type RecordingPlan, tellRecorders } from './recorders.ts';
import type { RegionSums } from '../../yee/index.ts';
import type { Simulation } from './simulation.ts';
import type { Discrete } from './discrete.ts';

/** Share of each excited channel in the recorded fields: complex wave amplitudes, squares adding up to 1. */
export function fieldWeights(scene: GridScene, channels: readonly Channel[], order: readonly number[]): Map<number, Complex> {
  if (!scene.combine?.length) return new Map([[order[0], [1, 0]]]);
  const size = Math.hypot(...scene.combine.map((e) => e.amplitude));
  const out = new Map<number, Complex>();
  for (const { port, mode, amplitude, phase } of scene.combine) {
    const at = order.find((n) => channels[n].name === port && (channels[n].kind === 'lumped' || channels[n].mode === mode - 1));
    if (at === undefined || amplitude === 0) continue;
    const a = amplitude / size;
    out.set(at, [a * Math.cos(phase), a * Math.sin(phase)]);
  }
  return out;
}

export interface RecordedFields {
  figures: PatternFigures[] | null;
  /** Radians between the directions of the far field. */
  step: number;
  recorded: RecorderTold[];
  combined: ResultMeta['combined'];
}

/**
 * Fields and patterns at the recorded frequencies for 1 W incident: of one excitation with the source's phase taken out, or the sum of
 * several with given waves. Fields are linear in the waves, so that the sum holds at each frequency.
 */
export class FieldSum {
  private data: Float32Array[] | null = null;
  private readonly a: Complex[][];
  private readonly b: Complex[][];
  private readonly loads: Complex[][];
  private source: ((region: number) => RegionSums) | null = null;
  private scales: Complex[] = [];
  private left: number;
  /** Runs that wait for the others, as only all of them tell how they must be added up for complex references. */
  private readonly held: { excited: number; waves: { a: Complex; b: Complex }[][]; loads: Complex[][]; sums: RegionSums[] }[] | null;

  /** `every`: steps between Fourier samples. */
  constructor(
    private readonly scene: GridScene,
    private readonly d: Discrete,
    private readonly plan: RecordingPlan,
    private readonly channels: readonly Channel[],
    private readonly pulse: Pulse,
    private readonly every: number,
    private readonly weights: ReadonlyMap<number, Complex>,
    private readonly products: ProductKernel,
  ) {
    const zeros = (n: number): Complex[][] => scene.recordAt.map(() => Array.from({ length: n }, (): Complex => [0, 0]));
    this.a = zeros(channels.length);
    this.b = zeros(channels.length);
    this.loads = zeros(scene.ports.length);
    this.held = hasReactance(channels) ? [] : null;
    this.left = this.held ? channels.length : weights.size;
  }

  /** Whether they are those of one excitation alone. */
  get ofOne(): boolean {
    return this.weights.size === 1 && !this.held;
  }

  /** Whether the fields of an excitation are wanted. */
  wants = (channel: number): boolean => this.held !== null || this.weights.has(channel);

  /**
   * Takes one excitation's run, whose sums may have been faded out; true once all are there, and then `finish` may be called while this run's
   * memory stands.
   */
  take(simulation: Simulation, excited: number, faded: boolean): boolean {
    const { scene, d, channels, weights } = this;
    const source = new PortSpectrum(scene.recordAt, d.dt, 0.5);
    const series = Float64Array.from({ length: simulation.steps }, (_, n) => pulseAt(this.pulse, (n + 0.5) * d.dt));
    const spectra = new ChannelSpectra(channels, scene.recordAt, excited, source, d.dt);
    if (faded) spectra.takeFaded(simulation, series);
    else {
      source.update(series);
      spectra.update(simulation);
    }
    if (this.held) {
      const waves = scene.recordAt.map((_, f) => channels.map((__, c) => spectra.waves(c, f)));
      const loads = scene.ports.map(({ load }, p): Complex[] => {
        if (!load) return [];
        const s = voltageSpectrum(simulation, p, scene.recordAt, d.dt);
        return scene.recordAt.map((_, f): Complex => [s.re[f], s.im[f]]);
      });
      const sums = this.plan.regions.map((_, r) => simulation.sums(r)).map((s) => ({ ...s, data: s.data.slice() }));
      this.held.push({ excited, waves, loads, sums });
      if (--this.left) return false;
      this.addHeld();
      return true;
    }
    // A wave a brings |a|^2 / 2 in.
    const factors = scene.recordAt.map((_, f): Complex => {
      const { a } = spectra.waves(excited, f);
      const size = Math.SQRT2 / (a[0] ** 2 + a[1] ** 2);
      return mul(weights.get(excited)!, [size * a[0], -size * a[1]]);
    });
    const add = (into: Complex[], n: number, x: Complex, f: number): void => {
      const y = mul(x, factors[f]);
      into[n] = [into[n][0] + y[0], into[n][1] + y[1]];
    };
    factors.forEach((_, f) =>
      channels.forEach((__, c) => {
        const w = spectra.waves(c, f);
        add(this.a[f], c, w.a, f);
        add(this.b[f], c, w.b, f);
      }),
    );
    scene.ports.forEach(({ load }, p) => {
      if (!load) return;
      const s = voltageSpectrum(simulation, p, scene.recordAt, d.dt);
      factors.forEach((_, f) => add(this.loads[f], p, [s.re[f], s.im[f]], f));
    });
    // The Fourier sums lack the sampling interval.
    const scales = factors.map((x): Complex => [x[0] * this.every * d.dt, x[1] * this.every * d.dt]);
    if (weights.size === 1) {
      this.source = (r) => simulation.sums(r);
      this.scales = scales;
    } else {
      this.addSums(simulation, scales);
      this.scales = scales.map(() => [1, 0]);
    }
    return --this.left === 0;
  }

  /** Adds up the runs for the wanted waves on complex references. */
  private addHeld(): void {
    const { scene, channels, weights, every, d } = this;
    const runs = this.held!;
    const wanted = channels.map((_, c): Complex => mul(weights.get(c) ?? [0, 0], [Math.SQRT2, 0]));
    const shares = scene.recordAt.map((_, f) => {
      const waves = (pick: 'a' | 'b'): Complex[][] => channels.map((__, c) => runs.map((r) => r.waves[f][c][pick]));
      return sharesOfRuns(channels, waves('a'), waves('b'), wanted) ?? runs.map((): Complex => [0, 0]);
    });
    const total = (f: number, of: (run: (typeof runs)[number]) => Complex): Complex =>
      runs.reduce<Complex>(
        (sum, r, e) => {
          const x = mul(of(r), shares[f][e]);
          return [sum[0] + x[0], sum[1] + x[1]];
        },
        [0, 0],
      );
    scene.recordAt.forEach((_, f) => {
      channels.forEach((__, c) => {
        this.a[f][c] = total(f, (r) => r.waves[f][c].a);
        this.b[f][c] = total(f, (r) => r.waves[f][c].b);
      });
      scene.ports.forEach(({ load }, p) => {
        if (load) this.loads[f][p] = total(f, (r) => r.loads[p][f]);
      });
    });
    runs.forEach((r, e) => this.addRegions(r.sums, shares.map((x): Complex => [x[e][0] * every * d.dt, x[e][1] * every * d.dt]))); // prettier-ignore
    this.scales = scene.recordAt.map(() => [1, 0]);
  }

  private addSums(simulation: Simulation, scales: readonly Complex[]): void {
    this.addRegions(
      this.plan.regions.map((_, r) => simulation.sums(r)),
      scales,
    );
  }

  private addRegions(all: readonly RegionSums[], scales: readonly Complex[]): void {
    const into = (this.data ??= all.map((s) => new Float32Array(s.data.length)));
    all.forEach(({ region, data, padded }, r) => {
      const numbers = numbersOf(region.at?.list, scales.length);
      const out = into[r];
      for (let at = 0, n = 0; at < data.length; at += 2 * padded, n++) {
        const [re, im] = scales[numbers[n % numbers.length]];
        for (let i = at; i < at + padded; i++) {
          out[i] += data[i] * re - data[i + padded] * im;
          out[i + padded] += data[i] * im + data[i + padded] * re;
        }
      }
    });
    this.source = (r) => ({ ...all[r], data: into[r] });
  }

  /** Power that does not come out of the ports again, W. */
  private accepted(f: number): number {
    return this.channels.reduce((sum, c, n) => {
      // Waves below cutoff carry nothing.
      if (c.kind === 'guided' && !c.modes.modes[c.mode].at(this.scene.recordAt[f]).propagates) return sum;
      const [a, b] = [this.a[f][n], this.b[f][n]];
      return sum + (abs2(a) - b[0] ** 2 - b[1] ** 2) / 2;
    }, 0);
  }

  /** Writes planes and far field into a result's arrays and gives their figures. */
  finish(out: RecordedArrays): RecordedFields {
    const { scene, d, plan, scales } = this;
    const { arrays } = out;
    const asked = farFieldOf(scene);
    const combined = scene.combine ? this.combined() : undefined;
    if (!scene.recordAt.length) return { figures: null, step: 0, recorded: [], combined };
    const sums = this.source!;
    const recorded = tellRecorders(scene, d, plan, 'frequencies', { sums, scales, steps: 0, probe: () => [] }, out);
    const kept = { recorded, combined };
    if (!asked) return { figures: null, step: 0, ...kept };
    const { nTheta, nPhi, step } = directionsOf(asked.step);
    const numbers = numbersOf(asked.kept, scene.recordAt.length);
    const data = new Float64Array(numbers.length * nTheta * nPhi * 4);
    const figures = numbers.map((f, n): PatternFigures => {
      const guided = wavesThrough(this.channels, d.annexes.map((x) => x !== null), this.a[f], this.b[f]); // prettier-ignore
      const voltage = (p: number): number => Math.hypot(...this.loads[f][p]);
      const far = readFar({ scene, d, plan, sums, f, scale: scales[f], nTheta, nPhi, voltage, guided, products: this.products });
      data.set(far.pattern.values, n * nTheta * nPhi * 4);
      return antennaFigures(far, this.accepted(f));
    });
    arrays.farField = { shape: [numbers.length, nTheta, nPhi, 4], data };
    return { figures, step, ...kept };
  }

  /** What each wave of the sum meets: its channel's reflection while all are there. */
  private combined(): NonNullable<ResultMeta['combined']> {
    return [...this.weights].map(([channel, w]) => ({
      channel,
      amplitude: abs(w),
      phase: arg(w),
      reflection: this.a.map((a, f): Complex => {
        const [p, q] = onReference(this.channels[channel], a[channel], this.b[f][channel]);
        return div(q, p);
      }),
    }));
  }
}
