import { ListSubheader, Menu, MenuItem } from '@mui/material';
import { useState } from 'react';

export interface MenuEntry {
  title: string;
  about?: string;
  disabled?: boolean;
  act(): void;
}

/** A small button that opens a menu. */
export function ToolMenu({ label, hint, items, heading }: { label: string; hint?: string; heading?: string; items: MenuEntry[] }) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  return (
    <>
      <button
        type="button"
        className="tool"
        aria-haspopup="menu"
        aria-expanded={anchor !== null}
        title={hint}
        onClick={(e) => setAnchor(e.currentTarget)}
      >
        {label}
      </button>
      <Menu anchorEl={anchor} open={anchor !== null} onClose={() => setAnchor(null)} slotProps={{ list: { dense: true } }}>
        {heading && <ListSubheader sx={{ lineHeight: '28px' }}>{heading}</ListSubheader>}
        {items.map((item) => (
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
