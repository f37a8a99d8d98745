import { Tooltip } from '@mui/material';
import { useEffect, useState } from 'react';

/** Milliseconds that a pointer rests on a control before more is said of it. */
const rest = 500;

const controlOf = (target: EventTarget | null): HTMLElement | null => (target as Element | null)?.closest?.<HTMLElement>('[data-hint]') ?? null;

/** What is said more of the control that is pointed at or has the focus by key: one note for all of a page, as one for each costs as much as the control. */
export function Hints() {
  const [shown, setShown] = useState<{ of: HTMLElement; text: string } | null>(null);
  useEffect(() => {
    let of: HTMLElement | null = null;
    let timer = 0;
    const tell = (next: HTMLElement | null, after: number): void => {
      if (next === of) return;
      of = next;
      window.clearTimeout(timer);
      setShown(null);
      if (next)
        timer = window.setTimeout(() => setShown(next.isConnected && next.dataset.hint ? { of: next, text: next.dataset.hint } : null), after);
    };
    // A note that is pointed at itself stays, so that it can be read under a glass.
    const onPointer = (e: PointerEvent): void => {
      if (e.pointerType !== 'touch' && !(e.target as Element | null)?.closest?.('[role="tooltip"]')) tell(controlOf(e.target), rest);
    };
    const onFocus = (e: FocusEvent): void => {
      if ((e.target as Element).matches(':focus-visible')) tell(controlOf(e.target), 0);
    };
    const close = (): void => tell(null, 0);
    const onKey = (e: KeyboardEvent): void => {
      if (e.key === 'Escape') close();
    };
    const act = new AbortController();
    const on = { signal: act.signal, capture: true } as const;
    document.addEventListener('pointerover', onPointer, on);
    document.addEventListener('focusin', onFocus, on);
    document.addEventListener('focusout', close, on);
    document.addEventListener('pointerdown', close, on);
    document.addEventListener('keydown', onKey, on);
    return () => {
      act.abort();
      window.clearTimeout(timer);
    };
  }, []);
  // The control may go, or say another thing, while its note stands.
  useEffect(() => {
    if (!shown) return;
    const watch = new MutationObserver(() => {
      const text = shown.of.isConnected ? shown.of.dataset.hint : undefined;
      if (text !== shown.text) setShown(text ? { ...shown, text } : null);
    });
    watch.observe(document.body, { subtree: true, childList: true, attributeFilter: ['data-hint'] });
    return () => watch.disconnect();
  }, [shown]);
  return (
    <Tooltip open={shown !== null} title={shown?.text ?? ''} slotProps={{ popper: { anchorEl: shown?.of } }}>
      <span hidden />
    </Tooltip>
  );
}
