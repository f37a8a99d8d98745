import { readdirSync, readFileSync } from 'node:fs';
import { expect } from '@jest/globals';
import { CssBaseline, StyledEngineProvider, ThemeProvider } from '@mui/material';
import { configure, fireEvent, screen, waitFor, within } from '@testing-library/dom';
import { PointerEventsCheckLevel, userEvent } from '@testing-library/user-event';
import { lazy, Suspense } from 'react';
import { createRoot, type Root } from 'react-dom/client';
import { BrowserRouter, Route, Routes } from 'react-router';
import { SWRConfig } from 'swr';
import type { Run } from '@jadebell/api';
import { type Project, readProject, solvedDigest, withVariant } from '@jadebell/core/document';
import { askTolerance, costOf, planSearch, planStudy, readCurve, readingOf, readMeasures, SearchRun } from '@jadebell/core/exploring';
import { loadGeometryKernel } from '@jadebell/core/geometry';
import { evaluateParameters } from '@jadebell/core/expressions';
import { touchstoneOf } from '@jadebell/core/formats';
import { toleranceOf } from '@jadebell/core/searching';
import { readReference, type ResultSet, unpackResult } from '@jadebell/core/results';
import { CacheAtHand } from '../src/api/mutate.ts';
import { theme } from '../src/kit/theme.ts';
import { forgetModel, useModel } from '../src/project/model.ts';
import { useProject } from '../src/project/store.ts';
import { AddressAtHand } from '../src/ui/address.ts';
import { exchangeService } from '../src/workers/exchangeService.ts';
import { modelService } from '../src/workers/modelService.ts';

const demos = new URL('../../../demo/', import.meta.url).pathname;
/** A demo project as it ships. */
export const demo = (name: string): Project => readProject(readFileSync(`${demos}${name}.json`, 'utf8')).project!;
export const projectId = '00000000-0000-4000-8000-0000000000aa';
const runId = (n: number): string => `00000000-0000-4000-8000-00000000010${n}`;

/** A demo's runs with their results, as they ship. */
function runsOf(name: string): { run: Run; document: Project; result: ResultSet }[] {
  const files = readdirSync(`${demos}results`).filter((f) => new RegExp(`^${name}\\.\\d+\\.zip$`).test(f));
  return files.map((file) => {
    const number = Number(/\.(\d+)\.zip$/.exec(file)![1]);
    const result = unpackResult(readFileSync(`${demos}results/${file}`));
    const document = readProject(readFileSync(`${demos}results/${file.replace('.zip', '.json')}`, 'utf8')).project!;
    const { summary } = evaluateParameters(document);
    const parameters = document.parameters.map(({ name: n, expression }) => ({ name: n, expression, si: summary[n]?.si ?? null, measure: summary[n]?.measure ?? '' })); // prettier-ignore
    const at = '2026-01-01T00:00:00.000Z';
    const run: Run = { id: runId(number), projectId, number, state: 'done', createdAt: at, startedAt: at, endedAt: at, accuracy: document.solve.accuracy, study: null, name: '', note: '', starred: false, parameters, progress: null, problems: [], kept: 0, meta: JSON.parse(JSON.stringify(result.meta)) as Run['meta'] }; // prettier-ignore
    return { run, document, result };
  });
}

/** What the server would answer of a study: its points stand for the runs that solved the same. */
function studyAnswer(project: Project, runs: ReturnType<typeof runsOf>, name: string, what: string | undefined, query: URLSearchParams): unknown {
  const study = project.studies!.find((s) => s.name === name)!;
  const plan = planStudy(project, study);
  const solved = new Map(runs.map((r) => [solvedDigest(r.document), r]));
  const done = plan.points.flatMap(({ digest, project: point }) => (solved.has(digest) ? [{ digest, point, reading: readingOf(solved.get(digest)!.result) }] : [])); // prettier-ignore
  if (what === 'cost') return costOf(plan.points.map((_, at) => ({ at, seconds: 60 + at })), plan.points.length); // prettier-ignore
  if (what === 'influence') return { points: done.length, influence: null };
  if (what === 'tolerance') {
    const solvedPoints = plan.points.flatMap((point) => done.filter((d) => d.digest === point.digest).map((d) => ({ point, reads: readMeasures(d.point, d.reading) }))); // prettier-ignore
    const { task, tell } = askTolerance(project, study, plan.moved, solvedPoints);
    return tell(toleranceOf(task));
  }
  if (what === 'measures')
    return done.map(({ digest, point, reading }) => ({
      digest,
      measures: readMeasures(point, reading),
    }));
  if (what === 'curves') {
    const of = { quantity: query.get('quantity')!, of: query.get('of')!, form: (query.get('form') ?? undefined) as never };
    const read = done.flatMap(({ digest, reading }) => {
      const curve = readCurve(of, reading);
      return 'why' in curve ? [] : [{ digest, x: Array.from(curve.x), y: Array.from(curve.y), unit: curve.unit, over: curve.over }];
    });
    return { unit: read[0]?.unit ?? '', over: read[0]?.over ?? 'frequency', curves: read.map(({ digest, x, y }) => ({ digest, x, y })), missing: [] };
  }
  const points = plan.points.map(({ values, digest }) => {
    const run = solved.get(digest)?.run;
    return { values, digest, run: run ? { id: run.id, projectId: run.projectId, number: run.number, state: run.state } : null };
  });
  return { moved: plan.moved, points, problems: plan.problems };
}

