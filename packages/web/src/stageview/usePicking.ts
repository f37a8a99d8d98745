import type { ThreeEvent } from '@react-three/fiber';
import { useCallback, useEffect, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { useModel } from '../project/model.ts';
import { type Hit, sameHit, useStage } from '../project/stageState.ts';
import { useProject } from '../project/store.ts';
import { hitsUnder } from './picking.ts';
import { onShownSide } from './SectionPlane.tsx';
import { referenceTo } from './told.ts';

type PointerOn = ThreeEvent<PointerEvent | MouseEvent>;

function hitsOf(e: PointerOn): Hit[] {
  const canvas = e.nativeEvent.target as HTMLElement;
  const { offsetX: x, offsetY: y } = e.nativeEvent;
  const eye = { camera: e.camera, width: canvas.clientWidth, height: canvas.clientHeight, x, y, visible: onShownSide };
  return hitsUnder(useStage.getState().mode, e.intersections, useModel.getState().view, eye);
}

/** What lies under the pointer, unless the view is `away`, and what a click makes of it: a reference in an open chip, a point of a measurement, or what is picked. */
export function usePicking(away: boolean) {
  const pick = useProject((s) => s.pick);
  const light = useProject((s) => s.light);
  const set = useStage((s) => s.set);
  /** All that lies under the pointer, the nearest first, and which of it is meant. */
  const [under, setUnder] = useState<Hit[]>([]);
  const [step, setStep] = useState(0);
  const [note, setNote] = useState<string | null>(null);

  const take = useCallback(
    (found: Hit): void => {
      const { editor, measuring } = useStage.getState();
      const { view } = useModel.getState();
      setNote(null);
      if (editor) {
        const text = referenceTo(view, found, editor.axis);
        if (text) editor.insert(text);
        else setNote('This has no name that would stay true when the model changes. Pick a corner, an end, or an edge between two faces.');
        return;
      }
      set({ hit: found });
      if (measuring) set({ measuring: measuring.length >= 2 ? [found] : [...measuring, found] });
      else pick(view.bodies.find((b) => b.name === found.body)?.line ?? found.body);
    },
    [pick, set],
  );
  const through = (by: number): void => {
    if (!under.length) return;
    const next = (step + by + under.length) % under.length;
    setStep(next);
    take(under[next]);
  };
  useHotkeys('bracketleft', () => through(-1), { useKey: false, enabled: !away }, [under, step]);
  useHotkeys('bracketright', () => through(1), { useKey: false, enabled: !away }, [under, step]);

  const onPoint = useCallback(
    (e: PointerOn) => {
      e.stopPropagation();
      const hits = hitsOf(e);
      setUnder((old) => {
        if (hits.length === old.length && hits.every((h, i) => sameHit(h, old[i]))) return old;
        setStep(0);
        return hits;
      });
      light(hits[0]?.body ?? null);
    },
    [light],
  );
  const onLeave = useCallback(() => {
    setUnder([]);
    light(null);
  }, [light]);
  const onMissed = useCallback(() => {
    if (useStage.getState().editor || useStage.getState().placing) return;
    set({ hit: null });
    pick(null);
  }, [pick, set]);
  const onPick = useCallback(
    (e: PointerOn) => {
      if (e.delta > 4 || useStage.getState().placing) return;
      e.stopPropagation();
      const hits = hitsOf(e);
      // What the section plane has cut away is not there.
      if (hits[0]) take(hits[0]);
      else onMissed();
    },
    [take, onMissed],
  );
  useEffect(() => {
    if (away) return;
    return () => {
      light(null);
      set({ hit: null, measuring: null });
    };
  }, [away, light, set]);
  return { under, step, note, onPoint, onLeave, onMissed, onPick };
}
