import { spawnSync } from 'node:child_process';
import type { Point3 } from '@jadebell/core/document';
import { nodeHost } from '@jadebell/node';
import { meshWires } from '@jadebell/core/grid';
import { circuitOf, WireSystem } from '@jadebell/core/solvers/moment/parts';
import { plainWire, solveWires, upright, wireScene } from '@jadebell/verification/wireBench';

const wl = 1;
const frequency = 299792458 / wl;

/** A grating of upright wires with about so many unknowns. */
function grating(unknowns: number) {
  const each = 39;
  const n = Math.round(unknowns / each);
  const wires = Array.from({ length: n }, (_, i) => upright(`w${i}`, 0.95 * wl, 1e-3 * wl, [0.3 * wl * (i % 8), 0.3 * wl * Math.floor(i / 8), 0]));
  return wireScene({ wires, ports: [[0, 0.475 * wl]], frequency, accuracy: 'draft', density: 42 });
}

const seconds = async (work: () => Promise<unknown>): Promise<number> => {
  const from = performance.now();
  await work();
  return (performance.now() - from) / 1000;
};

/** Flops of a complex factorisation by LAPACK as Debian's OpenBLAS has it, if python3-numpy is there; null if not. */
function nativeFlops(n: number): number | null {
  const code = `import numpy as np,time
n=${n};r=np.random.default_rng(1)
a=r.standard_normal((n,n))+1j*r.standard_normal((n,n));b=r.standard_normal((n,1))+0j
np.linalg.solve(a[:300,:300],b[:300])
t=time.perf_counter();np.linalg.solve(a,b);print(8/3*n**3/(time.perf_counter()-t))`;
  const { status, stdout } = spawnSync('python3', ['-c', code], { encoding: 'utf8' });
  return status === 0 ? Number(stdout) : null;
}

/** Prints how long 2,000 unknowns take, filled, factored and solved for ten excitations, against a native library, and an array over a band. */
export async function benchWires(print: (line: string) => void): Promise<void> {
  const host = await nodeHost();
  const scene = grating(2000);
  const mesh = meshWires(scene.wires, { longest: wl / 42 });
  const n = mesh.bases;
  const rates: number[] = [];
  for (const threads of [1, host.threads]) {
    const system = await WireSystem.create(mesh, 0, null, { ...host, threads });
    const fill = await seconds(() => system.fill(frequency, true));
    const factor = await seconds(() => system.factorSymmetric());
    const solve = await seconds(async () => {
      for (let i = 0; i < 10; i++) {
        const x = new Float64Array(2 * n);
        for (const [b, s] of circuitOf(scene.wires, mesh).ports[0]) x[2 * b] = s;
        system.solve(x);
      }
    });
    system.close();
    rates.push((8 / 3) * (n ** 3 / factor));
    print(
      `wires, ${n} unknowns, ${threads} ${threads === 1 ? 'thread ' : 'threads'}  fill ${fill.toFixed(2)} s  factor ${factor.toFixed(2)} s (as LU ${(rates[rates.length - 1] / 1e9).toFixed(1)} Gflop/s)  10 excitations ${solve.toFixed(2)} s  in all ${(fill + factor + solve).toFixed(1)} s (aim: below 10 s on two cores)`,
    );
  }
  const native = nativeFlops(n);
  print(
    native === null
      ? 'no native library to compare with: apt-get install python3-numpy libopenblas0-pthread'
      : `  native LU ${(native / 1e9).toFixed(1)} Gflop/s; ours on all threads ${(rates[1] / native).toFixed(2)} of it (aim: 0.33)`,
  );
  const rod = (i: number, l: number) => plainWire(`e${i}`, [[0.2 * i, -l / 2, 0], [0.2 * i, l / 2, 0]] as Point3[], 2e-3); // prettier-ignore
  const wires = Array.from({ length: 15 }, (_, i) => rod(i, i === 0 ? 0.482 : i === 1 ? 0.46 : 0.43 - 0.002 * i));
  const array = wireScene({ wires, ports: [[1, 0.23]], frequency, band: { from: 0.93 * frequency, to: 1.06 * frequency, points: 101 } });
  await solveWires(array, host);
  let solved = 0;
  const time = await seconds(async () => {
    solved = (await solveWires(array, host)).meta.evidence.solved;
  });
  print(`array of 15 wires at 101 frequencies  ${time.toFixed(2)} s, ${solved} solved (aim: below 5 s)`);
}
