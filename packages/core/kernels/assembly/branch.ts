/**
 * Edges and faces of the grid that carry a passive branch with memory: metal sheets (electric edges in parallel with an
 * admittance), metal surfaces (magnetic faces in series with an impedance), media with relaxation. The plain sweep has
 * made X' = X + drive; the branch takes its share in closed form, by the trapezoid rule, which keeps it passive:
 *   X+ = (X' - q (G X + sum s u)) / (1 + q G),   u+ = kappa u + w (X + X+).
 * An entry is 48 bytes: address of X, its class, q, X of the last step, eight u. A class is 112 bytes: G, -, -, -, s, kappa, w.
 */
export function branches(list: usize, first: i32, last: i32, classes: usize): void {
  for (let at = list + <usize>first * 48, end = list + <usize>last * 48; at < end; at += 48) {
    const field = <usize>load<u32>(at);
    const c = classes + <usize>load<u32>(at, 4) * 112;
    const q = load<f32>(at, 8), before = load<f32>(at, 12);
    const u0 = v128.load(at, 16), u1 = v128.load(at, 32);
    const dots = f32x4.add(f32x4.mul(v128.load(c, 16), u0), f32x4.mul(v128.load(c, 32), u1));
    const pull = f32x4.extract_lane(dots, 0) + f32x4.extract_lane(dots, 1) + f32x4.extract_lane(dots, 2) + f32x4.extract_lane(dots, 3);
    const g = load<f32>(c);
    let after = (load<f32>(field) - q * (g * before + pull)) / (1 + q * g);
    // Denormal numbers are slow.
    if (abs(after) < 1e-30) after = 0;
    const sum = f32x4.splat(before + after);
    v128.store(at, f32x4.add(f32x4.mul(v128.load(c, 48), u0), f32x4.mul(v128.load(c, 80), sum)), 16);
    v128.store(at, f32x4.add(f32x4.mul(v128.load(c, 64), u1), f32x4.mul(v128.load(c, 96), sum)), 32);
    store<f32>(at, after, 12);
    store<f32>(field, after);
  }
}
