import { type Problem, problem, type Project } from '../../document/index.ts';
import type { SceneGuide, ScenePort } from '../../ports/index.ts';
import type { Evaluate } from '../resolving.ts';
import type { GridScene } from '../types.ts';

/** The waves whose fields are asked for together; tells those that are not excited. */
export function resolveCombination(
  { solve }: Project,
  ports: readonly (ScenePort | SceneGuide)[],
  value: Evaluate,
  problems: Problem[],
): GridScene['combine'] {
  if (!solve.combine) return undefined;
  const tell = (code: string, chip: string, message: string, fix: string): void =>
    void problems.push(problem('error', code, { part: 'solve', chip }, message, fix));
  const out = solve.combine.map(({ port, mode, amplitude, phase }, i) => {
    const at = ports.find((p) => p.name === port && !('load' in p && p.load));
    if (!at) tell('combine.unknown', `combine.${i}`, `Fields are asked for of ${port}, which is no port.`, 'Remove it from the combination.');
    else if ('modes' in at && mode > at.modes)
      tell(
        'combine.mode',
        `combine.${i}`,
        `${port} has ${at.modes} modes, but mode ${mode} is to be combined.`,
        'Ask the port for more modes, or take another.',
      );
    if (solve.excite && !solve.excite.includes(port))
      tell(
        'combine.not-excited',
        `combine.${i}`,
        `Fields are asked for of ${port}, which is not excited.`,
        'Excite it, or remove it from the combination.',
      );
    return {
      port,
      mode,
      amplitude: value(amplitude, 'number', { part: 'solve', chip: `combine.${i}.amplitude` }),
      phase: value(phase, 'angle', { part: 'solve', chip: `combine.${i}.phase` }),
    };
  });
  if (!out.some((e) => e.amplitude !== 0))
    tell('combine.nothing', 'combine.0.amplitude', 'All waves whose fields are asked for have amplitude zero.', 'Give one of them an amplitude.');
  return out;
}
