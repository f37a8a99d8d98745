import { chromium } from 'playwright-core';
const base = 'http://127.0.0.1:4470';
const rect = (name, x0, x1, y) => ({ kind: 'rectangle', name, material: 'Copper', plane: 'xy', size: [`${x1 - x0} mm`, '3 mm'], anchor: 'corner', at: [`${x0} mm`, `${y - 1.5} mm`, '0 mm'] });
const ys = { one: -27, two: 27 };
const doc = { format: 'jadebell-project', version: 1, title: 'Pair of reeds', givens: [], materials: [],
  lines: Object.entries(ys).flatMap(([n, y]) => [rect(`${n}_low`, -49, -1.5, y), rect(`${n}_high`, 1.5, 49, y)]).concat([{ kind: 'box', name: 'slab', material: 'FR-4', size: ['120 mm', '90 mm', '2 mm'], anchor: 'floor', at: ['0 mm', '0 mm', '-2.5 mm'] }]).slice(0, 4),
  ports: Object.keys(ys).map((n) => ({ kind: 'gap', name: n, between: [`${n}_low`, `${n}_high`], resistance: '50 ohm' })),
  boundaries: { xMin: 'open', xMax: 'open', yMin: 'open', yMax: 'open', zMin: 'open', zMax: 'open' },
  recorders: [{ kind: 'far-field', name: 'pattern', step: '5 deg' }, { kind: 'field-box', name: 'near', from: ['-70 mm', '-60 mm', '8 mm'], to: ['70 mm', '60 mm', '8 mm'], fields: 'eh', where: 'nodes', every: '1' }],
  recordAt: ['1.2 GHz', '1.4 GHz', '1.6 GHz'], sections: [],
  solve: { solver: 'fdtd', from: '1.1 GHz', to: '1.7 GHz', points: 121, accuracy: 'draft', keep: 'each' } };
const made = await (await fetch(`${base}/api/projects`, { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: JSON.stringify({ document: doc }) })).json();
console.log(made.id ?? made);
const run = await (await fetch(`${base}/api/projects/${made.id}/runs`, { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: JSON.stringify({ document: doc }) })).json();
console.log(run.state ?? run);
for (let i = 0; i < 120; i++) { const r = await (await fetch(`${base}/api/runs/${run.id}`)).json(); if (!['queued', 'running'].includes(r.state)) { console.log(r.state, r.problems); break; } await new Promise((k) => setTimeout(k, 1000)); }
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--use-gl=angle', '--use-angle=swiftshader', '--enable-unsafe-swiftshader', '--ignore-gpu-blocklist'] });
const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 }, colorScheme: 'dark' })).newPage();
page.on('pageerror', (e) => console.log('ERR', e.message)); page.on('console', (m) => m.type() === 'error' && console.log('CON', m.text()));
await page.goto(`${base}/project/${made.id}/read`);
await page.getByRole('tab', { name: 'Pattern' }).click();
await page.waitForTimeout(3000);
await page.getByRole('button', { name: 'Waves', exact: true }).click();
await page.getByRole('textbox', { name: 'Amplitude of two' }).fill('1'); await page.keyboard.press('Enter');
await page.getByRole('textbox', { name: 'Phase of two' }).fill('-90'); await page.keyboard.press('Enter');
await page.getByRole('textbox', { name: 'Name of the combination' }).fill('end fire'); await page.keyboard.press('Enter');
await page.keyboard.press('Escape'); await page.waitForTimeout(1500);
await page.getByLabel('Cut', { exact: true }).last().waitFor();
await page.screenshot({ path: '/tmp/look/use1.png' });
await page.getByRole('tab', { name: 'Match' }).click(); await page.waitForTimeout(600);
await page.getByRole('button', { name: '+ Card' }).click(); await page.getByRole('menuitem', { name: /^Curves/ }).click(); await page.waitForTimeout(600);
await page.getByRole('button', { name: 'Set up Curves' }).click(); await page.waitForTimeout(300);
await page.getByLabel('Quantity of curve a').selectOption('active'); await page.waitForTimeout(300);
await page.getByRole('button', { name: 'Add a curve' }).click(); await page.waitForTimeout(600);
await page.screenshot({ path: '/tmp/look/use2.png' });
await page.getByRole('tab', { name: 'Fields' }).click(); await page.waitForTimeout(2500);
await page.screenshot({ path: '/tmp/look/use3.png' });
await browser.close();
