import Add from '@mui/icons-material/Add';
import BedtimeOutlined from '@mui/icons-material/BedtimeOutlined';
import Delete from '@mui/icons-material/DeleteOutlined';
import Download from '@mui/icons-material/FileDownloadOutlined';
import Upload from '@mui/icons-material/FileUploadOutlined';
import LightModeOutlined from '@mui/icons-material/LightModeOutlined';
import { Button, Dialog, DialogActions, DialogContent, DialogTitle, IconButton, Tooltip } from '@mui/material';
import { useColorScheme } from '@mui/material/styles';
import { lazy, Suspense, useRef, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { sendJson } from '../api/client.ts';
import { useProjects } from '../api/hooks.ts';
import type { ProjectFull, ProjectSummary } from '../api/types.ts';
import { useDark } from '../ui/useDark.ts';

const StarterDialog = lazy(() => import('./StarterDialog.tsx'));

/** The home page: all projects with pictures; start, import, remove. */
export function Shelf() {
  const { data, error, mutate } = useProjects();
  const navigate = useNavigate();
  const dark = useDark();
  const { setMode } = useColorScheme();
  const [fault, setFault] = useState<string | null>(null);
  const [removing, setRemoving] = useState<ProjectSummary | null>(null);
  const [starting, setStarting] = useState(false);
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
        <Tooltip title={dark ? 'Light theme' : 'Dark theme'}>
          <IconButton aria-label={dark ? 'Light theme' : 'Dark theme'} onClick={() => setMode(dark ? 'light' : 'dark')}>
            {dark ? <LightModeOutlined /> : <BedtimeOutlined />}
          </IconButton>
        </Tooltip>
      </div>
      <div className="shelf-head">
        <h2 style={{ fontSize: 17 }}>Shelf</h2>
        <span className="grow" />
        <Button variant="outlined" startIcon={<Upload />} onClick={() => picker.current?.click()}>
          Import project
        </Button>
        <Button variant="outlined" onClick={() => setStarting(true)}>
          Start from a design
        </Button>
        <Button variant="contained" startIcon={<Add />} onClick={() => void add({ title: 'New project' })}>
          New project
        </Button>
        <input
          ref={picker}
          type="file"
          accept=".json,application/json"
          className="hidden-file"
          aria-label="Project file"
          tabIndex={-1}
          onChange={(e) => {
            void importFile(e.target.files?.[0]);
            e.target.value = '';
          }}
        />
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
              <Tooltip title="Export as JSON">
                <IconButton aria-label={`Export ${p.title}`} href={`/api/projects/${p.id}/export`} sx={{ '& svg': { fontSize: 18 } }}>
                  <Download />
                </IconButton>
              </Tooltip>
              <Tooltip title="Remove">
                <IconButton aria-label={`Remove ${p.title}`} onClick={() => setRemoving(p)} sx={{ '& svg': { fontSize: 18 } }}>
                  <Delete />
                </IconButton>
              </Tooltip>
            </div>
          </article>
        ))}
      </div>
      {starting && (
        <Suspense fallback={null}>
          <StarterDialog onStart={(document) => void add({ document })} onClose={() => setStarting(false)} />
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
