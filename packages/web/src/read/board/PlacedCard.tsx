import type { Board } from '@jadebell/core/document';
import { memo, useMemo } from 'react';
import type { Run } from '../../api/types.ts';
import { cardParts, ShowCard } from '../cards/registry.tsx';
import { useLens } from '../../lens/lens.ts';
import { editBoard } from './boards.ts';
import { freePlace, freshId } from '../../charts/layout.ts';
import { CardContext, type OnBoard } from '../../charts/CardContext.ts';
import type { BoardCard } from '@jadebell/core/cards';

interface Props {
  card: BoardCard;
  run: Run;
  boards: readonly Board[];
  at: number;
  settingUp: boolean;
  change(id: string, next: Partial<BoardCard>): void;
  setUp(): void;
}

/** A card with what its menu does on the board. */
export const PlacedCard = memo(function PlacedCard({ card, run, boards, at, settingUp, change, setUp }: Props) {
  const onBoard = useMemo((): OnBoard => {
    const pin = (): void => {
      const { frequency, phase } = useLens.getState();
      change(card.id, { pin: { run: run.number, ...(frequency === null ? {} : { frequency }), phase } });
    };
    return {
      card,
      settingUp,
      setUp: cardParts[card.kind].settings ? setUp : null,
      change: (next) => change(card.id, next),
      actions: [
        card.pin ? { label: 'Unpin', act: () => change(card.id, { pin: undefined }) } : { label: 'Pin to these values', act: pin },
        {
          label: 'Duplicate',
          act: () =>
            editBoard('duplicate card', boards, at, (b) => ({
              ...b,
              cards: [...b.cards, { ...card, id: freshId(b), place: freePlace(b, card.place.w, card.place.h) } as BoardCard],
            })),
        },
        { label: 'Remove', act: () => editBoard('remove card', boards, at, (b) => ({ ...b, cards: b.cards.filter((c) => c.id !== card.id) })) },
      ],
    };
  }, [card, run.number, boards, at, settingUp, change, setUp]);
  return (
    <CardContext value={onBoard}>
      <ShowCard card={card} />
    </CardContext>
  );
});
