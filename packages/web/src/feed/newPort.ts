import type { Port, Project } from '@jadebell/core/document';
import { faceName } from '@jadebell/core/naming';
import { freeName } from '../project/edits.ts';
import { useModel } from '../project/model.ts';
import { useProject } from '../project/store.ts';
import { useStage } from '../stageview/stageState.ts';

/** Bodies of metal, as the model has them now. */
const conductors = (): string[] =>
  useModel
    .getState()
    .view.bodies.filter((b) => b.material.kind === 'conductor')
    .map((b) => b.name);

/** The two conductors with the narrowest gap between them that no port stands in yet. */
function nextPair(d: Project): [string, string] {
  const metal = useModel.getState().view.bodies.filter((b) => b.material.kind === 'conductor');
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

/** Wires of the model as it is now. */
const wires = (): string[] =>
  useModel
    .getState()
    .view.bodies.filter((b) => b.wire && b.material.kind === 'conductor')
    .map((b) => b.name);

/** The picked wire, or the first one in which nothing stands yet. */
function nextWire(d: Project): string {
  const all = wires();
  const { picked } = useProject.getState();
  if (picked && all.includes(picked)) return picked;
  const taken = new Set(d.ports.flatMap((p) => ('wire' in p ? [p.wire] : [])));
  return all.find((w) => !taken.has(w)) ?? all[0] ?? '';
}

/** Whether all there is are wires. */
export const onlyWires = (): boolean => {
  const { bodies } = useModel.getState().view;
  return bodies.length > 0 && bodies.every((b) => b.wire);
};

const newLoad = { form: 'series', r: '50 ohm', l: '0 nH', c: '0 pF' } as const;

interface NewPort {
  title: string;
  /** The only solver that takes it; absent: any. */
  solver?: Project['solve']['solver'];
  make(d: Project): Port;
  possible(): boolean;
}
/** Kinds of ports, loads and waves as they are added. */
export const newPort: Record<string, NewPort> = {
  'wire-port': {
    title: 'in a wire',
    solver: 'moment',
    possible: () => wires().length > 0,
    make: (d) => ({ kind: 'wire-port', name: freeName(d, 'ports', 'port1'), wire: nextWire(d), at: '0.5', resistance: '50 ohm' }),
  },
  'element-wire': {
    title: 'load R, L, C in a wire, no port',
    solver: 'moment',
    possible: () => wires().length > 0,
    make: (d) => ({ kind: 'element-wire', name: freeName(d, 'ports', 'load1'), wire: nextWire(d), at: '1', ...newLoad }),
  },
  'element-line': {
    title: 'transmission line between two wires',
    solver: 'moment',
    possible: () => wires().length > 1,
    make: (d) => {
      const [a, b] = wires();
      return { kind: 'element-line', name: freeName(d, 'ports', 'line1'), wires: [a, b], at: ['0.5', '0.5'], impedance: '50 ohm', length: '100 mm' };
    },
  },
  gap: {
    title: 'across the gap between two bodies',
    solver: 'fdtd',
    possible: () => conductors().length > 1,
    make: (d) => ({ kind: 'gap', name: freeName(d, 'ports', 'port1'), between: nextPair(d), resistance: '50 ohm' }),
  },
  path: {
    title: 'along a path between two points',
    solver: 'fdtd',
    possible: () => true,
    make: (d) => ({
      kind: 'path',
      name: freeName(d, 'ports', 'port1'),
      from: ['-1 mm', '0 mm', '0 mm'],
      to: ['1 mm', '0 mm', '0 mm'],
      width: '0 mm',
      across: 'y',
      resistance: '50 ohm',
    }),
  },
  'element-gap': {
    title: 'lumped R, L, C across a gap, no port',
    solver: 'fdtd',
    possible: () => conductors().length > 1,
    make: (d) => ({ kind: 'element-gap', name: freeName(d, 'ports', 'load1'), between: nextPair(d), ...newLoad }),
  },
  'element-path': {
    title: 'lumped R, L, C along a path, no port',
    solver: 'fdtd',
    possible: () => true,
    make: (d) => ({
      kind: 'element-path',
      name: freeName(d, 'ports', 'load1'),
      from: ['-1 mm', '0 mm', '0 mm'],
      to: ['1 mm', '0 mm', '0 mm'],
      width: '0 mm',
      across: 'y',
      ...newLoad,
    }),
  },
  'guide-face': {
    title: 'guided, on a face of a body',
    solver: 'fdtd',
    possible: () => useModel.getState().view.bodies.some((b) => !b.sheet),
    make: (d) => ({ kind: 'guide-face', name: freeName(d, 'ports', 'port1'), face: pickedFace(), modes: '1', shift: '0 mm' }),
  },
  'guide-plane': {
    title: 'guided, on a rectangle of a plane',
    solver: 'fdtd',
    possible: () => true,
    make: (d) => ({
      kind: 'guide-plane',
      name: freeName(d, 'ports', 'port1'),
      normal: 'x',
      into: 'up',
      at: '0 mm',
      from: ['-5 mm', '0 mm'],
      to: ['5 mm', '5 mm'],
      modes: '1',
      shift: '0 mm',
    }),
  },
  'plane-wave': {
    title: 'plane wave from a direction',
    possible: () => !useProject.getState().document?.ports.some((p) => p.kind === 'plane-wave'),
    make: (d) => ({ kind: 'plane-wave', name: freeName(d, 'ports', 'wave1'), theta: '0 deg', phi: '0 deg', tilt: '0 deg', minor: '0' }),
  },
};

/** The face that is marked in the stage view, if one is. */
function pickedFace(): string {
  const { hit } = useStage.getState();
  const body = hit?.kind === 'face' ? useModel.getState().view.bodies.find((b) => b.name === hit.body) : undefined;
  return body && !body.sheet ? faceName(body, hit!.face!) : '';
}

/** Adds a port of a kind; the first one in a wire chooses the solver that takes it, where all bodies are wires. */
export function addPort(kind: string): void {
  useProject.getState().edit('add port', (d) => {
    const entry = newPort[kind];
    if (!entry.possible()) return d;
    const next = { ...d, ports: [...d.ports, entry.make(d)] };
    return entry.solver === 'moment' && d.solve.solver !== 'moment' && onlyWires() ? { ...next, solve: { ...next.solve, solver: 'moment' } } : next;
  });
}
