import * as L from './layout';

/**
 * Faces cut by curved metal, and their lenders. The plain sweep changes H as if each face were whole and alone; what it really
 * changes is a symmetric mixture: its own change times a factor, and those of linked faces times theirs.
 */
export function cutSave(faces: usize, first: i32, end: i32): void {
  for (let at = faces + <usize>first * L.CUT_FACE_SIZE, last = faces + <usize>end * L.CUT_FACE_SIZE; at < last; at += L.CUT_FACE_SIZE)
    store<f32>(at, load<f32>(<usize>load<u32>(at, L.CUT_FACE_FIELD)), L.CUT_FACE_BEFORE);
}

/** Takes down the plain changes. */
export function cutChanges(faces: usize, first: i32, end: i32): void {
  for (let at = faces + <usize>first * L.CUT_FACE_SIZE, last = faces + <usize>end * L.CUT_FACE_SIZE; at < last; at += L.CUT_FACE_SIZE)
    store<f32>(at, load<f32>(<usize>load<u32>(at, L.CUT_FACE_FIELD)) - load<f32>(at, L.CUT_FACE_BEFORE), L.CUT_FACE_CHANGE);
}

/** Puts the mixtures in their place. */
export function cutMixed(faces: usize, links: usize, first: i32, end: i32): void {
  for (let at = faces + <usize>first * L.CUT_FACE_SIZE, last = faces + <usize>end * L.CUT_FACE_SIZE; at < last; at += L.CUT_FACE_SIZE) {
    let change = load<f32>(at, L.CUT_FACE_OWN) * load<f32>(at, L.CUT_FACE_CHANGE);
    const to = links + <usize>load<i32>(at, L.CUT_FACE_END) * L.CUT_LINK_SIZE;
    for (let l = links + <usize>load<i32>(at, L.CUT_FACE_FIRST) * L.CUT_LINK_SIZE; l < to; l += L.CUT_LINK_SIZE)
      change += load<f32>(l, L.CUT_LINK_FACTOR) * load<f32>(faces + <usize>load<i32>(l, L.CUT_LINK_FACE) * L.CUT_FACE_SIZE, L.CUT_FACE_CHANGE);
    store<f32>(<usize>load<u32>(at, L.CUT_FACE_FIELD), load<f32>(at, L.CUT_FACE_BEFORE) + change);
  }
}
