import { Box, Button, Paper, Popper } from '@mui/material';
import { useEffect, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import type { StagePath } from '../ui/stages.ts';
import { stops, useTour } from './tour.ts';

/** Milliseconds between looks for what a stop is about, while its stage opens. */
const lookEvery = 150;

/** The stop of the tour beside what it is about, which is framed; it covers nothing that can be pressed, and can be left at any time. */
export function TourCard({ stage, goTo }: { stage: StagePath; goTo(stage: StagePath): void }) {
  const { at, go, end } = useTour();
  const [anchor, setAnchor] = useState<Element | null>(null);
  const stop = at === null ? null : stops[at];
  useHotkeys('escape', end, { enabled: stop !== null });
  useEffect(() => {
    if (stop && stop.stage !== stage) goTo(stop.stage);
    // Only the next stop goes to its stage; the user may look elsewhere meanwhile.
  }, [stop]); // oxlint-disable-line react/exhaustive-deps
  useEffect(() => {
    if (!stop) return setAnchor(null);
    const look = (): void => setAnchor(document.querySelector(stop.anchor));
    look();
    const timer = setInterval(look, lookEvery);
    return () => clearInterval(timer);
  }, [stop]);
  useEffect(() => {
    if (!(anchor instanceof HTMLElement)) return;
    const before = anchor.style.boxShadow;
    anchor.style.boxShadow = 'inset 0 0 0 2px var(--jade)';
    return () => void (anchor.style.boxShadow = before);
  }, [anchor]);
  if (!stop || at === null) return null;
  const large = anchor && anchor.getBoundingClientRect().height > window.innerHeight / 2;
  return (
    <Popper
      open
      anchorEl={anchor ?? document.body}
      placement={large ? 'left' : 'bottom'}
      modifiers={[{ name: 'preventOverflow', options: { padding: 12, altAxis: true } }]}
      sx={{ zIndex: 1250 }}
    >
      <Paper
        variant="outlined"
        role="dialog"
        aria-label={`Tour: ${stop.title}`}
        sx={{ p: 1.5, m: 1, width: 320, fontSize: 13.5, borderColor: 'var(--jade)' }}
      >
        <b>{stop.title}</b>
        <Box component="p" sx={{ my: 0.75, lineHeight: 1.45 }}>
          {stop.text}
        </Box>
        <div className="row">
          <span className="quiet">
            {at + 1} of {stops.length}
          </span>
          <span className="grow" />
          <Button size="small" onClick={end}>
            Leave
          </Button>
          {at > 0 && (
            <Button size="small" onClick={() => go(-1)}>
              Back
            </Button>
          )}
          <Button size="small" variant="contained" onClick={() => go(1)}>
            {at === stops.length - 1 ? 'Done' : 'Next'}
          </Button>
        </div>
      </Paper>
    </Popper>
  );
}
