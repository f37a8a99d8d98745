import {
  isSpread,
  type Study,
  type StudyCard,
  studyCardsFor,
  studyCardTitles,
  freshStudyCard,
  settingOf,
  variesAbout,
} from '@jadebell/core/document';
import { useState } from 'react';
import { useRuns } from '../../api/hooks.ts';
import { TypedField } from '../../kit/Field.tsx';
import { Tool } from '../../kit/Tool.tsx';
import { ToolMenu } from '../../kit/ToolMenu.tsx';
import { closeAt, goAt, restAt } from '../../ui/address.ts';
import { StudyCardView } from '../cards/registry.tsx';
import { StudyFrame } from '../ExploreFrame.ts';
import { addSearch } from '../search/edits.ts';
import { Goals } from '../search/Goals.tsx';
import { changeStudy, copyStudy, nameFaultOf, removeStudy, useWays } from './edits.ts';
import { Measures } from './Measures.tsx';
import { Moves } from './Moves.tsx';
import { PickedPoint } from './PickedPoint.tsx';
import { StudyState } from './StudyState.tsx';
import { useStudyData } from './useStudyData.ts';

/** One study: what moves and what is read in sentences, how far it is, and its pictures. */
export function StudyPage({ project, study }: { project: string; study: Study }) {
  const data = useStudyData(project, study);
  const ways = useWays();
  const meta = useRuns(project).data?.find((r) => r.meta)?.meta ?? undefined;
  const [picked, setPicked] = useState<string | null>(null);
  const row = data.rows.find((r) => r.digest === picked);
  const varies = study.moves.some(variesAbout);
  const cards =
    study.cards ??
    studyCardsFor({
      moving: study.moves.length,
      spread: isSpread(study.together),
      varies,
      finer: study.moves.length === 1 && settingOf(study.moves[0].parameter) !== null,
    });
  const setCards = (next: StudyCard[] | undefined): void => changeStudy(study.name, (s) => ({ ...s, cards: next }), 'cards');
  const done = data.rows.some((r) => r.run?.state === 'done');
  return (
    <StudyFrame>
      <div className="told">
        <section aria-label="What moves">
          <header>
            <h2>Study</h2>
            <TypedField
              look="chip"
              label="Name of the study"
              width={150}
              value={study.name}
              check={(t) => nameFaultOf(ways, study.name, t)}
              onChange={(name) => {
                changeStudy(study.name, (s) => ({ ...s, name }), 'name');
                restAt({ study: name });
              }}
            />
            <span className="grow" />
            <Tool onClick={() => restAt({ study: copyStudy(study) })}>Duplicate</Tool>
            <Tool
              onClick={() => {
                closeAt('study');
                removeStudy(study.name);
              }}
            >
              Remove
            </Tool>
          </header>
          <Moves study={study} problems={data.problems} measures={new Map(data.moved.map((m) => [m.parameter, m.measure]))} />
        </section>
        <section aria-label="What is read">
          <header>
            <h2>Read from each point</h2>
          </header>
          <Measures meta={meta} onSeek={(m) => goAt({ study: null, search: addSearch(study.moves[0].parameter, m) })} />
          {(varies || isSpread(study.together) || study.goals) && (
            <>
              <header>
                <h2>What it should be in all that may come</h2>
              </header>
              <Goals
                adds="Ask for something"
                goals={study.goals ?? []}
                problems={data.problems}
                change={(goals) => changeStudy(study.name, (s) => ({ ...s, goals: goals.length ? goals : undefined }), 'goals')}
              />
            </>
          )}
        </section>
      </div>
      <StudyState data={data} />
      {row && <PickedPoint row={row} data={data} close={() => setPicked(null)} />}
      {done ? (
        <div className="cards">
          {cards.map((card, n) => (
            <StudyCardView
              key={n}
              {...{ card, data, picked, meta }}
              pick={setPicked}
              change={(next) => setCards(cards.map((c, i) => (i === n ? next : c)))}
              remove={() => setCards(cards.filter((_, i) => i !== n))}
            />
          ))}
        </div>
      ) : (
        <p className="quiet pad">{data.rows.length ? 'Here its points stand as they are solved.' : ''}</p>
      )}
      {done && (
        <div className="row">
          <ToolMenu
            label="Add a card"
            items={() =>
              Object.entries(studyCardTitles).map(([kind, title]) => ({
                title,
                act: () => setCards([...cards, freshStudyCard(kind as StudyCard['kind'])]),
              }))
            }
          />
          {study.cards && <Tool onClick={() => setCards(undefined)}>Back to the cards that suit it</Tool>}
        </div>
      )}
    </StudyFrame>
  );
}
