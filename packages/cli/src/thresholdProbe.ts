/** Runs cases with thresholds set from without and prints their rows: a process of its own, as modules read their constants once. */
const [names, set] = process.argv.slice(2);
(globalThis as { thresholds?: unknown }).thresholds = JSON.parse(set);
// Read after the table is there.
const { cases } = await import('@jadebell/verification');
const { nodeHost } = await import('@jadebell/node');
const rows: { row: string; part: number }[] = [];
const size = (v: number, unit: string): number => (unit === 'dB' ? 10 ** (v / 20) : v);
for (const c of cases.filter((one) => names.split(',').includes(one.name)))
  for (const { quantity, error, allowed, unit } of await c.run(await nodeHost(1)))
    rows.push({ row: `${c.title}: ${quantity}`, part: size(error, unit) / size(allowed, unit) });
console.log(JSON.stringify(rows));

export {};
