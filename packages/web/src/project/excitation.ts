import { type Port, type Project, portKind } from '@jadebell/core/document';
import { removeEntry } from './edits.ts';

export type Wave = NonNullable<Project['solve']['combine']>[number];

/** Ports that can be excited. */
export const feedingPorts = (d: Project): Port[] => d.ports.filter((p) => portKind(p).role === 'port');

/** Settings with another list of waves; an empty one is none. */
const withWaves = ({ combine: _, ...solve }: Project['solve'], waves: Wave[] | undefined): Project['solve'] =>
  waves?.length ? { ...solve, combine: waves } : solve;

/** Takes a port away, also from those to excite. */
export function removePort(d: Project, name: string): Project {
  const next = removeEntry(d, 'ports', name);
  const { excite, ...solve } = next.solve;
  const rest = excite?.filter((n) => n !== name);
  const kept = withWaves(
    solve,
    solve.combine?.filter((w) => w.port !== name),
  );
  return { ...next, solve: rest?.length ? { ...kept, excite: rest } : kept };
}

/** Turns the excitation of a port on or off; one at least stays on, and all on is the same as no choice. Waves of a port that is off go with it. */
export function toggleExcitation(d: Project, name: string): Project {
  const all = feedingPorts(d).map((p) => p.name);
  const { excite: old = all, ...rest } = d.solve;
  const next = old.includes(name) ? old.filter((n) => n !== name) : all.filter((n) => n === name || old.includes(n));
  if (!next.length) return d;
  const solve = withWaves(
    rest,
    rest.combine?.filter((w) => next.includes(w.port)),
  );
  return { ...d, solve: next.length === all.length ? solve : { ...solve, excite: next } };
}

/** Of what the recorded fields are: the first excitation, each by itself, or all excited ports together, alike and in phase. */
export function withFieldsOf(d: Project, how: 'first' | 'each' | 'together'): Project {
  const ports = d.solve.excite ?? feedingPorts(d).map((p) => p.name);
  const { keep: _, ...solve } = withWaves(
    d.solve,
    how === 'together' ? ports.map((port) => ({ port, mode: 1, amplitude: '1', phase: '0 deg' })) : undefined,
  );
  return { ...d, solve: how === 'each' ? { ...solve, keep: 'each' } : solve };
}

/** Changes one wave of the combination, or takes it away. */
export const withWave = (d: Project, at: number, wave: Wave | null): Project => ({
  ...d,
  solve: withWaves(
    d.solve,
    d.solve.combine?.flatMap((w, i) => (i === at ? (wave ? [wave] : []) : [w])),
  ),
});

/** Adds one more wave, of the first excited port. */
export const withAnotherWave = (d: Project): Project => {
  const port = (d.solve.excite ?? feedingPorts(d).map((p) => p.name))[0];
  return { ...d, solve: withWaves(d.solve, [...(d.solve.combine ?? []), { port, mode: 1, amplitude: '1', phase: '0 deg' }]) };
};

/** Lets a wave light wires, and nothing else. */
export const lightOn = (d: Project, name: string): Project => ({ ...d, solve: { ...d.solve, excite: [name] } });

/** Lets a port in a wire send or not; the first one that does puts out a wave. One port at least goes on sending. */
export function sendOn(d: Project, name: string, on: boolean): Project {
  const ports = d.ports.filter((p) => portKind(p).role === 'port' && portKind(p).family === 'wire').map((p) => p.name);
  const waves = d.ports.filter((p) => portKind(p).role === 'source').map((p) => p.name);
  const lit = waves.some((w) => d.solve.excite?.includes(w) ?? true);
  const before = lit ? [] : (d.solve.excite ?? ports);
  const next = ports.filter((p) => (p === name ? on : before.includes(p)));
  if (!next.length) return d;
  const { excite: _, ...solve } = d.solve;
  return { ...d, solve: next.length === ports.length && !waves.length ? solve : { ...solve, excite: next } };
}
