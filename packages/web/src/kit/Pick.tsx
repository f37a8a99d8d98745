import { List, ListItemButton, ListSubheader } from '@mui/material';

interface Props<T extends string> {
  label: string;
  groups: readonly { title: string; items: readonly { value: T; label: string }[] }[];
  value: T | undefined;
  onChange(value: NoInfer<T>): void;
}

/** A list in groups of which one is looked at. */
export const Pick = <T extends string>({ label, groups, value, onChange }: Props<T>) => (
  <List dense disablePadding aria-label={label} component="div">
    {groups
      .filter((g) => g.items.length)
      .flatMap((g) => [
        <ListSubheader key={`group ${g.title}`} component="h3" disableGutters>
          {g.title}
        </ListSubheader>,
        ...g.items.map((item) => (
          <ListItemButton
            key={item.value}
            component="button"
            selected={item.value === value}
            aria-current={item.value === value}
            onClick={() => onChange(item.value)}
          >
            {item.label}
          </ListItemButton>
        )),
      ])}
  </List>
);
