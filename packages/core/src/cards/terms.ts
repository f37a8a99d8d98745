import { type ResultMeta, sKey, sName } from '../results/index.ts';

/** Terms of S by key, with how they are read: for each excitation its reflection, then what it sends on. */
export function termsOfS(meta: ResultMeta): { key: string; label: string; to: number; from: number }[] {
  return meta.excitations.flatMap((own, from) => {
    const all = meta.ports.map((_, to) => {
      return { key: sKey(meta.ports, to, own), label: sName(meta.ports, to, own), to, from };
    });
    return [all[own], ...all.filter((t) => t.to !== own)];
  });
}
/** Terms of S that are shown at first: out of each port's first mode for the first excitation. */
export function firstTerms(meta: ResultMeta): string[] {
  const { ports, excitations } = meta;
  return termsOfS(meta)
    .filter((t) => t.from === 0 && (t.to === excitations[0] || (ports[t.to].mode ?? 1) === 1))
    .slice(0, 4)
    .map((t) => t.key);
}
