/** @jest-environment jsdom */
import { afterEach, describe, expect, test } from '@jest/globals';
import { cleanup, render, screen } from '@testing-library/react';
import { userEvent } from '@testing-library/user-event';
import type { MaterialEntry } from '@jadebell/core/document';
import { library } from '@jadebell/core/materials';
import { useState } from 'react';
import { dispersions } from './dispersions.ts';
import { MaterialForm } from './MaterialForm.tsx';
import { materialOf, valuesOf } from './materialValues.ts';

afterEach(cleanup);
const reed: MaterialEntry = { name: 'Reed', kind: 'dielectric', permittivity: 2.2, lossTangent: 0.001, atFrequency: 1e10 };
const faults = (change: Partial<ReturnType<typeof valuesOf>>, of = reed): unknown => {
  const read = materialOf({ ...valuesOf(of), ...change }, of, ['Taken']);
  return 'faults' in read ? read.faults : null;
};
const withFigure = (key: string, text: string): { figures: Record<string, string> } => ({ figures: { ...valuesOf(reed).figures, [key]: text } });

describe('a material as it is typed', () => {
  test.each(library.map((m) => [m.name]))('%s comes back as it was', (name) => {
    const { group: _, ...material } = library.find((m) => m.name === name)! as MaterialEntry & { group?: string };
    expect(materialOf(valuesOf(material), material, [])).toEqual({ material });
  });
  test('every form of dispersion comes with figures, and back as it was', () => {
    for (const form of Object.keys(dispersions) as (keyof typeof dispersions)[]) {
      const chosen = materialOf({ ...valuesOf(reed), form }, reed, []);
      const { material } = chosen as { material: MaterialEntry };
      expect(material.dispersion).toEqual(dispersions[form].make);
      expect(materialOf(valuesOf(material), material, [])).toEqual({ material });
    }
  });
  test('what cannot be taken is told at its field: by what it is not, or by the bounds of the format', () => {
    expect(faults({ name: ' ' })).toEqual({ name: 'A material needs a name.' });
    expect(faults({ name: 'Taken' })).toEqual({ name: 'Taken is taken already.' });
    expect(faults(withFigure('permittivity', 'two'))).toEqual({ 'figures.permittivity': 'The relative permittivity is not a number.' });
    expect(Object.keys(faults(withFigure('permittivity', '0.5')) as object)).toEqual(['figures.permittivity']);
    expect(Object.keys(faults(withFigure('permittivityAlong', '2, 3')) as object)).toEqual(['figures.permittivityAlong']);
    const table = { ...reed, dispersion: dispersions.table.make };
    expect(faults({ rows: '1 4\n' }, table)).toEqual({ rows: expect.stringMatching(/^Row 1 should hold 3 numbers/) });
    expect(faults({ rows: '2 4 0\n1 4 0' }, table)).toEqual({ rows: expect.stringContaining('frequencies must rise') });
    expect(faults({ rows: '' }, table)).toHaveProperty('rows');
  });
});

test('the form tells at once what it cannot take, and takes what it can with Enter', async () => {
  const user = userEvent.setup();
  const taken: MaterialEntry[] = [];
  function Here() {
    const [material, setMaterial] = useState(reed);
    return <MaterialForm material={material} taken={[]} onChange={(m) => (setMaterial(m), taken.push(m))} />;
  }
  render(<Here />);
  const field = screen.getByLabelText('relative permittivity');
  await user.clear(field);
  await user.type(field, '0.5');
  expect((await screen.findByRole('alert')).textContent).toMatch(/1/);
  await user.keyboard('{Enter}');
  expect(taken).toEqual([]);
  await user.clear(field);
  await user.type(field, '3.4{Enter}');
  expect(taken.at(-1)).toEqual({ ...reed, permittivity: 3.4 });
  expect(screen.queryByRole('alert')).toBeNull();
  await user.type(screen.getByLabelText('source'), 'own measurement');
  await user.tab();
  expect(taken.at(-1)).toMatchObject({ permittivity: 3.4, source: 'own measurement' });
});
