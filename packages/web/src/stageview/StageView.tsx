import { shapeGroups, shapes } from '@jadebell/core/document';
import { formatSI } from '@jadebell/core/expressions/format';
import { Canvas, type ThreeEvent } from '@react-three/fiber';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import type { StagePath } from '../ui/stages.ts';
import { useModel } from '../project/model.ts';
import { useProject } from '../project/store.ts';
import { addLine, canAdd } from '../project/addLine.ts';
import { ToolMenu } from '../ui/ToolMenu.tsx';
import { useDark } from '../ui/useDark.ts';
import { Bodies } from '../space/Bodies.tsx';
import { type CameraHandle, ViewCamera, type ViewName } from '../space/Camera.tsx';
import { Dials } from './Dials.tsx';
import { boundsOfEdges, boundsOver, frameOf, roundLength } from '../space/frameOf.ts';
import { type EyeRef, HandleLayer, HandleMover, usePlacedHandles } from './Handles.tsx';
import { HitMark } from './HitMark.tsx';
import { type Label, LabelLayer, LabelMover } from '../space/Labels.tsx';
import { hitsUnder } from './picking.ts';
import { SourceMark, sourceTail } from './SourceMark.tsx';
import { GuideMarks } from './GuideMarks.tsx';
import { RecorderMarks } from './RecorderMarks.tsx';
import { portLabels, PortMarks } from './PortMarks.tsx';
import { SegmentNodes, wireLabels, WireMarks } from './WireMarks.tsx';
import { onShownSide, SectionPlane } from './SectionPlane.tsx';
import { type Hit, sameHit, useStage } from '../project/stageState.ts';
import { StageTools } from './StageTools.tsx';
import { axisLabels, boundaryLabels, Floor, FrameAxes, GridPlane, GroundPlane, RegionFrame } from '../space/Surroundings.tsx';
import { measured, referenceTo, tell } from './told.ts';

const viewNames: ViewName[] = ['oblique', 'top', 'bottom', 'front', 'back', 'left', 'right'];
const arrowViews: Record<string, ViewName> = { up: 'top', down: 'front', left: 'left', right: 'right', home: 'oblique' };

