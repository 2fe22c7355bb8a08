import { Button, Group, TextInput } from '@mantine/core';
import { useState } from 'react';
import { kindOf } from '../../../core/kinds';
import { clipOf, cutLeads, type Device, type Edit, type Rig } from '../../../core/rig';
import { walkOrder } from '../../../core/walk';
import { useDocument, useRig } from '../../store/use-rig';
import { LoopSelect } from '../loops-panel';

/** The devices that are chosen, in the order of the signal. */
function useChosen(rig: Rig): Device[] {
  const chosen = useRig((s) => s.chosen);
  const order = walkOrder(rig);
  return rig.devices
    .filter((d) => chosen.includes(d.id))
    .sort((a, b) => order.indexOf(a.id) - order.indexOf(b.id));
}

/** What can be done with several devices at once: each is one step back. */
export function ManyPanel() {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const choose = useRig((s) => s.choose);
  const select = useRig((s) => s.select);
  const devices = useChosen(rig);
  const ids = devices.map((d) => d.id);
  const kinds = [...new Set(devices.map((d) => d.kind))];
  const remove = () => {
    const done = edit(
      devices.map((d) => ({ edit: 'removeDevice', device: d.id })),
      `removed ${devices.map((d) => d.name).join(', ')}`,
    );
    if (done.ok) select(null);
  };
  return (
    <div data-many={devices.length}>
      <h2>{devices.length} devices</h2>
      <p className="small-print">{devices.map((d) => d.name).join(', ')}</p>
      <Turning devices={devices} />
      <LoopSelect
        devices={devices.flatMap((d) =>
          kindOf(d.kind).through && !kindOf(d.kind).hosts ? [d.id] : [],
        )}
        label="All into a loop"
      />
      <Naming devices={devices} />
      <Group gap={6} mt={10}>
        <Button size="compact-sm" variant="default" onClick={() => void copy(rig, ids)}>
          Copy (Ctrl C)
        </Button>
        <Button size="compact-sm" variant="default" onClick={remove}>
          Remove (Del)
        </Button>
        {kinds.length === 1 && (
          <Button
            size="compact-sm"
            variant="default"
            onClick={() => choose(rig.devices.flatMap((d) => (d.kind === kinds[0] ? [d.id] : [])))}
          >
            All of this kind
          </Button>
        )}
        <Button size="compact-sm" variant="default" onClick={() => select(null)}>
          Choose none
        </Button>
      </Group>
      <p className="faint small-print">
        Copied, they go into this rig or another with Ctrl V: with the leads between them and how
        they stand in sounds of the same name. {cutLeads(rig, ids).length} leads to others, and what
        feeds them, stay behind.
      </p>
    </div>
  );
}

/** Copies as text, for a rig in any page. */
async function copy(rig: Rig, ids: readonly string[]): Promise<void> {
  await navigator.clipboard.writeText(JSON.stringify(clipOf(rig, ids)));
}

/** Engages or bypasses them all, in this sound or in every one. */
function Turning({ devices }: { devices: readonly Device[] }) {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const soundId = useRig((s) => s.sound);
  const sound = rig.sounds.find((s) => s.id === soundId);
  const some = devices.filter((d) => !kindOf(d.kind).alwaysOn);
  if (!some.length || !sound) return null;
  const names = some.map((d) => d.name).join(', ');
  const here = (engaged: boolean) =>
    edit(
      some.map((d): Edit => ({ edit: 'setEngaged', device: d.id, sound: sound.id, engaged })),
      `${engaged ? 'engaged' : 'bypassed'} ${names} in ${sound.name}`,
    );
  const everywhere = (value: boolean) =>
    edit(
      some.map((d): Edit => ({ edit: 'holdEverywhere', device: d.id, value })),
      `${value ? 'engaged' : 'bypassed'} ${names} in every sound`,
    );
  return (
    <Group gap={6}>
      <Button size="compact-sm" variant="default" onClick={() => here(true)}>
        Engage in {sound.name}
      </Button>
      <Button size="compact-sm" variant="default" onClick={() => here(false)}>
        Bypass in {sound.name}
      </Button>
      <Button size="compact-sm" variant="default" onClick={() => everywhere(true)}>
        Engage everywhere
      </Button>
      <Button size="compact-sm" variant="default" onClick={() => everywhere(false)}>
        Bypass everywhere
      </Button>
    </Group>
  );
}

/** Names them after a pattern: # is their number, in the order of the signal. */
function Naming({ devices }: { devices: readonly Device[] }) {
  const edit = useRig((s) => s.edit);
  const [pattern, setPattern] = useState('');
  const named = (i: number) =>
    pattern.includes('#') ? pattern.replaceAll('#', String(i + 1)) : `${pattern} ${i + 1}`;
  return (
    <form
      className="many-naming"
      onSubmit={(e) => {
        e.preventDefault();
        if (!pattern.trim()) return;
        edit(
          devices.map((d, i): Edit => ({ edit: 'setDevice', device: d.id, name: named(i).trim() })),
          `named ${devices.length} devices ${pattern}`,
        );
        setPattern('');
      }}
    >
      <TextInput
        size="xs"
        className="fills"
        aria-label="Pattern of their names"
        placeholder="Names: Loop pedal # …"
        value={pattern}
        onChange={(e) => setPattern(e.currentTarget.value)}
      />
      <Button size="xs" variant="default" type="submit" disabled={!pattern.trim()}>
        Name
      </Button>
    </form>
  );
}
