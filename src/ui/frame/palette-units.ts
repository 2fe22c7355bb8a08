import type { SpotlightActionData } from '@mantine/spotlight';
import { useEffect, useMemo, useState } from 'react';
import type { LockerUnit } from '../../core/rig';
import { askServer } from '../keep/ask-server';

/** Units of the locker, by serial number and name; asked for each time the palette opens. */
export function useUnits(isOpen: boolean): SpotlightActionData[] {
  const [units, setUnits] = useState<readonly LockerUnit[]>([]);
  useEffect(() => {
    if (!isOpen) return undefined;
    let wanted = true;
    void askServer<{ units: LockerUnit[] }>('/api/gear').then((reply) => {
      // Without the server there is no locker; everything else is found as ever.
      if (wanted && reply.ok) setUnits(reply.value.units);
    });
    return () => {
      wanted = false;
    };
  }, [isOpen]);
  return useMemo(
    () =>
      units.map((u) => ({
        id: `unit ${u.serial}`,
        group: 'Units in the locker',
        label: `Show ${u.serial}, ${u.name}`,
        description: u.uses.length ? `in ${u.uses.map((x) => x.rigName).join(', ')}` : 'in no rig',
        keywords: u.owner,
        onClick: () => window.location.assign(`/gear?find=${encodeURIComponent(u.serial)}`),
      })),
    [units],
  );
}
