import type { Conductor, Problem } from '@jadebell/core/document';
import { findMaterial } from '@jadebell/core/materials';
import { useModel } from '../project/model.ts';
import { madeBy } from '../project/ofLine.ts';
import { useProject } from '../project/store.ts';
import { Chip } from './Chip.tsx';
import { Choice } from '../kit/Choice.tsx';

interface Props {
  line: { name: string; material?: string; conductor?: Conductor };
  problems: Problem[];
  onChange(conductor: Conductor | undefined): void;
}

/** How a metal line conducts; shown where it was chosen, and on the picked line to choose it. Nothing for what is no lossy metal. */
export function ConductorChips({ line, problems, onChange }: Props) {
  const picked = useProject((s) => s.picked === line.name);
  const named = useProject((s) => (line.material && s.document ? findMaterial(s.document, line.material) : undefined));
  const body = useModel((s) => madeBy(s.view, line.name).bodies[0]);
  const material = line.material ? named : body?.material;
  const { conductor } = line;
  if (!material?.conductivity || (!picked && !conductor)) return null;
  const sheet = body?.sheet === true;
  const perfect = conductor?.as === 'perfect';
  const finite = (sides: string): Conductor => ({ ...conductor, as: 'finite', ...(sheet ? { sides: sides === 'one' ? 'one' : 'two' } : {}) });
  return (
    <>
      <Choice
        look="chip"
        label="conductor"
        value={perfect ? 'perfect' : sheet ? (conductor?.sides ?? 'two') : 'finite'}
        options={[
          ...(sheet
            ? [
                { value: 'two', label: 'lossy, current on both sides' },
                { value: 'one', label: 'lossy, current on one side' },
              ]
            : [{ value: 'finite', label: 'lossy' }]),
          { value: 'perfect', label: 'without loss' },
        ]}
        onChange={(v) => onChange(v === 'perfect' ? { as: 'perfect' } : v === 'finite' ? undefined : finite(v))}
      />
      {!perfect && (
        <Choice
          look="chip"
          label="thickness of the metal known"
          value={conductor?.thickness === undefined ? 'thick' : 'given'}
          options={[
            { value: 'thick', label: 'many skin depths thick' },
            { value: 'given', label: 'of thickness' },
          ]}
          onChange={(v) => {
            const { thickness: _, ...rest } = finite(conductor?.sides ?? 'two');
            onChange(v === 'given' ? { ...rest, thickness: '18 um' } : rest);
          }}
        />
      )}
      {!perfect && conductor?.thickness !== undefined && (
        <Chip
          label="thickness of the metal"
          quantity="length"
          value={conductor.thickness}
          problems={problems.filter((p) => p.place.chip === 'conductor.thickness')}
          onChange={(thickness) => onChange({ ...conductor, thickness })}
        />
      )}
    </>
  );
}
