/** How soon the interface answers: node --import tsx e2e/speeds.ts. Figures of one machine and moment; beside each stands what it should be. */
import type { Page } from 'playwright-core';
import { emptyProject, type Line, type Project } from '@jadebell/core/document';
import { type Session, startSession } from './session.ts';

/** What the page notes of itself: when workers answered, and when anything was drawn last. */
interface Noted {
  answered: number;
  /** The first drawing in space that was handed over after the answer: what the graphics make of it is theirs, here software. */
  sent: number;
  drawn: number;
}
/** Runs in the page, before anything of it: notes when a worker answers, when a canvas is drawn on, and when the page changes. */
function note(): void {
  const noted: Noted = { answered: 0, sent: 0, drawn: 0 };
  Object.assign(globalThis, { noted });
  const g = globalThis as unknown as Record<string, { prototype: Record<string, (...a: unknown[]) => unknown> }>;
  // No function of its own has a name here: a compiler's helper for names is not in the page.
  for (const [kind, methods] of [
    ['WebGL2RenderingContext', ['drawElements', 'drawArrays']],
    ['CanvasRenderingContext2D', ['putImageData', 'drawImage']],
  ] as const)
    // prettier-ignore
    for (const method of methods) {
      const own = g[kind].prototype[method];
      g[kind].prototype[method] = function (this: unknown, ...args: unknown[]) {
        noted.drawn = performance.now();
        if (noted.answered && !noted.sent && kind[0] === 'W') noted.sent = noted.drawn;
        return own.apply(this, args);
      };
    }
  const send = g.Worker.prototype.postMessage;
  g.Worker.prototype.postMessage = function (this: { addEventListener(k: string, l: () => void): void; heard?: boolean }, ...args: unknown[]) {
    if (!this.heard) this.addEventListener('message', () => (noted.answered = performance.now()));
    this.heard = true;
    return send.apply(this, args);
  };
}

/** Milliseconds from an act in the page until it was drawn last before it rested for `quiet` ms; `answer` waits for a worker's first. */
const settled = (page: Page, selector: string, value: string | null, answer: boolean, quiet = 400): Promise<Noted> =>
  page
    .locator(selector)
    .first()
    .evaluate(
      async (element, [value, answer, quiet]) => {
        const noted = (globalThis as unknown as { noted: Noted }).noted;
        const doc = (element as { ownerDocument: { body: unknown } }).ownerDocument;
        const Observer = (globalThis as unknown as { MutationObserver: new (f: () => void) => { observe(n: unknown, o: object): void; disconnect(): void } }).MutationObserver; // prettier-ignore
        const watcher = new Observer(() => (noted.drawn = performance.now()));
        watcher.observe(doc.body, { subtree: true, childList: true, characterData: true, attributes: true });
        const from = performance.now();
        noted.answered = 0;
        noted.sent = 0;
        noted.drawn = 0;
        const e = element as { click(): void; value: string; dispatchEvent(e: unknown): void };
        if (value === null) e.click();
        else {
          const view = globalThis as unknown as { HTMLInputElement: { prototype: object }; Event: new (k: string, o: object) => unknown };
          Object.getOwnPropertyDescriptor(view.HTMLInputElement.prototype, 'value')!.set!.call(e, value);
          e.dispatchEvent(new view.Event('input', { bubbles: true }));
        }
        let first = 0;
        for (;;) {
          await new Promise((r) => setTimeout(r, 4));
          if (!first && (!answer || noted.answered) && noted.drawn > Math.max(from, answer ? noted.answered : 0)) first = noted.drawn;
          const now = performance.now();
          if (first && now - noted.drawn > (quiet as number)) break;
          if (now - from > 20_000) break;
        }
        watcher.disconnect();
        return { answered: noted.answered - from, sent: noted.sent - from, drawn: (answer ? first : noted.drawn) - from };
      },
      [value, answer, quiet] as const,
    );

const middle = (v: number[]): number => v.toSorted((a, b) => a - b)[v.length >> 1];
const told = (what: string, ms: number, bound: number, more = ''): void =>
  console.log(`${what}: ${ms.toFixed(0)} ms (should be under ${bound} ms)${more}`);

/** Rods in rows, each as long as the parameter says. */
function rods(count: number): Project {
  const line = (i: number): Line => ({ kind: 'box', name: `rod${i}`, material: 'Copper', size: ['w', 'w', 'h'], anchor: 'base', at: [`${4 * (i % 20)} mm`, `${4 * Math.floor(i / 20)} mm`, '0 mm'] }) as unknown as Line; // prettier-ignore
  return {
    ...emptyProject(`${count} rods`),
    parameters: [
      { name: 'w', expression: '2 mm' },
      { name: 'h', expression: '9 mm', dial: { min: '1 mm', max: '20 mm' } },
    ],
    lines: Array.from({ length: count }, (_, i) => line(i)),
  };
}
async function open(s: Session, document: Project): Promise<void> {
  await s.page.goto(s.address);
  await s.page.getByLabel('Project file').setInputFiles({ name: 'rods.json', mimeType: 'application/json', buffer: Buffer.from(JSON.stringify(document)) }); // prettier-ignore
  await s.page.locator('.entry').first().waitFor();
  await s.page.waitForTimeout(3000);
}

