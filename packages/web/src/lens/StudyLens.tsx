import { formatSI } from '@jadebell/core/expressions/format';
import { pointText } from '@jadebell/core/exploring';
import { useEffect, useMemo } from 'react';
import { useStudyView } from '../api/hooks.ts';
import type { Run } from '../api/types.ts';
import { IconTool } from '../kit/IconTool.tsx';
import { Pause, PlayArrow } from '../kit/icons.tsx';
import { Range } from '../kit/Range.tsx';
import { useProject } from '../project/store.ts';
import { useLens } from './lens.ts';
import { type Place, placesOf, pointTowards } from './studyPoints.ts';

interface Props {
  runs: readonly Run[];
  run: Run;
  choose(r: Run): void;
}

/** Points of the film a second at speed 1. */
const pace = 4;

/** The study of which the run is a point: a slider for each of its parameters goes to its other points, and all cards follow. */
export function StudyLens({ runs, run, choose }: Props) {
  const studies = useProject((s) => s.document?.studies);
  const revision = useProject((s) => s.revision);
  const playing = useLens((s) => s.playing === 'point');
  const speed = useLens((s) => s.speed);
  const set = useLens((s) => s.set);
  const study = studies?.find((s) => s.name === run.study);
  const view = useStudyView(run.projectId, study?.name ?? '', study ? revision : 0, '').data;
  const places = useMemo(() => (view ? placesOf(view, runs) : []), [view, runs]);
  const here = places.find((p) => p.run.id === run.id);
  useEffect(() => {
    if (!playing || places.length < 2) return;
    const timer = setInterval(
      () => {
        const at = places.findIndex((p) => p.run.id === useLens.getState().run);
        choose(places[(at + 1) % places.length].run);
      },
      1000 / (pace * speed),
    );
    return () => clearInterval(timer);
  }, [playing, places, speed, choose]);
  if (!study || !view || !here || places.length < 2) return null;
  const go = (to: Place | undefined): void => {
    if (to && to.run.id !== run.id) choose(to.run);
  };
  return (
    <div className="group" role="group" aria-label={`Points of ${study.name}`}>
      {view.moved.map(({ parameter, measure }) => {
        const values = [...new Set(places.map((p) => p.values[parameter]))].sort((a, b) => a - b);
        if (values.length < 2) return null;
        const told = formatSI(here.values[parameter], measure, 4);
        return (
          <span className="group" key={parameter}>
            <span className="quiet">{parameter}</span>
            <Range
              label={`Point by ${parameter}`}
              told={told}
              min={0}
              max={values.length - 1}
              value={values.indexOf(here.values[parameter])}
              width={80}
              onChange={(n) => go(pointTowards(places, here, parameter, values[n]))}
            />
            <span className="mono">{told}</span>
          </span>
        );
      })}
      <IconTool
        label={playing ? 'Stop the film' : 'Play the points as a film'}
        hint={playing ? 'Stop' : `Play all ${places.length} points, from ${pointText(places[0].values, view.moved)}`}
        icon={playing ? <Pause /> : <PlayArrow />}
        size={18}
        onClick={() => set({ playing: playing ? null : 'point' })}
      />
    </div>
  );
}
