'use client';
import { Group, NumberInput, Select } from '@mantine/core';
import { useMemo, useState } from 'react';
import { midiDevices, runChange, setStage } from '../../../core/midi';
import { allScenes } from '../../../core/songs';
import { useDocument, useRig } from '../../store/use-rig';
import { BusTimeline } from '../bus-timeline';
import { AllPairs } from './all-pairs';
import { LandingsTable } from './landings-table';
import { LostMessages } from './lost-table';
import { OnTheWay } from './on-the-way';
import { JitterTable, Mismatches, WhenDone } from './when-done';
import { WireTable } from './wire-table';
import { WrittenList } from './written-list';

/**
 * One change of sound on the simulated bus: every message, when each device is in place, what is
 * heard on the way; and all changes at once.
 */
export function BusView() {
  const rig = useDocument();
  const current = useRig((s) => s.sound);
  const stage = useMemo(() => setStage(rig, allScenes(rig)), [rig]);
  const scenes = stage.orders.scenes;
  const [from, setFrom] = useState<string | null>(null);
  const [to, setTo] = useState<string | null>(null);
  const [bpm, setBpm] = useState<number | string>(120);
  const b = stage.scene(to ?? current) ?? scenes[0];
  const a = stage.scene(from ?? '') ?? scenes.find((s) => s !== b) ?? scenes[0];
  const hasClock = [...midiDevices(rig).values()].some((m) => m.clock === 'send');
  const change = useMemo(
    () =>
      a && b
        ? runChange(
            stage,
            a,
            b,
            hasClock && Number(bpm) >= 20 && Number(bpm) <= 400 ? { bpm: Number(bpm) } : {},
          )
        : null,
    [stage, a, b, bpm, hasClock],
  );
  if (!stage.orders.graph.ways.length)
    return (
      <div className="empty common-gap-2">
        Nothing is wired for messages yet. Under MIDI wiring, connect a sender to what it is to
        tell; then every change can be simulated here.
      </div>
    );
  if (!a || !b || !change) return <div className="empty common-gap-2">Add a sound first.</div>;
  const data = scenes.map((s) => ({ value: s.id, label: s.name }));
  return (
    <div className="scroll bus-view-box">
      <Group gap={10} align="end">
        <Select
          size="xs"
          w={230}
          searchable
          label="From"
          data={data}
          value={a.id}
          allowDeselect={false}
          onChange={setFrom}
        />
        <Select
          size="xs"
          w={230}
          searchable
          label="To"
          data={data}
          value={b.id}
          allowDeselect={false}
          onChange={setTo}
        />
        {hasClock && (
          <NumberInput
            size="xs"
            w={110}
            label="Clock, bpm"
            min={20}
            max={400}
            value={bpm}
            onChange={setBpm}
          />
        )}
        <WhenDone change={change} />
      </Group>
      <BusTimeline change={change} />
      <div className="bus-view-columns">
        <section>
          <WireTable sent={change.traffic.sent} />
          <WrittenList rig={rig} stage={stage} scene={b} />
        </section>
        <section>
          <LandingsTable change={change} />
          <Mismatches change={change} wanted={b.name} />
          <OnTheWay from={a} to={b} rig={rig} />
          <LostMessages key={`${a.id} ${b.id}`} from={a} to={b} />
          <JitterTable change={change} bpm={Number(bpm)} />
        </section>
      </div>
      <AllPairs rig={rig} stage={stage} />
      <p className="faint common-text-2">
        DIN and TRS: 31,250 bit/s, 320 µs a byte, clock between bytes and never inside one. USB and
        digital links are taken as steps of 1 ms (a simplification). Each device acts when the last
        byte has arrived and its own answering time is over; those times are figures of the device.
      </p>
    </div>
  );
}
