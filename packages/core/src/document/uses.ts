import { namesUsed } from '../expressions/uses.ts';
import { projectTexts } from './rename.ts';
import type { Line } from '../shapes/index.ts';
import type { Project } from './schema.ts';

const ofLine = new WeakMap<Line, string[]>();
const used = (part: Partial<Project>): string[] => projectTexts(part, 'expression').flatMap((e) => namesUsed(e.text));

/** Names of parameters that a line uses; kept with the line, as an edit leaves most of hundreds as they are. */
export function usedByLine(line: Line): string[] {
  let names = ofLine.get(line);
  if (!names) ofLine.set(line, (names = [...new Set(used({ lines: [line] }))]));
  return names;
}

/** Names of parameters that expressions of a project use, in its lines, ports and settings and in each other. */
export function parametersUsed(project: Project): Set<string> {
  const { lines, ...rest } = project;
  return new Set([...used(rest), ...lines.flatMap(usedByLine)]);
}
