import type { StudyCardOf } from '@jadebell/core/document';
import { Popover } from '@mui/material';
import { useState } from 'react';
import { Choice } from '../../kit/Choice.tsx';
import { TypedField } from '../../kit/Field.tsx';
import { IconTool } from '../../kit/IconTool.tsx';
import { Tune } from '../../kit/icons.tsx';
import { Tick } from '../../kit/Tick.tsx';

type Settings = StudyCardOf<'over'>['x'];

interface Side {
  word: string;
  settings: Settings;
  /** Size of the unit that its ends are typed in, and how it is written. */
  size: number;
  units: readonly string[];
  change(next: Settings): void;
}

interface Props {
  card: string;
  title: string | undefined;
  setTitle(title: string | undefined): void;
  sides: readonly Side[];
}

const aNumber = (t: string): string | null => (t === '' || Number.isFinite(Number(t)) ? null : 'a number');
const shown = (v: number | undefined, size: number): string => (v === undefined ? '' : String(Number((v / size).toPrecision(7))));
const atMost = (t: string): string | null => (t.length > 60 ? 'at most 60 characters' : null);

/** Title, units, ends and scales of a card's axes, behind a button in its head. */
export function AxisTools({ card, title, setTitle, sides }: Props) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  return (
    <>
      <IconTool label={`Set up ${card}`} hint="Title and axes" icon={<Tune />} aria-haspopup="dialog" onClick={(e) => setAnchor(e.currentTarget)} />
      <Popover
        open={anchor !== null}
        anchorEl={anchor}
        onClose={() => setAnchor(null)}
        anchorOrigin={{ vertical: 'bottom', horizontal: 'right' }}
        transformOrigin={{ vertical: 'top', horizontal: 'right' }}
        slotProps={{ paper: { 'aria-label': `Set up ${card}`, role: 'dialog', sx: { p: 1.5, display: 'grid', gap: 0.75, fontSize: 13 } } }}
      >
        <div className="row">
          <span className="quiet" style={{ width: 54 }}>
            title
          </span>
          <TypedField
            label="Title of the card"
            width={230}
            value={title ?? ''}
            placeholder={card}
            check={atMost}
            onChange={(t) => setTitle(t || undefined)}
          />
        </div>
        {sides.map(({ word, settings, size, units, change }) => {
          const end = (key: 'min' | 'max', says: string) => (
            <TypedField
              mono
              label={`${word} ${says}`}
              width={72}
              value={shown(settings[key], size)}
              placeholder="auto"
              check={aNumber}
              onChange={(t) => change({ ...settings, [key]: t === '' ? undefined : Number(t) * size })}
            />
          );
          return (
            <div className="row" key={word}>
              <span className="quiet" style={{ width: 54 }}>
                {word}
              </span>
              {end('min', 'from')} to {end('max', 'to')}
              {units.length > 1 && (
                <Choice
                  label={`Unit of ${word}`}
                  value={settings.unit ?? ''}
                  options={[{ value: '', label: 'unit that suits' }, ...units.map((u) => ({ value: u, label: u }))]}
                  onChange={(u) => change({ ...settings, unit: u || undefined })}
                />
              )}
              <Tick label={`log, ${word}`} value={!!settings.log} onChange={(log) => change({ ...settings, log: log || undefined })} />
              <TypedField
                label={`Title of ${word}`}
                width={120}
                value={settings.title ?? ''}
                placeholder="title"
                check={atMost}
                onChange={(t) => change({ ...settings, title: t || undefined })}
              />
            </div>
          );
        })}
      </Popover>
    </>
  );
}
