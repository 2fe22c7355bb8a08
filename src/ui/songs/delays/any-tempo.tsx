import { Group, NumberInput } from '@mantine/core';
import { useState } from 'react';
import { divisionTable } from '../../../core/songs';
import { fixed } from '../../../core/units';

/** All note values at any tempo. */
export function AnyTempo() {
  const [bpm, setBpm] = useState<number | string>(96);
  const ok = Number(bpm) >= 20 && Number(bpm) <= 400;
  return (
    <section>
      <Group gap={8} align="end">
        <NumberInput
          size="xs"
          w={120}
          label="Any tempo, bpm"
          min={20}
          max={400}
          value={bpm}
          onChange={setBpm}
        />
        {!ok && <span role="alert">20 to 400 bpm</span>}
      </Group>
      {ok && (
        <table className="sheet-table numbers figures" data-table="divisions">
          <thead>
            <tr>
              <th>Note</th>
              <th>Delay</th>
              <th>One cycle in it</th>
            </tr>
          </thead>
          <tbody>
            {divisionTable(Number(bpm)).map((d) => (
              <tr key={d.division} data-division={d.division}>
                <td>{d.division}</td>
                <td>{fixed(d.ms, 2)} ms</td>
                <td>{fixed(d.hz, 2)} Hz</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}
