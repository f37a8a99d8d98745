import { describe, expect, test } from '@jest/globals';
import { wireScene, upright } from '@jadebell/verification/wireBench';
import { meshWires } from '../../grid/index.ts';
import { tables } from '../layout.ts';
import { nearPairs } from './near.ts';
import { packWires, panelBytes, panelRows, type WirePlan } from './packing.ts';
import { endsOf } from './system.ts';

const planOf = (threads: number): WirePlan => {
  const mesh = meshWires(wireScene({ wires: [upright('w', 2, 1e-3), upright('v', 0.7, 2e-3, [0.1, 0, 0.3])], frequency: 300e6 }).wires, { longest: 0.3 }); // prettier-ignore
  const size = mesh.bases + 1;
  return {
    mesh,
    size,
    columns: size + (size & 1),
    threads,
    near: nearPairs(mesh.segments, mesh.segments),
    images: null,
    ends: endsOf(mesh),
    firstSource: Int32Array.from({ length: mesh.bases }, (_, i) => i),
  };
};
const word = (view: DataView, at: number, field: keyof typeof tables.wireFill.fields): number => {
  const [type, offset] = tables.wireFill.fields[field];
  return type === 'f64' ? view.getFloat64(at + offset, true) : view.getInt32(at + offset, true);
};

describe('what the kernel of wires reads', () => {
  const plan = planOf(2);
  const { places, pages, write } = packWires(plan);
  const buffer = new ArrayBuffer(65536 * pages);
  write(buffer);
  const view = new DataView(buffer);
  const of = (field: keyof typeof tables.wireFill.fields): number => word(view, places.fill, field);
  const { mesh, near, ends } = plan;

  test('stands where the table says: segments, halves, ends, first sources', () => {
    expect(of('bases')).toBe(mesh.bases);
    expect(of('count')).toBe(mesh.count);
    expect(of('width')).toBe(16 * plan.columns);
    expect(of('images')).toBe(0);
    expect([...new Float64Array(buffer, of('segments'), 8 * mesh.count)]).toEqual([...mesh.segments]);
    expect([...new Int32Array(buffer, of('halfFirst'), mesh.bases + 1)]).toEqual([...mesh.halfFirst]);
    expect([...new Int32Array(buffer, of('firstSource'), mesh.bases)]).toEqual([...plan.firstSource]);
    const half = tables.wireHalf;
    mesh.halves.forEach(({ segment, end, sign }, i) => {
      const at = of('halves') + half.size * i;
      expect(view.getInt32(at + half.fields.segment[1], true)).toBe(segment);
      expect(view.getInt32(at + half.fields.end[1], true)).toBe(end);
      expect(view.getFloat64(at + half.fields.sign[1], true)).toBe(sign);
    });
    ends.list.forEach(([basis, sign], i) => {
      const at = of('ends') + tables.wireEnd.size * i;
      expect(view.getInt32(at + tables.wireEnd.fields.basis[1], true)).toBe(basis);
      expect(view.getFloat64(at + tables.wireEnd.fields.sign[1], true)).toBe(sign);
    });
  });

  test('close pairs come with their source and static integrals', () => {
    const { fields, size } = tables.wireNear;
    expect(near.pairs.length).toBeGreaterThan(mesh.count);
    near.pairs.forEach(({ integrals, rho2 }, i) => {
      const at = of('nearList') + size * i;
      expect(view.getInt32(at + fields.source[1], true)).toBe(near.source[i]);
      expect(view.getFloat64(at + fields.rho2[1], true)).toBe(rho2);
      expect((['t00', 't01', 't10', 't11'] as const).map((t) => view.getFloat64(at + fields[t][1], true))).toEqual([...integrals]);
    });
  });

  test('matrix, panels and scratch have room of their own, more for more threads', () => {
    const room = [
      [places.fill, tables.wireFill.size],
      [places.meet, 8],
      [places.matrix, plan.size * plan.columns * 16],
      [places.pivots, 4 * plan.size],
      [places.packed, 2 * panelBytes],
      [places.left, (plan.size + panelRows) * panelRows * 16],
      [of('segments'), mesh.segments.byteLength],
      [of('nearList'), tables.wireNear.size * near.pairs.length],
      [of('halves'), tables.wireHalf.size * mesh.halves.length],
      [of('ends'), tables.wireEnd.size * ends.list.length],
      [of('scratch'), 2 * tables.wireSums.size * mesh.count],
    ].sort((a, b) => a[0] - b[0]);
    room.forEach(([at, bytes], i) => expect(at + bytes).toBeLessThanOrEqual(room[i + 1]?.[0] ?? buffer.byteLength));
    expect(packWires(planOf(64)).pages).toBeGreaterThan(pages);
  });
});
