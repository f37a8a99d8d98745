import { ListSubheader, Menu, MenuItem } from '@mui/material';
import { useState } from 'react';
import { useProjects, useRuns } from '../api/hooks.ts';
import type { Run } from '../api/types.ts';
import { traceStyle } from '../charts/traces.ts';
import { runName } from '../ui/runName.ts';
import { useDark } from '../ui/useDark.ts';
import { useLens } from './lens.ts';
import { useShown } from './useShown.ts';
import { Tool } from '../kit/Tool.tsx';
import { Choice } from '../kit/Choice.tsx';

/** The run that is looked at and those beside it. */
export function RunsLens({ runs, run, choose }: { runs: readonly Run[]; run: Run; choose(r: Run): void }) {
  const dark = useDark();
  const { beside, set } = useLens();
  const shown = useShown();
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const toggle = (r: Run): void =>
    set({ beside: beside.some((b) => b.id === r.id) ? beside.filter((b) => b.id !== r.id) : [...beside, { id: r.id, project: r.projectId }] });
  const foreign = shown.filter((s) => s.run.projectId !== run.projectId);
  return (
    <div className="group">
      <span className="group">
        <span className="quiet">run</span>
        <Choice
          label="Run"
          value={run.id}
          options={runs.map((r) => ({ value: r.id, label: `${r.starred ? '★ ' : ''}${runName(r)}, ${r.accuracy}` }))}
          onChange={(id) => choose(runs.find((r) => r.id === id)!)}
        />
      </span>
      <span className="group" style={{ gap: 3 }} role="group" aria-label="Runs shown beside it">
        <span className="quiet">beside it</span>
        {runs
          .filter((r) => r.id !== run.id && (r.study === run.study || beside.some((b) => b.id === r.id)))
          .slice(0, 6)
          .map((r) => (
            <Tool key={r.id} aria-pressed={beside.some((b) => b.id === r.id)} onClick={() => toggle(r)}>
              <i className="swatch" style={{ background: traceStyle(r.number, dark).color }} />
              {r.number}
            </Tool>
          ))}
        {foreign.map(({ run: r, label, tint }) => (
          <Tool key={r.id} aria-pressed onClick={() => toggle(r)}>
            <i className="swatch" style={{ background: traceStyle(tint, dark).color }} />
            {label}
          </Tool>
        ))}
        <Tool aria-haspopup="menu" aria-label="Add runs beside it" onClick={(e) => setAnchor(e.currentTarget)}>
          +
        </Tool>
        <Menu
          anchorEl={anchor}
          open={anchor !== null}
          onClose={() => setAnchor(null)}
          slotProps={{ list: { dense: true }, paper: { sx: { maxHeight: 420 } } }}
        >
          {anchor ? <OtherRuns home={run} chosen={beside.map((b) => b.id)} toggle={toggle} /> : <span />}
        </Menu>
      </span>
    </div>
  );
}

/** Runs of all projects that have a result. */
function OtherRuns({ home, chosen, toggle }: { home: Run; chosen: readonly string[]; toggle(r: Run): void }) {
  const projects = useProjects().data;
  return (projects ?? [])
    .filter((p) => p.runs > 0)
    .sort((a, b) => Number(b.id === home.projectId) - Number(a.id === home.projectId))
    .map((p) => <ProjectRuns key={p.id} id={p.id} title={p.title} home={home} chosen={chosen} toggle={toggle} />);
}

function ProjectRuns({ id, title, home, chosen, toggle }: { id: string; title: string; home: Run; chosen: readonly string[]; toggle(r: Run): void }) {
  const runs = useRuns(id).data ?? [];
  const readable = runs.filter((r) => r.meta && r.id !== home.id);
  if (!readable.length) return null;
  return (
    <>
      <ListSubheader sx={{ lineHeight: '28px' }}>{title}</ListSubheader>
      {readable.map((r) => (
        <MenuItem key={r.id} selected={chosen.includes(r.id)} onClick={() => toggle(r)}>
          run {runName(r)}, {r.accuracy}
          {chosen.includes(r.id) && (
            <span className="quiet" style={{ marginLeft: 12 }}>
              shown
            </span>
          )}
        </MenuItem>
      ))}
    </>
  );
}
