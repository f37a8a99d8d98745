import { Alert, Button } from '@mui/material';
import { runSchema } from '@jadebell/api';
import { recorderKind } from '@jadebell/core/recorders';
import { type Board, changesSince, cardWith, type Project } from '@jadebell/core/document';
import { defaultBoards, isOptical, keepsEach } from '@jadebell/core/reading';
import { channelKeys, channelNames, knowsGaps } from '@jadebell/core/results';
import { useCallback, useEffect, useMemo } from 'react';
import useSWR from 'swr';
import { Link, useParams } from 'react-router';
import { getArray, getJson } from '../api/client.ts';
import { useProjects, useRunDocument, useRuns } from '../api/hooks.ts';
import { useKept } from '../api/useKept.ts';
import type { Run } from '../api/types.ts';
import { useProject } from '../project/store.ts';
import type { NewCard, BoardCard } from '@jadebell/core/cards';
import { BoardContext } from './board/BoardContext.ts';
import { BoardGrid } from './board/BoardGrid.tsx';
import { BoardTabs } from './board/BoardTabs.tsx';
import { editBoard, editCard } from './board/boards.ts';
import { freePlace, freshId } from '../charts/layout.ts';
import { CardSettings } from './board/CardSettings.tsx';
import { PlacedCard } from './board/PlacedCard.tsx';
import { ExcitationLens } from '../lens/ExcitationLens.tsx';
import { FrequencyLens, PhaseLens } from '../lens/FrequencyLens.tsx';
import { type Excitation, useLens } from '../lens/lens.ts';
import { PinnableContext } from '../lens/pinnable.ts';
import { PlaneLens } from '../lens/PlaneLens.tsx';
import { PortsLens } from '../lens/PortsLens.tsx';
import { Message } from '../kit/Message.tsx';
import { RunsLens } from '../lens/RunsLens.tsx';
import { StudyLens } from '../lens/StudyLens.tsx';
import { type ShownRun, shownRuns } from '../lens/shown.ts';
import { MiddleContext } from '../lens/useFrequency.ts';
import { usePlay } from '../lens/usePlay.ts';
import { ShownContext } from '../lens/useShown.ts';
import { closeAt, goAt, openAt, restAt, useAddress } from '../ui/address.ts';
import { ReadFrame } from './ReadFrame.ts';

/** The boards of a project: cards under one lens bar. */
export default function ReadStage() {
  const { id = '' } = useParams();
  const runs = useRuns(id).data;
  const open = useLens((s) => s.open);
  const lensRun = useLens((s) => s.run);
  const set = useLens((s) => s.set);
  const project = useLens((s) => s.project);
  useEffect(() => open(id), [id, open]);
  const readable = useMemo(() => (runs ?? []).filter((r) => r.meta), [runs]);
  const asked = useAddress('run');
  // The lens goes where the address is, so that it is there when the project is opened without one.
  useEffect(() => {
    if (asked && project === id) set({ run: asked });
  }, [asked, project, id, set]);
  const run = readable.find((r) => r.id === (asked ?? lensRun)) ?? readable[0];
  if (!runs || project !== id) return <p className="quiet pad">Reading the runs …</p>;
  if (!run)
    return (
      <div className="empty">
        <span>There is no result yet.</span>
        <Button variant="outlined" component={Link} to={`/project/${id}/solve`}>
          Go to Solve and run the model
        </Button>
      </div>
    );
  return <Boards key={id} runs={readable} run={run} />;
}

/** Runs of other projects that stand beside, as far as they are known yet. */
function useForeign(run: Run): { run: Run; title: string }[] {
  const beside = useLens((s) => s.beside);
  const titles = useProjects().data;
  const foreign = beside.filter((b) => b.project !== run.projectId).map((b) => b.id);
  const { data } = useKept(foreign.length ? `foreign ${foreign.join()}` : null, () =>
    Promise.all(foreign.map((r) => getJson(`/runs/${r}`, runSchema))),
  );
  return useMemo(
    () =>
      (data ?? [])
        .filter((r) => r.meta && foreign.includes(r.id))
        .map((r) => ({ run: r, title: titles?.find((p) => p.id === r.projectId)?.title ?? 'another project' })),
    [data, titles, foreign.join()], // oxlint-disable-line react/exhaustive-deps
  );
}

