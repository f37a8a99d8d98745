import BedtimeOutlined from '@mui/icons-material/BedtimeOutlined';
import FileDownloadOutlined from '@mui/icons-material/FileDownloadOutlined';
import HelpOutline from '@mui/icons-material/HelpOutlined';
import LightModeOutlined from '@mui/icons-material/LightModeOutlined';
import Redo from '@mui/icons-material/Redo';
import Search from '@mui/icons-material/Search';
import Undo from '@mui/icons-material/Undo';
import { Button, CircularProgress, IconButton, Menu, MenuItem, Tooltip } from '@mui/material';
import { useColorScheme } from '@mui/material/styles';
import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { useActive, useRuns } from '../api/hooks.ts';
import { useModel } from '../project/model.ts';
import { useProject } from '../project/store.ts';
import { useDark } from '../ui/useDark.ts';
import { exportProject } from './commands.ts';
import { type StagePath, stages } from '../ui/stages.ts';

const savedWords = { saved: 'saved', saving: 'saving …', unsaved: 'saving …', failed: 'not saved' };

/** State of each stage in a word or a count. */
function useStates(id: string): Record<StagePath, { text: string; tone: string }> {
  const document = useProject((s) => s.document);
  const problems = useModel((s) => s.view.problems).filter((p) => p.severity === 'error');
  const runs = useRuns(id).data ?? [];
  const count = (parts: string[]): number => problems.filter((p) => parts.includes(p.place.part)).length;
  const state = (wrong: number, ready: boolean): { text: string; tone: string } =>
    wrong ? { text: `${wrong} to mend`, tone: 'bad' } : ready ? { text: 'ready', tone: 'ready' } : { text: '', tone: '' };
  const done = runs.filter((r) => r.meta).length;
  const running = runs.some((r) => r.state === 'running');
  return {
    shape: state(document?.lines.length ? count(['parameters', 'lines', 'materials']) : 0, !!document?.lines.length),
    feed: state(document?.ports.length ? count(['ports', 'boundaries', 'recorders', 'sections']) : 0, !!document?.ports.length),
    solve: running ? { text: 'running', tone: 'ready' } : state(count(['band', 'solve', 'machine']), !!document?.ports.length && !problems.length),
    read: done ? { text: 'ready', tone: 'ready' } : { text: '', tone: '' },
    explore: done > 1 ? { text: `${done} runs`, tone: 'ready' } : { text: '', tone: '' },
  };
}

/** Title, course, activity and the few tools that are always at hand. */
export function Header({ stage, onPalette, onHelp }: { stage: StagePath; onPalette(): void; onHelp(): void }) {
  const { id = '' } = useParams();
  const { document, saved, edit, undo, redo, past, future } = useProject();
  const { setMode } = useColorScheme();
  const dark = useDark();
  const states = useStates(id);
  return (
    <header className="header">
      <div className="side">
        <Link to="/" aria-label="Shelf" title="Shelf">
          <img src="/bell.svg" alt="" />
        </Link>
        <input
          className="title-input"
          aria-label="Project title"
          value={document?.title ?? ''}
          maxLength={120}
          onChange={(e) => e.target.value && edit('title', (d) => ({ ...d, title: e.target.value }))}
        />
        <span className={saved === 'failed' ? 'bad' : 'quiet'} style={{ fontSize: 12, whiteSpace: 'nowrap' }} role="status">
          {savedWords[saved]}
        </span>
      </div>
      <nav className="course" aria-label="Course">
        {stages.map((s) => (
          <Link key={s.path} to={`/project/${id}/${s.path}`} aria-current={s.path === stage ? 'page' : undefined}>
            {s.title}
            {states[s.path].text && (
              <span className={`state ${states[s.path].tone}`}>{states[s.path].text === 'ready' ? '●' : states[s.path].text}</span>
            )}
          </Link>
        ))}
      </nav>
      <div className="side right">
        <Activity />
        <Tool label="Undo" onClick={undo} disabled={!past.length} icon={<Undo />} />
        <Tool label="Redo" onClick={redo} disabled={!future.length} icon={<Redo />} />
        <Tool label="Export project" onClick={exportProject} icon={<FileDownloadOutlined />} />
        <Tool label="Command palette" onClick={onPalette} icon={<Search />} />
        <Tool
          label={dark ? 'Light theme' : 'Dark theme'}
          onClick={() => setMode(dark ? 'light' : 'dark')}
          icon={dark ? <LightModeOutlined /> : <BedtimeOutlined />}
        />
        <Tool label="Help" onClick={onHelp} icon={<HelpOutline />} />
      </div>
    </header>
  );
}

function Tool({ label, icon, onClick, disabled }: { label: string; icon: React.ReactNode; onClick(): void; disabled?: boolean }) {
  return (
    <Tooltip title={label}>
      <span>
        <IconButton aria-label={label} onClick={onClick} disabled={disabled} sx={{ '& svg': { fontSize: 19 } }}>
          {icon}
        </IconButton>
      </span>
    </Tooltip>
  );
}

/** Runs that wait or are under way, in all projects. */
function Activity() {
  const active = useActive().data ?? [];
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const navigate = useNavigate();
  if (!active.length) return null;
  const first = active.find((r) => r.state === 'running');
  return (
    <>
      <Button
        onClick={(e) => setAnchor(e.currentTarget)}
        startIcon={
          <CircularProgress size={14} variant={first?.progress ? 'determinate' : 'indeterminate'} value={100 * (first?.progress?.fraction ?? 0)} />
        }
      >
        {active.length === 1 ? '1 run' : `${active.length} runs`}
      </Button>
      <Menu anchorEl={anchor} open={anchor !== null} onClose={() => setAnchor(null)}>
        {active.map((r) => (
          <MenuItem
            key={r.id}
            onClick={() => {
              setAnchor(null);
              void navigate(`/project/${r.projectId}/solve`);
            }}
          >
            {r.title}, run {r.number}: {r.state === 'queued' ? 'waits' : `${Math.round(100 * (r.progress?.fraction ?? 0))} %`}
          </MenuItem>
        ))}
      </Menu>
    </>
  );
}
