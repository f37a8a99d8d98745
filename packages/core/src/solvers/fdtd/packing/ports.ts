import { shifted } from '../../../discretisation/enlarge.ts';
import type { Point3 } from '../../../document/index.ts';
import type { Axis } from '../../../numerics/axis.ts';
import { eta0 } from '../../../numerics/constants.ts';
import type { SceneLoad } from '../../../scene/index.ts';
import { P } from '../../layout.ts';
import { Rows } from '../../rows.ts';
import type { Sheet } from './sheet.ts';
import { besideEdge, type Link } from './splits.ts';

/** Lumped ports: their edges, sources and loads. Gives the addresses of their voltages over time and of the edges that they update themselves. */
export function packPorts(sheet: Sheet): { voltages: number[]; edges: Set<number> } {
  const { d, words, arena, plan, factors } = sheet;
  const splits = d.cuts?.splits;
  const [, , nz] = sheet.cells;
  const voltages = d.ports.map(() => arena.take(plan.maxSteps * 8));
  const ports = new Rows('port', d.ports.length);
  const held: { k: number; field: number; value: number }[] = [];
  d.ports.forEach((edges, p) => {
    const rows = new Rows('portEdge', edges.length);
    const values = arena.take(edges.length * 4);
    let own = 0;
    edges.forEach((e, n) => {
      // E_a is driven by H_c stepping back along b, less H_b stepping back along c, with a, b, c in cyclic order.
      const a = e.component;
      const [b, c] = [(a + 1) % 3, (a + 2) % 3] as [Axis, Axis];
      const [field, value] = [sheet.address(a, e.index), values + n * 4];
      const push = (e.cb * eta0 * e.current) / e.area;
      const edge = splits?.edgeAt(a, e.index);
      const beside = (normal: Axis, along: Axis, by: 0 | -1): Link => {
        const at = shifted(e.index, along, by) as Point3;
        return edge ? besideEdge(sheet, edge, 0, normal, at) : [sheet.address(3 + normal, at), 1];
      };
      const [p1, p2, q1, q2] = [beside(c, b, 0), beside(c, b, -1), beside(b, c, 0), beside(b, c, -1)];
      const [driveP, driveQ] = [b, c].map((x) => e.cb * factors[x].eInverse[e.index[x]]);
      rows.set(n, {
        field,
        value,
        p: p1[0],
        backP: p2[0],
        q: q1[0],
        backQ: q2[0],
        ca: e.ca,
        driveP: driveP * p1[1],
        driveBackP: -driveP * p2[1],
        driveQ: -driveQ * q1[1],
        driveBackQ: driveQ * q2[1],
        weight: e.weight,
        push,
      });
      own += e.weight * push;
      held.push({ k: e.index[2], field, value });
    });
    const source = sheet.put(Float32Array.from({ length: plan.maxSteps }, (_, n) => plan.waveform(p, (n + 0.5) * d.dt)));
    const { parallel, impedance, rising, falling } = companion(plan.load?.(p) ?? null, plan.resistance(p), d.dt);
    ports.set(p, {
      edges: sheet.putRows(rows),
      count: edges.length,
      source,
      voltages: voltages[p],
      gain: 1 / (impedance + own / 2),
      own,
      factor: parallel ? impedance : 1,
      rising,
      falling,
      parallel: parallel ? 1 : 0,
    });
  });
  held.sort((a, b) => a.k - b.k);
  const sources = new Rows('portSource', held.length);
  held.forEach(({ field, value }, n) => sources.set(n, { field, value }));
  words[P.PORTS] = d.ports.length;
  words[P.PORT] = sheet.putRows(ports);
  words[P.SRC] = sheet.putRows(sources);
  words[P.SRC_START] = sheet.put(sheet.planeStarts(held.map((h) => h.k), nz)); // prettier-ignore
  return { voltages, edges: new Set(held.map((h) => h.field)) };
}

/**
 * A load by the trapezoid rule: in a step V = impedance * I and what it remembers; `rising` and `falling` belong to the inductance
 * and capacitance in series, or the other way round in parallel.
 */
function companion(
  load: SceneLoad | null,
  resistance: number,
  dt: number,
): { parallel: boolean; impedance: number; rising: number; falling: number } {
  if (!load) return { parallel: false, impedance: resistance, rising: 0, falling: 0 };
  const { form, r, l, c } = load;
  const parallel = form === 'parallel';
  const [grow, fall] = parallel ? [c, l] : [l, c];
  const rising = (2 * grow) / dt;
  const falling = fall ? dt / (2 * fall) : 0;
  const own = parallel ? (r ? 1 / r : 0) : r;
  const sum = own + rising + falling;
  return { parallel, impedance: parallel ? 1 / sum : sum, rising, falling };
}
