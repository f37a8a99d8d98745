import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import type { Line } from '@jadebell/core/document';
import Delete from '@mui/icons-material/DeleteOutlined';
import VolumeOff from '@mui/icons-material/VolumeOffOutlined';
import VolumeUp from '@mui/icons-material/VolumeUpOutlined';
import { IconButton } from '@mui/material';

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
      <button type="button" className="tool bare" aria-expanded={open} aria-label={`${open ? 'Fold' : 'Unfold'} ${line.title}`} onClick={onFold}>
        {open ? '▾' : '▸'}
      </button>
      <input
        className="plain-input"
        aria-label="title of section"
        value={line.title}
        onChange={(e) => onChange({ ...line, title: e.target.value })}
      />
      {!open && <span className="quiet">{count}</span>}
      <span className="grow" />
      <IconButton
        aria-label={`${line.muted ? 'Unmute' : 'Mute'} section ${line.title}`}
        onClick={() => onChange({ ...line, muted: !line.muted })}
        sx={{ p: '2px', '& svg': { fontSize: 16 } }}
      >
        {line.muted ? <VolumeOff /> : <VolumeUp />}
      </IconButton>
      <IconButton aria-label={`Remove title ${line.title}`} onClick={onRemove} sx={{ p: '2px', '& svg': { fontSize: 16 } }}>
        <Delete />
      </IconButton>
      <button type="button" className="tool bare grip" aria-label={`Move section ${line.title}`} {...attributes} {...listeners}>
        ⋮⋮
      </button>
    </div>
  );
}