async function dial(s: Session, count: number): Promise<void> {
  await open(s, rods(count));
  const times: number[] = [];
  const answers: number[] = [];
  const sents: number[] = [];
  const client = await s.page.context().newCDPSession(s.page);
  await client.send('Performance.enable');
  const script = async (): Promise<number> =>
    1000 * (await client.send('Performance.getMetrics')).metrics.find((m) => m.name === 'ScriptDuration')!.value;
  const turns = 24;
  /** Turns until what is done again and again has been compiled, as soon after a dial is taken. */
  const first = 8;
  const before = await script();
  for (let i = 0; i < turns; i++) {
    const { answered, sent, drawn } = await settled(s.page, 'input[aria-label="dial h"]', String(0.004 + 0.0005 * i), true);
    times.push(drawn);
    answers.push(answered);
    sents.push(sent);
  }
  const later = (v: number[]): number => middle(v.slice(first));
  const parted = `, the first ${first} turns ${middle(sents.slice(0, first)).toFixed(0)} ms; drawn by the graphics, here software, after ${later(times).toFixed(0)} ms, evaluated after ${later(answers).toFixed(0)} ms, script of the page ${(((await script()) - before) / turns).toFixed(0)} ms in all`;
  told(`a dial turned to the model handed to the graphics, ${count} lines that follow it`, later(sents), 50, parted);
}

async function scroll(s: Session, count: number): Promise<void> {
  await open(s, rods(count));
  const box = (await s.page.locator('.ledger').boundingBox())!;
  await s.page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  const client = await s.page.context().newCDPSession(s.page);
  await client.send('Performance.enable');
  /** Milliseconds that the page's own thread has been busy so far, with what. */
  const busy = async (): Promise<number[]> => {
    const { metrics } = await client.send('Performance.getMetrics');
    return ['TaskDuration', 'ScriptDuration', 'RecalcStyleDuration', 'LayoutDuration'].map(
      (name) => 1000 * metrics.find((m) => m.name === name)!.value,
    );
  };
  const before = await busy();
  const steps = 60;
  for (let i = 0; i < steps; i++) {
    await s.page.mouse.wheel(0, 240);
    await s.page.waitForTimeout(16);
  }
  const [all, script, style, layout] = (await busy()).map((v, i) => (v - before[i]) / steps);
  const parted = `; script ${script.toFixed(0)}, style ${style.toFixed(0)}, layout ${layout.toFixed(0)}; the rest is painting, here in software`;
  told(`main thread for each step of scrolling ${count} lines`, all, 16, parted);
}

async function stages(s: Session): Promise<void> {
  await s.page.goto(s.address);
  await s.page.getByRole('link', { name: 'Tag 868', exact: true }).click();
  await s.page.locator('.entry').first().waitFor();
  for (const stage of ['feed', 'solve', 'read', 'explore', 'shape']) {
    await s.page.locator(`nav[aria-label="Course"] a[href*="/${stage}"]`).click();
    await s.page.waitForTimeout(1500);
  }
  for (const stage of ['feed', 'solve', 'read', 'explore', 'shape']) {
    const { drawn } = await settled(s.page, `nav[aria-label="Course"] a[href*="/${stage}"]`, null, false, 250);
    told(`${stage} opened and all of it drawn`, drawn, 300);
  }
}

async function lens(s: Session): Promise<void> {
  await s.page.goto(s.address);
  await s.page.getByRole('link', { name: 'Tag 868', exact: true }).click();
  await s.page.locator('.entry').first().waitFor();
  await s.stage('Read').click();
  await s.suitingBoards();
  await s.board('Match');
  for (let n = await s.page.locator('.card').count(); n < 8; n++) {
    await s.page.getByRole('button', { name: '+ Card' }).click();
    await s.page.getByRole('menuitem', { name: /^Curves/ }).click();
  }
  await s.page.waitForTimeout(3000);
  const times: number[] = [];
  for (let i = 0; i < 6; i++) {
    const which = i % 2 ? 'Frequency before' : 'Frequency after';
    times.push((await settled(s.page, `button[aria-label="${which}"]`, null, false, 250)).drawn);
  }
  told(`a board of ${await s.page.locator('.card').count()} cards follows the lens`, middle(times), 100);
}

/** Which of the times are taken; all of them if none is named. */
const only = process.argv.slice(2);
const parts: Record<string, (s: Session) => Promise<void>> = { dial: (s) => dial(s, 300), scroll: (s) => scroll(s, 2000), stages, lens };
const session = await startSession(14600);
try {
  await session.context.addInitScript(note);
  for (const [name, part] of Object.entries(parts)) if (!only.length || only.includes(name)) await part(session);
} finally {
  await session.end();
}
