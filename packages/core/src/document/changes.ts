import { projectTexts } from './rename.ts';
import { type Project, projectSchema, stakes } from './schema.ts';

/** Data as text whatever the order in which their keys were written: the server writes them in the schema's order. */
const plain = (v: unknown): string =>
  JSON.stringify(v, (_, x: unknown) =>
    x && typeof x === 'object' && !Array.isArray(x) ? Object.fromEntries(Object.entries(x).sort(([a], [b]) => (a < b ? -1 : 1))) : x,
  );

/** Parts of a project that a result depends on, with the words for them: all but those that the schema sets apart. */
const parts = Object.entries(projectSchema.shape)
  .map(([key, schema]) => ({ key: key as keyof Project, word: (stakes.get(schema) ?? { word: key }).word }))
  .filter((p): p is { key: keyof Project; word: string } => p.word !== null);

/** What differs between the model a run solved and the project now, in words; empty if nothing that matters to a result does. */
export function changesSince(solved: Project, now: Project): string[] {
  const out: string[] = [];
  for (const { key, word } of parts) {
    if (key === 'parameters') out.push(...changedParameters(solved, now));
    else if (bearingText(solved, key) !== bearingText(now, key)) out.push(`${word} changed`);
  }
  return out;
}

/** Keys of the parts of a project that a result depends on. */
export const bearingKeys: readonly (keyof Project)[] = parts.map((p) => p.key);
/** A part of a project as far as a result depends on it, as text. */
export const bearingText = (project: Project, key: keyof Project): string => plain(counted(project, key));

/** A project with the model that a run has solved: all that a result depends on is the run's, the rest stays. */
export function withModelOf(project: Project, solved: Project): Project {
  const rest = Object.fromEntries(Object.entries(project).filter(([key]) => !bearingKeys.includes(key as keyof Project)));
  const own = Object.fromEntries(Object.entries(solved).filter(([key, part]) => bearingKeys.includes(key as keyof Project) && part !== undefined));
  return { ...rest, ...own } as Project;
}

/** What of a part counts: a material that nothing is made of changes no result. */
function counted(project: Project, key: keyof Project): unknown {
  if (key !== 'materials') return project[key];
  const used = new Set(projectTexts(project, 'material').map((t) => t.text));
  return project.materials.filter((m) => used.has(m.name));
}

/** Of parameters only the values count, not their notes, groups and dials. */
function changedParameters(solved: Project, now: Project): string[] {
  const out: string[] = [];
  for (const g of now.parameters) {
    const old = solved.parameters.find((o) => o.name === g.name);
    if (!old) out.push(`${g.name} was added`);
    else if (old.expression !== g.expression) out.push(`${g.name}: ${old.expression} → ${g.expression}`);
  }
  for (const o of solved.parameters) if (!now.parameters.some((g) => g.name === o.name)) out.push(`${o.name} was removed`);
  return out;
}
