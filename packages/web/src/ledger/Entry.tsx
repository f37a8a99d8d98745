import { BlurOn, ContentCopy, Delete, Visibility, VisibilityOff, VolumeOff, VolumeUp } from '../kit/icons.tsx';
import { Message } from '../kit/Message.tsx';
import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import type { Problem } from '@jadebell/core/document';
import { ButtonBase } from '@mui/material';
import { type MouseEvent, type ReactNode, useEffect, useRef } from 'react';
import { useProject } from '../project/store.ts';
import type { Showing } from '../project/stageState.ts';
import { IconTool } from '../kit/IconTool.tsx';

interface Props {
  name: string;
  number: number;
  glyph: ReactNode;
  muted?: boolean;
  problems: Problem[];
  sortable?: boolean;
  chosen?: boolean;
  showing?: Showing;
  children: ReactNode;
  onChoose?(e: MouseEvent): void;
  onShow?(): void;
  onMute?(): void;
  onDuplicate?(): void;
  onRemove(): void;
}

const eyes: Record<Showing, [ReactNode, string]> = {
  shown: [<Visibility key="v" />, 'Shown; make faint'],
  faint: [<BlurOn key="b" />, 'Faint; hide'],
  hidden: [<VisibilityOff key="o" />, 'Hidden; show'],
};

/** One numbered entry of the ledger: number, glyph, sentence, its problems in words, and what can be done with it. */
export function Entry({
  name,
  number,
  glyph,
  muted,
  problems,
  sortable,
  chosen,
  showing,
  children,
  onChoose,
  onShow,
  onMute,
  onDuplicate,
  onRemove,
}: Props) {
  const picked = useProject((s) => s.picked === name);
  const lit = useProject((s) => s.lit === name);
  const { pick, light } = useProject.getState();
  const { attributes, listeners, setNodeRef, transform, transition } = useSortable({ id: name, disabled: !sortable });
  const element = useRef<HTMLDivElement | null>(null);
  const pointing = useRef(false);
  useEffect(() => {
    if (picked) element.current?.scrollIntoView({ block: 'nearest' });
  }, [picked]);
  // Several chips with one fault need it said once.
  const told = problems.filter((p, i) => problems.findIndex((o) => o.message === p.message && o.fix === p.fix) === i);
  const tool = (label: string, icon: ReactNode, act: () => void): ReactNode => (
    <IconTool label={`${label} ${name}`} hint={label} icon={icon} onClick={act} />
  );
  return (
    <div
      ref={(node) => {
        setNodeRef(node);
        element.current = node;
      }}
      id={`entry-${name}`}
      className={`entry${picked ? ' selected' : ''}${lit ? ' lit' : ''}${muted ? ' muted' : ''}${chosen ? ' chosen' : ''}${showing && showing !== 'shown' ? ' dim' : ''}`}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      // By moving, not by what scrolls past below a pointer that rests: each light draws the model anew.
      onPointerMove={() => light(name)}
      onPointerLeave={() => {
        light(null);
        pointing.current = false;
      }}
      // A pick changes what the line shows: with the pointer it waits for the click, so that nothing moves under the pointer before.
      onPointerDownCapture={() => (pointing.current = true)}
      onPointerUpCapture={() => (pointing.current = false)}
      onFocus={() => {
        if (!pointing.current) pick(name);
      }}
      onClick={(e) => {
        if (onChoose && (e.ctrlKey || e.metaKey || e.shiftKey)) onChoose(e);
        else pick(name);
      }}
    >
      {sortable ? (
        <ButtonBase className="number" aria-label={`Move line ${number}, ${name}`} {...attributes} {...listeners}>
          {number}
        </ButtonBase>
      ) : (
        <span className="number" style={{ cursor: 'default' }}>
          {number}
        </span>
      )}
      <span className="glyph">{glyph}</span>
      {children}
      <span className="tools" style={{ minWidth: 24 * (1 + Number(!!onShow) + Number(!!onMute) + Number(!!onDuplicate)) }}>
        {(picked || lit) && (
          <>
            {onShow && showing && tool(eyes[showing][1], eyes[showing][0], onShow)}
            {onMute && tool(muted ? 'Unmute' : 'Mute', muted ? <VolumeOff /> : <VolumeUp />, onMute)}
            {onDuplicate && tool('Duplicate', <ContentCopy />, onDuplicate)}
            {tool('Remove', <Delete />, onRemove)}
          </>
        )}
      </span>
      {told.map((p) => (
        <Message key={`${p.code}${p.message}`} tone={p.severity === 'error' ? 'bad' : 'warn'} style={{ gridColumn: '3 / -1', paddingBottom: 2 }}>
          {p.message} {p.fix}
        </Message>
      ))}
    </div>
  );
}
