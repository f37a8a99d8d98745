import { List, ListItemButton } from '@mui/material';
import { useParams } from 'react-router';
import { useRuns } from '../api/hooks.ts';
import type { Run } from '../api/types.ts';
import { ToolMenu } from '../kit/ToolMenu.tsx';
import { useProject } from '../project/store.ts';
import { goAt, useAddress } from '../ui/address.ts';
import { ExploreFrame } from './ExploreFrame.ts';
import { RunsPage } from './RunsPage.tsx';
import { addStudy, allToMove, parametersToMove } from './study/edits.ts';
import { addSearch } from './search/edits.ts';
import { SearchPage } from './search/SearchPage.tsx';
import { StudyPage } from './study/StudyPage.tsx';
import { VariantsPage } from './variants/VariantsPage.tsx';

const none: readonly never[] = [];
const nowhere = { study: null, search: null, way: null };

interface ListProps {
  title: string;
  part: 'study' | 'search';
  names: readonly string[];
  open: string | null;
  runs: readonly Run[];
}

/** Named ways of one kind, with how many of their runs are still to come. */
const WayList = ({ title, part, names, open, runs }: ListProps) => (
  <>
    <h2>{title}</h2>
    <List dense disablePadding component="div">
      {names.map((name) => {
        const left = runs.filter((r) => r.study === name && (r.state === 'queued' || r.state === 'running')).length;
        return (
          <ListItemButton
            key={name}
            component="button"
            selected={name === open}
            aria-current={name === open ? 'page' : undefined}
            onClick={() => goAt({ ...nowhere, [part]: name })}
          >
            {name}
            <span className="quiet">{left ? `${left} to go` : ''}</span>
          </ListItemButton>
        );
      })}
    </List>
  </>
);

/** What has been solved, and what is planned: the ways in along the left edge, and the page of the chosen one. */
export default function ExploreStage() {
  const { id = '' } = useParams();
  const studies = useProject((s) => s.document?.studies) ?? none;
  const searches = useProject((s) => s.document?.searches) ?? none;
  const runs = useRuns(id).data ?? none;
  const [askedStudy, askedSearch] = [useAddress('study'), useAddress('search')];
  const study = studies.find((s) => s.name === askedStudy);
  const search = study ? undefined : searches.find((s) => s.name === askedSearch);
  const way = useAddress('way');
  const variants = !study && !search && way === 'variants';
  const all = !study && !search && !variants;
  const kept = useProject((s) => s.document?.variants?.length ?? 0);
  return (
    <ExploreFrame>
      <nav aria-label="Ways of exploring">
        <h2>What I have</h2>
        <List dense disablePadding component="div">
          <ListItemButton component="button" selected={all} aria-current={all ? 'page' : undefined} onClick={() => goAt({ ...nowhere })}>
            All runs
            <span className="quiet">{runs.filter((r) => r.meta).length}</span>
          </ListItemButton>
          <ListItemButton
            component="button"
            selected={variants}
            aria-current={variants ? 'page' : undefined}
            onClick={() => goAt({ ...nowhere, way: 'variants' })}
          >
            Variants
            <span className="quiet">{kept || ''}</span>
          </ListItemButton>
        </List>
        <WayList title="Studies: what if" part="study" names={studies.map((s) => s.name)} open={study?.name ?? null} runs={runs} />
        <NewWay label="New study" heading="Move" from={allToMove} add={(name) => goAt({ ...nowhere, study: addStudy(name) })} />
        <WayList title="Goals: find me" part="search" names={searches.map((s) => s.name)} open={search?.name ?? null} runs={runs} />
        <NewWay label="New search" heading="Let move" from={parametersToMove} add={(name) => goAt({ ...nowhere, search: addSearch(name) })} />
      </nav>
      {study && <StudyPage key={study.name} study={study} project={id} />}
      {search && <SearchPage key={search.name} search={search} project={id} />}
      {variants && <VariantsPage project={id} />}
      {all && <RunsPage />}
    </ExploreFrame>
  );
}

/** Begins a study or search with one of what it can move. */
function NewWay({ label, heading, from, add }: { label: string; heading: string; from: typeof parametersToMove; add(parameter: string): void }) {
  const none = useProject((s) => !s.document || !from(s.document).length);
  if (none)
    return (
      <p className="quiet" style={{ padding: '2px 14px', fontSize: 12 }}>
        It moves parameters; the project has none yet. Add one at the top of the ledger in Shape.
      </p>
    );
  return (
    <ToolMenu
      adds
      label={label}
      heading={heading}
      items={() => from(useProject.getState().document!).map(({ name, about }) => ({ title: name, about, act: () => add(name) }))}
    />
  );
}
