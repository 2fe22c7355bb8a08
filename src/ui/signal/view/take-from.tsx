'use client';
import { Button, MultiSelect, Select } from '@mantine/core';
import { useState } from 'react';
import { kindOf } from '../../../core/kinds';
import { clipOf, cutLeads, fittedTo, learnSheets, type Rig } from '../../../core/rig';
import { askServer, problemText } from '../../keep/ask-server';
import { useDocument, useRig } from '../../store/use-rig';

/** A rig in the list of all, as far as it is needed here. */
interface Listed {
  id: string;
  name: string;
}

/** Takes devices from another rig, with the leads between them, their sheets and how they stand in sounds. */
export function TakeFrom() {
  const here = useDocument();
  const [rigs, setRigs] = useState<Listed[] | null>(null);
  const [from, setFrom] = useState<Rig | null>(null);
  const [said, setSaid] = useState<string | null>(null);
  const list = async () => {
    const reply = await askServer<Listed[]>('/api/rigs');
    if (reply.ok) setRigs(reply.value.filter((r) => r.id !== here.id));
    else setSaid(problemText(reply.problem));
  };
  const open = async (id: string) => {
    const reply = await askServer<{ rig: Rig }>(`/api/rigs/${id}`);
    if (!reply.ok) return setSaid(problemText(reply.problem));
    learnSheets(reply.value.rig.sheets);
    setFrom(reply.value.rig);
  };
  return (
    <details data-take-from onToggle={(e) => e.currentTarget.open && !rigs && void list()}>
      <summary className="small-print">Take devices from another rig</summary>
      {rigs && (
        <Select
          size="xs"
          searchable
          aria-label="Rig to take from"
          placeholder={rigs.length ? 'which rig …' : 'there is no other rig'}
          data={rigs.map((r) => ({ value: r.id, label: r.name }))}
          value={from?.id ?? null}
          onChange={(id) => id && void open(id)}
        />
      )}
      {from && <Devices key={from.id} from={from} onSay={setSaid} />}
      {said && <p role="status">{said}</p>}
    </details>
  );
}

/** The devices of the other rig, to choose from by typing. */
function Devices({ from, onSay }: { from: Rig; onSay: (words: string) => void }) {
  const here = useDocument();
  const edit = useRig((s) => s.edit);
  const choose = useRig((s) => s.choose);
  const [ids, setIds] = useState<string[]>([]);
  const take = () => {
    const cut = cutLeads(from, ids).length;
    const { format: _format, version: _version, ...clip } = fittedTo(here, clipOf(from, ids));
    if (!edit({ edit: 'paste', ...clip }).ok) return;
    choose(clip.devices.map((d) => d.id));
    const lost = Object.keys(clip.states).filter((n) => !here.sounds.some((s) => s.name === n));
    onSay(
      [
        `${clip.devices.map((d) => d.name).join(', ')} came from ${from.name}, unconnected here`,
        cut ? `${cut} leads to others there did not come` : '',
        lost.length ? `there is no sound ${lost.join(', ')} here` : '',
      ]
        .filter(Boolean)
        .join('; ') + '.',
    );
    setIds([]);
  };
  return (
    <>
      <MultiSelect
        size="xs"
        mt={4}
        searchable
        aria-label={`Devices of ${from.name}`}
        placeholder="which devices …"
        data={from.devices.map((d) => ({
          value: d.id,
          label: `${d.name}, ${kindOf(d.kind).name}`,
        }))}
        value={ids}
        onChange={setIds}
      />
      <Button size="compact-xs" mt={6} disabled={!ids.length} onClick={take}>
        Take them
      </Button>
    </>
  );
}
