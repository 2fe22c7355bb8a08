'use client';
import { Button, Group, Popover } from '@mantine/core';
import { useState } from 'react';
import {
  addressProblem,
  freeAddress,
  type MidiDevice,
  numbersOn,
  programName,
  setStage,
  shownOn,
  wireOf,
  withName,
} from '../../../core/midi';
import type { Address, Sound } from '../../../core/rig';
import { CommitNumber } from '../../look/commit-number';
import { useDocument, useRig } from '../../store/use-rig';
import { CommitText } from '../../look/commit-text';

interface Kept {
  m: MidiDevice;
  sound: Sound;
  address: Address | undefined;
}

/** Where a device keeps a sound: bank and number, as the screen shows it, and what it is called there. */
export function AddressCell(kept: Kept) {
  const { m, sound, address } = kept;
  const [open, setOpen] = useState(false);
  return (
    <Popover opened={open} onChange={setOpen} position="bottom-start" withArrow trapFocus>
      <Popover.Target>
        <button
          type="button"
          className="press-count"
          onClick={() => setOpen(!open)}
          aria-label={`${m.device.name}, ${sound.name}: ${address ? numbersOn(m, address) : 'no program'}`}
        >
          {address ? numbersOn(m, address) : <span className="faint">no program</span>}
        </button>
      </Popover.Target>
      <Popover.Dropdown>
        <AddressForm {...kept} />
      </Popover.Dropdown>
    </Popover>
  );
}

/** The number as the wire has it or as the screen shows it, and the name; what is no program is told. */
function AddressForm({ m, sound, address }: Kept) {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const [problem, setProblem] = useState<string | null>(null);
  const set = (program: Address | null) => {
    const why = program && addressProblem(m, program);
    setProblem(why ?? null);
    if (why) return;
    edit({ edit: 'setProgram', device: m.device.id, sound: sound.id, program });
  };
  const bank = m.bank === 'none' ? undefined : (address?.bank ?? 0);
  const readShown = (text = ''): boolean => {
    const found = wireOf(m.shows, text, m.shows.size === undefined ? bank : undefined);
    if (found === undefined) setProblem('no number of 0 to 127 is shown so');
    else if (m.shows.size !== undefined && m.bank !== 'none')
      set({ bank: Math.floor(found / m.shows.size), number: found % m.shows.size });
    else set({ ...(bank !== undefined && { bank }), number: found });
    return found !== undefined;
  };
  return (
    <>
      <Group gap={8} align="end">
        {m.bank !== 'none' && (
          <CommitNumber
            w={92}
            label="Bank, wire"
            min={0}
            max={16383}
            allowDecimal={false}
            value={bank ?? 0}
            onCommit={(v) => set({ bank: v ?? 0, number: address?.number ?? 0 })}
          />
        )}
        <CommitNumber
          w={100}
          label="Program, wire"
          min={0}
          max={127}
          allowDecimal={false}
          value={address?.number}
          onCommit={(v) =>
            set(v === undefined ? null : { ...(bank !== undefined && { bank }), number: v })
          }
        />
        <CommitText
          w={110}
          label="As its screen shows"
          needed
          value={address && shownOn(m.shows, address)}
          error={problem}
          onCommit={readShown}
        />
        {address && (
          <CommitText
            w={150}
            label="Called on the device"
            value={programName(m, address) ?? ''}
            onCommit={(name) => {
              const names = withName(m.device.midi?.names, address, name ?? '');
              edit({ edit: 'setMidi', device: m.device.id, midi: { ...m.device.midi, names } });
            }}
          />
        )}
      </Group>
      <Group gap={6} mt={8}>
        <Button
          size="compact-xs"
          variant="default"
          onClick={() => {
            const free = freeAddress(setStage(rig), m.device.id);
            if (free) set(free);
          }}
        >
          Next free one
        </Button>
        <Button size="compact-xs" variant="default" disabled={!address} onClick={() => set(null)}>
          No program
        </Button>
      </Group>
    </>
  );
}
