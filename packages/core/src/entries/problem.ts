/** Where in a project a problem stands, so that an editor can show it there. */
export interface Place {
  part:
    | 'file'
    | 'parameters'
    | 'lines'
    | 'materials'
    | 'ports'
    | 'boundaries'
    | 'recorders'
    | 'sections'
    | 'measures'
    | 'studies'
    | 'searches'
    | 'variants'
    | 'band'
    | 'solve'
    | 'machine';
  /** Name of the parameter, line, port or recorder. */
  name?: string;
  /** Path of the chip inside it, e.g. 'size.0'. */
  chip?: string;
}

/** Something a user can act on: where it is, what is wrong, how to mend it. Errors stop a run; warnings do not. */
export interface Problem {
  severity: 'error' | 'warning';
  /** Stable identifier for scripts, e.g. 'expression.unknown-name'. */
  code: string;
  place: Place;
  /** What is wrong, in one sentence. */
  message: string;
  /** What to do about it, in one sentence. */
  fix: string;
}

/** A problem: what is wrong in words, where, and what to do about it. */
export const problem = (severity: Problem['severity'], code: string, place: Place, message: string, fix: string): Problem => ({
  severity,
  code,
  place,
  message,
  fix,
});

/** A chip by its path as a reader knows it: a row of a list of frequencies by its number. */
const chipName = (path: string): string =>
  path.replace(/^(?:recordAt\.(\d+)|frequencies\.(\d+)\.0)$/, (_, p, q) => `frequency ${Number(p ?? q) + 1}`);

/** 'line film, size.2' and the like. */
export function placeName(place: Place): string {
  const singular: Record<Place['part'], string> = {
    file: 'file',
    parameters: 'parameter',
    lines: 'line',
    materials: 'material',
    ports: 'port',
    boundaries: 'boundary',
    recorders: 'recorder',
    sections: 'section',
    measures: 'measure',
    studies: 'study',
    searches: 'search',
    variants: 'variant',
    band: 'band',
    solve: 'solve settings',
    machine: 'machine',
  };
  return `${singular[place.part]}${place.name ? ` ${place.name}` : ''}${place.chip ? `, ${chipName(place.chip)}` : ''}`;
}

/** One line for a terminal or a log: severity, place, message, fix. */
export const problemText = (p: Problem): string => `${p.severity}: ${placeName(p.place)}: ${p.message} ${p.fix}`;

/** An exception that carries problems; thrown where a function cannot return them. */
export class ProblemError extends Error {
  constructor(readonly problems: Problem[]) {
    super(problems.map(problemText).join('\n'));
    this.name = 'ProblemError';
  }
}