function Boards({ runs, run }: { runs: readonly Run[]; run: Run }) {
  const now = useProject((s) => s.document)!;
  const beside = useLens((s) => s.beside);
  const set = useLens((s) => s.set);
  const foreign = useForeign(run);
  const shown = useMemo(
    () =>
      shownRuns([
        { run, title: now.title },
        ...runs.filter((r) => r.id !== run.id && beside.some((b) => b.id === r.id)).map((r) => ({ run: r, title: now.title })),
        ...foreign,
      ]),
    [run, runs, beside, foreign, now.title],
  );
  const meta = run.meta!;
  const stops = useStops(run);
  const proposed = useMemo(() => defaultBoards(meta, isOptical(meta, stops)), [meta, stops]);
  const boards = now.boards?.length ? now.boards : proposed;
  const left = useLens((s) => s.board);
  const open = useAddress('board') ?? left;
  const excitation = useLens((s) => s.excitation);
  const settingUp = useAddress('card');
  const at = Math.max(0, boards.findIndex((b) => b.name === open)); // prettier-ignore
  const board: Board | undefined = boards[at];
  usePlay(stops);
  const change = useCallback(
    (id: string, next: Partial<BoardCard>) => editCard('card', boards, at, id, (c) => ({ ...c, ...next }) as BoardCard),
    [boards, at],
  );
  const onBoard = useAddCard(boards, at);
  const edited = board?.cards.find((c) => c.id === settingUp);
  return (
    <ShownContext value={shown}>
      <PinnableContext value={runs}>
        <MiddleContext value={stops[stops.length >> 1] ?? null}>
          <BoardContext value={onBoard}>
            <ReadFrame className="read">
              <LensBar runs={runs} run={run} stops={stops} shown={shown} />
              <LostLens />
              <ModelChanged run={run} now={now} />
              <BoardTabs
                boards={boards}
                proposed={proposed}
                own={!!now.boards?.length}
                at={at}
                meta={meta}
                choose={(name) => {
                  set({ board: name });
                  goAt({ board: name, card: null });
                }}
                run={run}
                lit={litBy(run, excitation)}
              />
              <div className="read-body">
                {board && (
                  <BoardGrid
                    key={board.name}
                    board={board}
                    onPlaced={(places) =>
                      editBoard('arrange', boards, at, (b) => ({
                        ...b,
                        cards: b.cards.map((c) => ({ ...c, place: places.get(c.id) ?? c.place }) as BoardCard),
                      }))
                    }
                  >
                    {(card) => (
                      <PlacedCard
                        card={card}
                        run={run}
                        boards={boards}
                        at={at}
                        change={change}
                        settingUp={settingUp === card.id}
                        setUp={() => (settingUp === card.id ? closeAt('card') : openAt({ card: card.id }))}
                      />
                    )}
                  </BoardGrid>
                )}
                {edited && <CardSettings card={edited} meta={meta} change={(next) => change(edited.id, next)} close={() => closeAt('card')} />}
              </div>
            </ReadFrame>
          </BoardContext>
        </MiddleContext>
      </PinnableContext>
    </ShownContext>
  );
}

/** Puts a card on the board, and shows it. */
function useAddCard(boards: Board[], at: number) {
  return useMemo(
    () => ({
      addCard({ w, h, ...card }: NewCard) {
        editBoard('add card', boards, at, (b) => ({
          ...b,
          cards: [...b.cards, cardWith({ ...card, id: freshId(b), place: freePlace(b, w, h) } as Parameters<typeof cardWith>[0])],
        }));
        // The board goes to it once it is drawn.
        setTimeout(() => document.querySelector('.board .card-cell:last-child')?.scrollIntoView({ block: 'nearest', behavior: 'smooth' }), 120);
      },
    }),
    [boards, at],
  );
}

interface LensBarProps {
  runs: readonly Run[];
  run: Run;
  stops: readonly number[];
  shown: readonly ShownRun[];
}

