import { useCallback, useEffect, useMemo, useState } from 'react';
import { useModel } from '../project/model.ts';
import { boundsOfEdges, boundsOver, type Frame, frameOf } from '../space/frameOf.ts';
import { useStage } from '../project/stageState.ts';
import type { StagePath } from '../ui/stages.ts';
import type { View } from '../workers/protocol.ts';

/** Whether what there is reaches far out of what is seen. */
const beyond = (all: Frame, seen: Frame): boolean =>
  all.size > 1.3 * seen.size || Math.max(...all.centre.map((c, a) => Math.abs(c - seen.centre[a]))) > 0.5 * seen.size;

/** What the camera frames: the model, and beyond Shape the region around it. `fit` takes the frame anew. */
export function useFrames(stage: StagePath): { frame: Frame; shownFrame: Frame; region: View['region']; fit(): void } {
  const ready = useModel((s) => s.ready);
  const empty = useModel((s) => !s.view.bodies.length && !s.view.curves.length);
  const known = useModel((s) => s.view.region);
  const wires = useModel((s) => s.view.wires);
  // Bodies matter here only where wires have no region of their own.
  const around = useModel((s) => (s.view.wires ? s.view.bodies : null));
  // The frame is taken when there first is something to see and when the user fits; in between the model may grow out of it.
  const [fits, setFits] = useState(0);
  const frame = useMemo(() => {
    const now = useModel.getState().view;
    return frameOf([...now.bodies, ...now.curves.map((c) => boundsOfEdges(c.edges))]);
  }, [fits, ready, empty]); // oxlint-disable-line react/exhaustive-deps
  // What is added far out, or much larger than what was there, is brought into view; not while it is under the pointer.
  const count = useModel((s) => s.view.bodies.length + s.view.curves.length);
  const placing = useStage((s) => s.placing !== null);
  useEffect(() => {
    const now = useModel.getState().view;
    if (!placing && now.bodies.length && beyond(frameOf(now.bodies), frame)) setFits((n) => n + 1);
    // Only what is added asks for it: the user may look at a part.
  }, [count, placing]); // oxlint-disable-line react/exhaustive-deps
  const region = stage !== 'shape' ? known : null;
  // Wires have no region of their own: what is to be seen are they and the ground under them.
  const present = useMemo(() => (region && wires && around ? boundsOver(around, wires.ground) : region), [region, wires, around]);
  // While something is at fault there is no region; the view stays where it was.
  const [lastSeen, setLastSeen] = useState(present);
  if (present && present !== lastSeen) setLastSeen(present);
  const seen = stage === 'shape' ? null : (present ?? lastSeen);
  // What lies behind planes of symmetry stands outside the region.
  const shownFrame = useMemo(() => (seen ? frameOf([seen, ...useModel.getState().view.bodies]) : frame), [frame, seen?.min.join(), seen?.max.join()]); // oxlint-disable-line react/exhaustive-deps
  return { frame, shownFrame, region, fit: useCallback(() => setFits((n) => n + 1), []) };
}
