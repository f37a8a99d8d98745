import type { Project } from '@jadebell/core/document';

/** Data as text whatever the order in which their keys were written: the server writes them in the schema's order. */
const plain = (v: unknown): string =>
  JSON.stringify(v, (_, x: unknown) =>
    x && typeof x === 'object' && !Array.isArray(x) ? Object.fromEntries(Object.entries(x).sort(([a], [b]) => (a < b ? -1 : 1))) : x,
  );

/** What differs between the model a run solved and the project now, in words; empty if nothing that matters to a result does. */
export function changesSince(solved: Project, now: Project): string[] {
  const out: string[] = [];
  for (const g of now.givens) {
    const old = solved.givens.find((o) => o.name === g.name);
    if (!old) out.push(`${g.name} was added`);
    else if (old.expression !== g.expression) out.push(`${g.name}: ${old.expression} → ${g.expression}`);
  }
  for (const o of solved.givens) if (!now.givens.some((g) => g.name === o.name)) out.push(`${o.name} was removed`);
  const names: [keyof Project, string][] = [
    ['lines', 'bodies'],
    ['materials', 'materials'],
    ['ports', 'ports'],
    ['boundaries', 'boundaries'],
    ['symmetry', 'symmetry'],
    ['margin', 'distance to the boundary'],
    ['recorders', 'recorders'],
    ['recordAt', 'recorded frequencies'],
    ['solve', 'solve settings'],
  ];
  for (const [key, word] of names) if (plain(solved[key]) !== plain(now[key])) out.push(`${word} changed`);
  return out;
}
