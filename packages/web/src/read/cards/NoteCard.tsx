import type { NoteCard as NoteCardData } from '@jadebell/core/document';
import { useContext } from 'react';
import { Card } from '../../charts/Card.tsx';
import { CardContext } from '../../charts/CardContext.ts';
import { stemOf } from './stem.ts';
import { Field } from '../../kit/Field.tsx';

/** Words of one's own on a board. */
export function NoteCard({ card }: { card: NoteCardData }) {
  const board = useContext(CardContext)!;
  return (
    <Card title={card.title ?? 'Note'} file={stemOf(undefined, card.title ?? 'note')}>
      <Field
        look="note"
        rows={4}
        label="Text of the note"
        placeholder="What is to be remembered of this board"
        maxLength={5000}
        value={card.text}
        onChange={(text) => board.change({ text } as Partial<NoteCardData>)}
      />
    </Card>
  );
}
