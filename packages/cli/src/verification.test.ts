import { describe, expect, test } from '@jest/globals';
import { cases, inducedEmf, passes } from '@jadebell/verification';
import { thinWireImpedance } from '@jadebell/verification/thinWire';
import { nodeHost } from '@jadebell/node';

describe('solver against references', () => {
  test.each(cases.filter((c) => !c.slow))(
    '$title',
    async (c) => {
      const rows = await c.run(await nodeHost());
      for (const row of rows)
        process.stdout.write(
          `${row.quantity}: ${row.computed}, reference ${row.reference}, error ${row.error.toFixed(3)} ${row.unit}, allowed ${row.allowed} ${row.unit}\n`,
        );
      expect(rows.filter((r) => !passes(r))).toEqual([]);
      expect(rows.length).toBeGreaterThan(0);
    },
    400_000,
  );

  test('the references agree with each other where both hold', () => {
    // A very thin half-wave wire: 73.1 + j42.5 ohm in the limit (Balanis 4-93a).
    const f = 1e9;
    const l = 299792458 / f / 2;
    const emf = inducedEmf(l, l * 1e-5, f);
    expect(emf[0]).toBeCloseTo(73.1, 0);
    expect(emf[1]).toBeCloseTo(42.5, 0);
    const wire = thinWireImpedance(0.47 * 2 * l, l * 1e-4, f);
    const near = inducedEmf(0.47 * 2 * l, l * 1e-4, f);
    expect(Math.abs(wire[0] - near[0]) / near[0]).toBeLessThan(0.1);
  });
});
