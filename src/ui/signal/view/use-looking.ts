import { useLocalStorage } from '@mantine/hooks';
import { useCallback, useMemo } from 'react';
import { useRig } from '../../store/use-rig';
import type { Looking } from '../walk-tools';

const NOTHING_FOLDED: Pick<Looking, 'folded' | 'lanes' | 'quiet' | 'held'> = {
  folded: [],
  lanes: [],
  quiet: false,
  held: false,
};

/**
 * How the walk is looked at, and a way to change it. What is folded is kept in this browser; what
 * is followed or compared, and as what it is drawn, is in the address.
 */
export function useLooking(rig: string): [Looking, (change: Partial<Looking>) => void] {
  const [kept, setKept] = useLocalStorage({
    key: `yantrel folded ${rig}`,
    defaultValue: NOTHING_FOLDED,
  });
  const asked = useRig((s) => s.signalAsked);
  const askSignal = useRig((s) => s.askSignal);
  const looking = useMemo((): Looking => ({ ...NOTHING_FOLDED, ...asked, ...kept }), [asked, kept]);
  const look = useCallback(
    (change: Partial<Looking>) => {
      const { folded, lanes, quiet, held, ...rest } = { ...NOTHING_FOLDED, ...kept, ...change };
      setKept({ folded, lanes, quiet, held });
      askSignal(rest);
    },
    [kept, setKept, askSignal],
  );
  return [looking, look];
}
