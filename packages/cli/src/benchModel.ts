import { emptyProject, type Line, type Project, shapes } from '@jadebell/core/document';
import { evaluateModel, loadGeometryKernel, ModelCache } from '@jadebell/core/geometry';

const line = (kind: string, name: string, change: object): Line =>
  ({ ...(shapes.find((s) => s.kind === kind)!.fresh(name) as object), ...change }) as unknown as Line;

/** 300 lines with 50 booleans; the parameter `all` touches every line, `tenth` a tenth of them. */
function manyLines(): Line[] {
  const lines: Line[] = [];
  for (let b = 0; b < 50; b++) {
    const own = b % 10 === 0 ? 'tenth' : '1 mm';
    lines.push(
      line('box', `b${b}`, { size: ['all', 'all', `2 mm + ${own} / 10`], at: [`${b} * 15 mm`, '0 mm', '0 mm'] }),
      line('cylinder', `c${b}`, { radius: 'all / 5', height: '20 mm', at: [`b${b}.centre.x`, `${own} / 20`, '-10 mm'] }),
      line('cut', `d${b}`, { from: `b${b}`, tools: [`c${b}`] }),
      line('rectangle', `e${b}`, { size: ['all / 4', own], at: [`d${b}.centre.x`, '20 mm', `d${b}.max.z`] }),
      line('disc', `f${b}`, { radius: `all / 3 + ${own}`, at: [`${b} * 15 mm`, '40 mm', '0 mm'] }),
      line('move', `g${b}`, { of: `f${b}`, by: ['1 mm', own, 'all'] }),
    );
  }
  return lines;
}

const median = (list: number[]): number => [...list].sort((a, b) => a - b)[list.length >> 1];

/** Milliseconds to evaluate the model after a change that touches all of it, and after one that touches a tenth. */
export async function benchModel(print: (line: string) => void): Promise<void> {
  const kernel = await loadGeometryKernel();
  const cache = new ModelCache();
  const lines = manyLines();
  const model = (all: string, tenth: string): Project => ({
    ...emptyProject('bench'),
    parameters: [
      { name: 'all', expression: all },
      { name: 'tenth', expression: tenth },
    ],
    lines,
  });
  const time = (project: Project): number => {
    const started = performance.now();
    evaluateModel(project, kernel, cache);
    return performance.now() - started;
  };
  for (let i = 0; i < 3; i++) time(model(`${10 + i / 10} mm`, '1 mm'));
  const all = median(Array.from({ length: 7 }, (_, i) => time(model(`${11 + i / 10} mm`, '1 mm'))));
  const tenth = median(Array.from({ length: 7 }, (_, i) => time(model('12 mm', `${1 + (i + 1) / 100} mm`))));
  cache.dispose();
  print(`model, 300 lines, 50 booleans: all changed ${all.toFixed(0)} ms, a tenth ${tenth.toFixed(0)} ms, ratio ${(tenth / all).toFixed(2)}`);
}
