import { expect, test } from '@jest/globals';
import { emptyProject, type Line, type Project, shapes } from '@jadebell/core/document';
import { ProjectReceiver, ProjectSender } from './sentProject.ts';

const box = (name: string): Line => shapes.find((s) => s.kind === 'box')!.fresh(name);
/** As the browser passes it on. */
const through = <T>(value: T): T => structuredClone(value);

test('only what changed travels, and the same line arrives as the same object', () => {
  const sender = new ProjectSender();
  const receiver = new ProjectReceiver();
  const first: Project = {
    ...emptyProject('t'),
    lines: [box('a'), box('b')],
    parts: [{ name: 'hull', kind: 'mesh', source: 'h.stl', data: 'AAAA' }],
  };
  const sent = sender.pack(first);
  expect(sent.fresh).toHaveLength(3);
  const one = receiver.unpack(through(sent));
  expect(one).toEqual(first);
  const second: Project = { ...first, title: 'u', lines: [first.lines[1], { ...first.lines[0], muted: true }] };
  const again = sender.pack(second);
  expect(again.fresh).toHaveLength(1);
  const two = receiver.unpack(through(again));
  expect(two).toEqual(second);
  expect(two.lines[0]).toBe(one.lines[1]);
  expect(receiver.unpack(through(sender.pack(first)))).toEqual(first);
  const { parts: _, ...bare } = first;
  expect(receiver.unpack(through(sender.pack(bare)))).toEqual(bare);
});
