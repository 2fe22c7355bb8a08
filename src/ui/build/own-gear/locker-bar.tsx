'use client';
import { Button, Group } from '@mantine/core';
import { useMemo, useState } from 'react';
import { sheetDifferences } from '../../../core/changes';
import type { LockerSheet, Sheet } from '../../../core/rig';
import { askServer, problemText } from '../../keep/ask-server';
import { useLocker } from './locker-list';

/** How this rig's copy of a sheet stands to the locker's: the difference in words, and either way over. */
export function LockerBar({ sheet, onTake }: { sheet: Sheet; onTake: (sheet: Sheet) => void }) {
  const { sheets, take, look } = useLocker();
  const [said, setSaid] = useState<string | null>(null);
  const held = sheets?.find((s) => s.sheet.id === sheet.id);
  const differences = useMemo(
    () => (held ? sheetDifferences(sheet, held.sheet) : []),
    [held, sheet],
  );
  const put = async () => {
    const body = { sheet, base: held?.version ?? null };
    const reply = await askServer<{ sheets: LockerSheet[] }>('/api/sheets', 'PUT', body);
    if (reply.ok) take(reply.value.sheets);
    // What others have put there meanwhile is shown with its difference; the next press is over that.
    else await look();
    setSaid(reply.ok ? null : problemText(reply.problem));
  };
  if (!sheets) return null;
  return (
    <div className="own-gear-locker" data-locker-bar>
      <Group gap={8}>
        {!held && <span className="faint">Not in the locker: other rigs cannot take it.</span>}
        {held && !differences.length && (
          <span className="faint">As in the locker, version {held.version}.</span>
        )}
        {held && differences.length > 0 && (
          <span>
            The locker&rsquo;s (version {held.version}) differs: {differences.join('; ')}.
          </span>
        )}
        {held && differences.length > 0 && (
          <Button size="compact-xs" variant="default" onClick={() => onTake(held.sheet)}>
            Take the locker&rsquo;s
          </Button>
        )}
        {(!held || differences.length > 0) && (
          <Button size="compact-xs" variant="default" onClick={() => void put()}>
            {held ? 'Put ours into the locker' : 'Put it into the locker'}
          </Button>
        )}
      </Group>
      {said && (
        <div role="alert" className="verdict wrong">
          {said}
        </div>
      )}
    </div>
  );
}
