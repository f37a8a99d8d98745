import { type Port, portKind, portKinds, type Project, projectTexts } from '@jadebell/core/document';
import { faceName } from '@jadebell/core/geometry/naming';
import type { PortSurroundings } from '@jadebell/core/ports';
import { freeName } from '../project/edits.ts';
import { useModel } from '../project/model.ts';
import { useProject } from '../project/store.ts';
import { useStage } from '../project/stageState.ts';

/** The two conductors with the narrowest gap between them that no port stands in yet; none where there are no two. */
function nextPair(d: Project): [string, string] | undefined {
  const metal = useModel.getState().view.bodies.filter((b) => b.material.kind === 'conductor');
  if (metal.length < 2) return undefined;
  const fed = new Set(d.ports.flatMap((p) => ('between' in p ? [[...p.between].sort().join(' ')] : [])));
  let best: [string, string] = [metal[0].name, metal[1].name];
  let narrowest = Infinity;
  for (const [i, a] of metal.entries())
    for (const b of metal.slice(i + 1)) {
      const gap = Math.max(...[0, 1, 2].map((x) => Math.max(b.min[x] - a.max[x], a.min[x] - b.max[x])));
      if (!(gap > 0) || gap >= narrowest || fed.has([a.name, b.name].sort().join(' '))) continue;
      narrowest = gap;
      // The path runs towards larger coordinates.
      best = [0, 1, 2].some((x) => b.min[x] - a.max[x] === gap) ? [a.name, b.name] : [b.name, a.name];
    }
  return best;
}

/** Wires of the model, the picked one first, then those in which nothing stands yet. */
function wiresFor(d: Project): string[] {
  const all = useModel
    .getState()
    .view.bodies.filter((b) => b.wire && b.material.kind === 'conductor')
    .map((b) => b.name);
  const { picked } = useProject.getState();
  const taken = new Set(projectTexts({ ports: d.ports }, 'line').map((e) => e.text));
  const rank = (name: string): number => (name === picked ? 0 : taken.has(name) ? 2 : 1);
  return all.map((name, i) => ({ name, i })).sort((a, b) => rank(a.name) - rank(b.name) || a.i - b.i).map(({ name }) => name); // prettier-ignore
}

/** The face that is marked in the stage view, if one is. */
function pickedFace(): string {
  const { hit } = useStage.getState();
  const body = hit?.kind === 'face' ? useModel.getState().view.bodies.find((b) => b.name === hit.body) : undefined;
  return body && !body.sheet ? faceName(body, hit!.face!) : '';
}

/** The model around a new port. */
const surroundings = (d: Project): PortSurroundings => ({
  pair: nextPair(d),
  wires: wiresFor(d),
  face: pickedFace(),
  solids: useModel.getState().view.bodies.some((b) => !b.sheet),
});

/** Whether all there is are wires. */
export const onlyWires = (): boolean => {
  const { bodies } = useModel.getState().view;
  return bodies.length > 0 && bodies.every((b) => b.wire);
};

/** Kinds of ports that a project's solver takes, or that a model of wires alone could have, each with whether it can be added now. */
export function addablePorts(d: Project): { kind: Port['kind']; title: string; possible: boolean }[] {
  const around = surroundings(d);
  return portKinds
    .filter(({ solvers }) => solvers.includes(d.solve.solver) || (solvers.includes('moment') && onlyWires()))
    .map(({ kind, title, single, lacking }) => ({
      kind,
      title,
      possible: !(single && d.ports.some((p) => p.kind === kind)) && !lacking?.(around),
    }));
}

/** Adds a port of a kind; the first one in a wire chooses the solver that takes it, where all bodies are wires. */
export function addPort(kind: Port['kind']): void {
  useProject.getState().edit('add port', (d) => {
    const { make, stem, solvers, lacking } = portKind({ kind });
    const around = surroundings(d);
    if (lacking?.(around)) return d;
    const next = { ...d, ports: [...d.ports, make(freeName(d, 'ports', stem), around) as Port] };
    const wanted = !solvers.includes(d.solve.solver) && onlyWires() ? solvers[0] : d.solve.solver;
    return wanted === d.solve.solver ? next : { ...next, solve: { ...next.solve, solver: wanted } };
  });
}
