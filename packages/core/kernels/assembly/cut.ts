/**
 * Faces cut by curved metal, and their lenders. The plain sweep changes H as if each face were whole and alone; what it really
 * changes is a symmetric mixture: its own change times a factor, and those of linked faces times theirs.
 * A face is 24 bytes: u32 address of H, f32 H before the sweep, f32 plain change, f32 own factor, i32 first link, i32 end of links.
 * A link is 8 bytes: i32 face, f32 factor.
 */
export function cutSave(faces: usize, first: i32, end: i32): void {
  for (let at = faces + <usize>first * 24, last = faces + <usize>end * 24; at < last; at += 24) store<f32>(at, load<f32>(<usize>load<u32>(at)), 4);
}

/** Takes down the plain changes. */
export function cutChanges(faces: usize, first: i32, end: i32): void {
  for (let at = faces + <usize>first * 24, last = faces + <usize>end * 24; at < last; at += 24)
    store<f32>(at, load<f32>(<usize>load<u32>(at)) - load<f32>(at, 4), 8);
}

/** Puts the mixtures in their place. */
export function cutMixed(faces: usize, links: usize, first: i32, end: i32): void {
  for (let at = faces + <usize>first * 24, last = faces + <usize>end * 24; at < last; at += 24) {
    let change = load<f32>(at, 12) * load<f32>(at, 8);
    const to = links + <usize>load<i32>(at, 20) * 8;
    for (let l = links + <usize>load<i32>(at, 16) * 8; l < to; l += 8) change += load<f32>(l, 4) * load<f32>(faces + <usize>load<i32>(l) * 24, 8);
    store<f32>(<usize>load<u32>(at), load<f32>(at, 4) + change);
  }
}
