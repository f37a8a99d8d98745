import { execFile } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { readTouchstone } from '@jadebell/core/formats';
import { abs } from '@jadebell/core/numerics';

const bin = fileURLToPath(new URL('../bin/jadebell.mjs', import.meta.url));
const tag = fileURLToPath(new URL('../../../demo/tag-868.json', import.meta.url));
let folder: string;
beforeAll(() => void (folder = mkdtempSync(join(tmpdir(), 'jadebell-cli-'))));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const jadebell = (...args: string[]): Promise<{ code: number; out: string; err: string }> =>
  new Promise((resolve) => {
    const env = { ...process.env, NODE_OPTIONS: '' };
    execFile(process.execPath, [bin, ...args], { env, maxBuffer: 1 << 26 }, (error, out, err) =>
      resolve({ code: error ? Number(error.code) : 0, out, err }),
    );
  });
const file = (name: string, text: string): string => {
  const path = join(folder, name);
  writeFileSync(path, text);
  return path;
};

describe('command line', () => {
  test('schema, check and estimate', async () => {
    const schema = await jadebell('schema');
    expect(JSON.parse(schema.out)).toMatchObject({ title: 'Jade Bell project, version 3' });
    expect(await jadebell('check', tag)).toMatchObject({
      code: 0,
      out: expect.stringContaining('no errors'),
      err: '',
    });
    const estimate = JSON.parse((await jadebell('estimate', tag, '--json')).out);
    expect(estimate.cells).toHaveLength(3);
    expect(estimate.bytes).toBeLessThan(1e9);
  });

  test('errors go to standard error with their place and cure; the exit code tells the kind', async () => {
    const [circle, unknown, broken, absent, command, where, accuracy, memory] = await Promise.all([
      jadebell('check', tag, '--set', 'w=3', '--set', 'span=arm'),
      jadebell('check', tag, '--set', 'nope=3'),
      jadebell('check', file('broken.json', '{"format":')),
      jadebell('check', join(folder, 'absent.json')),
      jadebell('dance'),
      jadebell('solve', tag),
      jadebell('check', tag, '--accuracy', 'best'),
      jadebell('check', tag, '--json', '--set', 'film_h=2 km'),
    ]);
    expect(circle.code).toBe(1);
    expect(circle.err).toMatch(/parameter span, expression: .*depends on itself/);
    expect(unknown).toMatchObject({ code: 1, err: expect.stringContaining('no parameter named nope') });
    expect(broken).toMatchObject({ code: 1, err: expect.stringContaining('not a JSON file') });
    expect(absent).toMatchObject({ code: 4 });
    expect(command).toMatchObject({ code: 2 });
    expect(where).toMatchObject({ code: 2, err: expect.stringContaining('--out') });
    expect(accuracy).toMatchObject({ code: 2 });
    expect(memory.out).toContain('"machine.memory"');
  });

  test('ports are looked at on their grid: one whose guide does not propagate in the band is told by its name', async () => {
    const bend = JSON.parse(readFileSync(fileURLToPath(new URL('../../../demo/gauge-feed-bend.json', import.meta.url)), 'utf8')) as { solve: object };
    const low = file('low.json', JSON.stringify({ ...bend, recordAt: ['6 GHz'], solve: { ...bend.solve, from: '4 GHz', to: '7 GHz' } }));
    const { code, err } = await jadebell('check', low);
    expect(code).toBe(1);
    expect(err).toMatch(/port left.*No mode of the port propagates anywhere in the band/);
  });

  test('a project of sections alone passes the check, one of nothing does not', async () => {
    const chip = fileURLToPath(new URL('../../../demo/methane-chip.json', import.meta.url));
    expect(await jadebell('check', chip)).toMatchObject({ code: 0, out: expect.stringContaining('jadebell modes'), err: '' });
    expect(JSON.parse((await jadebell('check', chip, '--json')).out)).toEqual({ good: true, problems: [] });
    const { sections: _, ...rest } = JSON.parse(readFileSync(chip, 'utf8')) as Record<string, unknown>;
    expect(await jadebell('check', file('bare.json', JSON.stringify(rest)))).toMatchObject({ code: 1 });
  });

  test('modes of sections and guided ports are solved by themselves', async () => {
    const guide = fileURLToPath(new URL('../../../demo/gauge-feed-guide.json', import.meta.url));
    const { code, out } = await jadebell('modes', guide, '--json');
    expect(code).toBe(0);
    const solved = JSON.parse(out) as { section: string; frequency: number; modes: { cutoff: number; kind: string; wall: number }[] }[];
    expect(solved.map((s) => s.section)).toEqual(['wr62', 'left', 'right']);
    for (const { modes } of solved) {
      expect(modes).toHaveLength(4);
      // TE10 of a guide 15.799 mm wide.
      expect(modes[0].cutoff / (299792458 / (2 * 15.799e-3))).toBeCloseTo(1, 2);
    }
    // Only the section that reaches into the copper knows its loss.
    expect(solved.map((s) => s.modes[0].wall > 0)).toEqual([true, false, false]);
    const one = await jadebell('modes', guide, '--section', 'left', '--set', 'a=12 mm');
    expect(one.out).toMatch(/^left: \d+ cells, 15\.0000 GHz\n {2}1 {2}TE/);
    expect(await jadebell('modes', guide, '--section', 'middle')).toMatchObject({
      code: 1,
      err: expect.stringContaining('There are wr62, left, right'),
    });
  });

  test('solve writes Touchstone, CSV and JSON that agree', async () => {
    const project = JSON.parse(readFileSync(tag, 'utf8'));
    project.solve = { ...project.solve, points: 41, from: '800 MHz', to: '950 MHz', details: { stopAt: 1e-3, smallestCell: '1.9 mm' } };
    project.margin = '60 mm';
    project.recorders = project.recorders.slice(0, 1);
    project.recordAt = ['f0'];
    const path = file('small.json', JSON.stringify(project));
    const out = join(folder, 'out');
    const { code, err } = await jadebell('solve', path, '--out', out, '--accuracy', 'draft', '--quiet');
    expect({ code, err: err.replace(/^warning.*\n/gm, '') }).toEqual({ code: 0, err: '' });
    expect(readdirSync(out).sort()).toEqual(['small-pattern.csv', 'small-result.json', 'small-result.zip', 'small-s.csv', 'small.s1p']);
    const s = readTouchstone(readFileSync(join(out, 'small.s1p'), 'utf8'), 1);
    const json = JSON.parse(readFileSync(join(out, 'small-result.json'), 'utf8'));
    expect(s.frequency).toEqual(json.frequency);
    expect(s.s[0][0][20][0]).toBeCloseTo(json.s11[20][0], 8);
    // The tag resonates in this band and is a dipole.
    expect(Math.min(...s.s[0][0].map((v) => abs(v)))).toBeLessThan(0.3);
    expect(json.farField.figures[0].directivity).toBeGreaterThan(1.3);
    expect(json.farField.figures[0].directivity).toBeLessThan(1.8);
    expect(Math.abs(json.evidence.powerBalance[0])).toBeLessThan(0.03);
    // All else is made of the kept result, with the project's parameters.
    const result = join(out, 'small-result.zip');
    expect((await jadebell('export', result)).out).toMatch(/^touchstone +1 file +S as Touchstone\n[^]*figures +1 file/);
    const text = await jadebell('export', result, '--out', out, '--as', 'farfield', '--at', 'f0');
    expect(text).toMatchObject({ code: 0, out: `${join(out, 'small-far-field.txt')}\n` });
    expect(await jadebell('export', result, '--out', out, '--of', 'above')).toMatchObject({ code: 2, err: expect.stringContaining('There are: ') });
    expect(await jadebell('export', path)).toMatchObject({ code: 4, err: expect.stringContaining('no kept result') });
  });
});
