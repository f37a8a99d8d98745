import { useFrame } from '@react-three/fiber';
import type { RefObject } from 'react';
import { Vector3 } from 'three';
import { LabelFrame } from './LabelFrame.ts';

/** Text that stands at a point of the model. */
export interface Label {
  key: string;
  at: readonly number[];
  text: string;
  className: string;
}

/** The labels' elements; they lie over the canvas and are moved by LabelMover. */
export function LabelLayer({ labels, layer }: { labels: Label[]; layer: RefObject<HTMLDivElement | null> }) {
  return (
    <LabelFrame ref={layer} aria-hidden>
      {labels.map((l) => (
        <div key={l.key}>
          <div className={l.className}>{l.text}</div>
        </div>
      ))}
    </LabelFrame>
  );
}

const point = new Vector3();

/** Keeps each label at the projection of its point; stands inside the canvas. */
export function LabelMover({ labels, layer }: { labels: Label[]; layer: RefObject<HTMLDivElement | null> }) {
  useFrame(({ camera, size }) => {
    const elements = layer.current?.children;
    if (!elements) return;
    labels.forEach((l, i) => {
      const element = elements[i] as HTMLElement | undefined;
      if (!element) return;
      point.set(l.at[0], l.at[1], l.at[2]).project(camera);
      element.style.transform = `translate(${((point.x + 1) / 2) * size.width}px, ${((1 - point.y) / 2) * size.height}px)`;
    });
  });
  return null;
}
