import type { NoteCard as NoteCardData } from '@jadebell/core/document';
import { useContext } from 'react';
import { Card } from '../../charts/Card.tsx';
import { CardContext } from '../../charts/CardContext.ts';
import { stemOf } from './stem.ts';

/** Words of one's own on a board. */
export function NoteCard({ card }: { card: NoteCardData }) {
  const board = useContext(CardContext)!;
  return (
    <Card title={card.title ?? 'Note'} file={stemOf(undefined, card.title ?? 'note')}>
      <textarea
        className="note-text"
        aria-label="Text of the note"
        placeholder="What is to be remembered of this board"
        maxLength={5000}
        value={card.text}
        onChange={(e) => board.change({ text: e.target.value } as Partial<NoteCardData>)}
      />
    </Card>
  );
}
