import { useModel } from '../project/model.ts';
import { type Hit, sameHit, useStage } from '../project/stageState.ts';
import type { Frame } from '../space/frameOf.ts';
import { FrameAxes, GridPlane, GroundPlane, RegionFrame } from '../space/Surroundings.tsx';
import type { View } from '../workers/protocol.ts';
import { GuideMarks } from './GuideMarks.tsx';
import { HitMark } from './HitMark.tsx';
import { PortMarks } from './PortMarks.tsx';
import { RecorderMarks } from './RecorderMarks.tsx';
import { SourceMark } from './SourceMark.tsx';
import { SegmentNodes, WireMarks } from './WireMarks.tsx';

/** What is picked, measured and pointed at. */
export function HitMarks({ pointed, dark }: { pointed: Hit | undefined; dark: boolean }) {
  const view = useModel((s) => s.view);
  const hit = useStage((s) => s.hit);
  const measuring = useStage((s) => s.measuring);
  const accent = dark ? '#5CC7A0' : '#1F7A5C';
  return (
    <>
      {pointed && pointed.kind !== 'body' && <HitMark view={view} hit={pointed} colour={accent} />}
      {hit && hit.kind !== 'body' && !sameHit(hit, pointed ?? null) && <HitMark view={view} hit={hit} colour={accent} />}
      {measuring?.map((m, i) => (
        <HitMark key={i} view={view} hit={m} colour={dark ? '#e0a64b' : '#A8690B'} />
      ))}
    </>
  );
}

interface Props {
  frame: Frame;
  shownFrame: Frame;
  region: View['region'];
  dark: boolean;
}
/** What feeds and reads the model, and what lies around it. */
export function ModelMarks({ frame, shownFrame, region, dark }: Props) {
  const { frames, ports, guides, recorders, bodies, source, wires } = useModel((s) => s.view);
  const probe = dark ? '#5CC4D6' : '#00798C';
  return (
    <>
      <FrameAxes frames={frames} size={frame.size} dark={dark} />
      <PortMarks ports={ports} size={frame.size} />
      {wires && <WireMarks marks={wires.marks} size={frame.size} probe={probe} />}
      <GuideMarks guides={guides} size={frame.size} />
      <RecorderMarks recorders={recorders} bodies={bodies} region={region} size={frame.size} colour={probe} />
      {source && <SourceMark source={source} frame={frame} dark={dark} />}
      {region && !wires && <RegionFrame region={region} dark={dark} />}
      {wires && wires.ground !== null && <GroundPlane frame={shownFrame} level={wires.ground} dark={dark} />}
    </>
  );
}

/** The grid at a height, or the segments of wires. */
export function MeshMarks({ level, dark }: { level: number; dark: boolean }) {
  const mesh = useModel((s) => s.view.mesh);
  return (
    <>
      {mesh?.grid && <GridPlane grid={mesh.grid} level={level} dark={dark} />}
      {mesh?.nodes && <SegmentNodes nodes={mesh.nodes} dark={dark} />}
    </>
  );
}
