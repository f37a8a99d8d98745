import { latinHypercube, randomOf } from './sequences.ts';
import { type Foretold, GaussianProcess } from './gaussianProcess.ts';
import { nelderMead } from './nelderMead.ts';
import { normalOf } from './cmaEs.ts';
import { normalBelow } from './normal.ts';
import { type Search, searchFunction, type Task, type Told, within } from './search.ts';

/** Places that are tried for the best expectation, and those from which it is climbed. */
const tries = 600;
const climbs = 3;
const climbing = 80;
/** Points at most by which the process is made: of more, the best and the newest. */
const mostKnown = 220;
const newest = 60;
/** Points up to which all of a process is sought anew with each, and how many come between later. */
const few = 40;
const anew = 6;
/** Points without any result, for each parameter, after which none is looked for any more. */
const hopeless = 12;
/** A search of which the expected gain has been so small, of the spread of the costs, so often one after the other, has ended. */
const little = 1e-7;
const often = 4;

/** Expected improvement on the best so far: D. R. Jones, M. Schonlau and W. J. Welch, J. Glob. Optim. 13 (1998) 455, eq. 15. */
function expected({ value, spread }: Foretold, best: number): number {
  if (!(spread > 0)) return 0;
  const u = (best - value) / spread;
  return (best - value) * normalBelow(u) + (spread * Math.exp((-u * u) / 2)) / Math.sqrt(2 * Math.PI);
}

/** Samples of what is foretold by which the expected improvement of a cost that is made of figures is reckoned. */
const samples = 32;

/** What is expected to be gained at a place, by what is known. */
interface Model {
  gain(place: readonly number[]): number;
  /** How little is known there. */
  spread(place: readonly number[]): number;
  /** Figures that are foretold there. */
  believed(place: readonly number[]): Known['told'][number];
  processes: GaussianProcess[];
}

/**
 * Search by Gaussian processes of what is known, for points that are dear: the next point is that of the largest expected improvement. Several at once are
 * taken one after the other, each believed to be as foretold (D. Ginsbourger, R. Le Riche and L. Carraro, 2010). Where the cost is made of figures these are
 * modelled, and the improvement is that of the cost of what is foretold of them (R. Astudillo and P. Frazier, ICML 2019, PMLR 97:354).
 */
export function* surrogate(task: Task): Search {
  const { dimensions: n, start, seed, together } = task;
  const random = randomOf(seed + 5);
  let known: Known = { x: [within(start), ...latinHypercube(Math.max(2 * n + 1, together), n, seed)], told: [] };
  known.told.push(...(yield known.x));
  let last: GaussianProcess[] | undefined;
  for (let quiet = 0; quiet < often;) {
    const some = chosen(known);
    const good = some.told.filter((t) => Number.isFinite(t.cost)).map((t) => t.cost);
    if (!good.length && known.x.length > hopeless * (n + 1)) return;
    const scale = good.length ? Math.sqrt(good.reduce((s, v) => s + (v - Math.min(...good)) ** 2, 0) / good.length) || 1 : 1;
    // How values hold together is sought anew as long as few are known, then now and again.
    let model = modelOf(some, task, some.x.length < few || known.x.length % anew < together ? undefined : last);
    last = model.processes;
    const next: number[][] = [];
    let most = 0;
    let believed = some;
    for (let k = 0; k < together; k++) {
      let [place, gain] = climbed(model.gain, believed, n, random);
      // Where nothing is to be gained anywhere, one looks where least is known.
      if (!(gain > 0)) [place, gain] = [climbed(model.spread, believed, n, random)[0], 0];
      most = Math.max(most, gain);
      next.push(place);
      if (k + 1 === together) break;
      believed = { x: [...believed.x, place], told: [...believed.told, model.believed(place)] };
      model = modelOf(believed, task, model.processes);
    }
    quiet = most < little * scale && good.length > n ? quiet + 1 : 0;
    const told = yield next;
    known = { x: [...known.x, ...next], told: [...known.told, ...told] };
  }
}

interface Known {
  x: number[][];
  told: Told[];
}

