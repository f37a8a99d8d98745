import { Add, Day, Night, Upload } from '../kit/icons.tsx';
import { Alert, Button, Dialog, DialogActions, DialogContent, DialogTitle } from '@mui/material';
import { useColorScheme } from '@mui/material/styles';
import { lazy, Suspense, useMemo, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { sendJson } from '../api/client.ts';
import { useProjects } from '../api/hooks.ts';
import { projectFull } from '@jadebell/api';
import type { ProjectSummary } from '../api/types.ts';
import { closeDialog, showDialog, useDialog } from '../ui/dialogs.ts';
import { useDark } from '../ui/useDark.ts';
import { Choice } from '../kit/Choice.tsx';
import { Field } from '../kit/Field.tsx';
import { FilePicker } from '../kit/FilePicker.tsx';
import { IconTool } from '../kit/IconTool.tsx';
import { useRemembered } from '../ui/remembered.ts';
import { example, useTour } from '../help/tour.ts';
import { onShelf, type Order, orders } from './order.ts';
import { ShelfCard } from './ShelfCard.tsx';
import { z } from 'zod';
import { Message } from '../kit/Message.tsx';
import { ShelfPage } from './ShelfPage.ts';

/** Projects that are seen at a glance, without search. */
const few = 6;
const orderOptions = (Object.keys(orders) as Order[]).map((value) => ({ value, label: orders[value].label }));

const StarterDialog = lazy(() => import('../designs/StarterDialog.tsx'));

/** The home page: all projects with pictures; start, import, remove. */
export function Shelf() {
  const { data, error, mutate } = useProjects();
  const navigate = useNavigate();
  const [fault, setFault] = useState<string | null>(null);
  const [removing, setRemoving] = useState<ProjectSummary | null>(null);
  const starting = useDialog() === 'designs';
  const tour = useTour();
  const picker = useRef<HTMLInputElement>(null);

  /** Adds a project and opens it; whether it came. */
  const add = async (body: object): Promise<boolean> => {
    try {
      const made = await sendJson('POST', '/projects', body, projectFull);
      void mutate();
      void navigate(`/project/${made.id}/shape`);
      return true;
    } catch (e) {
      setFault((e as Error).message);
      return false;
    }
  };
  const takeTour = async (): Promise<void> => {
    if (await add({ document: example() })) tour.start();
  };
  const importFile = async (file: File | undefined): Promise<void> => {
    if (!file) return;
    let document: unknown;
    try {
      if (file.size > 24_000_000) throw new Error('It is larger than 24 MB.');
      document = JSON.parse(await file.text());
    } catch (e) {
      setFault(`${file.name} is not a Jade Bell project: ${(e as Error).message} Choose a .json file exported from Jade Bell.`);
      return;
    }
    setFault(null);
    await add({ document });
  };
  const remove = async (p: ProjectSummary): Promise<void> => {
    setRemoving(null);
    try {
      await sendJson('DELETE', `/projects/${p.id}`);
    } catch (e) {
      setFault((e as Error).message);
    }
    void mutate();
  };

  return (
    <ShelfPage>
      <Masthead />
      <div className="shelf-head">
        <h2 style={{ fontSize: 17 }}>Shelf</h2>
        <span className="grow" />
        <Button variant="outlined" startIcon={<Upload />} onClick={() => picker.current?.click()}>
          Import project
        </Button>
        <Button variant="outlined" onClick={() => showDialog('designs')}>
          Start from a design
        </Button>
        <Button variant="contained" startIcon={<Add />} onClick={() => void add({ title: 'New project' })}>
          New project
        </Button>
        <FilePicker ref={picker} accept=".json,application/json" label="Project file" onFiles={([f]) => void importFile(f)} />
      </div>
      {(fault ?? error) && <Message style={{ marginBottom: 12 }}>{fault ?? (error as Error).message}</Message>}
      {!tour.seen && <TourOffer onTake={() => void takeTour()} onEnd={tour.end} />}
      {data?.length === 0 && <p className="quiet">The Shelf is empty. Start a new project, or import one.</p>}
      {data && <Projects all={data} onRemove={setRemoving} onFault={setFault} />}
      {starting && (
        <Suspense fallback={null}>
          <StarterDialog onStart={(document) => void add({ document })} onClose={closeDialog} />
        </Suspense>
      )}
      <RemoveDialog project={removing} onKeep={() => setRemoving(null)} onRemove={(p) => void remove(p)} />
    </ShelfPage>
  );
}

/** Name of the program, and its theme. */
function Masthead() {
  const dark = useDark();
  const { setMode } = useColorScheme();
  return (
    <div className="row">
      <img src="/bell.svg" alt="" width={34} height={34} />
      <h1 style={{ fontSize: 24, fontWeight: 700 }}>Jade Bell</h1>
      <span className="quiet" style={{ alignSelf: 'end', paddingBottom: 3 }}>
        full-wave electromagnetics, from radio to light
      </span>
      <span className="grow" />
      <IconTool
        size={22}
        label={dark ? 'Light theme' : 'Dark theme'}
        icon={dark ? <Day /> : <Night />}
        onClick={() => setMode(dark ? 'light' : 'dark')}
      />
    </div>
  );
}

interface ProjectsProps {
  all: ProjectSummary[];
  onRemove(project: ProjectSummary): void;
  onFault(text: string): void;
}

/** The projects in their folders and order; search where they are many. */
function Projects({ all, onRemove, onFault }: ProjectsProps) {
  const [search, setSearch] = useState('');
  const [order, setOrder] = useRemembered('shelf.order', z.enum(['changed', 'title', 'runs']), 'changed');
  const shown = useMemo(() => onShelf(all, search, order), [all, search, order]);
  return (
    <>
      {all.length > few && (
        <div className="row" style={{ marginBottom: 12 }}>
          <Field
            look="search"
            type="search"
            label="Search the Shelf"
            placeholder="search titles, notes, folders"
            width={280}
            value={search}
            onChange={setSearch}
          />
          <Choice label="Order of the Shelf" value={order} options={orderOptions} onChange={setOrder} />
        </div>
      )}
      {search && !shown.length && <p className="quiet">No project on the Shelf has these words.</p>}
      {shown.map(({ folder, projects }) => (
        <section key={folder} aria-label={folder || 'Projects'}>
          {folder && <h3 style={{ fontSize: 15, margin: '18px 0 8px' }}>{folder}</h3>}
          <div className="shelf-grid">
            {projects.map((p) => (
              <ShelfCard key={p.id} project={p} onRemove={() => onRemove(p)} onFault={onFault} />
            ))}
          </div>
        </section>
      ))}
    </>
  );
}

/** Offers the tour to who has not seen it. */
function TourOffer({ onTake, onEnd }: { onTake(): void; onEnd(): void }) {
  return (
    <Alert
      severity="info"
      icon={false}
      variant="outlined"
      sx={{ mb: 1.5 }}
      action={
        <>
          <Button size="small" variant="contained" onClick={onTake}>
            Take the tour
          </Button>
          <Button size="small" onClick={onEnd}>
            Not now
          </Button>
        </>
      }
    >
      New here? Go round with an antenna that is solved in seconds.
    </Alert>
  );
}

/** Asks before a project goes with its runs. */
function RemoveDialog({ project, onKeep, onRemove }: { project: ProjectSummary | null; onKeep(): void; onRemove(p: ProjectSummary): void }) {
  return (
    <Dialog open={project !== null} onClose={onKeep}>
      <DialogTitle sx={{ fontSize: 17 }}>Remove {project?.title}?</DialogTitle>
      <DialogContent>The project and its {project?.runs ?? 0} runs are removed for good. Export it first if you may want it back.</DialogContent>
      <DialogActions>
        <Button onClick={onKeep}>Keep it</Button>
        <Button color="error" onClick={() => project && onRemove(project)}>
          Remove
        </Button>
      </DialogActions>
    </Dialog>
  );
}