/** What the server would answer of a search: what it would try of what the runs have solved. */
function searchAnswer(project: Project, runs: ReturnType<typeof runsOf>, name: string): unknown {
  const plan = project.searches!.find((s) => s.name === name)!;
  const setup = planSearch(project, plan);
  const search = new SearchRun(project, plan, setup);
  const solved = new Map(runs.map((r) => [solvedDigest(r.document), r]));
  const runOf = (digest: string): object | null => {
    const run = solved.get(digest)?.run;
    return run ? { id: run.id, projectId: run.projectId, number: run.number, state: run.state } : null;
  };
  for (let open = search.open; open.some((p) => solved.has(p.digest)); open = search.open)
    for (const { digest, project: point } of open)
      if (solved.has(digest)) search.tell(digest, readMeasures(point, readingOf(solved.get(digest)!.result))); // prettier-ignore
  const { ended, best, tried, solved: count, open } = search;
  return {
    ...setup,
    going: false,
    ended,
    best,
    solved: count,
    tried: tried.map((t) => ({ ...t, run: runOf(t.digest) })),
    open: open.map((p) => ({ values: p.values, digest: p.digest, run: null })),
  };
}

/** What the server would answer of variants. */
const variantsAnswer = (project: Project, runs: ReturnType<typeof runsOf>): unknown =>
  [{ name: '', project }, ...(project.variants ?? []).map((v) => ({ name: v.name, project: withVariant(project, v) }))].map((v) => {
    const digest = solvedDigest(v.project);
    const found = runs.find((r) => solvedDigest(r.document) === digest);
    const measures = found ? readMeasures(v.project, readingOf(found.result)) : [];
    const run = found ? { id: found.run.id, projectId, number: found.run.number, state: found.run.state } : null;
    return { name: v.name, digest, run, measures };
  });

