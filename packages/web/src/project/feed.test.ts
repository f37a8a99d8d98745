import { describe, expect, test } from '@jest/globals';
import { emptyProject, type Project, readProjectData } from '@jadebell/core/document';
import { sideText, withBoundary, withSymmetry } from './boundaries.ts';
import { feedingPorts, lightOn, removePort, sendOn, toggleExcitation, withAnotherWave, withFieldsOf, withWave } from './excitation.ts';

const gap = (name: string): Project['ports'][number] => ({ kind: 'gap', name, between: ['a', 'b'], resistance: '50 ohm' });
const three = (solve: Partial<Project['solve']> = {}): Project => {
  const p = emptyProject('feed');
  return { ...p, ports: [gap('one'), gap('two'), gap('three')], solve: { ...p.solve, ...solve } };
};
/** A change must leave what the document takes. */
const sound = (d: Project): Project => {
  expect(readProjectData(JSON.parse(JSON.stringify(d))).problems).toEqual([]);
  return d;
};
const wave = (port: string) => ({ port, mode: 1, amplitude: '1', phase: '0 deg' });

describe('what is excited', () => {
  test('ports are turned off and on; one at least stays on, and all on is no choice', () => {
    const off = sound(toggleExcitation(three(), 'two'));
    expect(off.solve.excite).toEqual(['one', 'three']);
    const alone = sound(toggleExcitation(off, 'one'));
    expect(alone.solve.excite).toEqual(['three']);
    expect(toggleExcitation(alone, 'three')).toBe(alone);
    // In the order of the project, whatever the order of the clicks.
    expect(toggleExcitation(alone, 'one').solve.excite).toEqual(['one', 'three']);
    expect(toggleExcitation(off, 'two').solve).not.toHaveProperty('excite');
    expect(feedingPorts({ ...three(), ports: [...three().ports, { kind: 'plane-wave', name: 'sky' } as never] })).toHaveLength(3);
  });

  test('waves of a port that is off, or is taken away, go with it', () => {
    const both = three({ combine: [wave('one'), wave('two')] });
    expect(toggleExcitation(both, 'two').solve.combine).toEqual([wave('one')]);
    const without = sound(removePort({ ...both, solve: { ...both.solve, excite: ['one', 'two'] } }, 'one'));
    expect([without.solve.combine, without.solve.excite, without.ports.length]).toEqual([[wave('two')], ['two'], 2]);
    expect(removePort(three({ excite: ['one'], combine: [wave('one')] }), 'one').solve).not.toHaveProperty('combine');
  });

  test('fields are of the first, each, or all together, and never of two of these', () => {
    const each = sound(withFieldsOf(three(), 'each'));
    expect(each.solve.keep).toBe('each');
    const together = sound(withFieldsOf(each, 'together'));
    expect(together.solve.combine).toEqual(['one', 'two', 'three'].map(wave));
    expect(together.solve).not.toHaveProperty('keep');
    expect(withFieldsOf(three({ excite: ['two'] }), 'together').solve.combine).toEqual([wave('two')]);
    const first = withFieldsOf(together, 'first').solve;
    expect([first.combine, first.keep]).toEqual([undefined, undefined]);
  });

  test('waves are changed, added and removed; without any there is no combination', () => {
    const one = withAnotherWave(three({ excite: ['three'] }));
    expect(one.solve.combine).toEqual([wave('three')]);
    const louder = withWave(one, 0, { ...wave('three'), amplitude: '2' });
    expect(louder.solve.combine![0].amplitude).toBe('2');
    expect(withWave(louder, 0, null).solve).not.toHaveProperty('combine');
  });

  test('wires are sent to by ports, or lit by a wave alone', () => {
    const p = emptyProject('wires');
    const rod: Project = { ...p, ports: [...(['near', 'far'] as const).map((name) => ({ kind: 'wire-port', name }) as never), { kind: 'plane-wave', name: 'sky' } as never] }; // prettier-ignore
    const lit = lightOn(rod, 'sky');
    expect(lit.solve.excite).toEqual(['sky']);
    // The first port that sends puts the wave out; the last one does not stop.
    const sent = sendOn(lit, 'near', true);
    expect(sent.solve.excite).toEqual(['near']);
    expect(sendOn(sent, 'near', false)).toBe(sent);
    expect(sendOn(sent, 'far', true).solve.excite).toEqual(['near', 'far']);
    const dark = { ...rod, ports: rod.ports.slice(0, 2) };
    expect(sendOn({ ...dark, solve: { ...dark.solve, excite: ['near'] } }, 'far', true).solve).not.toHaveProperty('excite');
  });
});

describe('what closes the region', () => {
  test('periodic sides come and go in pairs', () => {
    const periodic = sound(withBoundary(three(), 'yMax', 'periodic'));
    expect([periodic.boundaries.yMin, periodic.boundaries.yMax]).toEqual(['periodic', 'periodic']);
    const wall = withBoundary(periodic, 'yMin', 'electric');
    expect([wall.boundaries.yMin, wall.boundaries.yMax, wall.boundaries.xMin]).toEqual(['electric', 'electric', 'open']);
    expect(withBoundary(wall, 'yMax', 'open').boundaries).toMatchObject({ yMin: 'electric', yMax: 'open' });
  });

  test('a plane of symmetry takes the place of the low side, and leaves no trace when it goes', () => {
    const half = sound(withSymmetry(three(), 'x', { wall: 'magnetic', at: '0 mm' }));
    expect([sideText(half, 'xMin'), sideText(half, 'xMax'), sideText(half, 'yMin')]).toEqual([
      'mirror, E along it',
      'absorbs (open)',
      'absorbs (open)',
    ]);
    const quarter = withSymmetry(half, 'y', { wall: 'electric', at: '1 mm' });
    expect(Object.keys(withSymmetry(quarter, 'x', null).symmetry!)).toEqual(['y']);
    expect(withSymmetry(half, 'x', null)).not.toHaveProperty('symmetry');
  });
});
