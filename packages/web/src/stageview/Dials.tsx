import { formatSI } from '@jadebell/core/expressions/format';
import { useEffect, useRef, useState } from 'react';
import { previewBounds } from '../project/bounds.ts';
import { useModel } from '../project/model.ts';
import { useProject } from '../project/store.ts';
import { Range } from '../kit/Range.tsx';

/** Parameters put up as dials, for turning while looking. */
export function Dials() {
  const parameters = useProject((s) => s.document?.parameters) ?? [];
  const dials = parameters.filter((g) => g.dial);
  if (!dials.length) return null;
  return (
    <div className="over dials" aria-label="Dials">
      {dials.map((g) => (
        <Dial key={g.name} name={g.name} min={g.dial!.min} max={g.dial!.max} />
      ))}
    </div>
  );
}

function Dial({ name, min, max }: { name: string; min: string; max: string }) {
  const edit = useProject((s) => s.edit);
  const value = useModel((s) => s.view.summary[name]);
  const [bounds, setBounds] = useState<[number, number] | null>(null);
  // What is turned to stands until the model has come to it.
  const [turning, setTurning] = useState<number | null>(null);
  const held = useRef(false);
  const si = value?.si;
  useEffect(() => {
    if (!held.current) setTurning(null);
  }, [si]);
  useEffect(() => {
    let current = true;
    void previewBounds(min, max).then((b) => current && setBounds(b));
    return () => {
      current = false;
    };
  }, [min, max]);
  if (!value || !bounds) return null;
  const shown = turning ?? value.si;
  const set = (si: number): void => {
    held.current = true;
    setTurning(si);
    const expression = formatSI(si, value.measure, 4);
    edit(`dial ${name}`, (d) => ({ ...d, parameters: d.parameters.map((g) => (g.name === name ? { ...g, expression } : g)) }));
  };
  return (
    <div className="dial">
      <b className="mono">{name}</b>
      <Range
        label={`dial ${name}`}
        min={bounds[0]}
        max={bounds[1]}
        step={(bounds[1] - bounds[0]) / 400}
        value={shown}
        told={formatSI(shown, value.measure, 4)}
        onChange={set}
        onDone={() => (held.current = false)}
      />
      <span className="mono">{formatSI(shown, value.measure, 4)}</span>
    </div>
  );
}
