/** Rounds of polling before a thread goes to sleep: about the length of a short step on a busy core. */
const SPIN: i32 = 4000;

/**
 * Sense-reversing barrier on two shared words (arrivals, generation). A short spin first, then a futex wait, so that an
 * oversubscribed machine does not burn its cores.
 */
export function barrier(at: usize, threads: i32): void {
  if (threads < 2) return;
  const generation = atomic.load<i32>(at, 4);
  if (atomic.add<i32>(at, 1) == threads - 1) {
    atomic.store<i32>(at, 0);
    atomic.add<i32>(at, 1, 4);
    atomic.notify(at + 4, threads);
    return;
  }
  for (let n = 0; n < SPIN; n++) {
    if (atomic.load<i32>(at, 4) != generation) return;
  }
  while (atomic.load<i32>(at, 4) == generation) atomic.wait<i32>(at + 4, generation, -1);
}
