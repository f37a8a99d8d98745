// Files of results: one definition a kind, from which the server's downloads and the command line's export are made. A new kind is a line here.
import type { ExportKind } from './kind.ts';
import { curves, modeFields, portModes, portSignals, summary, touchstone } from './network.ts';
import { farField, figures, pattern } from './pattern.ts';
import { fields, tables, values } from './recorded.ts';
import { sourcePower, sweep } from './sources.ts';
import { probes, wireCurrents } from './wires.ts';

export { type Exporting, type ExportKind, type FieldForm, fieldForms, type ResultFile } from './kind.ts';

/** Every kind of file that results have. */
export const exportKinds: readonly ExportKind[] = [
  touchstone,
  curves,
  summary,
  portModes,
  modeFields,
  portSignals,
  pattern,
  farField,
  figures,
  tables,
  values,
  fields,
  wireCurrents,
  probes,
  sweep,
  sourcePower,
];
