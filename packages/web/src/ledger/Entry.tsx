import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import type { Problem } from '@jadebell/core/document';
import ContentCopy from '@mui/icons-material/ContentCopyOutlined';
import Delete from '@mui/icons-material/DeleteOutlined';
import VisibilityOff from '@mui/icons-material/VisibilityOffOutlined';
import Visibility from '@mui/icons-material/VisibilityOutlined';
import { IconButton, Tooltip } from '@mui/material';
import { type ReactNode, useEffect, useRef } from 'react';
import { useProject } from '../project/store.ts';

interface Props {
  name: string;
  number: number;
  glyph: ReactNode;
  muted?: boolean;
  problems: Problem[];
  sortable?: boolean;
  children: ReactNode;
  onMute?(): void;
  onDuplicate?(): void;
  onRemove(): void;
}

/** One numbered entry of the ledger: number, glyph, sentence, its problems in words, and what can be done with it. */
export function Entry({ name, number, glyph, muted, problems, sortable, children, onMute, onDuplicate, onRemove }: Props) {
  const picked = useProject((s) => s.picked === name);
  const lit = useProject((s) => s.lit === name);
  const { pick, light } = useProject.getState();
  const { attributes, listeners, setNodeRef, transform, transition } = useSortable({ id: name, disabled: !sortable });
  const element = useRef<HTMLDivElement | null>(null);
  useEffect(() => {
    if (picked) element.current?.scrollIntoView({ block: 'nearest' });
  }, [picked]);
  const tool = (label: string, icon: ReactNode, act: () => void): ReactNode => (
    <Tooltip title={label}>
      <IconButton aria-label={`${label} ${name}`} onClick={act} sx={{ p: '2px', '& svg': { fontSize: 16 } }}>
        {icon}
      </IconButton>
    </Tooltip>
  );
  return (
    <div
      ref={(node) => {
        setNodeRef(node);
        element.current = node;
      }}
      id={`entry-${name}`}
      className={`entry${picked ? ' selected' : ''}${lit ? ' lit' : ''}${muted ? ' muted' : ''}`}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      onPointerEnter={() => light(name)}
      onPointerLeave={() => light(null)}
      onFocus={() => pick(name)}
      onClick={() => pick(name)}
    >
      {sortable ? (
        <button type="button" className="number" aria-label={`Move line ${number}, ${name}`} {...attributes} {...listeners}>
          {number}
        </button>
      ) : (
        <span className="number" style={{ cursor: 'default' }}>
          {number}
        </span>
      )}
      <span className="glyph">{glyph}</span>
      {children}
      <span className="tools">
        {onMute && tool(muted ? 'Unmute' : 'Mute', muted ? <VisibilityOff /> : <Visibility />, onMute)}
        {onDuplicate && tool('Duplicate', <ContentCopy />, onDuplicate)}
        {tool('Remove', <Delete />, onRemove)}
      </span>
      {problems.map((p) => (
        <div key={`${p.code}${p.place.chip}`} role="alert" className="fault">
          {p.message} {p.fix}
        </div>
      ))}
    </div>
  );
}
