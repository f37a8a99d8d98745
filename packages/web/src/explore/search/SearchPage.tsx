import { freshStudyCard, type SearchPlan, type StudyCard } from '@jadebell/core/document';
import { useState } from 'react';
import { useRuns } from '../../api/hooks.ts';
import { TypedField } from '../../kit/Field.tsx';
import { Tool } from '../../kit/Tool.tsx';
import { useModel } from '../../project/model.ts';
import { closeAt, restAt } from '../../ui/address.ts';
import { StudyCardView } from '../cards/registry.tsx';
import { StudyFrame } from '../ExploreFrame.ts';
import { nameFaultOf, useWays } from '../study/edits.ts';
import { Measures } from '../study/Measures.tsx';
import { order } from '../study/figures.ts';
import { PickedPoint } from '../study/PickedPoint.tsx';
import { Bounds } from './Bounds.tsx';
import { changeSearch, removeSearch } from './edits.ts';
import { Goals } from './Goals.tsx';
import { SearchState } from './SearchState.tsx';
import { missed, useSearchData } from './useSearchData.ts';

/** What is shown of a search: its way, its curves, its points. */
const firstCards: StudyCard[] = [
  { ...freshStudyCard('over'), measures: [missed], over: order } as StudyCard,
  freshStudyCard('curves'),
  freshStudyCard('table'),
];

/** One search: what may move and what is sought in sentences, how far it is, its best, and its way. */
export function SearchPage({ project, search }: { project: string; search: SearchPlan }) {
  const data = useSearchData(project, search);
  const ways = useWays();
  const summary = useModel((s) => s.view.summary);
  const meta = useRuns(project).data?.find((r) => r.meta)?.meta ?? undefined;
  const [picked, setPicked] = useState<string | null>(null);
  const [cards, setCards] = useState(firstCards);
  const row = data.rows.find((r) => r.digest === picked);
  return (
    <StudyFrame>
      <div className="told">
        <section aria-label="What may move">
          <header>
            <h2>Search</h2>
            <TypedField
              look="chip"
              label="Name of the search"
              width={150}
              value={search.name}
              check={(t) => nameFaultOf(ways, search.name, t)}
              onChange={(name) => {
                changeSearch(search.name, (s) => ({ ...s, name }), 'name');
                restAt({ search: name });
              }}
            />
            <span className="grow" />
            <Tool
              onClick={() => {
                closeAt('search');
                removeSearch(search.name);
              }}
            >
              Remove
            </Tool>
          </header>
          <Bounds search={search} problems={data.problems} measures={new Map(Object.entries(summary).map(([name, v]) => [name, v.measure]))} />
        </section>
        <section aria-label="What is sought">
          <header>
            <h2>So that</h2>
          </header>
          <Goals
            weighed
            adds="Seek something"
            goals={search.goals}
            problems={data.problems}
            change={(goals) => changeSearch(search.name, (s) => ({ ...s, goals }), 'goals')}
          />
          <header>
            <h2>Read from each point</h2>
          </header>
          <Measures meta={meta} />
        </section>
      </div>
      <SearchState data={data} most={search.points} />
      {row && <PickedPoint row={row} data={{ ...data, moved: data.moved.slice(1) }} close={() => setPicked(null)} />}
      {data.rows.length > 0 && (
        <div className="cards">
          {cards.map((card, n) => (
            <StudyCardView
              key={card.kind}
              {...{ card, data, picked, meta }}
              pick={setPicked}
              change={(next) => setCards(cards.map((c, i) => (i === n ? next : c)))}
            />
          ))}
        </div>
      )}
    </StudyFrame>
  );
}
