import { beforeAll, describe, expect, test } from '@jest/globals';
import { projectSchema } from '../document/index.ts';
import { type Kernel, loadGeometryKernel, ModelCache } from '../geometry/index.ts';
import { buildScene } from '../scene/index.ts';
import { starters } from './index.ts';

let kernel: Kernel;
const cache = new ModelCache();
beforeAll(async () => {
  kernel = await loadGeometryKernel();
});

/** Errors of a starter's project, without those of what no starter can have yet. */
function faultsOf(kind: string, change: Record<string, string> = {}): string[] {
  const starter = starters.find((s) => s.kind === kind)!;
  const project = starter.build({ ...Object.fromEntries(starter.inputs.map((i) => [i.name, i.otherwise])), ...change });
  expect(projectSchema.safeParse(project).error?.issues ?? []).toEqual([]);
  const { problems, model } = buildScene(project, kernel, cache);
  expect(model.bodies.length).toBeGreaterThan(0);
  return problems
    .filter((p) => p.severity === 'error' && !['port.none', 'model.flat'].includes(p.code))
    .map((p) => `${p.place.part} ${p.place.name} ${p.place.chip}: ${p.message}`);
}

describe('every starter builds without a fault', () => {
  test.each(starters.map((s) => s.kind))('%s, as offered and at half and twice the frequency', (kind) => {
    expect(faultsOf(kind)).toEqual([]);
    const f = starters.find((s) => s.kind === kind)!.inputs.find((i) => i.kind === 'frequency');
    // Guides are of a fixed band.
    if (!f || /^guide|iris|horn-pyramidal/.test(kind)) return;
    for (const factor of [0.5, 2]) expect(faultsOf(kind, { f0: `${factor} * ${f.otherwise}` })).toEqual([]);
  });
});

test('boards of other material and thickness are taken into account', () => {
  for (const kind of ['patch-inset', 'patch-probe', 'microstrip', 'hairpin', 'coplanar', 'stripline', 'coupled-lines', 'inverted-f', 'tapered-slot'])
    expect(faultsOf(kind, { board: 'Alumina', h: '0.635 mm' })).toEqual([]);
});

test('each says its physics, and its values carry notes', () => {
  for (const s of starters) {
    const p = s.build(Object.fromEntries(s.inputs.map((i) => [i.name, i.otherwise])));
    expect(p.note!.length).toBeGreaterThan(40);
    for (const g of p.parameters) expect(g.note).toBeTruthy();
  }
  expect(new Set(starters.map((s) => s.kind)).size).toBe(starters.length);
});
