import { Day, Download, Help, Night, Redo, Search, Undo } from '../kit/icons.tsx';
import { Button, CircularProgress, Menu, MenuItem } from '@mui/material';
import { useColorScheme } from '@mui/material/styles';
import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { useActive, useRuns } from '../api/hooks.ts';
import { useModel } from '../project/model.ts';
import { useProject } from '../project/store.ts';
import { useDark } from '../ui/useDark.ts';
import { exportProject } from './commands.ts';
import { type StagePath, stages } from '../ui/stages.ts';
import { Field } from '../kit/Field.tsx';
import { IconTool } from '../kit/IconTool.tsx';
import { CourseNav, HeaderBar } from './frames.ts';

const savedWords = { saved: 'saved', saving: 'saving …', unsaved: 'saving …', failed: 'not saved' };

interface StageState {
  text: string;
  tone: string;
}
const nothing: StageState = { text: '', tone: '' };
const state = (wrong: number, ready: boolean): StageState =>
  wrong ? { text: `${wrong} to fix`, tone: 'bad' } : ready ? { text: 'ready', tone: 'ready' } : nothing;

/** State of each stage in a word or a count. */
function useStates(id: string): Record<StagePath, StageState> {
  const lines = useProject((s) => (s.document?.lines.length ?? 0) > 0);
  const ports = useProject((s) => (s.document?.ports.length ?? 0) > 0);
  const problems = useModel((s) => s.view.problems).filter((p) => p.severity === 'error');
  const runs = useRuns(id).data ?? [];
  const count = (parts: string[]): number => problems.filter((p) => parts.includes(p.place.part)).length;
  const done = runs.filter((r) => r.meta).length;
  const running = runs.some((r) => r.state === 'running');
  return {
    shape: state(lines ? count(['parameters', 'lines', 'materials']) : 0, lines),
    feed: state(ports ? count(['ports', 'boundaries', 'recorders', 'sections']) : 0, ports),
    solve: running ? { text: 'running', tone: 'ready' } : state(count(['band', 'solve', 'machine']), ports && !problems.length),
    read: done ? { text: 'ready', tone: 'ready' } : nothing,
    explore: done > 1 ? { text: `${done} runs`, tone: 'ready' } : nothing,
  };
}

/** The five stages of the work, each with its state. */
function Course({ stage }: { stage: StagePath }) {
  const { id = '' } = useParams();
  const states = useStates(id);
  return (
    <CourseNav className="course" aria-label="Course">
      {stages.map((s) => (
        <Link key={s.path} to={`/project/${id}/${s.path}`} aria-current={s.path === stage ? 'page' : undefined}>
          {s.title}
          {states[s.path].text && (
            <span className={`state ${states[s.path].tone}`}>{states[s.path].text === 'ready' ? '●' : states[s.path].text}</span>
          )}
        </Link>
      ))}
    </CourseNav>
  );
}

/** The project's title and whether it is saved. */
function Title() {
  const title = useProject((s) => s.document?.title ?? '');
  const saved = useProject((s) => s.saved);
  const edit = useProject((s) => s.edit);
  return (
    <div className="side">
      <Link to="/" aria-label="Shelf" title="Shelf">
        <img src="/bell.svg" alt="" />
      </Link>
      <Field
        look="title"
        label="Project title"
        value={title}
        maxLength={120}
        onChange={(next) => next && edit('title', (d) => ({ ...d, title: next }))}
      />
      <span className={saved === 'failed' ? 'bad' : 'quiet'} style={{ fontSize: 12, whiteSpace: 'nowrap' }} role="status">
        {savedWords[saved]}
      </span>
    </div>
  );
}

function UndoRedo() {
  const undoable = useProject((s) => s.past.length > 0);
  const redoable = useProject((s) => s.future.length > 0);
  const { undo, redo } = useProject.getState();
  return (
    <>
      <IconTool size={19} label="Undo" onClick={undo} disabled={!undoable} icon={<Undo />} />
      <IconTool size={19} label="Redo" onClick={redo} disabled={!redoable} icon={<Redo />} />
    </>
  );
}

/** Title, course, activity and the few tools that are always at hand. */
export function Header({ stage, onPalette, onHelp }: { stage: StagePath; onPalette(): void; onHelp(): void }) {
  const { setMode } = useColorScheme();
  const dark = useDark();
  return (
    <HeaderBar className="header">
      <Title />
      <Course stage={stage} />
      <div className="side right">
        <Activity />
        <UndoRedo />
        <IconTool size={19} label="Export project" onClick={exportProject} icon={<Download />} />
        <IconTool size={19} label="Command palette" onClick={onPalette} icon={<Search />} />
        <IconTool
          size={19}
          label={dark ? 'Light theme' : 'Dark theme'}
          onClick={() => setMode(dark ? 'light' : 'dark')}
          icon={dark ? <Day /> : <Night />}
        />
        <IconTool size={19} label="Help" onClick={onHelp} icon={<Help />} />
      </div>
    </HeaderBar>
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