/** What the server would answer of one project and the runs of a demo; PUT of the project is kept. */
function desk(document: Project, runs: ReturnType<typeof runsOf>): typeof fetch {
  let kept = document;
  let revision = 1;
  const json = (body: unknown) => ({ ok: true, status: 200, json: async () => body });
  const answer = (method: string, path: string, body: unknown): unknown => {
    const array = /^\/runs\/([^/]+)\/arrays\/([^?]+)(?:\?from=(\d+)&count=(\d+))?$/.exec(path);
    if (array) {
      const found = runs.find((r) => r.run.id === array[1])?.result.arrays[decodeURIComponent(array[2])];
      if (!found) return { ok: false, status: 404, json: async () => ({ detail: 'There is no such array.' }) };
      const from = Number(array[3] ?? 0);
      const data = array[3] === undefined ? found.data : found.data.slice(from, from + Number(array[4]));
      const headers = new Map([['X-Shape', JSON.stringify(found.shape)], ['X-Type', data instanceof Float32Array ? 'f4' : 'f8']]); // prettier-ignore
      return { ok: true, status: 200, headers, arrayBuffer: async () => data.slice().buffer };
    }
    if (path === `/projects/${projectId}`) {
      if (method === 'PUT') {
        kept = (body as { document: Project }).document;
        return json({ revision: ++revision });
      }
      return json({ id: projectId, revision, updatedAt: '2026-01-01T00:00:00.000Z', document: kept });
    }
    if (path === `/projects/${projectId}/runs`) return json(runs.map((r) => r.run).toReversed());
    const file = /^\/runs\/([^/]+)\/files\/touchstone\?(.*)$/.exec(path);
    if (file) {
      const { run, result } = runs.find((r) => r.run.id === file[1])!;
      const query = new URLSearchParams(file[2]);
      const references = Object.fromEntries(query.getAll('reference').map((t) => [t.slice(0, t.lastIndexOf(':')), readReference(t.slice(t.lastIndexOf(':') + 1))!])); // prettier-ignore
      const { text } = touchstoneOf(result, kept.title, { version: query.get('version') as '1' | '2', references })!;
      const headers = new Map([['Content-Disposition', `attachment; filename="run${run.number}.s1p"`]]);
      return { ok: true, headers, blob: async () => new Blob([text]) };
    }
    const solved = /^\/runs\/([^/]+)\/document$/.exec(path);
    if (solved) return json(runs.find((r) => r.run.id === solved[1])!.document);
    const study = /^\/projects\/[^/]+\/studies\/([^/?]+)(?:\/(\w+))?(\?.*)?$/.exec(path);
    if (study) return json(studyAnswer(kept, runs, study[1], study[2], new URLSearchParams(study[3])));
    const search = /^\/projects\/[^/]+\/searches\/(\w+)(\/curves)?/.exec(path);
    if (search) return json(search[2] ? { unit: 'dB', over: 'frequency', curves: [], missing: [] } : searchAnswer(kept, runs, search[1]));
    if (path === `/projects/${projectId}/variants`) return json(variantsAnswer(kept, runs));
    if (path === '/machine') return json({ memory: 8e9, threads: 2, cellsPerSecond: 3e7, version: '0' });
    if (method === 'PUT') return json(body);
    if (['/projects', '/materials', '/runs/active'].includes(path)) return json([]);
    throw new Error(`Nobody answers ${method} ${path} here.`);
  };
  return (async (address: string, { method = 'GET', body }: RequestInit = {}) =>
    answer(method, address.replace('/api', ''), body ? JSON.parse(String(body)) : undefined)) as unknown as typeof fetch;
}

/** The workers of the page, in its own thread. */
function workers(): typeof Worker {
  const kernel = loadGeometryKernel();
  return class {
    onmessage: ((e: { data: unknown }) => void) | null = null;
    private readonly serve: (data: never) => Promise<void>;
    constructor(address: URL) {
      const tell = (data: unknown): void => this.onmessage?.({ data });
      this.serve = /model\.worker/.test(String(address)) ? modelService(kernel, tell) : exchangeService(kernel, undefined, tell);
    }
    postMessage(data: unknown): void {
      void this.serve(data as never);
    }
    terminate(): void {
      this.onmessage = null;
    }
  } as unknown as typeof Worker;
}

/** A page without layout tells no sizes: everything that asks is told this one. */
const box = { width: 900, height: 400 };

export interface Page {
  user: ReturnType<typeof userEvent.setup>;
  /** The project as it is now. */
  project(): Project;
  /** Opens a chip of a line, or of the first that has it, types, and leaves with Enter. */
  setChip(label: string, value: string, within?: HTMLElement): Promise<void>;
  /** Takes an option of a choice. */
  choose(label: string | RegExp, option: string | RegExp, within?: HTMLElement): Promise<void>;
  /** Takes an entry of the menu behind a button. */
  menu(button: string | RegExp, item: string | RegExp): Promise<void>;
  /** The line of a name in the ledger. */
  line(name: string): Promise<HTMLElement>;
  /** What files were handed to the user, by name. */
  files: Map<string, Blob>;
}

let root: Root | undefined;

