import { readFile } from 'node:fs/promises';
import { basename } from 'node:path';
import { type Project, projectSchema } from '@jadebell/core/document';
import { evaluateExpression, evaluateParameters, type Scope } from '@jadebell/core/expressions';
import { type Exporting, exportKinds } from '@jadebell/core/formats';
import { fieldShares, keepsEach, resultFor } from '@jadebell/core/reading';
import { channelKeys, referenceOf, type ResultSet, unpackProject, unpackResult } from '@jadebell/core/results';
import { type Options, UsageError } from './options.ts';
import { hdf5Here } from './hdf5.ts';
import { out } from './print.ts';
import { writeFiles } from './writeFiles.ts';

const listed = (names: readonly string[]): string => [...new Set(names)].join(', ') || 'none';
/** Throws where a name is none of some. */
function know(option: string, name: string, what: string, names: readonly string[]): void {
  if (!names.includes(name)) throw new UsageError(`--${option}: the result has no ${what} '${name}'. There are: ${listed(names)}.`);
}

/** Values of texts such as '2.4 GHz' or a parameter of the project that was solved, SI. */
function valuesOf(option: string, texts: readonly string[], quantity: 'frequency' | 'length', scope: Scope): number[] {
  return texts.map((text) => {
    const found = evaluateExpression(text, quantity, scope, { part: 'parameters' });
    if ('problem' in found) throw new UsageError(`--${option} ${text}: ${found.problem.message} ${found.problem.fix}`);
    return found.si;
  });
}

/** What the options ask for, held against what the result has. */
function askedOf(result: ResultSet, project: Project | null, title: string, options: Options): Exporting {
  const { meta } = result;
  const scope = evaluateParameters(project ?? { parameters: [] });
  const [keys, ports] = [channelKeys(meta.ports), meta.ports.map((p) => p.name)];
  for (const [name] of options.reference) {
    if (name) know('reference', name, 'channel', keys);
    const meant = meta.ports.filter((_, c) => !name || keys[c] === name);
    if (!meant.some(referenceOf))
      throw new UsageError(`--reference: ${name || 'no channel'} ${name ? 'is a mode without an impedance' : 'has an impedance'} to come from, as modes of hollow guides have none; they keep their own.`); // prettier-ignore
  }
  for (const [name] of options.shift) know('shift', name, 'port', ports);
  for (const { channel } of options.excite)
    know('excite', channel, 'channel that was excited', meta.excitations.map((c) => keys[c])); // prettier-ignore
  if (options.excite.length && !keepsEach(meta))
    throw new UsageError('--excite: the result keeps the fields of one excitation alone. Solve it with those of each kept.');
  const recorders = [...meta.recorded, ...(meta.wires ?? []), ...(meta.probes ?? [])].map((r) => r.name);
  for (const name of options.of) know('of', name, 'recorder or wire', recorders);
  const shares = fieldShares(meta, options.excite.length ? { name: 'asked', waves: options.excite } : null);
  return {
    result: resultFor(result, shares),
    title,
    mixed: shares.length > 1,
    view: {
      gaps: options.gaps ?? 'kept',
      version: options.touchstone ?? '1',
      references: Object.fromEntries(options.reference),
      shifts: Object.fromEntries(options.shift.map(([port, text]) => [port, valuesOf('shift', [text], 'length', scope)[0]])),
    },
    only: options.of,
    frequencies: valuesOf('at', options.at, 'frequency', scope),
    ...(options.fields.length ? { fields: options.fields } : {}),
    hdf5: hdf5Here,
  };
}

function readKept(file: string, bytes: Uint8Array): ResultSet {
  try {
    return unpackResult(bytes);
  } catch (error) {
    throw new Error(`${file} is no kept result: ${(error as Error).message}. Give the -result.zip that solve has written.`, { cause: error });
  }
}

/**
 * Writes the files of a kept result that are asked for.
 * @throws UsageError where the result has nothing of a name that is asked for; Error where the file is no result.
 */
export async function exportResult(file: string, options: Options): Promise<void> {
  const bytes = await readFile(file);
  const result = readKept(file, bytes);
  const project = unpackProject(bytes, (data) => projectSchema.safeParse(data).data ?? null);
  const stem = basename(file).replace(/(-result)?\.zip$/i, '');
  const asked = askedOf(result, project, project?.title ?? stem, options);
  if (!options.out) {
    for (const kind of exportKinds) {
      const files = kind.files(asked);
      if (files.length) out(`${kind.key.padEnd(14)}${String(files.length).padStart(4)} ${files.length > 1 ? 'files' : 'file '}  ${kind.title}`);
    }
    return;
  }
  const kinds = exportKinds.filter((k) => !options.as.length || options.as.includes(k.key));
  const made = kinds.flatMap((k) => k.files(asked));
  const empty = options.as.filter((key) => !exportKinds.find((k) => k.key === key)!.files(asked).length);
  if (empty.length) throw new UsageError(`--as: the result has nothing of ${listed(empty)}. Leave --out away to see what it has.`);
  await writeFiles(options.out, stem, made, options.quiet);
}
