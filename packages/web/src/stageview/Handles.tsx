import { atPath, draggedExpression, type Handle, handlesOf, shapeOf, withPath } from '@jadebell/core/document';
import { formatSI } from '@jadebell/core/expressions/format';
import { ButtonBase } from '@mui/material';
import { useFrame, useThree } from '@react-three/fiber';
import { type PointerEvent, type RefObject, useRef } from 'react';
import { type Camera, Vector3 } from 'three';
import { useModel } from '../project/model.ts';
import { replaceEntry } from '../project/edits.ts';
import { useProject } from '../project/store.ts';
import { roundLength } from '../space/frameOf.ts';
import { HandleFrame } from './HandleFrame.ts';

/** A handle in the axes of the world. */
export interface PlacedHandle extends Handle {
  label: string;
}

/** What the overlay needs to know of the camera. */
export interface EyeRef {
  camera: Camera;
  width: number;
  height: number;
  /** Pixels per metre. */
  zoom: number;
}

/** Handles of the picked line, where it has numbers. */
export function usePlacedHandles(): PlacedHandle[] {
  const picked = useProject((s) => s.picked);
  const line = useProject((s) => s.document?.lines.find((l) => l.name === picked));
  const values = useModel((s) => (picked ? s.view.values[picked] : undefined));
  const frames = useModel((s) => s.view.frames);
  if (!line || !values || line.muted) return [];
  const m = line.in === undefined ? null : frames.find((f) => f.name === line.in)?.matrix;
  if (m === undefined) return [];
  const labels = new Map(shapeOf(line).chips(line).map((c) => [c.path, c.label])); // prettier-ignore
  const turn = (p: readonly number[], shift: number): [number, number, number] =>
    m ? ([0, 4, 8].map((r) => m[r] * p[0] + m[r + 1] * p[1] + m[r + 2] * p[2] + shift * m[r + 3]) as [number, number, number]) : [p[0], p[1], p[2]];
  return handlesOf(line, values).map((h) => ({ ...h, at: turn(h.at, 1), along: turn(h.along, 0), label: labels.get(h.path) ?? h.path }));
}

const v = new Vector3();
const pixels = (eye: EyeRef, p: readonly number[]): [number, number] => {
  v.set(p[0], p[1], p[2]).project(eye.camera);
  return [((v.x + 1) / 2) * eye.width, ((1 - v.y) / 2) * eye.height];
};

/** Whether a handle moves a point, rather than changing a size. */
const isPlace = (h: Handle): boolean => /^(at|from|to)\./.test(h.path);

/** Pixels that a handle of a position stands off its point along its axis, so that the three do not lie on each other. */
const standOff = 34;

/** Moves the handles' elements with the camera; stands inside the canvas. */
export function HandleMover({
  handles,
  layer,
  eye,
}: {
  handles: PlacedHandle[];
  layer: RefObject<HTMLDivElement | null>;
  eye: RefObject<EyeRef | null>;
}) {
  const invalidate = useThree((s) => s.invalidate);
  const count = useRef(0);
  if (count.current !== handles.length) {
    count.current = handles.length;
    invalidate();
  }
  useFrame(({ camera, size }) => {
    eye.current = { camera, width: size.width, height: size.height, zoom: camera.zoom };
    const elements = layer.current?.children;
    if (!elements) return;
    handles.forEach((h, i) => {
      const element = elements[i] as HTMLElement | undefined;
      if (!element) return;
      const off = isPlace(h) ? standOff / camera.zoom : 0;
      const [x, y] = pixels(
        eye.current!,
        h.at.map((c, a) => c + off * h.along[a]),
      );
      const [ox, oy] = pixels(eye.current!, h.at);
      // Seen end on, it cannot be dragged.
      const flat = Math.hypot(...[0, 1].map((k) => pixels(eye.current!, h.at.map((c, a) => c + (20 / camera.zoom) * h.along[a]))[k] - [ox, oy][k])) < 4; // prettier-ignore
      element.style.display = flat ? 'none' : '';
      element.style.transform = `translate(${x}px, ${y}px)`;
    });
  });
  return null;
}

/** The handles: dragged with the pointer, or moved with the arrow keys; hidden they keep their places. */
export function HandleLayer({
  hidden,
  handles,
  layer,
  eye,
}: {
  hidden: boolean;
  handles: PlacedHandle[];
  layer: RefObject<HTMLDivElement | null>;
  eye: RefObject<EyeRef | null>;
}) {
  const drag = useRef<{ x: number; y: number; value: number; text: string; direction: [number, number]; line: string } | null>(null);
  const step = (): number => roundLength(6 / (eye.current?.zoom || 1e3));
  const read = (h: PlacedHandle): { line: string; text: string; value: number } | null => {
    const { picked, document } = useProject.getState();
    const line = document?.lines.find((l) => l.name === picked);
    const value = picked ? useModel.getState().view.values[picked]?.[h.path] : undefined;
    return line && value !== undefined ? { line: line.name, text: String(atPath(line, h.path)), value } : null;
  };
  const write = (h: PlacedHandle, from: { line: string; text: string; value: number }, by: number): void => {
    const rounded = Math.round(by / step()) * step();
    const chip = useProject.getState().document?.lines.find((l) => l.name === from.line);
    if (!chip || (!isPlace(h) && from.value + rounded <= 0)) return;
    const text = draggedExpression(from.text, from.value, rounded, (si) => formatSI(si, 'length', 6));
    useProject.getState().edit(`drag ${from.line} ${h.path}`, (d) => replaceEntry(d, 'lines', from.line, withPath(chip, h.path, text)));
  };
  const start = (e: PointerEvent<HTMLButtonElement>, h: PlacedHandle): void => {
    const from = read(h);
    if (!from || !eye.current) return;
    const [x, y] = pixels(eye.current, h.at);
    const [x1, y1] = pixels(
      eye.current,
      h.at.map((c, a) => c + h.along[a] * 1e-3),
    );
    // Pixels of a metre along the handle.
    drag.current = { x: e.clientX, y: e.clientY, ...from, direction: [(x1 - x) * 1e3, (y1 - y) * 1e3] };
    e.currentTarget.setPointerCapture(e.pointerId);
    e.preventDefault();
  };
  const move = (e: PointerEvent<HTMLButtonElement>, h: PlacedHandle): void => {
    const d = drag.current;
    if (!d) return;
    const [a, b] = d.direction;
    const metres = ((e.clientX - d.x) * a + (e.clientY - d.y) * b) / (a * a + b * b || 1);
    write(h, d, metres * h.rate);
  };
  return (
    <HandleFrame ref={layer} aria-label="Handles" hidden={hidden}>
      {handles.map((h) => (
        <ButtonBase
          key={h.path}
          className={`handle ${isPlace(h) ? 'place' : 'size'}`}
          aria-label={`Drag the ${h.label}`}
          title={h.label}
          onPointerDown={(e) => start(e, h)}
          onPointerMove={(e) => move(e, h)}
          onPointerUp={() => (drag.current = null)}
          onKeyDown={(e) => {
            const sign = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[e.key];
            const from = sign && !e.altKey ? read(h) : null;
            if (!sign || !from) return;
            e.preventDefault();
            write(h, from, sign * step());
          }}
        />
      ))}
    </HandleFrame>
  );
}