/** Opens the program at a stage of a project, with the runs of a demo; `width` of what charts and boards are told to be. */
export async function openPage(document: Project, path: string, runs = ''): Promise<Page> {
  // Other work may have the machine meanwhile.
  configure({ asyncUtilTimeout: 40_000 });
  window.localStorage.clear();
  const files = new Map<string, Blob>();
  globalThis.PointerEvent ??= MouseEvent as unknown as typeof PointerEvent;
  globalThis.Worker = workers();
  globalThis.EventSource = class {
    addEventListener(): void {}
    close(): void {}
  } as unknown as typeof EventSource;
  globalThis.ResizeObserver = class {
    constructor(private readonly tell: ResizeObserverCallback) {}
    observe(target: Element): void {
      const size = { inlineSize: box.width, blockSize: box.height };
      queueMicrotask(() => this.tell([{ target, contentRect: box, borderBoxSize: [size] }] as unknown as ResizeObserverEntry[], this));
    }
    unobserve(): void {}
    disconnect(): void {}
  };
  window.matchMedia ??= ((query: string) => ({ matches: false, media: query, addEventListener() {}, removeEventListener() {}, addListener() {}, removeListener() {} })) as never; // prettier-ignore
  Element.prototype.scrollIntoView ??= () => undefined;
  const blobs = new Map<string, Blob>();
  URL.createObjectURL = (blob: Blob) => {
    const address = `blob:${blobs.size}`;
    blobs.set(address, blob);
    return address;
  };
  URL.revokeObjectURL = () => undefined;
  HTMLAnchorElement.prototype.click = function () {
    if (this.download) files.set(this.download, blobs.get(this.getAttribute('href')!)!);
  };
  globalThis.fetch = desk(document, runs ? runsOf(runs) : []);
  window.history.replaceState(null, '', `/project/${projectId}/${path}`);
  const Workbench = lazy(() => import('../src/frame/Workbench.tsx'));
  const cache = new Map();
  root = createRoot(window.document.body.appendChild(window.document.createElement('div')));
  root.render(
    <StyledEngineProvider injectFirst>
      <ThemeProvider theme={theme}>
        <CssBaseline />
        <SWRConfig value={{ provider: () => cache }}>
          <CacheAtHand />
          <BrowserRouter useTransitions={false}>
            <AddressAtHand />
            <Suspense>
              <Routes>
                <Route path="/" element={<p>the shelf</p>} />
                <Route path="/project/:id/:stage?" element={<Workbench />} />
              </Routes>
            </Suspense>
          </BrowserRouter>
        </SWRConfig>
      </ThemeProvider>
    </StyledEngineProvider>,
  );
  // Until the model has come, what hangs on it is not offered.
  await waitFor(() => expect(useModel.getState().ready && window.document.querySelector('nav[aria-label=Course]')).toBeTruthy());
  // Styles of a whole page are slow to compute here: that what is clicked can be clicked is for the browser's tests.
  const user = userEvent.setup({ pointerEventsCheck: PointerEventsCheckLevel.Never, delay: null });
  const named = (label: string): string => `^${label.replaceAll(/[.*+?^${}()|[\]\\]/g, '\\$&')}: `;
  return {
    user,
    files,
    project: () => useProject.getState().document!,
    async setChip(label, value, where = window.document.body) {
      const [chip] = await within(where).findAllByLabelText(new RegExp(named(label)));
      await user.click(chip);
      const field = await within(where).findByLabelText(label, { selector: 'input' });
      fireEvent.change(field, { target: { value } });
      await user.keyboard('{Enter}');
    },
    async choose(label, option, where = window.document.body) {
      // Pressed alone: a whole click at once would close it again.
      fireEvent.mouseDown((await within(where).findAllByLabelText(label, { selector: '[role=combobox]' }))[0], { button: 0 });
      const list = await opened('[role=listbox]');
      await user.click(within(list).getByText(option, { selector: '[role=option], [role=option] *' }));
      await closed('[role=listbox]');
    },
    async menu(button, item) {
      await user.click(await screen.findByText(button, { selector: 'button, button *' }));
      await user.click(within(await opened('[role=menu]')).getByText(item, { selector: '[role=menuitem], [role=menuitem] *' }));
      await closed('[role=menu]');
    },
    async line(name) {
      return waitFor(() => {
        const found = window.document.getElementById(`entry-${name}`);
        if (!found) throw new Error(`There is no line ${name}.`);
        return found;
      });
    },
  };
}

/** What has opened over the page; asked for by its role in the markup, as names are slow to compute for a whole page. */
const opened = (selector: string): Promise<HTMLElement> =>
  waitFor(() => {
    const found = window.document.querySelector<HTMLElement>(selector);
    expect(found).not.toBeNull();
    return found!;
  });

/** Waits until what has opened is closed again. */
export const closed = (selector: string): Promise<void> => waitFor(() => expect(window.document.querySelector(selector)).toBeNull());

/** Takes the page away. */
export const closePage = (): void => {
  root?.unmount();
  window.document.body.replaceChildren();
  forgetModel();
  useProject.setState({ id: null, document: null, past: [], future: [], picked: null, saved: 'saved' });
};
