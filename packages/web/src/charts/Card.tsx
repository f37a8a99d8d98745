import { MoreVert, PushPin, Tune } from '../kit/icons.tsx';
import { Divider, Menu, MenuItem } from '@mui/material';
import { type ReactNode, useContext, useRef, useState } from 'react';
import { stepOfKey, stepped } from './layout.ts';
import { CardContext } from './CardContext.ts';
import { download } from '../ui/download.ts';
import { cardDrawing, cardPicture } from './cardPicture.ts';
import { IconTool } from '../kit/IconTool.tsx';
import { CardFrame } from './CardFrame.ts';
import { copyTable } from '../kit/tableText.ts';

interface Props {
  title: string;
  /** Which runs and conditions, for the header and the picture. */
  about?: string;
  /** Stem of exported files. */
  file: string;
  tools?: ReactNode;
  exports?: { label: string; act(): void | Promise<void> }[];
  /** What it shows is still being read: nothing is exported until it is there. */
  waiting?: boolean;
  flush?: boolean;
  /** Whether it stands still: pictures can be taken as drawings too. */
  children: ReactNode;
}

/** One card of a board, with its exports and what the board does with it. */
export function Card({ title: kind, about, file, tools, exports = [], waiting = false, flush, children }: Props) {
  const board = useContext(CardContext);
  const body = useRef<HTMLDivElement>(null);
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const title = board?.card.title ?? kind;
  const named = about ? `${title}: ${about}` : title;
  const take = async (ending: string, make: (body: HTMLElement, title: string) => Promise<Blob>): Promise<void> => {
    download(`${file}.${ending}`, await make(body.current!, named));
  };
  const entry = (e: { label: string; act(): void | Promise<void> }, disabled = false) => (
    <MenuItem
      key={e.label}
      disabled={disabled}
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
    <CardFrame className={`card${board?.settingUp ? ' chosen' : ''}`} aria-label={title} data-file={file} data-about={about}>
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
          <IconTool
            label={`${title} is pinned: let it follow the lens`}
            hint="Pinned to its own values"
            icon={<PushPin />}
            color="secondary"
            onClick={() => board.change({ pin: undefined })}
          />
        )}
        {board?.setUp && <IconTool label={`Set up ${title}`} hint="Set up" icon={<Tune />} aria-pressed={board.settingUp} onClick={board.setUp} />}
        <IconTool
          label={`Export ${title}`}
          hint="Export and more"
          icon={<MoreVert />}
          size={18}
          aria-haspopup="menu"
          onClick={(e) => setAnchor(e.currentTarget)}
        />
        <Menu anchorEl={anchor} open={anchor !== null} onClose={() => setAnchor(null)} slotProps={{ list: { dense: true } }}>
          {[
            { label: 'Picture (PNG)', act: () => take('png', cardPicture) },
            { label: 'Drawing (SVG)', act: () => take('svg', cardDrawing) },
            ...exports,
            ...(anchor && body.current?.querySelector('table') ? [{ label: 'Copy as table', act: () => copyTable(body.current) }] : []),
          ].map((e) => entry(e, waiting))}
          {board && <Divider />}
          {board?.actions.map((e) => entry(e))}
        </Menu>
      </header>
      <div ref={body} className={`body${flush ? ' flush' : ''}`}>
        {children}
      </div>
    </CardFrame>
  );
}
