import { openBrowser } from './browser.ts';
const b = await openBrowser();
const page = await b.newPage({ viewport: { width: 1280, height: 800 } });
const list = await (await fetch('http://127.0.0.1:4470/api/projects')).json();
const id = list.find((p) => p.title === (process.argv[2] ?? 'Mooring reflector')).id;
for (const s of ['feed', 'read']) {
  await page.goto(`http://127.0.0.1:4470/project/${id}/${s}`);
  await page.waitForTimeout(5000);
  await page.screenshot({ path: `/tmp/zz-${s}.png` });
}
await b.close();
