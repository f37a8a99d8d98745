import { Delete, VolumeOff, VolumeUp } from '../kit/icons.tsx';
import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import type { Line } from '@jadebell/core/document';

import { Tool } from '../kit/Tool.tsx';
import { Field } from '../kit/Field.tsx';
import { IconTool } from '../kit/IconTool.tsx';

interface Props {
  line: Line & { kind: 'section' };
  open: boolean;
  count: number;
  onFold(): void;
  onChange(next: Line & { kind: 'section' }): void;
  onRemove(): void;
}

/** The title of a section of lines. */
export function SectionHead({ line, open, count, onFold, onChange, onRemove }: Props) {
  const { attributes, listeners, setNodeRef, transform, transition } = useSortable({ id: line.name });
  return (
    <div
      ref={setNodeRef}
      className={`section-head${line.muted ? ' muted' : ''}`}
      style={{ transform: CSS.Translate.toString(transform), transition }}
    >
      <Tool bare aria-expanded={open} aria-label={`${open ? 'Fold' : 'Unfold'} ${line.title}`} onClick={onFold}>
        {open ? '▾' : '▸'}
      </Tool>
      <Field look="plain" label="title of section" value={line.title} onChange={(title) => onChange({ ...line, title })} />
      {!open && <span className="quiet">{count}</span>}
      <span className="grow" />
      <IconTool
        label={`${line.muted ? 'Unmute' : 'Mute'} section ${line.title}`}
        icon={line.muted ? <VolumeOff /> : <VolumeUp />}
        onClick={() => onChange({ ...line, muted: !line.muted })}
      />
      <IconTool label={`Remove title ${line.title}`} icon={<Delete />} onClick={onRemove} />
      <Tool bare className="grip" aria-label={`Move section ${line.title}`} {...attributes} {...listeners}>
        ⋮⋮
      </Tool>
    </div>
  );
}
