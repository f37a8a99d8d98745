/** @jest-environment jsdom */
import { beforeEach, expect, test } from '@jest/globals';
import { emptyProject, type Line, shapes, withPath } from '@jadebell/core/document';
import { evaluateModel, isSheet, type Kernel, loadGeometryKernel } from '@jadebell/core/geometry';
import { useModel } from '../project/model.ts';
import { useProject } from '../project/store.ts';
import { useStage } from '../project/stageState.ts';
import { keepStanding, placeAt, type Ray, sizeTo, startPlacing, stepOf } from './placing.ts';

type Point = [number, number, number];
let kernel: Kernel;
beforeEach(async () => {
  kernel = await loadGeometryKernel();
});

/** Tells the page what the project comes to, as its worker would. */
function evaluate(): void {
  const model = evaluateModel(useProject.getState().document!, kernel);
  const bodies = model.bodies.map((b) => ({ ...b, sheet: isSheet(b), normal: null }));
  useModel.setState((s) => ({ view: { ...s.view, bodies: bodies as never, values: model.values, kinds: model.kinds } }));
}
/** Places a line on a face, and lets the page follow. */
function place(line: Line, at: Point, up: Point): void {
  useProject.setState({ id: 'p', document: { ...emptyProject('t'), lines: [line] }, past: [], future: [], saved: 'saved' });
  evaluate();
  startPlacing(line.name);
  for (let i = 0; i < 3; i++) {
    placeAt(useStage.getState().placing!, at, up);
    evaluate();
    keepStanding(useStage.getState().placing!);
    evaluate();
  }
}
/** From where to where the body reaches along an axis, millimetres. */
const reaches = (axis: number): number[] => {
  const [body] = useModel.getState().view.bodies;
  return [body.min[axis], body.max[axis]].map((v) => Math.round(v * 1e6) / 1e3);
};
const box: Line = { kind: 'box', name: 'stub', material: 'Copper', size: ['4 mm', '6 mm', '10 mm'], anchor: 'base', at: ['0 mm', '0 mm', '0 mm'] };
const fresh = (kind: string, values: Record<string, string>): Line =>
  Object.entries(values).reduce((l, [path, v]) => withPath(l, path, v), shapes.find((s) => s.kind === kind)!.fresh('stub'));
const rod = fresh('cylinder', { radius: '2 mm', length: '10 mm' });
const ball = fresh('sphere', { radius: '3 mm' });

test.each([
  ['a box on a face that looks up', box, [0, 0, 1], 2, [5, 15]],
  ['a box under one that looks down', box, [0, 0, -1], 2, [-5, 5]],
  ['a box beside one that looks along x', box, [1, 0, 0], 0, [5, 9]],
  ['a box beside one that looks back along y', box, [0, -1, 0], 1, [-1, 5]],
  ['a rod under one that looks down', rod, [0, 0, -1], 2, [-5, 5]],
  ['a rod beside one that looks back along x', rod, [-1, 0, 0], 0, [-5, 5]],
  ['a ball on one that looks up', ball, [0, 0, 1], 2, [5, 11]],
] as const)('%s stands outside of it', (_, line, up, axis, expected) => {
  place(line, [5e-3, 5e-3, 5e-3], [...up]);
  expect(reaches(axis)).toEqual(expected);
});

test('what is pulled down from a face reaches to the pointer, and stays on the face', () => {
  place(box, [0, 0, 5e-3], [0, 0, -1]);
  useStage.getState().set({ placing: { ...useStage.getState().placing!, step: 2 } });
  expect(stepOf(useStage.getState().placing!)!.step.handles.map((h) => h.path)).toEqual(['size.2']);
  const ray = (z: number): Ray => ({ onPlane: () => null, nearAxis: () => [0, 0, z] });
  for (const z of [-0.5e-3, -8e-3, -11e-3]) {
    sizeTo(useStage.getState().placing!, ray(z), 1e-4);
    evaluate();
    keepStanding(useStage.getState().placing!);
    evaluate();
    expect(reaches(2)).toEqual([z * 1e3, 5]);
  }
});
