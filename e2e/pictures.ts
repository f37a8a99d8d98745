/** Takes the README's pictures from the demo data: node --import tsx e2e/pictures.ts */
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { openBrowser } from './browser.ts';

interface Service {
  address: string;
  stop(): Promise<void>;
}
const scripts = '../scripts/service.mjs';
const { startService } = (await import(scripts)) as { startService(o: object): Promise<Service> };
const folder = mkdtempSync(join(tmpdir(), 'jadebell-pictures-'));
const service = await startService({ folder, port: 14580, databasePort: 14590 });
const browser = await openBrowser();
try {
  const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 }, colorScheme: 'light' })).newPage();
  const take = async (name: string, wait = 2500): Promise<void> => {
    await page.waitForTimeout(wait);
    await page.screenshot({ path: `docs/screenshots/${name}.png` });
  };
  await page.goto(service.address);
  await page.getByRole('link', { name: 'Tag 868', exact: true }).waitFor();
  await take('shelf', 800);
  await page.getByRole('button', { name: 'Start from a design' }).click();
  await take('starters', 800);
  await page.keyboard.press('Escape');
  await page.getByRole('link', { name: 'Gauge feed parts', exact: true }).click();
  await page.locator('.entry').first().waitFor();
  await page.waitForTimeout(2500);
  await page.locator('#entry-fi_iris .number').click();
  await page.keyboard.press('z');
  await take('guide-parts', 1500);
  await page.keyboard.press('z');
  await page.getByRole('button', { name: 'Calculator' }).click();
  await take('calculator', 1500);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Library' }).click();
  await page.getByRole('button', { name: 'Silicon nitride (optical)' }).click();
  await take('materials', 1500);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Exchange' }).click();
  await page.getByRole('menuitem', { name: /Import a file/ }).click();
  await page.getByLabel('File to import').setInputFiles('demo/parts/buoy-hull.stl');
  await page.getByLabel('Unit of the file').selectOption('mm');
  await take('import', 800);
  await page.goto(service.address);
  await page.getByRole('link', { name: 'Buoy', exact: true }).click();
  await page.locator('.entry').first().waitFor();
  await page.keyboard.press('2');
  await take('buoy', 4000);
  await page.goto(service.address);
  await page.getByRole('link', { name: 'Gauge feed: iris filter', exact: true }).click();
  await page.locator('.entry').first().waitFor();
  await page.keyboard.press('2');
  await take('feed-guide', 3000);
  await page.keyboard.press('4');
  await page.getByText('Port modes').waitFor();
  await take('read-guide', 2500);
  await page.goto(service.address);
  await page.getByRole('link', { name: 'Mooring reflector', exact: true }).click();
  await page.locator('.entry').first().waitFor();
  await page.keyboard.press('2');
  await take('feed-wave', 3000);
  await page.keyboard.press('4');
  await page.getByText('Cross-sections').waitFor();
  await take('read-wave', 4000);
  await page.goto(service.address);
  await page.getByRole('link', { name: 'Tag 868', exact: true }).click();
  await page.locator('.entry').first().waitFor();
  await take('shape', 4000);
  await page.keyboard.press('2');
  await take('feed');
  await page.keyboard.press('4');
  await page.getByRole('button', { name: '1', exact: true }).click();
  await page.getByRole('img', { name: 'Field on a plane' }).waitFor();
  await take('read', 4000);
  await page.locator('.board').evaluate((e) => e.scrollTo(0, 9999));
  await take('read-fields');
  await page.keyboard.press('5');
  await take('explore');
  await page.keyboard.press('3');
  await page.getByRole('button', { name: 'Run', exact: true }).click();
  await page.getByText('reflection so far').waitFor({ timeout: 60_000 });
  for (let percent = 0; percent < 55; await page.waitForTimeout(300))
    percent = Number(await page.getByRole('progressbar').first().getAttribute('aria-valuenow'));
  await take('solve', 200);
  await page.getByRole('button', { name: 'Stop and keep' }).click();
  await page.getByRole('button', { name: 'Dark theme' }).click();
  await page.goto(`${service.address}/`);
  await page.getByRole('link', { name: 'Beacon element', exact: true }).click();
  await page.locator('.entry').first().waitFor();
  await take('shape-dark', 4000);
} finally {
  await browser.close();
  await service.stop();
  rmSync(folder, { recursive: true, force: true });
}
