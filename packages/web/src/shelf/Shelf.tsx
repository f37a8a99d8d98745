import Add from '@mui/icons-material/Add';
import BedtimeOutlined from '@mui/icons-material/BedtimeOutlined';
import Delete from '@mui/icons-material/DeleteOutlined';
import Download from '@mui/icons-material/FileDownloadOutlined';
import Upload from '@mui/icons-material/FileUploadOutlined';
import LightModeOutlined from '@mui/icons-material/LightModeOutlined';
import { Button, Dialog, DialogActions, DialogContent, DialogTitle } from '@mui/material';
import { useColorScheme } from '@mui/material/styles';
import { lazy, Suspense, useRef, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { sendJson } from '../api/client.ts';
import { useProjects } from '../api/hooks.ts';
import type { ProjectFull, ProjectSummary } from '../api/types.ts';
import { closeDialog, showDialog, useDialog } from '../ui/dialogs.ts';
import { useDark } from '../ui/useDark.ts';
import { FilePicker } from '../kit/FilePicker.tsx';
import { IconTool } from '../kit/IconTool.tsx';

const StarterDialog = lazy(() => import('./StarterDialog.tsx'));

/** The home page: all projects with pictures; start, import, remove. */
export function Shelf() {
  const { data, error, mutate } = useProjects();
  const navigate = useNavigate();
  const dark = useDark();
  const { setMode } = useColorScheme();
  const [fault, setFault] = useState<string | null>(null);
  const [removing, setRemoving] = useState<ProjectSummary | null>(null);
  const starting = useDialog() === 'designs';
  const picker = useRef<HTMLInputElement>(null);

  const add = async (body: object): Promise<void> => {
    try {
      const made = await sendJson<ProjectFull>('POST', '/projects', body);
      void mutate();
      void navigate(`/project/${made.id}/shape`);
    } catch (e) {
      setFault((e as Error).message);
    }
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
    <div className="shelf">
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
          icon={dark ? <LightModeOutlined /> : <BedtimeOutlined />}
          onClick={() => setMode(dark ? 'light' : 'dark')}
        />
      </div>
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
      {(fault ?? error) && (
        <p role="alert" className="bad" style={{ marginBottom: 12 }}>
          {fault ?? (error as Error).message}
        </p>
      )}
      {data?.length === 0 && <p className="quiet">The Shelf is empty. Start a new project, or import one.</p>}
      <div className="shelf-grid">
        {data?.map((p) => (
          <article key={p.id} className="shelf-card">
            <Link to={`/project/${p.id}/shape`} aria-label={p.title}>
              <img className="picture" alt="" src={`/api/projects/${p.id}/picture.svg?r=${p.revision}`} />
              <div className="about">
                <h3>{p.title}</h3>
                <p className="quiet">{p.note}</p>
              </div>
            </Link>
            <div className="foot">
              {p.runs === 0 ? 'no run yet' : p.runs === 1 ? '1 run' : `${p.runs} runs`} · changed{' '}
              {new Date(p.updatedAt).toLocaleDateString('en-GB', { day: 'numeric', month: 'short', year: 'numeric' })}
              <span className="grow" />
              <IconTool size={18} label={`Export ${p.title}`} hint="Export as JSON" icon={<Download />} href={`/api/projects/${p.id}/export`} />
              <IconTool size={18} label={`Remove ${p.title}`} hint="Remove" icon={<Delete />} onClick={() => setRemoving(p)} />
            </div>
          </article>
        ))}
      </div>
      {starting && (
        <Suspense fallback={null}>
          <StarterDialog onStart={(document) => void add({ document })} onClose={closeDialog} />
        </Suspense>
      )}
      <Dialog open={removing !== null} onClose={() => setRemoving(null)}>
        <DialogTitle sx={{ fontSize: 17 }}>Remove {removing?.title}?</DialogTitle>
        <DialogContent>The project and its {removing?.runs ?? 0} runs are removed for good. Export it first if you may want it back.</DialogContent>
        <DialogActions>
          <Button onClick={() => setRemoving(null)}>Keep it</Button>
          <Button color="error" onClick={() => removing && void remove(removing)}>
            Remove
          </Button>
        </DialogActions>
      </Dialog>
    </div>
  );
}
