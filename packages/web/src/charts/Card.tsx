import MoreVert from '@mui/icons-material/MoreVert';
import { IconButton, Menu, MenuItem } from '@mui/material';
import { type ReactNode, useRef, useState } from 'react';
import { cardPicture } from './cardPicture.ts';
import { download } from '../ui/download.ts';

interface Props {
  title: string;
  /** Which runs and conditions, for the header and the picture. */
  about?: string;
  /** Stem of exported files. */
  file: string;
  tools?: ReactNode;
  exports?: { label: string; act(): void }[];
  flush?: boolean;
  tall?: boolean;
  children: ReactNode;
}

/** One plot of a board, with its exports. */
export function Card({ title, about, file, tools, exports = [], flush, tall, children }: Props) {
  const body = useRef<HTMLDivElement>(null);
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const png = async (): Promise<void> => {
    try {
      download(`${file}.png`, await cardPicture(body.current!, about ? `${title}: ${about}` : title));
    } catch (error) {
      setFault(`The picture could not be made: ${(error as Error).message}`);
    }
  };
  return (
    <section className={`card${tall ? ' tall' : ''}`} aria-label={title}>
      <header>
        <h3>{title}</h3>
        <span className="quiet" style={{ fontSize: 12, overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>
          {fault ?? about}
        </span>
        <span className="grow" />
        {tools}
        <IconButton
          aria-label={`Export ${title}`}
          aria-haspopup="menu"
          onClick={(e) => setAnchor(e.currentTarget)}
          sx={{ '& svg': { fontSize: 18 } }}
        >
          <MoreVert />
        </IconButton>
        <Menu anchorEl={anchor} open={anchor !== null} onClose={() => setAnchor(null)}>
          {[{ label: 'Picture (PNG)', act: () => void png() }, ...exports].map((e) => (
            <MenuItem
              key={e.label}
              onClick={() => {
                setAnchor(null);
                e.act();
              }}
            >
              {e.label}
            </MenuItem>
          ))}
        </Menu>
      </header>
      <div ref={body} className={`body${flush ? ' flush' : ''}`}>
        {children}
      </div>
    </section>
  );
}
