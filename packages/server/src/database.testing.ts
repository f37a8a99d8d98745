import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { emptyProject, type Project } from '@jadebell/core/document';

/** A database server for one test file, in a folder that goes with it. */
export interface TestDatabase {
  port: number;
  password: string;
  /** Where its files are. */
  folder: string;
  /** Ends it and starts it again on the same data, at the same port; what is given runs while it is gone. */
  restart(meanwhile: () => Promise<unknown>): Promise<void>;
  close(): Promise<void>;
}

/** Starts one on loopback. */
export async function testDatabase(at: number): Promise<TestDatabase> {
  const folder = mkdtempSync(join(tmpdir(), 'jadebell-server-'));
  const scripts = '../../../scripts/database.mjs';
  const { startDatabase } = (await import(scripts)) as {
    startDatabase(folder: string, port: number): Promise<{ port: number; password: string; stop(): Promise<void> }>;
  };
  let server = await startDatabase(folder, at);
  const { port, password } = server;
  return {
    port,
    password,
    folder,
    async restart(meanwhile) {
      await server.stop();
      await meanwhile();
      server = await startDatabase(folder, port);
    },
    async close() {
      await server.stop();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

/** A small dipole that solves in about a second: fewer absorbing layers than usual, and ended sooner. */
export function smallDipole(): Project {
  const p = emptyProject('Small dipole');
  p.parameters = [{ name: 'arm', expression: '60 mm' }];
  p.lines = [
    {
      kind: 'rectangle',
      name: 'left',
      material: 'Copper',
      plane: 'xy',
      size: ['arm', '8 mm'],
      anchor: 'corner',
      at: ['-arm - 3 mm', '-4 mm', '0 mm'],
    },
    { kind: 'rectangle', name: 'right', material: 'Copper', plane: 'xy', size: ['arm', '8 mm'], anchor: 'corner', at: ['3 mm', '-4 mm', '0 mm'] },
  ];
  p.ports = [{ kind: 'gap', name: 'feed', between: ['left', 'right'], resistance: '50 ohm' }];
  p.recorders.push({ kind: 'field-plane', name: 'cut', normal: 'z', at: '5 mm' });
  p.solve = { ...p.solve, accuracy: 'draft', details: { pmlLayers: 5, stopAt: 1e-4 }, from: '0.9 GHz', to: '1.4 GHz', points: 51 };
  return p;
}
