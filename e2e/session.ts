import { cpSync, existsSync, mkdtempSync, readFileSync, renameSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Browser, BrowserContext, Download, Locator, Page } from 'playwright-core';
import { openBrowser } from './browser.ts';

interface Service {
  address: string;
  stop(): Promise<void>;
}

/** Asks again until it is so; the page's own policy forbids evaluated text, so the asking is done from here. */
export async function until(what: string, so: () => Promise<boolean>, within = 15_000): Promise<void> {
  for (const end = Date.now() + within; !(await so()); await new Promise((r) => setTimeout(r, 60)))
    if (Date.now() > end) throw new Error(`Not so within ${within / 1000} s: ${what}.`);
}

/** Takes an option of a choice by its value, or by its label. */
export async function choose(field: Locator, option: string | { label: string }): Promise<void> {
  await field.click();
  const list = field.page().getByRole('listbox');
  await (
    typeof option === 'string' ? list.locator(`[data-value="${option}"]`) : list.getByRole('option', { name: option.label, exact: true })
  ).click();
}

/** The program started on ports and a folder of its own, and a browser that looks at it. */
export interface Session {
  address: string;
  browser: Browser;
  context: BrowserContext;
  page: Page;
  /** What pages reported as errors. */
  faults: string[];
  /** The chip of a label. */
  chip(label: string): Locator;
  /** Opens a chip, types an expression, leaves with Enter. */
  setChip(label: string, value: string, nth?: number): Promise<void>;
  /** Adds a line from the menus over the stage view. */
  add(group: string, title: string): Promise<void>;
  stage(name: string): Locator;
  /** In Solve: draft accuracy, and settings by hand by their labels, each with Enter. */
  draft(byHand?: Readonly<Record<string, string>>): Promise<void>;
  entry(name: string): Locator;
  saved(): Promise<void>;
  /** Opens a board of Read. */
  board(name: string): Promise<void>;
  /** Leaves the boards of a demo for those that suit the run. */
  suitingBoards(): Promise<void>;
  downloaded(act: () => Promise<void>): Promise<{ name: string; text: string; bytes: Buffer }>;
  end(): Promise<void>;
}

/** Thinner absorbing layers and an earlier end than usual: for what is read to within a few per cent. */
export const quick = { 'absorbing layers': '5', 'stop at energy': '1e-4' };

export async function startSession(port: number): Promise<Session> {
  const folder = mkdtempSync(join(tmpdir(), 'jadebell-e2e-'));
  const scripts = '../scripts/service.mjs';
  const { startService } = (await import(scripts)) as { startService(o: object): Promise<Service> };
  const start = (at: string): Promise<Service> => startService({ folder: at, port, databasePort: port + 10 });
  // All suites of a run begin with the same demos: the first ones fill a database with them, of which each gets a copy.
  const run = process.env.JADEBELL_TEST_FOLDER;
  const filled = run && join(run, 'demos');
  if (filled && existsSync(filled)) cpSync(filled, folder, { recursive: true });
  else if (filled) {
    await (await start(folder)).stop();
    const copy = mkdtempSync(join(run, 'copy-'));
    cpSync(folder, copy, { recursive: true });
    // Whole or not at all, as suites run side by side.
    if (!existsSync(filled)) renameSync(copy, filled);
  }
  const service = await start(folder);
  const browser = await openBrowser();
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, deviceScaleFactor: 0.5, acceptDownloads: true });
  const page = await context.newPage();
  const faults: string[] = [];
  page.setDefaultTimeout(15_000);
  page.on('pageerror', (e) => faults.push(e.message));
  page.on('console', (m) => {
    if (m.type() === 'error') faults.push(m.text());
  });
  const chip = (label: string): Locator => page.getByRole('button', { name: new RegExp(`^${label}:`) });
  return {
    address: service.address,
    browser,
    context,
    page,
    faults,
    chip,
    async setChip(label, value, nth = 0) {
      await chip(label).nth(nth).click();
      await page.getByRole('textbox', { name: label }).fill(value);
      await page.keyboard.press('Enter');
    },
    async add(group, title) {
      await page.getByRole('button', { name: `+ ${group}` }).click();
      await page.getByRole('menuitem', { name: new RegExp(`^${title}`) }).click();
    },
    async draft(byHand = {}) {
      await page.getByRole('button', { name: 'draft' }).click();
      if (!Object.keys(byHand).length) return;
      await page.getByRole('button', { name: 'Show details' }).click();
      for (const [label, value] of Object.entries(byHand)) {
        await page.getByLabel(label).fill(value);
        await page.getByLabel(label).press('Enter');
      }
    },
    stage: (name) => page.getByRole('navigation', { name: 'Course' }).getByRole('link', { name }),
    entry: (name) => page.locator(`#entry-${name}`),
    board: (name) => page.getByRole('tab', { name, exact: true }).click(),
    async suitingBoards() {
      await page.getByRole('button', { name: 'Board', exact: true }).click();
      const back = page.getByRole('menuitem', { name: 'Back to the boards that suit the run' });
      if (await back.isEnabled()) await back.click();
      else await page.keyboard.press('Escape');
    },
    saved: () =>
      page
        .getByRole('status')
        .filter({ hasText: /^saved$/ })
        .waitFor(),
    async downloaded(act) {
      const waiting: Promise<Download> = page.waitForEvent('download');
      await act();
      const file = await waiting;
      const bytes = readFileSync(await file.path());
      return { name: file.suggestedFilename(), text: bytes.toString('utf8'), bytes };
    },
    async end() {
      await browser.close();
      await service.stop();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}
