import { lazy, Suspense, useEffect, useMemo, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { Group, Panel, Separator } from 'react-resizable-panels';
import { useNavigate, useParams } from 'react-router';
import { useMachine, useServerEvents } from '../api/hooks.ts';
import type { Project } from '@jadebell/core/document';
import { FeedLedger } from '../feed/FeedLedger.tsx';
import { evaluateProject, forgetModel, useModel } from '../project/model.ts';
import { useModelPart } from '../project/useModelPart.ts';
import { useProject } from '../project/store.ts';
import { closeSection, useSection } from '../section/sectionState.ts';
import { useSectionAddress } from '../section/useSectionAddress.ts';
import { ShapeLedger } from '../shape/ShapeLedger.tsx';
import { SolveLedger } from '../solve/SolveLedger.tsx';
import { startRun } from '../solve/startRun.ts';
import { commands } from './commands.ts';
import { useQuietAddress } from '../ui/address.ts';
import { closeDialog, showDialog, useDialog } from '../ui/dialogs.ts';
import { Header } from './Header.tsx';
import { useTour } from '../help/tour.ts';
import { TourCard } from '../help/TourCard.tsx';
import { Palette } from './Palette.tsx';
import { type StagePath, stages } from '../ui/stages.ts';
import { Tool } from '../kit/Tool.tsx';
import { Message } from '../kit/Message.tsx';
import { Bench } from './frames.ts';

const Calculator = lazy(() => import('../calculator/Calculator.tsx').then((m) => ({ default: m.Calculator })));
const ImportDialog = lazy(() => import('../exchange/ImportDialog.tsx').then((m) => ({ default: m.ImportDialog })));
const ExportDialog = lazy(() => import('../exchange/ExportDialog.tsx').then((m) => ({ default: m.ExportDialog })));
const MaterialLibrary = lazy(() => import('../materials/MaterialLibrary.tsx').then((m) => ({ default: m.MaterialLibrary })));
const GuideDialog = lazy(() => import('../help/GuideDialog.tsx'));
const StarterDialog = lazy(() => import('../designs/StarterDialog.tsx'));
const SectionView = lazy(() => import('../section/SectionView.tsx'));
const StageView = lazy(() => import('../stageview/StageView.tsx'));
const ReadStage = lazy(() => import('../read/ReadStage.tsx'));
const ExploreStage = lazy(() => import('../explore/ExploreStage.tsx'));

const ledgers = { shape: ShapeLedger, feed: FeedLedger, solve: SolveLedger };

/** Closes the guide, and goes round. */
function takeTour(): void {
  closeDialog();
  useTour.getState().start();
}

/** Puts a design in the place of what is open, under its own title where that has one. */
function beginWith(design: Project): void {
  useProject.getState().edit('start from a design', (d) => ({ ...design, title: d.title === 'New project' ? design.title : d.title }));
  closeDialog();
}

/** Has the model evaluated as the project changes, and the window named after it; apart, so that an edit does not draw all of the workbench anew. */
function Evaluation({ stage }: { stage: StagePath }) {
  const model = useModelPart(useProject((s) => s.document));
  const machine = useMachine().data ?? null;
  const title = useProject((s) => s.document?.title);
  useEffect(() => {
    if (model) evaluateProject(model, machine, stage === 'solve', stage === 'feed' || stage === 'solve');
  }, [model, machine, stage]);
  useEffect(() => {
    window.document.title = title ? `${title}, Jade Bell` : 'Jade Bell';
  }, [title]);
  return null;
}

const pick = (name: string): void => useProject.getState().pick(name);
/** The picked line has an address. */
function usePickedAddress(opened: boolean): void {
  useQuietAddress('line', useProject((s) => s.picked), opened, pick); // prettier-ignore
}

/** One open project: header, course, and the stage. */
export default function Workbench() {
  const { id = '', stage: raw } = useParams();
  const stage: StagePath = stages.find((s) => s.path === raw)?.path ?? 'shape';
  const navigate = useNavigate();
  const opened = useProject((s) => s.document !== null);
  const fault = useProject((s) => s.fault);
  const load = useProject((s) => s.load);
  const modelFault = useModel((s) => s.fault);
  const section = useSection((s) => s.open !== null);
  useSectionAddress(stage === 'feed');
  usePickedAddress(opened);
  const [palette, setPalette] = useState(false);
  // The stage that shows the model now or did last: its view is kept while others are open, as making one takes the better part of a second.
  const [modelled, setModelled] = useState<StagePath | null>(null);
  if (stage in ledgers && stage !== modelled) setModelled(stage);
  const dialog = useDialog();

  useServerEvents(id);
  useEffect(() => {
    forgetModel();
    closeSection();
    void load(id);
  }, [id, load]);

  useHotkeys('1,2,3,4,5', (_, k) => void navigate(`/project/${id}/${stages[Number(k.keys?.join('')) - 1].path}`));
  useHotkeys('mod+k', () => setPalette(true), { preventDefault: true, enableOnFormTags: true });
  useHotkeys('mod+z', () => useProject.getState().undo(), { preventDefault: true });
  useHotkeys('mod+shift+z, mod+y', () => useProject.getState().redo(), { preventDefault: true });
  useHotkeys('shift+slash', () => showDialog('guide'), { useKey: false });
  useHotkeys(
    'mod+enter',
    () => {
      void startRun(id);
      void navigate(`/project/${id}/solve`);
    },
    { preventDefault: true },
  );
  // What can be added depends on the model as it is when the palette opens.
  const list = useMemo(
    () => (palette ? commands(id, navigate, [{ title: 'Guide and keys', keys: '?', run: () => showDialog('guide') }]) : []),
    [palette, id, navigate],
  );

  if (!opened)
    return (
      <div className="empty">
        {fault ?? 'Opening …'}
        {fault && <Tool onClick={() => void navigate('/')}>Back to the Shelf</Tool>}
      </div>
    );
  const Ledger = stage in ledgers ? ledgers[stage as keyof typeof ledgers] : null;
  const inSection = stage === 'feed' && section;
  return (
    <Bench>
      <Evaluation stage={stage} />
      <Header stage={stage} onPalette={() => setPalette(true)} onHelp={() => showDialog('guide')} />
      {(fault ?? modelFault) && <Message bar>{fault ?? modelFault}</Message>}
      <main>
        <Suspense fallback={<p className="quiet pad">Opening …</p>}>
          {modelled && (
            <div style={{ height: '100%', display: Ledger ? undefined : 'none' }}>
              <Group orientation="horizontal" id="bench-split">
                <Panel defaultSize="58%" minSize="30%">
                  {inSection && <SectionView />}
                  <StageView stage={modelled} away={!Ledger || inSection} />
                </Panel>
                <Separator className="divider" aria-label="Width of the ledger" />
                <Panel minSize="26%">{Ledger && <Ledger />}</Panel>
              </Group>
            </div>
          )}
          {stage === 'read' && <ReadStage />}
          {stage === 'explore' && <ExploreStage />}
        </Suspense>
      </main>
      <TourCard stage={stage} goTo={(next) => void navigate(`/project/${id}/${next}`)} />
      <Palette open={palette} commands={list} onClose={() => setPalette(false)} />
      <Suspense fallback={null}>
        {dialog === 'guide' && <GuideDialog stage={stage} onTour={takeTour} onClose={closeDialog} />}
        {dialog === 'calculator' && <Calculator onClose={closeDialog} />}
        {dialog === 'import' && <ImportDialog onClose={closeDialog} />}
        {dialog === 'export' && <ExportDialog onClose={closeDialog} />}
        {dialog === 'designs' && <StarterDialog onStart={beginWith} onClose={closeDialog} />}
        {dialog === 'materials' && <MaterialLibrary onClose={closeDialog} />}
      </Suspense>
    </Bench>
  );
}
