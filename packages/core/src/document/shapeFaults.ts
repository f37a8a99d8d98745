import type { z } from 'zod';
import { type Place, type Problem, problem } from '../entries/index.ts';

type Issue = z.core.$ZodIssue;

/** Parts of a document that are lists of entries with names. */
const listed = ['parameters', 'lines', 'materials', 'ports', 'recorders', 'sections', 'measures', 'studies', 'searches', 'variants'] as const;
const isListed = (part: unknown): part is (typeof listed)[number] => listed.includes(part as (typeof listed)[number]);

/** What a schema expects, and what stands there, in words. */
const kinds: Record<string, string> = {
  string: 'text',
  number: 'a number',
  int: 'a whole number',
  boolean: 'true or false',
  array: 'a list',
  tuple: 'a list',
  object: 'an entry with keys',
  record: 'an entry with keys',
  null: 'null',
};
const kindOf = (value: unknown): string => kinds[Array.isArray(value) ? 'array' : value === null ? 'null' : typeof value] ?? typeof value;
const shown = (value: unknown): string => {
  const text = JSON.stringify(value);
  return text !== undefined && text.length <= 40 ? text : kindOf(value);
};

/** The value at a path of a document. */
const valueAt = (data: unknown, path: readonly PropertyKey[]): unknown =>
  path.reduce<unknown>((at, key) => (typeof at === 'object' && at !== null ? (at as Record<PropertyKey, unknown>)[key] : undefined), data);

/** Where a path leads: entries by their names, or, where they have none, by their place counted from one. */
function placeOf(data: unknown, path: readonly PropertyKey[]): Place {
  const [part, index, ...rest] = path;
  if (!isListed(part) || typeof index !== 'number') return { part: 'file', ...(path.length ? { chip: path.join('.') } : {}) };
  const name = valueAt(data, [part, index, 'name']);
  return { part, name: typeof name === 'string' && name ? name : `number ${index + 1}`, ...(rest.length ? { chip: rest.join('.') } : {}) };
}

/** What is wrong at a place, in a sentence. */
function sentence(issue: Issue, found: unknown): string {
  switch (issue.code) {
    case 'invalid_type': {
      const wanted = kinds[issue.expected] ?? issue.expected;
      return found === undefined ? `It is missing: ${wanted} belongs here.` : `It is ${shown(found)}, where ${wanted} belongs.`;
    }
    case 'invalid_value':
      return `It is ${shown(found)}, but must be ${issue.values.length > 1 ? 'one of ' : ''}${issue.values.map((v) => JSON.stringify(v)).join(', ')}.`;
    case 'unrecognized_keys':
      return `It has ${issue.keys.length > 1 ? 'keys that are' : 'a key that is'} not known: ${issue.keys.join(', ')}.`;
    case 'invalid_union':
      return found === undefined ? 'It is missing.' : `It is ${shown(found)}, which is none of what may stand here.`;
    case 'too_small':
    case 'too_big': {
      const bound = String(issue.code === 'too_small' ? issue.minimum : issue.maximum);
      const one = bound === '1';
      const many = issue.origin === 'array' ? (one ? ' entry' : ' entries') : issue.origin === 'string' ? (one ? ' character' : ' characters') : '';
      return `It is ${many ? kindOf(found) : shown(found)}, but must ${many ? 'have' : 'be'} at ${issue.code === 'too_small' ? 'least' : 'most'} ${bound}${many}.`;
    }
    default:
      return `${issue.message.replace(/\.$/, '')}.`;
  }
}

/** What makes a document no project, each with the entry and key where it stands. */
export const shapeFaults = (data: unknown, issues: readonly Issue[]): Problem[] =>
  issues.map((issue) =>
    problem(
      'error',
      'file.shape',
      placeOf(data, issue.path),
      sentence(issue, valueAt(data, issue.path)),
      'Correct it in the file; docs/project-format.md says what belongs there.',
    ),
  );
