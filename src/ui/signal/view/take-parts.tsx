'use client';
import { Button, MultiSelect } from '@mantine/core';
import { useState } from 'react';
import { kindOf } from '../../../core/kinds';
import {
  applyEdits,
  borrow,
  clipOf,
  cutLeads,
  type Edit,
  fittedTo,
  type Rig,
} from '../../../core/rig';
import { useDocument, useRig } from '../../store/use-rig';
import { howMany } from '../../../core/units';

/** What can be taken, in the order of the list. */
const SORTS = ['devices', 'sounds', 'songs', 'sets', 'controls', 'boards'] as const;
type Sort = (typeof SORTS)[number];
const SORT_WORDS: Record<Sort, string> = {
  devices: 'Devices',
  sounds: 'Sounds',
  songs: 'Songs',
  sets: 'Sets',
  controls: 'Controls',
  boards: 'Boards',
};

/** Everything of a rig that can be taken, in groups. */
function partsOf(rig: Rig) {
  const words: Record<Sort, [id: string, label: string][]> = {
    devices: rig.devices.map((d) => [d.id, `${d.name}, ${kindOf(d.kind).name}`]),
    sounds: rig.sounds.map((s) => [s.id, s.name]),
    songs: (rig.songs ?? []).map((s) => [s.id, s.title]),
    sets: (rig.sets ?? []).map((s) => [s.id, s.name]),
    controls: (rig.controls ?? []).map((c) => [c.id, c.name]),
    boards: (rig.boards ?? []).map((b) => [b.id, b.name]),
  };
  return SORTS.filter((sort) => words[sort].length).map((sort) => ({
    group: SORT_WORDS[sort],
    items: words[sort].map(([id, label]) => ({ value: `${sort}:${id}`, label })),
  }));
}

/** Devices as edits, and what does not come with them, in words. */
function takeDevices(here: Rig, from: Rig, ids: readonly string[]) {
  if (!ids.length) return { edits: [], came: [], lost: [] };
  const cut = cutLeads(from, ids).length;
  const { format: _format, version: _version, ...clip } = fittedTo(here, clipOf(from, ids));
  const unknown = Object.keys(clip.states).filter((n) => !here.sounds.some((s) => s.name === n));
  return {
    edits: [{ edit: 'paste', ...clip } satisfies Edit],
    came: clip.devices.map((d) => d.id),
    lost: [
      ...(cut ? [`${howMany(cut, 'lead')} to others there did not come`] : []),
      ...(unknown.length ? [`there is no sound ${unknown.join(', ')} here`] : []),
    ],
  };
}

/** Parts of the other rig, to choose from by typing. */
export function Parts({ from }: { from: Rig }) {
  const here = useDocument();
  const edit = useRig((s) => s.edit);
  const choose = useRig((s) => s.choose);
  // What is chosen takes the place of this list: the words stand above everything.
  const setNotice = useRig((s) => s.setNotice);
  const [chosen, setChosen] = useState<string[]>([]);
  const data = partsOf(from);
  const take = () => {
    const of = (sort: Sort) =>
      chosen.flatMap((v) => (v.startsWith(`${sort}:`) ? [v.slice(sort.length + 1)] : []));
    const devices = takeDevices(here, from, of('devices'));
    // Sounds that come with their devices hold for those.
    const withDevices = applyEdits(here, devices.edits);
    const others = borrow(withDevices.ok ? withDevices.value.rig : here, from, {
      sounds: of('sounds'),
      songs: of('songs'),
      sets: of('sets'),
      controls: of('controls'),
      boards: of('boards'),
    });
    const labels = data.flatMap((g) => g.items);
    const names = chosen.flatMap((v) => labels.find((i) => i.value === v)?.label ?? []);
    const words = `took ${names.join('; ')} from ${from.name}`;
    if (!edit([...devices.edits, ...others.edits], words).ok) return;
    if (devices.came.length) choose(devices.came);
    const about = [
      `${names.join('; ')} came from ${from.name}`,
      ...(devices.came.length ? ['devices are unconnected here'] : []),
    ];
    setNotice(`${[...about, ...devices.lost, ...others.lost].join('; ')}.`);
    setChosen([]);
  };
  return (
    <>
      <MultiSelect
        size="xs"
        mt={4}
        searchable
        aria-label={`Parts of ${from.name}`}
        placeholder="devices, sounds, songs, sets, controls, boards …"
        data={data}
        value={chosen}
        onChange={setChosen}
      />
      <Button size="compact-xs" mt={6} disabled={!chosen.length} onClick={take}>
        Take them
      </Button>
    </>
  );
}
