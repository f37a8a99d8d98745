import * as L from './layout';

/**
 * Edges and faces of the grid that carry a passive branch with memory: metal sheets (electric edges in parallel with an
 * admittance), metal surfaces (magnetic faces in series with an impedance), media with relaxation. The plain sweep has
 * made X' = X + drive; the branch takes its share in closed form, by the trapezoid rule, which keeps it passive:
 *   X+ = (X' - q (G X + sum s u)) / (1 + q G),   u+ = kappa u + w (X + X+).
 */
export function branches(list: usize, first: i32, last: i32, classes: usize): void {
  for (let at = list + <usize>first * L.BRANCH_SIZE, end = list + <usize>last * L.BRANCH_SIZE; at < end; at += L.BRANCH_SIZE) {
    const field = <usize>load<u32>(at, L.BRANCH_FIELD);
    const c = classes + <usize>load<u32>(at, L.BRANCH_KIND) * L.BRANCH_CLASS_SIZE;
    const q = load<f32>(at, L.BRANCH_Q),
      before = load<f32>(at, L.BRANCH_BEFORE);
    const u0 = v128.load(at, L.BRANCH_U),
      u1 = v128.load(at, L.BRANCH_U + 16);
    const dots = f32x4.add(f32x4.mul(v128.load(c, L.BRANCH_CLASS_S), u0), f32x4.mul(v128.load(c, L.BRANCH_CLASS_S + 16), u1));
    const pull = f32x4.extract_lane(dots, 0) + f32x4.extract_lane(dots, 1) + f32x4.extract_lane(dots, 2) + f32x4.extract_lane(dots, 3);
    const g = load<f32>(c, L.BRANCH_CLASS_G);
    let after = (load<f32>(field) - q * (g * before + pull)) / (1 + q * g);
    // Denormal numbers are slow.
    if (abs(after) < 1e-30) after = 0;
    const sum = f32x4.splat(before + after);
    v128.store(at, f32x4.add(f32x4.mul(v128.load(c, L.BRANCH_CLASS_KAPPA), u0), f32x4.mul(v128.load(c, L.BRANCH_CLASS_W), sum)), L.BRANCH_U);
    v128.store(
      at,
      f32x4.add(f32x4.mul(v128.load(c, L.BRANCH_CLASS_KAPPA + 16), u1), f32x4.mul(v128.load(c, L.BRANCH_CLASS_W + 16), sum)),
      L.BRANCH_U + 16,
    );
    store<f32>(at, after, L.BRANCH_BEFORE);
    store<f32>(field, after);
  }
}
