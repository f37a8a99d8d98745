import { Add } from './icons.tsx';
import { Button, ListSubheader, Menu, MenuItem } from '@mui/material';
import { type ReactNode, useState } from 'react';
import { Hint } from './Hint.tsx';
import { Tool } from './Tool.tsx';

export interface MenuEntry {
  title: string;
  about?: string;
  disabled?: boolean;
  act(): void;
}

interface Props {
  label: string;
  hint?: string;
  heading?: string;
  /** What is seen of the button, where that is not its label. */
  face?: ReactNode;
  /** The main way of adding something to a part: a plain button with a plus. */
  adds?: boolean;
  /** Asked for as it opens. */
  items(): readonly MenuEntry[];
}

/** A button that opens a menu. */
export function ToolMenu({ label, hint, items, heading, face, adds }: Props) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const [shown, setShown] = useState<readonly MenuEntry[]>([]);
  const opens = {
    'aria-haspopup': 'menu',
    'aria-expanded': anchor !== null,
    'aria-label': face === undefined ? undefined : label,
    onClick: (e: React.MouseEvent<HTMLElement>) => {
      setShown(items());
      setAnchor(e.currentTarget);
    },
  } as const;
  return (
    <>
      {adds ? (
        <Hint text={hint}>
          <Button startIcon={<Add />} {...opens}>
            {face ?? label}
          </Button>
        </Hint>
      ) : (
        <Tool hint={hint} {...opens}>
          {face ?? label}
        </Tool>
      )}
      <Menu anchorEl={anchor} open={anchor !== null} onClose={() => setAnchor(null)} slotProps={{ list: { dense: true } }}>
        {heading && <ListSubheader>{heading}</ListSubheader>}
        {shown.map((item) => (
          <MenuItem
            key={item.title}
            disabled={item.disabled}
            title={item.about}
            onClick={() => {
              setAnchor(null);
              item.act();
            }}
          >
            <span>{item.title}</span>
            {item.about && (
              <span className="quiet" style={{ marginLeft: 12, fontSize: 12 }}>
                {item.about}
              </span>
            )}
          </MenuItem>
        ))}
      </Menu>
    </>
  );
}
