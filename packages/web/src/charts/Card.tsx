import MoreVert from '@mui/icons-material/MoreVert';
import PushPin from '@mui/icons-material/PushPin';
import Tune from '@mui/icons-material/Tune';
import { Divider, IconButton, Menu, MenuItem } from '@mui/material';
import { type ReactNode, useContext, useRef, useState } from 'react';
import { stepOfKey, stepped } from './layout.ts';
import { CardContext } from './CardContext.ts';
import { download } from '../ui/download.ts';
import { cardDrawing, cardPicture } from './cardPicture.ts';

interface Props {
  title: string;
  /** Which runs and conditions, for the header and the picture. */
  about?: string;
  /** Stem of exported files. */
  file: string;
  tools?: ReactNode;
  exports?: { label: string; act(): void | Promise<void> }[];
  flush?: boolean;
  /** Whether it stands still: pictures can be taken as drawings too. */
  children: ReactNode;
}

/** One card of a board, with its exports and what the board does with it. */
export function Card({ title: kind, about, file, tools, exports = [], flush, children }: Props) {
  const board = useContext(CardContext);
  const body = useRef<HTMLDivElement>(null);
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const title = board?.card.title ?? kind;
  const named = about ? `${title}: ${about}` : title;
  const take = async (ending: string, make: (body: HTMLElement, title: string) => Promise<Blob>): Promise<void> => {
    download(`${file}.${ending}`, await make(body.current!, named));
  };
  const entry = (e: { label: string; act(): void | Promise<void> }) => (
    <MenuItem
      key={e.label}
      onClick={() => {
        setAnchor(null);
        setFault(null);
        void Promise.resolve()
          .then(() => e.act())
          .catch((error: Error) => setFault(`${e.label}: ${error.message}`));
      }}
    >
      {e.label}
    </MenuItem>
  );
  const move = (e: React.KeyboardEvent): void => {
    const step = board && e.target === e.currentTarget && stepOfKey(e.key, e.shiftKey);
    if (!step) return;
    e.preventDefault();
    e.stopPropagation();
    board.change({ place: stepped(board.card.place, step) });
  };
  return (
    <section className={`card${board?.settingUp ? ' chosen' : ''}`} aria-label={title} data-file={file} data-about={about}>
      <header
        tabIndex={board ? 0 : undefined}
        aria-label={board ? `${title}: arrow keys move the card, with Shift they size it` : undefined}
        onKeyDown={move}
      >
        <h3>{title}</h3>
        {fault ? (
          <span role="alert" className="bad about" title={fault}>
            {fault}
          </span>
        ) : (
          <span className="quiet about" title={about}>
            {about}
          </span>
        )}
        <span className="grow" />
        {tools}
        {board?.card.pin && (
          <IconButton
            aria-label={`${title} is pinned: let it follow the lens`}
            title="Pinned to its own values"
            onClick={() => board.change({ pin: undefined })}
            sx={{ color: 'var(--plum)', '& svg': { fontSize: 16 } }}
          >
            <PushPin />
          </IconButton>
        )}
        {board?.setUp && (
          <IconButton
            aria-label={`Set up ${title}`}
            aria-pressed={board.settingUp}
            title="Set up"
            onClick={board.setUp}
            sx={{ '& svg': { fontSize: 16 } }}
          >
            <Tune />
          </IconButton>
        )}
        <IconButton
          aria-label={`Export ${title}`}
          aria-haspopup="menu"
          onClick={(e) => setAnchor(e.currentTarget)}
          sx={{ '& svg': { fontSize: 18 } }}
        >
          <MoreVert />
        </IconButton>
        <Menu anchorEl={anchor} open={anchor !== null} onClose={() => setAnchor(null)} slotProps={{ list: { dense: true } }}>
          {[
            { label: 'Picture (PNG)', act: () => take('png', cardPicture) },
            { label: 'Drawing (SVG)', act: () => take('svg', cardDrawing) },
            ...exports,
          ].map(entry)}
          {board && <Divider />}
          {board?.actions.map(entry)}
        </Menu>
      </header>
      <div ref={body} className={`body${flush ? ' flush' : ''}`}>
        {children}
      </div>
    </section>
  );
}
