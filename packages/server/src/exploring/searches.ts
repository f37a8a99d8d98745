import { type Project, type SearchPlan, solvedDigest } from '@jadebell/core/document';
import { planSearch, SearchRun, type SearchSetup } from '@jadebell/core/exploring';
import type { Logger } from 'pino';
import { addRun } from '../api/runs.ts';
import { RunRow } from '../db/models.ts';
import type { RunQueue } from '../queue/queue.ts';
import { measured } from './measured.ts';
import { isStanding, runsOf } from './pointRuns.ts';

/** A search as far as its points are known. */
interface Known {
  /** What it depends on: with another one it is another search. */
  key: string;
  project: Project;
  plan: SearchPlan;
  setup: SearchSetup;
  run: SearchRun;
  /** It asks on as its points are solved. */
  going: boolean;
  /** Runs that it waits for. */
  waiting: Set<string>;
}

const keyOf = (project: Project, plan: SearchPlan): string =>
  JSON.stringify([solvedDigest(project), project.parameters.map((p) => [p.name, p.expression]), project.measures, plan]);

/** Searches kept besides those that go on. */
const mostKept = 20;

/**
 * Searches under way. Nothing of them is stored but their runs: a search is told again what these have, and asks for the same points as before, so that it
 * goes on where it was after a stop or a new start of the server.
 */
export class Searches {
  private readonly known = new Map<string, Known>();
  /** What is done with a search is done one after the other. */
  private readonly turns = new Map<string, Promise<unknown>>();

  constructor(
    private readonly queue: RunQueue,
    log: Logger,
  ) {
    queue.on('run', (id) => {
      // A run under way tells of its progress many times.
      if (!queue.progress(id)) void this.heard(id).catch((error: unknown) => log.error({ err: error }, 'a search could not go on'));
    });
  }

  /** Goes on with searches that waited for a run, once that has ended. */
  private async heard(id: string): Promise<void> {
    const places = [...this.known].filter(([, s]) => s.going && s.waiting.has(id)).map(([place]) => place);
    if (!places.length) return;
    const state = (await RunRow.findByPk(id, { attributes: ['state'] }))?.state;
    if (state !== 'queued' && state !== 'running') for (const place of places) await this.step(place);
  }

  /** A search with all that is known of its points; `go`: from now on it asks for more, or no longer. */
  async of(projectId: string, project: Project, plan: SearchPlan, go?: boolean): Promise<Known> {
    const place = `${projectId}/${plan.name}`;
    const key = keyOf(project, plan);
    let search = this.known.get(place);
    if (search?.key !== key) {
      const setup = planSearch(project, plan);
      search = { key, project, plan, setup, run: new SearchRun(project, plan, setup), going: false, waiting: new Set() };
      this.known.delete(place);
      this.known.set(place, search);
      for (const [other, { going }] of this.known) if (this.known.size > mostKept && !going && other !== place) this.known.delete(other);
    }
    if (go !== undefined) search.going = go;
    await this.step(place);
    return search;
  }

  private async step(place: string): Promise<void> {
    const turn = (this.turns.get(place) ?? Promise.resolve()).then(() => this.advance(place));
    this.turns.set(place, turn.catch(() => undefined)); // prettier-ignore
    await turn;
  }

  /** Tells a search all that is known, and queues what it asks for then. */
  private async advance(place: string): Promise<void> {
    const search = this.known.get(place);
    if (!search) return;
    const { run, project, plan } = search;
    const projectId = place.slice(0, place.indexOf('/'));
    for (;;) {
      const open = run.open;
      if (!open.length) break;
      const runs = await runsOf(open.map((p) => p.digest));
      let told = false;
      for (const point of open) {
        const own = runs.get(point.digest);
        if (own?.state === 'done') run.tell(point.digest, await measured.of(own, project.measures ?? [], point.project));
        else if (own?.state === 'failed') run.tell(point.digest, null);
        else continue;
        told = true;
      }
      if (!told) {
        // One that was stopped by hand stops the search.
        if (open.some((p) => waitsInVain(search, runs.get(p.digest)))) search.going = false;
        search.waiting.clear();
        if (!search.going) break;
        for (const point of open) {
          const own = runs.get(point.digest);
          const standing = isStanding(own) ? own! : await addRun(projectId, point.project, plan.name);
          search.waiting.add(standing.id);
          if (standing !== own) this.queue.wake(standing.id);
        }
        // One that ended before it was waited for tells of it no more.
        const now = await runsOf(open.map((p) => p.digest));
        if (![...now.values()].some((r) => r.state === 'done' || r.state === 'failed')) break;
      }
      // Methods that think long let others have a turn.
      await new Promise((resolve) => setImmediate(resolve));
    }
    if (run.ended) search.going = false;
  }
}

/** Whether a search waits for a run that was ended before it was done. */
const waitsInVain = (search: Known, run: RunRow | undefined): boolean =>
  run !== undefined && search.waiting.has(run.id) && (run.state === 'stopped' || run.state === 'interrupted');

/** The rows of runs of points of a search. */
export const rowsOf = (search: Pick<Known, 'run'>): Promise<Map<string, RunRow>> =>
  runsOf([...search.run.tried.map((t) => t.digest), ...search.run.open.map((p) => p.digest)].filter(Boolean));
