import { List, ListItemButton } from '@mui/material';
import { useParams } from 'react-router';
import { useRuns } from '../api/hooks.ts';
import { ToolMenu } from '../kit/ToolMenu.tsx';
import { useProject } from '../project/store.ts';
import { closeAt, goAt, useAddress } from '../ui/address.ts';
import { ExploreFrame } from './ExploreFrame.ts';
import { RunsPage } from './RunsPage.tsx';
import { addStudy, parametersToMove } from './study/edits.ts';
import { StudyPage } from './study/StudyPage.tsx';

const noStudies: readonly never[] = [];

/** What has been solved, and what is planned: the ways in along the left edge, and the page of the chosen one. */
export default function ExploreStage() {
  const { id = '' } = useParams();
  const studies = useProject((s) => s.document?.studies) ?? noStudies;
  const runs = useRuns(id).data ?? [];
  const asked = useAddress('study');
  const study = studies.find((s) => s.name === asked);
  return (
    <ExploreFrame>
      <nav aria-label="Ways of exploring">
        <List dense disablePadding component="div">
          <ListItemButton component="button" selected={!study} aria-current={!study ? 'page' : undefined} onClick={() => closeAt('study')}>
            All runs
            <span className="quiet">{runs.filter((r) => r.meta).length}</span>
          </ListItemButton>
        </List>
        <h2>Studies</h2>
        <List dense disablePadding component="div">
          {studies.map((s) => {
            const own = runs.filter((r) => r.study === s.name);
            const open = own.filter((r) => r.state === 'queued' || r.state === 'running').length;
            return (
              <ListItemButton
                key={s.name}
                component="button"
                selected={s === study}
                aria-current={s === study ? 'page' : undefined}
                onClick={() => goAt({ study: s.name })}
              >
                {s.name}
                <span className="quiet">{open ? `${open} to go` : ''}</span>
              </ListItemButton>
            );
          })}
        </List>
        <NewStudy />
      </nav>
      {study ? <StudyPage key={study.name} study={study} project={id} /> : <RunsPage />}
    </ExploreFrame>
  );
}

/** Begins a study of one of the parameters. */
function NewStudy() {
  const none = useProject((s) => !s.document?.parameters.length);
  if (none)
    return (
      <p className="quiet" style={{ padding: '2px 14px', fontSize: 12 }}>
        A study moves parameters; the project has none yet. Add one at the top of the ledger in Shape.
      </p>
    );
  return (
    <ToolMenu
      adds
      label="New study"
      heading="Move"
      items={() =>
        parametersToMove(useProject.getState().document!).map(({ name, about }) => ({
          title: name,
          about,
          act: () => goAt({ study: addStudy(name) }),
        }))
      }
    />
  );
}
