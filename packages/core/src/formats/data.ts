import { type DataSet, packNumbers } from '../document/index.ts';
import { parseTable } from './table.ts';
import { readTouchstone } from './touchstone.ts';

const frequencyUnits: Record<string, number> = { hz: 1, khz: 1e3, mhz: 1e6, ghz: 1e9, thz: 1e12 };

/** A data set from columns: x, then real columns, complex ones as pairs. */
function packed(
  name: string,
  source: string,
  over: DataSet['over'],
  columns: DataSet['columns'],
  values: readonly ArrayLike<number>[],
  reference?: number,
): DataSet {
  const n = values[0].length;
  const all = new Float64Array(n * values.length);
  values.forEach((v, k) => all.set(Array.from(v), k * n));
  return { name, source, over, columns, ...(reference ? { reference } : {}), data: packNumbers(all) };
}

/**
 * Curves of a file to compare with: Touchstone by the ending of its name (.s1p, .s2p, ..., .ts), else a table whose first column is frequency (its unit
 * in the head, hertz else) or another number. Throws an Error with a sentence that says where and what.
 */
export function readData(text: string, file: string): DataSet {
  const name = file.replace(/\.[^.]*$/, '').slice(0, 80) || 'data';
  const ending = /\.s(\d+)p$/i.exec(file);
  if (ending || /\.ts$/i.test(file)) return fromTouchstone(text, name, file, ending ? Number(ending[1]) : null);
  return fromTable(text, name, file);
}

function fromTouchstone(text: string, name: string, file: string, ports: number | null): DataSet {
  const { frequency, s, references } = readTouchstone(text, ports);
  if (!frequency.length) throw new Error('The file holds no record of S-parameters.');
  const columns: DataSet['columns'] = [];
  const values: ArrayLike<number>[] = [frequency];
  s.forEach((row, to) =>
    row.forEach((c, from) => {
      columns.push({ name: `S${to + 1}${s.length > 9 ? ',' : ''}${from + 1}`, complex: true });
      values.push(c.map((v) => v[0]), c.map((v) => v[1])); // prettier-ignore
    }),
  );
  return packed(name, file.slice(0, 200), 'frequency', columns, values, references[0][0]);
}

function fromTable(text: string, name: string, file: string): DataSet {
  const rows = parseTable(text).filter((r) => !/^[!#;]/.test(r[0]));
  const number = (t: string): number => (t === '' ? NaN : Number(t));
  const headed = rows.length > 0 && !Number.isFinite(number(rows[0][0]));
  const head = headed ? rows[0] : rows[0]?.map((_, i) => (i ? `column ${i + 1}` : 'x'));
  const body = headed ? rows.slice(1) : rows;
  if (!body.length || !head || head.length < 2)
    throw new Error('The table needs a column of x and at least one of values, and a row below its head.');
  const count = Math.min(head.length, 401);
  const columns = Array.from({ length: count }, () => new Float64Array(body.length).fill(NaN));
  body.forEach((row, i) => {
    for (let c = 0; c < count; c++) columns[c][i] = number(row[c] ?? '');
    if (!Number.isFinite(columns[0][i])) throw new Error(`Row ${i + 1 + (headed ? 1 : 0)} does not begin with a number: ‘${row[0].slice(0, 30)}’.`);
  });
  const unit = /[([]\s*([kMGT]?hz)\s*[)\]]/i.exec(head[0])?.[1].toLowerCase();
  const isFrequency = unit !== undefined || /freq/i.test(head[0]);
  const scale = frequencyUnits[unit ?? 'hz'];
  // Rows in order of x, as curves are read.
  const order = Array.from(columns[0], (_, i) => i).sort((a, b) => columns[0][a] - columns[0][b]);
  const values = columns.map((c, k) => order.map((i) => (k === 0 && isFrequency ? c[i] * scale : c[i])));
  const names = uniqueNames(head.slice(1, count));
  return packed(name, file.slice(0, 200), isFrequency ? 'frequency' : 'number', names.map((n) => ({ name: n, complex: false })), values); // prettier-ignore
}

function uniqueNames(names: readonly string[]): string[] {
  const seen = new Set<string>();
  return names.map((raw, i) => {
    const name = raw.replaceAll('/', ' per ').slice(0, 70) || `column ${i + 2}`;
    let own = name;
    for (let n = 2; seen.has(own); n++) own = `${name} ${n}`;
    seen.add(own);
    return own;
  });
}
