'use client';
import { Select } from '@mantine/core';
import { useState } from 'react';
import { learnSheets, type Rig } from '../../core/rig';
import { askServer, problemText } from '../keep/ask-server';
import { type ListedRig, TEMPLATE } from './rig-list';

/** A rig of a template: the same, but for the very units, which are in one place. */
const asStart = (rig: Rig): Rig => ({
  ...rig,
  devices: rig.devices.map(({ gear, ...d }) => {
    const { serial: _serial, ...rest } = gear ?? {};
    return { ...d, ...(Object.keys(rest).length > 0 && { gear: rest }) };
  }),
});

/** Starts from a rig that is tagged as a template. */
export function FromTemplate({
  model,
  onModel,
  onSay,
}: {
  model: Rig | null;
  onModel: (rig: Rig | null) => void;
  onSay: (words: string) => void;
}) {
  const [rigs, setRigs] = useState<ListedRig[] | null>(null);
  const list = async () => {
    if (rigs) return;
    const reply = await askServer<ListedRig[]>('/api/rigs');
    if (reply.ok) setRigs(reply.value.filter((r) => !r.archived && r.tags.includes(TEMPLATE)));
    else onSay(problemText(reply.problem));
  };
  const open = async (id: string | null) => {
    if (id === null) return onModel(null);
    const reply = await askServer<{ rig: Rig }>(`/api/rigs/${id}`);
    if (!reply.ok) return onSay(problemText(reply.problem));
    learnSheets(reply.value.rig.sheets);
    onModel(asStart(reply.value.rig));
  };
  return (
    <Select
      size="xs"
      label="Or start from a rig of yours"
      placeholder={
        rigs && !rigs.length ? `no rig is tagged “${TEMPLATE}” in the list` : 'which one …'
      }
      clearable
      searchable
      data={(rigs ?? []).map((r) => ({ value: r.id, label: r.name }))}
      value={model?.id ?? null}
      onFocus={() => void list()}
      onChange={(id) => void open(id)}
    />
  );
}
