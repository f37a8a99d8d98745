import { type Problem, problem } from '../document/index.ts';
import type { AnyPortKind, SceneSource } from '../ports/index.ts';

/** A source that excites a structure from without, with its kind. */
export interface PlacedSource {
  kind: AnyPortKind;
  placed: SceneSource;
}

/** What stands in the way of the sources of a scene: there may be one, which tells of its own faults. */
export function sourceFaults(
  sources: readonly PlacedSource[],
  faults: (source: PlacedSource) => ReturnType<NonNullable<AnyPortKind['onGrid']>> | undefined,
): Problem[] {
  if (!sources.length) return [];
  const several =
    sources.length > 1
      ? [
          problem(
            'error',
            'source.several',
            { part: 'ports', name: sources[1].placed.name },
            `${sources[0].placed.name} and ${sources[1].placed.name} both excite the structure from without.`,
            'Keep one; excite by the other in a run of its own.',
          ),
        ]
      : [];
  const own = (faults(sources[0]) ?? []).map(({ severity = 'error' as const, code, message, fix }) =>
    problem(severity, code, { part: 'ports', name: sources[0].placed.name }, message, fix),
  );
  return [...several, ...own];
}
