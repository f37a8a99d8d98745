import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import { evaluateParameters } from '../expressions/index.ts';
import { namesUsed } from '../expressions/uses.ts';
import { bearingParts } from './changes.ts';
import { projectTexts } from './rename.ts';
import type { Project } from './schema.ts';

/** Digits to which values of parameters are told apart. */
const digits = 12;

/**
 * A digest of what a run of a project solves, 64 hexadecimal digits: the same for projects that differ only in what no result depends on, such as titles,
 * boards, dials, how a parameter's value is written, and parameters that nothing uses.
 */
export function solvedDigest(project: Project): string {
  const { summary } = evaluateParameters(project);
  const { parameters: _, ...rest } = project;
  const used = new Set(projectTexts(rest, 'expression').flatMap((t) => namesUsed(t.text)));
  const values = [...used]
    .sort()
    .flatMap((name) => (name in summary ? [`${name}=${summary[name].si.toPrecision(digits)} ${summary[name].measure}`] : []));
  const texts = bearingParts(project)
    .filter(([key]) => key !== 'parameters')
    .map(([key, text]) => `${key}:${text}`);
  return bytesToHex(sha256(utf8ToBytes([...texts, ...values].join('\n'))));
}
