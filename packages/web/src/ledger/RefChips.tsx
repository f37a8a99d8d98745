import type { Accepts, Problem } from '@jadebell/core/document';
import { faceName } from '@jadebell/core/geometry/naming';
import { useEffect, useMemo, useState } from 'react';
import { useShallow } from 'zustand/react/shallow';
import { useModel } from '../project/model.ts';
import { useProject } from '../project/store.ts';
import { candidates } from '../project/addLine.ts';
import { useStage } from '../project/stageState.ts';
import { Tool } from '../kit/Tool.tsx';
import { Choice } from '../kit/Choice.tsx';

const choose = { value: '', label: 'choose …' };

/** Names that may be referred to from a line. */
function useCandidates(line: string, accepts: Accepts): string[] {
  // Asked for again when the model has changed; the list stays the same while it says the same.
  useModel((s) => s.view.kinds);
  return useProject(useShallow((s) => candidates(s.document!, line, accepts)));
}

interface RefProps {
  line: string;
  label: string;
  accepts: Accepts;
  value: string;
  optional?: boolean;
  problems: Problem[];
  onChange(value: string): void;
}

/** One earlier line. */
export function RefChip({ line, label, accepts, value, optional, problems, onChange }: RefProps) {
  const names = useCandidates(line, accepts);
  const options = [
    ...(value && !optional ? [] : [optional ? { value: '', label: 'the world' } : choose]),
    ...[...new Set([value, ...names])].filter(Boolean).map((n) => ({ value: n, label: n })),
  ];
  return <Choice look="chip" label={label} value={value} options={options} failing={problems.length > 0} onChange={onChange} />;
}

/** Several earlier lines: each with a way out, and one to add. */
export function RefsChip({
  line,
  label,
  accepts,
  value,
  problems,
  onChange,
}: Omit<RefProps, 'value' | 'onChange'> & { value: string[]; onChange(v: string[]): void }) {
  const names = useCandidates(line, accepts).filter((n) => !value.includes(n));
  return (
    <span className={`refs${problems.length ? ' failing' : ''}`} role="group" aria-label={label}>
      {value.map((n) => (
        <span key={n} className="ref">
          {n}
          <Tool bare aria-label={`Take ${n} out of ${label}`} onClick={() => onChange(value.filter((o) => o !== n))}>
            ×
          </Tool>
        </span>
      ))}
      {names.length > 0 && (
        <Choice
          look="chip"
          label={`Add to ${label}`}
          value=""
          options={[{ value: '', label: value.length ? '+' : 'choose …' }, ...names.map((n) => ({ value: n, label: n }))]}
          onChange={(n) => n && onChange([...value, n])}
        />
      )}
    </span>
  );
}

/** A face of an earlier line: chosen from a list, or picked in the stage view. */
export function FaceChip({ line, label, value, problems, onChange }: Omit<RefProps, 'accepts'>) {
  const bodies = useModel((s) => s.view.bodies);
  const names = useCandidates(line, 'body');
  const [waiting, setWaiting] = useState(false);
  const hit = useStage((s) => s.hit);
  const faces = useMemo(
    () => bodies.filter((b) => names.includes(b.name)).flatMap((b) => (b.sheet ? [b.name] : b.faces.map((_, f) => faceName(b, f)))),
    [bodies, names],
  );
  useEffect(() => {
    if (!waiting || hit?.kind !== 'face') return;
    const body = bodies.find((b) => b.name === hit.body);
    setWaiting(false);
    if (body && names.includes(body.name)) onChange(body.sheet ? body.name : faceName(body, hit.face!));
    // Only a new hit ends the waiting.
    // oxlint-disable-next-line react/exhaustive-deps
  }, [hit]);
  const options = [...(value ? [] : [choose]), ...[...new Set([value, ...faces])].filter(Boolean).map((n) => ({ value: n, label: n }))];
  return (
    <span className="row" style={{ gap: 2, display: 'inline-flex' }}>
      <Choice look="chip" label={label} value={value} options={options} failing={problems.length > 0} onChange={onChange} />
      <Tool
        aria-pressed={waiting}
        onClick={() => {
          useStage.getState().set({ mode: 'faces', hit: null });
          setWaiting(!waiting);
        }}
      >
        {waiting ? 'pick a face …' : 'Pick'}
      </Tool>
    </span>
  );
}
