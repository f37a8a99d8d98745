import { useEffect, useRef } from 'react';
import { restAt, useAddress } from '../ui/address.ts';
import { closeSection, openSection, useSection } from './sectionState.ts';

/** Has the section open that the address names; one that was left open, with what was solved of it, is there again when its stage is. */
export function useSectionAddress(here: boolean): void {
  const named = useAddress('section');
  const was = useRef(false);
  useEffect(() => {
    const came = here && !was.current;
    was.current = here;
    if (!here) return;
    const { open } = useSection.getState();
    if (named !== null) openSection(named);
    else if (came && open !== null) restAt({ section: open });
    else closeSection();
  }, [here, named]);
}
