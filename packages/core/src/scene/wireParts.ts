import { type Place, type Port, portChips, type Problem, problem } from '../document/index.ts';
import { evaluateChips, nearestName, type Scope } from '../expressions/index.ts';
import { c0 } from '../numerics/constants.ts';
import { type SceneWire, wireLength, type WireLine, type WireLoad, type WirePlace, type WirePort } from './wires.ts';

/** Kinds of ports that stand in wires. */
export type OnWire = Extract<Port, { kind: 'wire-port' | 'element-wire' | 'element-line' }>;
export const isOnWire = (p: Port): p is OnWire => p.kind === 'wire-port' || p.kind === 'element-wire' || p.kind === 'element-line';

/** Ports, loads and lines as they are gathered. */
export interface WireParts {
  ports: WirePort[];
  loads: WireLoad[];
  lines: WireLine[];
}

/** A place along a wire by its name and a share of its length. */
export function placeOn(
  wires: readonly SceneWire[],
  name: string,
  share: number,
  place: Place,
  chips: { wire: string; at: string },
  problems: Problem[],
): WirePlace | null {
  const n = wires.findIndex((w) => w.name === name);
  if (n < 0) {
    const near = nearestName(name, wires.map((w) => w.name).values());
    problems.push(
      problem(
        'error',
        'port.no-wire',
        { ...place, chip: chips.wire },
        name ? `There is no wire named ${name}.` : 'No wire is chosen.',
        near ? `Did you mean ${near}?` : 'Choose a wire of the model.',
      ),
    );
    return null;
  }
  if (!(share >= 0 && share <= 1)) {
    problems.push(
      problem(
        'error',
        'port.off-wire',
        { ...place, chip: chips.at },
        'The place lies beyond the wire.',
        'Give a number from 0, its start, to 1, its end.',
      ),
    );
    return null;
  }
  return { wire: n, at: share * wireLength(wires[n]) };
}

/** Places a port, load or line of the document in the wires; tells what is wrong. */
export function resolveOnWire(port: OnWire, order: number, scope: Scope, wires: readonly SceneWire[], out: WireParts, problems: Problem[]): void {
  const place: Place = { part: 'ports', name: port.name };
  const { values: v, problems: found } = evaluateChips(port, portChips(port), scope, place);
  problems.push(...found);
  if (!v) return;
  if (port.kind === 'element-line') {
    const places = port.wires.map((w, i) => placeOn(wires, w, v[`at.${i}`], place, { wire: `wires.${i}`, at: `at.${i}` }, problems));
    if (places[0] && places[1]) out.lines.push({ name: port.name, places: [places[0], places[1]], impedance: v.impedance, delay: v.length / c0 });
    return;
  }
  const at = placeOn(wires, port.wire, v.at, place, { wire: 'wire', at: 'at' }, problems);
  if (!at) return;
  if (port.kind === 'wire-port') {
    out.ports.push({ name: port.name, order, place: at, resistance: v.resistance, reactance: v.reactance });
    return;
  }
  const table = port.table?.map((_, i): [number, number, number] => [v[`table.${i}.0`], v[`table.${i}.1`], v[`table.${i}.2`]]);
  if (table?.length) {
    const fault = table.findIndex(([f], i) => !(f > (i ? table[i - 1][0] : 0)));
    const active = table.findIndex(([, r]) => r < 0);
    if (fault >= 0)
      problems.push(
        problem('error', 'load.table', { ...place, chip: `table.${fault}.0` }, 'The frequencies of the table do not rise.', 'Sort its rows.'),
      );
    else if (active >= 0)
      problems.push(
        problem(
          'error',
          'load.active',
          { ...place, chip: `table.${active}.1` },
          'A resistance of the table is negative.',
          'A load takes power: give zero or more.',
        ),
      );
    else out.loads.push({ name: port.name, place: at, load: { form: 'table', table } });
    return;
  }
  const { r, l, c } = v;
  const low = (['r', 'l', 'c'] as const).find((k) => v[k] < 0);
  if (low) {
    problems.push(
      problem(
        'error',
        'load.negative',
        { ...place, chip: low },
        'A part of the load is negative.',
        'Give zero to leave it out, or a positive value.',
      ),
    );
    return;
  }
  if (r === 0 && l === 0 && c === 0) {
    problems.push(
      problem('error', 'load.nothing', { ...place, chip: 'r' }, `${port.name} has no part that does anything.`, 'Give it R, L or C, or remove it.'),
    );
    return;
  }
  out.loads.push({ name: port.name, place: at, load: { form: port.form, r, l, c } });
}
