import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import { evaluateParameters } from '../expressions/index.ts';
import { namesUsed } from '../expressions/uses.ts';
import { bearingKeys, bearingText } from './changes.ts';
import { projectTexts } from './rename.ts';
import type { Project } from './schema.ts';

/** Digits to which values of parameters are told apart. */
const digits = 12;

const keys = bearingKeys.filter((key) => key !== 'parameters');
/** Parts that differ from point to point of a study; the others are the same object in all of them. */
const own: ReadonlySet<keyof Project> = new Set(['parameters', 'solve']);

interface Told {
  text: string;
  /** Parameters that it uses. */
  names: string[];
}

/**
 * Makes digests of what runs of projects solve, 64 hexadecimal digits: the same for projects that differ only in what no result depends on, such as titles,
 * boards, dials, how a parameter's value is written, and parameters that nothing uses. What projects share is read once.
 */
export function digester(): (project: Project) => string {
  let last: Project | null = null;
  const shared = new Map<keyof Project, Told>();
  const tell = (project: Project, key: keyof Project): Told => ({
    text: `${key}:${bearingText(project, key)}`,
    names: projectTexts({ [key]: project[key] }, 'expression').flatMap((t) => namesUsed(t.text)),
  });
  const told = (project: Project, key: keyof Project): Told => {
    if (own.has(key)) return tell(project, key);
    let known = shared.get(key);
    if (!known) shared.set(key, (known = tell(project, key)));
    return known;
  };
  return (project) => {
    if (last && !keys.every((key) => own.has(key) || project[key] === last![key])) shared.clear();
    last = project;
    const parts = keys.filter((key) => project[key] !== undefined).map((key) => told(project, key));
    const { summary } = evaluateParameters(project);
    const values = [...new Set(parts.flatMap((p) => p.names))]
      .sort()
      .flatMap((name) => (name in summary ? [`${name}=${summary[name].si.toPrecision(digits)} ${summary[name].measure}`] : []));
    return bytesToHex(sha256(utf8ToBytes([...parts.map((p) => p.text), ...values].join('\n'))));
  };
}

/** Digest of what a run of one project solves. */
export const solvedDigest = (project: Project): string => digester()(project);
