import * as L from './layout';

/**
 * Guided ports. The tangential E of a port's plane is a sum of modes, v_m e_m; each v_m is the last node of a line of its own
 * that carries the mode on, outwards and for ever: series inductance and shunt capacitance per cell, with a shunt inductance
 * (TE) or a series capacitance (TM) for the cutoff. In a guide of one medium that is the very equation that the grid's own
 * modes obey, so nothing comes back; the coupling is the projection of the grid's equations, so it is passive in any case.
 * A line: f64 v[n + 2], i[n + 2], s[n + 2].
 */
export function guides(list: usize, count: i32, n: i32): void {
  for (let g = 0; g < count; g++) oneGuide(<usize>load<u32>(list + ((<usize>g) << 2)), n);
}

function oneGuide(guide: usize, n: i32): void {
  const edges = <usize>load<u32>(guide, L.GUIDE_EDGES),
    count = load<i32>(guide, L.GUIDE_COUNT),
    modes = load<i32>(guide, L.GUIDE_MODES),
    cells = load<i32>(guide, L.GUIDE_CELLS);
  const lines = <usize>load<u32>(guide, L.GUIDE_LINES),
    sources = <usize>load<u32>(guide, L.GUIDE_SOURCES),
    records = <usize>load<u32>(guide, L.GUIDE_RECORDS);
  const steps = <usize>load<u32>(guide, L.GUIDE_STEPS);
  const stride: usize = L.GUIDE_EDGE_SIZE + ((<usize>modes) << 3),
    end = edges + <usize>count * stride;
  // Nothing to speak of has come further than the front and some cells; pairs of them are worked on.
  const reach = (<usize>(min(cells - 2, <i32>(<f64>n * load<f64>(guide, L.GUIDE_REACH)) + 40) & ~1)) << 3;
  for (let m = 0; m < modes; m++) {
    const factors = guide + L.GUIDE_SIZE + <usize>m * L.GUIDE_MODE_SIZE;
    const cv = f64x2.splat(load<f64>(factors, L.GUIDE_MODE_CV)),
      ci = f64x2.splat(load<f64>(factors, L.GUIDE_MODE_CI)),
      cs = load<f64>(factors, L.GUIDE_MODE_CS),
      cq = load<f64>(factors, L.GUIDE_MODE_CQ);
    let inflow: f64 = 0;
    const weight: usize = L.GUIDE_EDGE_SIZE + 4 + ((<usize>m) << 3);
    for (let e = edges; e < end; e += stride) inflow += <f64>load<f32>(e + weight) * <f64>load<f32>(<usize>load<u32>(e, L.GUIDE_EDGE_BEYOND));
    // One value of room before the currents: that of the grid's side.
    const v = lines + <usize>m * <usize>(3 * cells + 6) * 8,
      i = v + ((<usize>(cells + 2)) << 3),
      s = i + ((<usize>(cells + 2)) << 3);
    // Currents half a step on: along the line, and through the shunt inductances.
    if (cs != 0) {
      const shunt = f64x2.splat(cs),
        pull = f64x2.splat(load<f64>(factors, L.GUIDE_MODE_PULL));
      for (let at: usize = 0; at < reach; at += 16) {
        const here = v128.load(v + at);
        v128.store(i + at, f64x2.add(v128.load(i + at), f64x2.mul(ci, f64x2.sub(v128.load(v + at, 8), here))));
        v128.store(s + at, f64x2.add(v128.load(s + at), f64x2.mul(shunt, here)));
      }
      store<f64>(i - 8, inflow);
      for (let at: usize = 0; at < reach; at += 16) {
        const flow = f64x2.mul(cv, f64x2.sub(v128.load(i + at), v128.load(i + at - 8)));
        v128.store(v + at, f64x2.add(v128.load(v + at), f64x2.sub(flow, f64x2.mul(pull, v128.load(s + at)))));
      }
    } else {
      const stop = f64x2.splat(cq),
        charge = f64x2.splat(load<f64>(factors, L.GUIDE_MODE_CHARGE));
      for (let at: usize = 0; at < reach; at += 16) {
        const held = v128.load(s + at);
        const next = f64x2.add(
          v128.load(i + at),
          f64x2.sub(f64x2.mul(ci, f64x2.sub(v128.load(v + at, 8), v128.load(v + at))), f64x2.mul(stop, held)),
        );
        v128.store(i + at, next);
        v128.store(s + at, f64x2.add(held, f64x2.mul(charge, next)));
      }
      store<f64>(i - 8, inflow);
      for (let at: usize = 0; at < reach; at += 16)
        v128.store(v + at, f64x2.add(v128.load(v + at), f64x2.mul(cv, f64x2.sub(v128.load(i + at), v128.load(i + at - 8)))));
    }
    store<f64>(records + ((<usize>(2 * m + 1) * steps + <usize>n) << 3), 0.5 * (inflow + load<f64>(i)));
    // The source sends half of itself inwards and half to where it is never seen again.
    store<f64>(v + 16, load<f64>(v, 16) + 2 * f64x2.extract_lane(cv, 0) * <f64>load<f32>(sources + ((<usize>m * steps + <usize>n) << 2)));
    store<f64>(records + ((<usize>(2 * m) * steps + <usize>n) << 3), load<f64>(v));
  }
  for (let e = edges; e < end; e += stride) {
    let sum: f64 = 0;
    for (let m = 0; m < modes; m++)
      sum += load<f64>(lines + <usize>m * <usize>(3 * cells + 6) * 8) * <f64>load<f32>(e + L.GUIDE_EDGE_SIZE + ((<usize>m) << 3));
    store<f32>(<usize>load<u32>(e, L.GUIDE_EDGE_FIELD), <f32>sum);
  }
}
