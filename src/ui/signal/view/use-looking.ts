import { useLocalStorage } from '@mantine/hooks';
import { useMemo, useState } from 'react';
import type { Looking } from '../walk-tools';

const NOTHING_FOLDED: Pick<Looking, 'folded' | 'lanes' | 'quiet' | 'held'> = {
  folded: [],
  lanes: [],
  quiet: false,
  held: false,
};

/**
 * How the walk is looked at, and a way to change it. What is folded is kept in this browser; what
 * is followed or compared is asked for each time.
 */
export function useLooking(rig: string): [Looking, (change: Partial<Looking>) => void] {
  const [kept, setKept] = useLocalStorage({
    key: `yantrel folded ${rig}`,
    defaultValue: NOTHING_FOLDED,
  });
  const [asked, setAsked] = useState<Pick<Looking, 'pane' | 'follow' | 'compare'>>({
    pane: 'walk',
    follow: null,
    compare: null,
  });
  const looking = useMemo((): Looking => ({ ...NOTHING_FOLDED, ...asked, ...kept }), [asked, kept]);
  const look = ({
    folded = kept.folded,
    lanes = kept.lanes,
    quiet = kept.quiet,
    held = kept.held,
    ...rest
  }: Partial<Looking>) => {
    setKept({ folded, lanes, quiet, held });
    setAsked({ ...asked, ...rest });
  };
  return [looking, look];
}
