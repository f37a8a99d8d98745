import { useMemo } from 'react';
import { useShallow } from 'zustand/react/shallow';
import { useModel } from '../project/model.ts';
import { useProject } from '../project/store.ts';
import type { Frame } from '../space/frameOf.ts';
import type { Label } from '../space/Labels.tsx';
import { axisLabels, boundaryLabels } from '../space/Surroundings.tsx';
import type { View } from '../workers/protocol.ts';
import { portLabels } from './PortMarks.tsx';
import { sourceTail } from './SourceMark.tsx';
import { wireLabels } from './WireMarks.tsx';

/** The words that stand in the view: axes, frames, ports, the source, and what closes the region. */
export function useStageLabels(frame: Frame, region: View['region']): Label[] {
  const { ports, guides, wires, source, frames } = useModel(useShallow(({ view: v }) => ({ ports: v.ports, guides: v.guides, wires: v.wires, source: v.source, frames: v.frames }))); // prettier-ignore
  const boundaries = useProject((s) => s.document!.boundaries);
  const symmetry = useProject((s) => s.document!.symmetry);
  return useMemo(
    (): Label[] => [
      ...axisLabels(frame),
      ...portLabels([...ports, ...guides]),
      ...wireLabels(wires?.marks ?? []),
      ...(source ? [{ key: 'source', at: sourceTail(source, frame), text: `${source.order + 1} ${source.name}`, className: 'port-tag' }] : []),
      ...(region && !wires ? boundaryLabels(region, { boundaries, symmetry }) : []),
      ...frames.map((f) => ({ key: `frame ${f.name}`, at: [f.matrix[3], f.matrix[7], f.matrix[11]], text: f.name, className: 'axis-letter' })),
    ],
    [frame, ports, guides, wires, source, frames, region, boundaries, symmetry],
  );
}
