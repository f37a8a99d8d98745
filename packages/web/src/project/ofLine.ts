import type { View } from '../workers/protocol.ts';

interface Made {
  bodies: View['bodies'];
  curves: View['curves'];
}
const nothing: Made = { bodies: [], curves: [] };

function madeByLines({ bodies, curves }: View): Map<string, Made> {
  const made = new Map<string, Made>();
  const of = (line: string): Made => {
    const own = made.get(line) ?? { bodies: [], curves: [] };
    made.set(line, own);
    return own;
  };
  for (const b of bodies) of(b.line).bodies.push(b);
  for (const c of curves) of(c.name).curves.push(c);
  return made;
}
const known = new WeakMap<View, Map<string, Made>>();

/** What a line of the model makes; found for all lines at once, as every row of a long ledger asks. */
export function madeBy(view: View, line: string): Made {
  let all = known.get(view);
  if (!all) known.set(view, (all = madeByLines(view)));
  return all.get(line) ?? nothing;
}
