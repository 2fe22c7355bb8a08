'use client';
import { Select } from '@mantine/core';
import dynamic from 'next/dynamic';
import { useState } from 'react';
import { learnSheets, type Rig } from '../../../core/rig';
import { askServer, problemText } from '../../keep/ask-server';
import { laterPart } from '../../look/later';
import { useDocument } from '../../store/use-rig';

const Parts = dynamic(
  laterPart('parts', () => import('./take-parts').then((m) => m.Parts)),
  { ssr: false },
);

/** A rig in the list of all, as far as it is needed here. */
interface Listed {
  id: string;
  name: string;
}

/**
 * Takes from another rig: devices with the leads between them, their sheets and how they stand in
 * sounds; sounds, songs, sets, controls and boards, with what they need.
 */
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
      <summary className="small-print">Take from another rig</summary>
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
      {from && <Parts key={from.id} from={from} />}
      {said && <p role="status">{said}</p>}
    </details>
  );
}
