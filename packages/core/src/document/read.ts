import { type Problem, problem } from '../entries/index.ts';
import { currentDocument } from './migrate.ts';
import { shapeFaults } from './shapeFaults.ts';
import { documentFormat, documentVersion, type Project, projectSchema } from './schema.ts';

/** Longest project text that is read, in characters. */
export const maxProjectText = 24_000_000;

/** Faults of a file that are told at once. */
const mostFaults = 20;

type Reading = { project: Project; problems: [] } | { project: null; problems: Problem[] };

const file = { part: 'file' } as const;
const refuse = (code: string, message: string, fix: string): Reading => ({
  project: null,
  problems: [problem('error', code, file, message, fix)],
});

/**
 * Reads project text. Never throws: text that is no project gives problems that say where and what.
 * Names of parameters, lines, ports, recorders and sections must be unique each among their kind.
 */
export function readProject(text: string): Reading {
  if (text.length > maxProjectText)
    return refuse('file.too-large', `The file has ${text.length} characters; a project has at most ${maxProjectText}.`, 'Choose a project file.');
  let data: unknown;
  try {
    data = JSON.parse(text);
  } catch (error) {
    return refuse('file.not-json', `This is not a JSON file: ${(error as Error).message}.`, 'Choose a project exported from Jade Bell.');
  }
  return readProjectData(data);
}

/** The same for parsed JSON, of any version of the format that this program knows. */
export function readProjectData(given: unknown): Reading {
  const data = currentDocument(given);
  const head = data as { format?: unknown; version?: unknown } | null;
  if (typeof head !== 'object' || head === null || head.format !== documentFormat)
    return refuse(
      'file.not-a-project',
      `This file is not a Jade Bell project: it has no "format": "${documentFormat}".`,
      'Choose a project exported from Jade Bell.',
    );
  if (head.version !== documentVersion)
    return refuse(
      'file.version',
      `The file has format version ${String(head.version)}; this program reads up to version ${documentVersion}.`,
      'Open it with the version of the program that wrote it.',
    );
  const parsed = projectSchema.safeParse(data);
  if (!parsed.success)
    return {
      project: null,
      problems: shapeFaults(data, parsed.error.issues.slice(0, mostFaults)),
    };
  const twice = duplicateNames(parsed.data);
  return twice.length ? { project: null, problems: twice } : { project: parsed.data, problems: [] };
}

/** Entries of one part of a project that share a name, each told where it stands. */
export function duplicateNames(project: Project): Problem[] {
  const found: Problem[] = [];
  for (const part of ['parameters', 'lines', 'ports', 'recorders', 'sections', 'materials', 'measures', 'studies', 'searches', 'variants'] as const) {
    const seen = new Set<string>();
    for (const { name } of project[part] ?? []) {
      if (seen.has(name))
        found.push(
          problem('error', 'name.twice', { part, name }, `The name ${name} is used twice among the ${part}.`, 'Give one of them another name.'),
        );
      seen.add(name);
    }
  }
  return found;
}
