import { chromium } from 'playwright-core';
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--use-gl=angle', '--use-angle=swiftshader', '--enable-unsafe-swiftshader', '--ignore-gpu-blocklist'] });
const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
page.on('pageerror', (e) => console.log('ERR', e.message));
await page.goto('http://127.0.0.1:4470');
const open = async (project, board) => { await page.goto('http://127.0.0.1:4470'); await page.getByRole('link', { name: project, exact: true }).click(); await page.locator('.entry').first().waitFor(); await page.keyboard.press('4'); await page.locator('.board').waitFor(); await page.getByRole('tab', { name: board, exact: true }).click(); await page.waitForTimeout(3000); };
const longest = async (what, act, n = 6) => {
  const all = [];
  for (let i = 0; i < n; i++) {
    all.push(await page.evaluate(async () => { window.__t = []; const o = new PerformanceObserver((l) => l.getEntries().forEach((e) => window.__t.push(e.duration))); o.observe({ entryTypes: ['longtask'] }); window.__o = o; window.__s = performance.now(); return 0; }));
    const t0 = Date.now();
    await act(i);
    const ms = await page.evaluate(() => new Promise((r) => requestAnimationFrame(() => requestAnimationFrame(() => r(performance.now() - window.__s)))));
    await page.waitForTimeout(250);
    const tasks = await page.evaluate(() => { window.__o.disconnect(); return window.__t; });
    console.log(what, i, 'two frames after', ms.toFixed(0), 'ms; long tasks', tasks.map((t) => t.toFixed(0)).join(' '));
  }
};
const add = async (title) => { await page.getByRole('button', { name: '+ Card' }).click(); await page.getByRole('menuitem', { name: new RegExp('^' + title) }).click(); await page.waitForTimeout(400); };
await open('Patch wall element', 'Match');
await page.getByRole('button', { name: 'Board', exact: true }).click(); await page.getByRole('menuitem', { name: 'New board', exact: true }).click(); await page.waitForTimeout(400);
for (const t of ['Curves', 'Smith chart', 'Curves', 'Cut', 'Antenna figures', 'Field on a plane', 'Field on a plane', 'Phase centre']) await add(t);
await page.waitForTimeout(3000);
console.log('cards', await page.locator('.board .card').count());
await longest('8 cards, frequency', async (i) => page.getByRole('button', { name: i % 2 ? 'Frequency before' : 'Frequency after' }).click(), 8);
// 500 x 500 animation of the painter alone
await browser.close();
