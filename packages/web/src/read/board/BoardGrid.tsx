import 'react-grid-layout/css/styles.css';
import type { Board } from '@jadebell/core/document';
import { type ReactNode, useMemo } from 'react';
import GridLayout, { type Layout, verticalCompactor } from 'react-grid-layout';
import { useSize } from '../../ui/useSize.ts';
import type { BoardCard } from '@jadebell/core/cards';

interface Props {
  board: Board;
  children(card: BoardCard): ReactNode;
  /** After a card was dragged or sized: places of all cards by id. */
  onPlaced(places: Map<string, BoardCard['place']>): void;
}

const grid = { cols: 12, rowHeight: 44, margin: [10, 10] as const, containerPadding: [10, 10] as const };
const drag = { enabled: true, handle: '.card > header', cancel: 'button, select, input, a, textarea', threshold: 4 };
const resize = { enabled: true, handles: ['se', 's', 'e'] as const };

/** Cards on a grid of twelve columns; a card is dragged by its head and sized at its edges. */
export function BoardGrid({ board, children, onPlaced }: Props) {
  const [holder, size] = useSize();
  const layout = useMemo(() => board.cards.map(({ id, place }) => ({ i: id, ...place, minW: 2, minH: 2 })), [board.cards]);
  const placed = (next: Layout): void => {
    const places = new Map(next.map(({ i, x, y, w, h }) => [i, { x, y, w, h }]));
    const same = board.cards.every(({ id, place }) => {
      const p = places.get(id);
      return p && p.x === place.x && p.y === place.y && p.w === place.w && p.h === place.h;
    });
    if (!same) onPlaced(places);
  };
  return (
    <div ref={holder} className="board" role="tabpanel" aria-label={board.name}>
      {size.width > 0 && (
        <GridLayout
          width={size.width}
          layout={layout}
          gridConfig={grid}
          dragConfig={drag}
          resizeConfig={resize}
          compactor={verticalCompactor}
          onDragStop={placed}
          onResizeStop={placed}
        >
          {board.cards.map((card) => (
            <div key={card.id} className="card-cell">
              {children(card)}
            </div>
          ))}
        </GridLayout>
      )}
    </div>
  );
}