/** What all cards of the board follow. */
function LensBar({ runs, run, stops, shown }: LensBarProps) {
  const beside = useLens((s) => s.beside);
  const { set } = useLens.getState();
  const meta = run.meta!;
  const choose = useCallback(
    (r: Run): void => {
      set({ run: r.id, beside: beside.filter((b) => b.id !== r.id) });
      restAt({ run: r.id });
    },
    [beside, set],
  );
  return (
    <div className="lens" role="toolbar" aria-label="Lens bar">
      <RunsLens runs={runs} run={run} choose={choose} />
      <StudyLens runs={runs} run={run} choose={choose} />
      {stops.length > 0 && <FrequencyLens stops={stops} />}
      {meta.recorded.some((r) => recorderKind(r).card === 'field') && <PhaseLens />}
      <PlaneLens run={run} />
      <ExcitationLens run={run} />
      {meta.excitations.length > 0 && <PortsLens run={run} gaps={shown.some((s) => knowsGaps(s.run.meta!))} />}
    </div>
  );
}

/** Tells in what the model differs from the one that a run has solved. */
function ModelChanged({ run, now }: { run: Run; now: Project }) {
  const solved = useRunDocument(run.id).data;
  // That a point of a study has values of its own is no change of the model.
  const moves = now.studies?.find((s) => s.name === run.study)?.moves ?? [];
  const moved = moves.map((m) => m.parameter).join();
  const changes = useMemo(() => {
    const all = solved ? changesSince(solved, now) : [];
    return all.filter((c) => !moved.split(',').some((p) => c.startsWith(`${p}: `)));
  }, [solved, now, moved]);
  if (!changes.length) return null;
  return (
    <Message
      bar
      tone="told"
      action={
        <Button variant="outlined" component={Link} to={`/project/${run.projectId}/solve`}>
          Run it anew
        </Button>
      }
    >
      <b>The model has changed since run {run.number}:</b> <span title={changes.join('\n')}>{changes.join('; ')}</span>
    </Message>
  );
}

/** Tells what of the way of looking that the browser kept was damaged; it has begun anew there. */
function LostLens() {
  const lost = useLens((s) => s.lost);
  if (!lost.length) return null;
  return (
    <Alert severity="warning" onClose={() => useLens.setState({ lost: [] })}>
      What this browser kept of how the results were looked at could not be read: {lost.join(', ')}. It has begun anew there; runs and boards are as
      they were.
    </Alert>
  );
}

/** What the fields and patterns are of. */
function litBy(run: Run, excitation: Excitation | null): string {
  const { meta } = run;
  const { wave, dipole, recordAt, farField, recorded, combined, excitations, ports } = meta!;
  if (wave) return `lit by ${wave.name}, 1 V/m`;
  if (dipole) return `excited by ${dipole.name}, which gives 1 W`;
  if (!recordAt.length || !(farField ?? recorded.some((r) => recorderKind(r).card === 'field'))) return '';
  const names = channelNames(ports);
  const keys = channelKeys(ports);
  if (excitation && keepsEach(run.meta!))
    return `fields of ${excitation.waves.map((w) => names[keys.indexOf(w.channel)] ?? w.channel).join(' + ')}, 1 W incident`;
  return `fields of ${(combined?.map((w) => w.channel) ?? [excitations[0]]).map((c) => names[c]).join(' + ')}, 1 W incident`;
}

/** Frequencies that the slider steps through: those that were recorded, else a hundred over the band. */
function useStops(run: Run): readonly number[] {
  const { data } = useSWR<Float64Array>(run.meta!.recordAt.length ? null : ['stops', run.id], async () => {
    return (await getArray(run.id, 'frequency')).data as Float64Array;
  });
  return useMemo(() => {
    if (run.meta!.recordAt.length) return [...run.meta!.recordAt].sort((a, b) => a - b);
    if (!data) return [];
    const every = Math.max(1, Math.floor(data.length / 200));
    return Array.from(data).filter((_, i) => i % every === 0);
  }, [run, data]);
}
