import { Close } from '../../kit/icons.tsx';

import type { ResultMeta } from '@jadebell/core/results';
import type { ComponentType } from 'react';
import { cardKind, type BoardCard } from '@jadebell/core/cards';
import { cardParts } from '../cards/registry.tsx';
import { Part, Row } from '../settings/Fields.tsx';
import { TypedField } from '../../kit/Field.tsx';
import { IconTool } from '../../kit/IconTool.tsx';

interface Props {
  card: BoardCard;
  meta: ResultMeta;
  change(next: Partial<BoardCard>): void;
  close(): void;
}

/** Settings of one card beside the board, which shows each change at once. */
export function CardSettings({ card, meta, change, close }: Props) {
  const Settings = cardParts[card.kind].settings as ComponentType<Omit<Props, 'close'>> | undefined;
  const title = card.title ?? cardKind(card).title;
  return (
    <aside className="card-settings" aria-label={`Settings of ${title}`}>
      <header className="row">
        <h3>{title}</h3>
        <span className="grow" />
        <IconTool label="Close the settings" icon={<Close />} size={17} onClick={close} />
      </header>
      <div className="card-settings-body">
        <Part title="Card">
          <Row label="title">
            <TypedField
              label="Title of the card"
              width={180}
              value={card.title ?? ''}
              placeholder={cardKind(card).title}
              check={(t) => (t.length > 80 ? 'at most 80 characters' : null)}
              onChange={(t) => change({ title: t || undefined })}
            />
          </Row>
        </Part>
        {Settings && <Settings key={card.id} card={card} meta={meta} change={change} />}
      </div>
    </aside>
  );
}
