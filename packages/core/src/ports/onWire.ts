import { z } from 'zod';
import { chosenLine, expression, type Field, number, type SentencePart, value } from '../entries/index.ts';
import { nearestName } from '../expressions/index.ts';
import { c0 } from '../numerics/constants.ts';
import { elementFields, elementSentence, referenceFields, referenceSentence } from './lumped.ts';
import { definePort, type Placing, type PortSurroundings } from './port.ts';
import { wireLength, type WirePlace } from './wires.ts';

/** A wire that is named. */
const wireName = (label: string): Field<string> => ({
  schema: chosenLine.describe('Name of the body that is a wire'),
  fresh: '',
  parts: (path): SentencePart[] => [{ ref: path, label, accepts: 'metal' }],
});
const placeAlong = number('place along the wire', '0.5', 'Place along the wire: 0 its start, 0.5 its middle, 1 its end');

/** A place along a wire by its name and a share of its length; `chips` are where the two stand. */
export function placeOn(
  { wires, fail }: Pick<Placing, 'wires' | 'fail'>,
  name: string,
  share: number,
  chips: { wire: string; at: string } = { wire: 'wire', at: 'at' },
): WirePlace | null {
  const n = wires.findIndex((w) => w.name === name);
  if (n < 0) {
    const near = nearestName(name, wires.map((w) => w.name).values());
    return fail(
      'port.no-wire',
      chips.wire,
      name ? `There is no wire named ${name}.` : 'No wire is chosen.',
      near ? `Did you mean ${near}?` : 'Choose a wire of the model.',
    );
  }
  if (!(share >= 0 && share <= 1))
    return fail('port.off-wire', chips.at, 'The place lies beyond the wire.', 'Give a number from 0, its start, to 1, its end.');
  return { wire: n, at: share * wireLength(wires[n]) };
}

const common = { family: 'wire', solvers: ['moment'], lacking: ({ wires }: PortSurroundings) => !wires.length } as const;

/** A port in a gap of no length in a wire; voltage and current count along the wire. */
export const wirePort = definePort({
  ...common,
  kind: 'wire-port',
  title: 'in a wire',
  stem: 'port1',
  role: 'port',
  fields: { wire: wireName('wire'), at: placeAlong, ...referenceFields },
  sentence: `Port {name} · in the wire {wire} at {at} of its length · ${referenceSentence}`,
  fresh: ({ wires }) => ({ wire: wires[0] ?? '' }),
  resolve({ name, wire }, v, placing) {
    const place = placeOn(placing, wire, v.at);
    return place && { port: { name, order: placing.order, place, resistance: v.resistance, reactance: v.reactance } };
  },
});

const tableColumns = [
  { label: 'frequency', quantity: 'frequency' as const },
  { label: 'resistance', quantity: 'resistance' as const },
  { label: 'reactance', quantity: 'resistance' as const },
];
/** Rows of frequency, resistance and reactance, or none. */
const table: Field<[string, string, string][] | undefined> = {
  schema: z
    .array(z.tuple([expression, expression, expression]))
    .max(1000)
    .optional()
    .describe('Frequency, resistance and reactance, rising; takes the place of R, L and C'),
  fresh: undefined,
  chips: (path, rows = []) =>
    rows.flatMap((_, i) => tableColumns.map((c, k) => ({ path: `${path}.${i}.${k}`, label: `row ${i + 1} ${c.label}`, quantity: c.quantity }))),
  parts: (path): SentencePart[] => [{ list: path, label: 'row', columns: tableColumns, least: 0 }],
};

/** A load in a wire: R, L, C, or an impedance over frequency. */
export const wireElement = definePort({
  ...common,
  kind: 'element-wire',
  title: 'load R, L, C in a wire, no port',
  stem: 'load1',
  role: 'load',
  fields: { wire: wireName('wire'), at: { ...placeAlong, fresh: '1' }, ...elementFields, table },
  sentence: `Load {name} · in the wire {wire} at {at} of its length · ${elementSentence} · or by table {table}`,
  fresh: ({ wires }) => ({ wire: wires[0] ?? '' }),
  resolve(entry, v, placing) {
    const { fail } = placing;
    const { name } = entry;
    const place = placeOn(placing, entry.wire, v.at);
    if (!place) return null;
    const rows = entry.table?.map((_, i): [number, number, number] => [v[`table.${i}.0`], v[`table.${i}.1`], v[`table.${i}.2`]]);
    if (rows?.length) {
      const fault = rows.findIndex(([f], i) => !(f > (i ? rows[i - 1][0] : 0)));
      if (fault >= 0) return fail('load.table', `table.${fault}.0`, 'The frequencies of the table do not rise.', 'Sort its rows.');
      const active = rows.findIndex(([, r]) => r < 0);
      if (active >= 0)
        return fail('load.active', `table.${active}.1`, 'A resistance of the table is negative.', 'A load takes power: give zero or more.');
      return { load: { name, place, load: { form: 'table', table: rows } } };
    }
    const { r, l, c } = v;
    const low = (['r', 'l', 'c'] as const).find((k) => v[k] < 0);
    if (low) return fail('load.negative', low, 'A part of the load is negative.', 'Give zero to leave it out, or a positive value.');
    if (r === 0 && l === 0 && c === 0)
      return fail('load.nothing', 'r', `${name} has no part that does anything.`, 'Give it R, L or C, or remove it.');
    return { load: { name, place, load: { form: entry.form, r, l, c } } };
  },
});

/** The two wires at the ends of a line, and its place along each. */
const twoWires: Field<[string, string]> = {
  schema: z.tuple([chosenLine, chosenLine]).describe('The wires at its two ends'),
  fresh: ['', ''],
  parts: (path): SentencePart[] => [
    { ref: `${path}.0`, label: 'first wire', accepts: 'metal' },
    'at',
    { chip: 'at.0' },
    'to',
    { ref: `${path}.1`, label: 'second wire', accepts: 'metal' },
    'at',
    { chip: 'at.1' },
  ],
};
const twoPlaces: Field<[string, string]> = {
  schema: z.tuple([expression, expression]).describe('Place along each, 0 to 1'),
  fresh: ['0.5', '0.5'],
  chips: (path) => ['first', 'second'].map((which, i) => ({ path: `${path}.${i}`, label: `place along the ${which} wire`, quantity: 'number' })),
  parts: () => [],
};

/** A transmission line without loss between two places on wires. */
export const wireLine = definePort({
  ...common,
  kind: 'element-line',
  title: 'transmission line between two wires',
  stem: 'line1',
  role: 'load',
  lacking: ({ wires }) => wires.length < 2,
  fields: {
    wires: twoWires,
    at: twoPlaces,
    impedance: value('resistance', 'impedance', '50 ohm', { positive: true }),
    length: value('length', 'electrical length', '100 mm', { positive: true, about: 'Electrical length, as in vacuum' }),
  },
  sentence: 'Transmission line {name} · from the wire {wires} · {impedance} · electrical length {length}',
  fresh({ wires: [first = '', second = ''] }) {
    const both: [string, string] = [first, second];
    return { wires: both };
  },
  resolve({ name, wires }, v, placing) {
    const places = wires.map((w, i) => placeOn(placing, w, v[`at.${i}`], { wire: `wires.${i}`, at: `at.${i}` }));
    return places[0] && places[1] && { line: { name, places: [places[0], places[1]], impedance: v.impedance, delay: v.length / c0 } };
  },
});