/** The 3D view of the model with what the stage lays over it. */
export default function StageView({ stage }: { stage: StagePath }) {
  const { view, ready } = useModel();
  const document = useProject((s) => s.document!);
  const { picked, lit, pick, light } = useProject();
  const { mode, hit, showing, measuring, editor, set } = useStage();
  const dark = useDark();
  const camera = useRef<CameraHandle>(null);
  const [scale, setScale] = useState(0);
  const [under, setUnder] = useState<Hit[]>([]);
  const [step, setStep] = useState(0);
  const [showGrid, setShowGrid] = useState(true);
  const [note, setNote] = useState<string | null>(null);
  // The frame is taken when there first is something to see and when the user fits; in between the model may grow out of it.
  const [fits, setFits] = useState(0);
  const empty = !view.bodies.length && !view.curves.length;
  const frame = useMemo(() => {
    const now = useModel.getState().view;
    return frameOf([...now.bodies, ...now.curves.map((c) => boundsOfEdges(c.edges))]);
  }, [fits, ready, empty]); // eslint-disable-line react-hooks/exhaustive-deps
  const region = stage !== 'shape' ? view.region : null;
  // Wires have no region of their own: what is to be seen are they and the ground under them.
  const present = useMemo(() => (region && view.wires ? boundsOver(view.bodies, view.wires.ground) : region), [region, view.wires, view.bodies]);
  // While something is at fault there is no region; the view stays where it was.
  const [lastSeen, setLastSeen] = useState(present);
  if (present && present !== lastSeen) setLastSeen(present);
  const seen = stage === 'shape' ? null : (present ?? lastSeen);
  // What lies behind planes of symmetry stands outside the region.
  const shownFrame = useMemo(() => (seen ? frameOf([seen, ...useModel.getState().view.bodies]) : frame), [frame, seen?.min.join(), seen?.max.join()]); // eslint-disable-line react-hooks/exhaustive-deps

  const fit = useCallback(() => setFits((n) => n + 1), []);
  useHotkeys('.', fit);
  useHotkeys('alt+up,alt+down,alt+left,alt+right,alt+home', (_, k) => camera.current?.look(arrowViews[k.keys?.join('') ?? 'home']), {
    preventDefault: true,
  });

  /** Takes a hit: into an open chip as a reference, into a measurement, or as what is picked. */
  const take = useCallback(
    (found: Hit): void => {
      const stageNow = useStage.getState();
      const { view: now } = useModel.getState();
      setNote(null);
      if (stageNow.editor) {
        const text = referenceTo(now, found, stageNow.editor.axis);
        if (text) stageNow.editor.insert(text);
        else setNote('This has no name that would stay true when the model changes. Pick a corner, an end, or an edge between two faces.');
        return;
      }
      set({ hit: found });
      if (stageNow.measuring) {
        set({ measuring: stageNow.measuring.length >= 2 ? [found] : [...stageNow.measuring, found] });
        return;
      }
      pick(now.bodies.find((b) => b.name === found.body)?.line ?? found.body);
    },
    [pick, set],
  );
  const through = (by: number): void => {
    if (!under.length) return;
    const next = (step + by + under.length) % under.length;
    setStep(next);
    take(under[next]);
  };
  useHotkeys('bracketleft', () => through(-1), { useKey: false }, [under, step]);
  useHotkeys('bracketright', () => through(1), { useKey: false }, [under, step]);

  const hitsOf = useCallback((e: ThreeEvent<PointerEvent | MouseEvent>): Hit[] => {
    const canvas = e.nativeEvent.target as HTMLElement;
    const { offsetX: x, offsetY: y } = e.nativeEvent;
    const eye = { camera: e.camera, width: canvas.clientWidth, height: canvas.clientHeight, x, y, visible: onShownSide };
    return hitsUnder(useStage.getState().mode, e.intersections, useModel.getState().view, eye);
  }, []);
  const onPoint = useCallback(
    (e: ThreeEvent<PointerEvent | MouseEvent>) => {
      e.stopPropagation();
      const hits = hitsOf(e);
      setUnder((old) => {
        if (hits.length === old.length && hits.every((h, i) => sameHit(h, old[i]))) return old;
        setStep(0);
        return hits;
      });
      light(hits[0]?.body ?? null);
    },
    [hitsOf, light],
  );
  const onLeave = useCallback(() => {
    setUnder([]);
    light(null);
  }, [light]);
  const onMissed = useCallback(() => {
    if (useStage.getState().editor) return;
    set({ hit: null });
    pick(null);
  }, [pick, set]);
  const onPick = useCallback(
    (e: ThreeEvent<PointerEvent | MouseEvent>) => {
      if (e.delta > 4) return;
      e.stopPropagation();
      const hits = hitsOf(e);
      // What the section plane has cut away is not there.
      if (hits[0]) take(hits[0]);
      else onMissed();
    },
    [hitsOf, take, onMissed],
  );
  useEffect(
    () => () => {
      light(null);
      set({ hit: null, measuring: null });
    },
    [light, set],
  );

  const layer = useRef<HTMLDivElement>(null);
  const handleLayer = useRef<HTMLDivElement>(null);
  const eye = useRef<EyeRef>(null);
  const handles = usePlacedHandles();
  const { boundaries, symmetry } = document;
  const labels = useMemo(
    (): Label[] => [
      ...axisLabels(frame),
      ...portLabels([...view.ports, ...view.guides]),
      ...wireLabels(view.wires?.marks ?? []),
      ...(view.source
        ? [{ key: 'source', at: sourceTail(view.source, frame), text: `${view.source.order + 1} ${view.source.name}`, className: 'port-tag' }]
        : []),
      ...(region && !view.wires ? boundaryLabels(region, { boundaries, symmetry }) : []),
      ...view.frames.map((f) => ({ key: `frame ${f.name}`, at: [f.matrix[3], f.matrix[7], f.matrix[11]], text: f.name, className: 'axis-letter' })),
    ],
    [frame, view.ports, view.guides, view.wires, view.source, view.frames, region, boundaries, symmetry],
  );
  const pointed = under[step];
  const told = pointed ? `${tell(view, pointed)}${under.length > 1 ? ` · ${step + 1} of ${under.length} here` : ''}` : null;
  const bar = scale ? roundLength(110 / scale) : 0;
  const level = useMemo(() => view.bodies.find((b) => b.normal === 2)?.min[2] ?? 0, [view.bodies]);
  const accent = dark ? '#5CC7A0' : '#1F7A5C';
  const line =
    note ??
    (editor && mode === 'bodies'
      ? 'A chip is open: pick a point, an edge or a face (key , changes which) to put its reference into it.'
      : measuring
        ? measured(view, measuring)
        : (told ??
          (view.bodies.length || view.curves.length
            ? hit && hit.kind !== 'body'
              ? tell(view, hit)
              : ' '
            : ready
              ? 'Nothing to see yet'
              : 'Building the model …')));
  return (
    <div className="stage" aria-label="Stage view">
      <Canvas
        frameloop="demand"
        dpr={[0.5, 2]}
        gl={{ antialias: true, preserveDrawingBuffer: true }}
        raycaster={{ params: { Line: { threshold: scale ? 6 / scale : 1e-4 } } as never }}
        onPointerMissed={onMissed}
        // The canvas takes no focus from a chip that waits for a reference.
        onPointerDown={(e) => useStage.getState().editor && e.preventDefault()}
        onMouseDown={(e) => useStage.getState().editor && e.preventDefault()}
      >
        <ViewCamera frame={shownFrame} handle={camera} onScale={setScale} />
        <SectionPlane />
        <Floor frame={frame} dark={dark} />
        <Bodies
          bodies={view.bodies}
          curves={view.curves}
          dark={dark}
          picked={picked}
          lit={lit}
          showing={showing}
          onPoint={onPoint}
          onLeave={onLeave}
          onPick={onPick}
        />
        {pointed && pointed.kind !== 'body' && <HitMark view={view} hit={pointed} colour={accent} />}
        {hit && hit.kind !== 'body' && !sameHit(hit, pointed) && <HitMark view={view} hit={hit} colour={accent} />}
        {measuring?.map((m, i) => (
          <HitMark key={i} view={view} hit={m} colour={dark ? '#e0a64b' : '#A8690B'} />
        ))}
        <FrameAxes frames={view.frames} size={frame.size} dark={dark} />
        <PortMarks ports={view.ports} size={frame.size} />
        {view.wires && <WireMarks marks={view.wires.marks} size={frame.size} probe={dark ? '#5CC4D6' : '#00798C'} />}
        <GuideMarks guides={view.guides} size={frame.size} />
        <RecorderMarks recorders={view.recorders} bodies={view.bodies} region={region} size={frame.size} colour={dark ? '#5CC4D6' : '#00798C'} />
        {view.source && <SourceMark source={view.source} frame={frame} dark={dark} />}
        {region && !view.wires && <RegionFrame region={region} dark={dark} />}
        {view.wires && view.wires.ground !== null && <GroundPlane frame={shownFrame} level={view.wires.ground} dark={dark} />}
        <LabelMover labels={labels} layer={layer} />
        {stage === 'shape' && <HandleMover handles={handles} layer={handleLayer} eye={eye} />}
        {stage === 'solve' && showGrid && view.mesh?.grid && <GridPlane grid={view.mesh.grid} level={level} dark={dark} />}
        {stage === 'solve' && showGrid && view.mesh?.nodes && <SegmentNodes nodes={view.mesh.nodes} dark={dark} />}
      </Canvas>
      <LabelLayer labels={labels} layer={layer} />
      {stage === 'shape' && <HandleLayer handles={handles} layer={handleLayer} eye={eye} />}
      <div className="over top-rows">
        {stage === 'shape' && (
          <div className="add-row" role="toolbar" aria-label="Add a line">
            {shapeGroups
              .filter((g) => g !== 'Order')
              .map((group) => (
                <ToolMenu
                  key={group}
                  label={`+ ${group}`}
                  items={shapes
                    .filter((s) => s.group === group)
                    .map((s) => ({ title: s.title, about: s.about, disabled: !canAdd(s.kind, document), act: () => addLine(s.kind) }))}
                />
              ))}
          </div>
        )}
        {stage === 'solve' && (
          <div className="add-row">
            <button type="button" className="tool" aria-pressed={showGrid} onClick={() => setShowGrid(!showGrid)}>
              {view.wires ? 'Segments' : `Grid at z = ${formatSI(level, 'length', 3)}`}
            </button>
          </div>
        )}
        <StageTools frame={frame} />
      </div>
      <div className="over views" role="toolbar" aria-label="Views">
        <button type="button" className="tool" onClick={fit} title="Fit (.)">
          Fit
        </button>
        <select className="tool" aria-label="View from" value="" onChange={(e) => camera.current?.look(e.target.value as ViewName)}>
          <option value="" disabled>
            View
          </option>
          {viewNames.map((v) => (
            <option key={v} value={v}>
              {v}
            </option>
          ))}
        </select>
      </div>
      <div className="over tell" aria-live="polite">
        <span>{line}</span>
        {bar > 0 && (
          <span>
            {formatSI(bar, 'length', 3)}
            <div className="scale-bar" style={{ width: bar * scale }} />
          </span>
        )}
      </div>
      <Dials />
    </div>
  );
}
