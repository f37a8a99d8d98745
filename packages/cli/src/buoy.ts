import { readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { emptyProject, packMesh, type Project } from '@jadebell/core/document';
import { writeStl } from '@jadebell/core/formats/export';
import { readFileFor, repairMesh } from '@jadebell/core/formats/import';

/** Profile of the buoy's hull: radius and height in metres, from the keel up. */
const profile: readonly (readonly [number, number])[] = [
  [0, -0.42],
  [0.05, -0.41],
  [0.09, -0.36],
  [0.12, -0.22],
  [0.2, -0.12],
  [0.28, -0.04],
  [0.3, 0.02],
  [0.28, 0.09],
  [0.2, 0.13],
  [0.11, 0.16],
  [0.11, 0.24],
  [0.1, 0.25],
  [0, 0.25],
];
/** Sides around. */
const sides = 72;

/** Triangles of the hull as a mesher would write them: each with corners of its own. */
function hull(): { positions: Float32Array; triangles: Uint32Array } {
  const at = ([r, h]: readonly [number, number], i: number): number[] => {
    const t = (2 * Math.PI * (i % sides)) / sides;
    return [r * Math.cos(t), r * Math.sin(t), h];
  };
  const out: number[] = [];
  for (let k = 0; k + 1 < profile.length; k++)
    for (let i = 0; i < sides; i++) {
      const [a, b, c, d] = [at(profile[k], i), at(profile[k], i + 1), at(profile[k + 1], i + 1), at(profile[k + 1], i)];
      if (profile[k][0] > 0) out.push(...a, ...b, ...c);
      if (profile[k + 1][0] > 0) out.push(...a, ...c, ...d);
    }
  return { positions: Float32Array.from(out), triangles: Uint32Array.from({ length: out.length / 3 }, (_, i) => i) };
}

/** Makes the hull of the Buoy demo as an STL file, imports it as a user would, and writes the demo project. */
export async function makeBuoy(folder: string): Promise<void> {
  const file = join(folder, 'parts', 'buoy-hull.stl');
  await writeFile(file, writeStl([{ name: 'hull', colour: [1, 1, 1, 1], ...hull() }]));
  const { meshes } = await readFileFor(file, await readFile(file));
  const { mesh, closed } = repairMesh(meshes[0].mesh);
  if (!closed) throw new Error('The hull does not close.');
  const millimetres = mesh.positions.map((v) => v * 1e-3);
  const project: Project = {
    ...emptyProject('Buoy'),
    note: 'The water-quality buoy of Heron Marsh: its hull is imported from an STL file; a monopole for 868 MHz stands on a plate on its lid. Plate and rod follow the hull and the frequency.',
    parameters: [
      { name: 'f0', expression: '868 MHz', note: 'telemetry' },
      { name: 'rod', expression: '0.235 * wavelength(f0)', note: 'height of the monopole', dial: { min: '60 mm', max: '100 mm' } },
      { name: 'plate', expression: '0.9 * (neck.max.x - neck.min.x) / 2', note: 'radius of the plate, from the neck of the hull' },
      { name: 'gap', expression: '3 mm', note: 'height of the feed' },
    ],
    parts: [{ name: 'hull', kind: 'mesh', source: 'buoy-hull.stl', data: packMesh({ positions: millimetres, triangles: mesh.triangles }) }],
    lines: [
      { kind: 'section', name: 'body', title: 'Body' },
      {
        kind: 'import',
        name: 'hull',
        material: 'Polyethylene',
        part: 'hull',
        scale: '1',
        at: ['0 mm', '0 mm', '0 mm'],
        turn: ['0 deg', '0 deg', '0 deg'],
        simplify: '0 mm',
      },
      { kind: 'split', name: 'neck', of: 'hull', plane: 'xy', offset: '0.2 m', keep: 'above' },
      { kind: 'split', name: 'float', of: 'hull', plane: 'xy', offset: '0.2 m', keep: 'below' },
      { kind: 'section', name: 'antenna', title: 'Antenna' },
      { kind: 'disc', name: 'ground', material: 'Copper', plane: 'xy', radius: 'plate', bore: '0 mm', at: ['0 mm', '0 mm', 'neck.max.z'] },
      { kind: 'cylinder', name: 'whip', material: 'Copper', axis: 'z', radius: '1.5 mm', height: 'rod', at: ['0 mm', '0 mm', 'neck.max.z + gap'] },
    ],
    ports: [{ kind: 'gap', name: 'feed', between: ['ground', 'whip'], resistance: '50 ohm' }],
    recordAt: ['f0'],
    solve: { ...emptyProject('t').solve, from: '0.7 GHz', to: '1.05 GHz' },
  };
  await writeFile(join(folder, 'buoy.json'), `${JSON.stringify(project, null, 2)}\n`);
}