/** Processes of the figures, or of the cost, and where points have no result of that. */
function modelOf({ x, told }: Known, { costOf, seed }: Task, known?: readonly GaussianProcess[]): Model {
  const good = told.map((_, i) => i).filter((i) => Number.isFinite(told[i].cost));
  const places = good.map((i) => x[i]);
  const best = Math.min(...good.map((i) => told[i].cost));
  const fails = good.length < told.length ? new GaussianProcess(x, told.map((t) => Number(!Number.isFinite(t.cost))), known?.[0]) : null; // prettier-ignore
  const sound = (p: readonly number[]): number => (fails ? Math.max(0, Math.min(1, 1 - fails.at(p).value)) : 1);
  const figures = good.map((i) => (costOf ? told[i].figures! : [capped(told[i].cost, best, good.map((g) => told[g].cost))])); // prettier-ignore
  const processes = good.length ? figures[0].map((_, f) => new GaussianProcess(places, figures.map((v) => v[f]), known?.[f])) : []; // prettier-ignore
  const spread = (p: readonly number[]): number =>
    Math.max(fails?.at(p).spread ?? 0, ...processes.map((g) => g.at(p).spread)) * (good.length ? sound(p) : 1);
  const believed = (p: readonly number[]): Told => {
    const values = processes.map((g) => g.at(p).value);
    return { cost: processes.length ? (costOf ? costOf(values) : values[0]) : Infinity, misses: [], figures: values };
  };
  if (!good.length) return { gain: () => 0, spread, believed, processes: fails ? [fails] : [] };
  const normal = normalOf(seed);
  const draws = Array.from({ length: samples }, () => processes.map(() => normal()));
  const values = new Array<number>(processes.length);
  const sampled = (p: readonly number[]): number => {
    const foretold = processes.map((g) => g.at(p));
    let sum = 0;
    for (const draw of draws) {
      foretold.forEach((f, k) => (values[k] = f.value + f.spread * draw[k]));
      sum += Math.max(0, best - costOf!(values));
    }
    return sum / samples;
  };
  return { gain: (p) => (costOf ? sampled(p) : expected(processes[0].at(p), best)) * sound(p), spread, believed, processes };
}

/** Very bad costs count as no worse than ten times the middle: how bad they are says nothing of the best. */
function capped(cost: number, low: number, all: readonly number[]): number {
  const middle = [...all].sort((a, b) => a - b)[all.length >> 1];
  return middle > low ? Math.min(cost, low + 10 * (middle - low)) : cost;
}

/** The place of the largest gain, by many tries and climbing from the best of them. */
function climbed(gain: (p: readonly number[]) => number, { x, told }: Known, n: number, random: () => number): [number[], number] {
  const best = x[told.reduce((b, t, i) => (t.cost < told[b].cost ? i : b), 0)];
  const places = Array.from({ length: tries }, (_, i) =>
    // A third of them stand near the best point.
    i % 3 ? Array.from({ length: n }, random) : within(best.map((v) => v + 0.1 * (random() - random()))),
  );
  const gains = places.map(gain);
  const order = gains.map((_, i) => i).sort((a, b) => gains[b] - gains[a]);
  let [place, most] = [places[order[0]], gains[order[0]]];
  for (const from of order.slice(0, climbs)) {
    const found = searchFunction(
      nelderMead({ dimensions: n, start: places[from], seed: 1, together: 1 }),
      (p) => ({ cost: -gain(p), misses: [] }),
      climbing,
    );
    if (-found.cost > most) [place, most] = [found.x, -found.cost];
  }
  return [place, most];
}

/** Points by which the processes are made: all, or of many the best and the newest. */
function chosen({ x, told }: Known): Known {
  if (x.length <= mostKnown) return { x, told };
  const order = x.map((_, i) => i);
  const some = [...new Set([...order.toSorted((a, b) => told[a].cost - told[b].cost).slice(0, mostKnown - newest), ...order.slice(-newest)])];
  return { x: some.map((i) => x[i]), told: some.map((i) => told[i]) };
}
