'use client';
import { sure, at as entryAt } from '../../core/outcome';
import { ActionIcon, Button, Group, NumberInput, Progress, Select, Tooltip } from '@mantine/core';
import { IconTrash } from '@tabler/icons-react';
import { useMemo, useState } from 'react';
import {
  bothNumbers,
  hex,
  keyWords,
  type Message,
  messageWords,
  midiDevices,
  runChange,
  setStage,
  shownOn,
  type Stage,
} from '../../core/midi';
import { nameOf, type Rig, type Send, type Sound, type WrittenMessage } from '../../core/rig';
import { allScenes, type Scene } from '../../core/songs';
import { fixed, showLevel } from '../../core/units';
import { CommitNumber } from '../look/commit-number';
import { useAnswer } from '../look/use-answer';
import { useWorking } from '../look/use-working';
import { useDocument, useRig } from '../store/use-rig';
import { BusTimeline } from './bus-timeline';

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
  const told = change.landings.filter((l) => l.effect.what !== 'bank');
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
        <div data-done className="bus-view-text">
          {change.pressed.length ? (
            <>
              Pressed on {change.pressed.map((p) => nameOf(rig, p)).join(' and ')}. All in place
              after <strong>{fixed(change.doneMs, 2)} ms</strong>
              {change.silentMs > 0 ? (
                <>, {fixed(change.silentMs, 1)} ms of it silent while something loads</>
              ) : null}
              .
            </>
          ) : (
            'No sender calls this sound: give it a program, or write out what is sent.'
          )}
          {change.traffic.endless && <strong> Messages go round without end.</strong>}
        </div>
      </Group>
      <BusTimeline change={change} />
      <div className="bus-view-columns">
        <section>
          <h3>On the wire</h3>
          <table className="sheet-table figures" data-table="messages">
            <thead>
              <tr>
                <th>From</th>
                <th>To</th>
                <th>Bytes</th>
                <th>Means</th>
                <th>Begins</th>
                <th>Ends</th>
              </tr>
            </thead>
            <tbody>
              {change.traffic.sent
                .filter((s) => s.message.type !== 'clock')
                .map((s, i) => (
                  <tr key={i}>
                    <td>{nameOf(rig, s.from)}</td>
                    <td>{nameOf(rig, s.to)}</td>
                    <td>
                      <code>{hex(s.bytes)}</code>
                    </td>
                    <td>
                      {messageWords(s.message)}
                      {screenAt(rig, s.to, s.message)}
                    </td>
                    <td>{fixed(s.start, 2)} ms</td>
                    <td>{fixed(s.end, 2)} ms</td>
                  </tr>
                ))}
            </tbody>
          </table>
          <WrittenList rig={rig} stage={stage} scene={b} />
        </section>
        <section>
          <h3>In the order in which it lands</h3>
          <table className="sheet-table figures" data-table="landings">
            <thead>
              <tr>
                <th>At</th>
                <th>Device</th>
                <th>Does</th>
                <th>Asked at</th>
              </tr>
            </thead>
            <tbody>
              {told.map((l, i) => {
                const m = sure(midiDevices(rig).get(l.device));
                const numbers = (at: { bank: number; number: number }) =>
                  bothNumbers(m.shows, {
                    ...(m.bank !== 'none' && { bank: at.bank }),
                    number: at.number,
                  });
                const does =
                  l.effect.what === 'program'
                    ? `${numbers(l.effect)}: ${l.effect.recalled.name}`
                    : l.effect.what === 'unknown'
                      ? `nothing is kept at ${numbers(l.effect)}`
                      : l.effect.what === 'control'
                        ? `${l.effect.setting.split(' ')[1]} ` +
                          (typeof l.effect.value === 'number'
                            ? fixed(l.effect.value)
                            : l.effect.value
                              ? 'on'
                              : 'off') +
                          (l.effect.toggled ? ' (flipped)' : '')
                        : '';
                return (
                  <tr key={i} data-landing={l.device}>
                    <td>{fixed(l.at, 2)} ms</td>
                    <td>
                      <strong>{m.device.name}</strong>
                    </td>
                    <td>{does}</td>
                    <td>{fixed(l.arrived, 2)} ms</td>
                  </tr>
                );
              })}
            </tbody>
          </table>
          {change.mismatches.length > 0 ? (
            <div role="alert" data-list="mismatches">
              <strong>Not as {b.name} wants it:</strong>
              <ul>
                {change.mismatches.map((m) => (
                  <li key={m.key}>
                    {keyWords(rig, m)} ({m.because}).
                  </li>
                ))}
              </ul>
            </div>
          ) : (
            <p data-list="mismatches">Everything that messages reach ends as {b.name} wants it.</p>
          )}
          <OnTheWay from={a} to={b} rig={rig} />
          {change.jitter.length > 0 && (
            <>
              <h3>
                Clock at {bpm} bpm, one every {fixed(60_000 / Number(bpm) / 24, 2)} ms
              </h3>
              <table className="sheet-table figures" data-table="jitter">
                <thead>
                  <tr>
                    <th>At</th>
                    <th>Late at worst</th>
                    <th>On average</th>
                  </tr>
                </thead>
                <tbody>
                  {change.jitter.map((j) => (
                    <tr key={j.device}>
                      <td>{nameOf(rig, j.device)}</td>
                      <td>{fixed(j.worstMs, 3)} ms</td>
                      <td>{fixed(j.typicalMs, 3)} ms</td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </>
          )}
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

/** What the receiver's screen would show for a program that is meant for it. */
function screenAt(rig: Rig, to: string, message: Message): string {
  const m = midiDevices(rig).get(to);
  return m &&
    message.type === 'program' &&
    m.programs &&
    (m.channel === 'all' || m.channel === message.channel)
    ? ` (screen ${shownOn(m.shows, message)})`
    : '';
}

/** Levels between the landings, and whether one rises above both sounds. */
function OnTheWay({ from, to, rig }: { from: Scene; to: Scene; rig: Rig }) {
  const units = useRig((s) => s.units);
  const isSound = (s: Scene) => rig.sounds.some((x) => x.id === s.id);
  const levels = useAnswer(
    'landing',
    isSound(from) && isSound(to) ? { from: from.id, to: to.id } : null,
  );
  if (!levels || !levels.steps.length) return null;
  const shown = levels.destinations
    .map((d, i) => ({ ...d, i }))
    .filter(
      ({ i }) => new Set([levels.before[i], ...levels.steps.map((s) => s.levels[i])]).size > 1,
    );
  return (
    <>
      <h3>What is heard on the way</h3>
      <p data-spike>{levels.words}</p>
      {shown.length > 0 && (
        <table className="sheet-table figures" data-table="on-the-way">
          <thead>
            <tr>
              <th>After</th>
              {shown.map((d) => (
                <th key={d.device}>{d.name}</th>
              ))}
            </tr>
          </thead>
          <tbody>
            <tr>
              <td>before</td>
              {shown.map(({ i, device }) => (
                <td key={device}>{showLevel(entryAt(levels.before, i), units.level)}</td>
              ))}
            </tr>
            {levels.steps.map((s, k) => (
              <tr key={k}>
                <td>
                  {fixed(s.at, 1)} ms, {nameOf(rig, s.device)}
                </td>
                {shown.map(({ i, device }) => (
                  <td key={device}>{showLevel(entryAt(s.levels, i), units.level)}</td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </>
  );
}

/** What a sender gives for a sound: what follows from the programs, or a list written out by hand. */
function WrittenList({ rig, stage, scene }: { rig: Rig; stage: Stage; scene: Scene }) {
  const edit = useRig((s) => s.edit);
  const senders = [...stage.orders.graph.devices.values()].filter(
    (m) => (m.commands || m.recalls) && m.sends.some((s) => s === 'program' || s === 'control'),
  );
  const [picked, setPicked] = useState<string | null>(null);
  const sender =
    senders.find((m) => m.device.id === picked) ??
    senders.find((m) => stage.orders.commands(scene).has(m.device.id)) ??
    senders[0];
  const sound: Sound | undefined = rig.sounds.find((s) => s.id === scene.sound.id);
  if (!sender || !sound) return null;
  const id = sender.device.id;
  const written = (sound.sends ?? []).filter((x) => x.from === id);
  const save = (sends: Send[] | null) =>
    edit({ edit: 'setSends', sound: sound.id, from: id, sends });
  const writeOut = () =>
    save(
      (stage.orders.commands(scene).get(id) ?? []).flatMap((c): Send[] => {
        const to = c.to === undefined ? undefined : stage.orders.graph.devices.get(c.to);
        if (c.message.type === 'program') {
          const bank = to && scene.sound.states[to.device.id]?.program?.bank;
          return [
            {
              from: id,
              ...(c.to && { to: c.to }),
              message: {
                type: 'program',
                channel: c.message.channel,
                number: c.message.number,
                ...(bank !== undefined && to?.bank !== 'none' && { bank }),
              },
            },
          ];
        }
        return c.message.type === 'control' &&
          !(to?.programs && (c.message.cc === 0 || c.message.cc === 32))
          ? [
              {
                from: id,
                ...(c.to && { to: c.to }),
                message: {
                  type: 'control',
                  channel: c.message.channel,
                  cc: c.message.cc,
                  value: c.message.value,
                },
              },
            ]
          : [];
      }),
    );
  const change = (i: number, message: WrittenMessage) =>
    save(written.map((x, k) => (k === i ? { ...x, message } : x)));
  return (
    <>
      <h3>
        What{' '}
        <Select
          size="xs"
          w={150}
          className="written-list-select"
          aria-label="Sender"
          data={senders.map((m) => ({ value: m.device.id, label: m.device.name }))}
          value={id}
          allowDeselect={false}
          onChange={setPicked}
        />{' '}
        sends for {sound.name}
      </h3>
      {written.length === 0 ? (
        <p>
          It follows from the programs and settings of what it tells.{' '}
          <Button size="compact-xs" variant="default" onClick={writeOut}>
            Write it out by hand
          </Button>
        </p>
      ) : (
        <>
          <table className="sheet-table figures" data-table="written">
            <tbody>
              {written.map((x, i) => (
                <tr key={i}>
                  <td>{x.message.type === 'program' ? 'program' : 'control'}</td>
                  <td>
                    <CommitNumber
                      w={64}
                      aria-label="Channel"
                      min={1}
                      max={16}
                      allowDecimal={false}
                      value={x.message.channel}
                      onCommit={(v) => v !== undefined && change(i, { ...x.message, channel: v })}
                    />
                  </td>
                  {x.message.type === 'program' ? (
                    <>
                      <td>
                        <CommitNumber
                          w={72}
                          aria-label="Bank"
                          placeholder="no bank"
                          min={0}
                          max={16383}
                          allowDecimal={false}
                          value={x.message.bank}
                          onCommit={(bank) => change(i, { ...x.message, bank })}
                        />
                      </td>
                      <td>
                        <CommitNumber
                          w={72}
                          aria-label="Program on the wire"
                          min={0}
                          max={127}
                          allowDecimal={false}
                          value={x.message.number}
                          onCommit={(v) => change(i, { ...x.message, number: v ?? 0 })}
                        />
                      </td>
                    </>
                  ) : (
                    <>
                      <td>
                        <CommitNumber
                          w={72}
                          aria-label="Control"
                          min={0}
                          max={127}
                          allowDecimal={false}
                          value={x.message.cc}
                          onCommit={(v) => change(i, { ...x.message, cc: v ?? 0 })}
                        />
                      </td>
                      <td>
                        <CommitNumber
                          w={72}
                          aria-label="Value"
                          min={0}
                          max={127}
                          allowDecimal={false}
                          value={x.message.value}
                          onCommit={(v) => change(i, { ...x.message, value: v ?? 0 })}
                        />
                      </td>
                    </>
                  )}
                  <td className="faint">
                    {x.to ? `for ${nameOf(rig, x.to)}` : ''}
                    {x.message.type === 'program' && x.to && midiDevices(rig).has(x.to)
                      ? `, screen ${shownOn(sure(midiDevices(rig).get(x.to)).shows, x.message)}`
                      : ''}
                  </td>
                  <td>
                    <Tooltip label="Take out">
                      <ActionIcon
                        size="sm"
                        variant="default"
                        aria-label="Take this message out"
                        onClick={() => save(written.filter((_, k) => k !== i))}
                      >
                        <IconTrash size={14} />
                      </ActionIcon>
                    </Tooltip>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          <Group gap={6} mt={6}>
            <Button
              size="compact-xs"
              variant="default"
              onClick={() =>
                save([
                  ...written,
                  { from: id, message: { type: 'program', channel: 1, number: 0 } },
                ])
              }
            >
              Add a program
            </Button>
            <Button
              size="compact-xs"
              variant="default"
              onClick={() =>
                save([
                  ...written,
                  { from: id, message: { type: 'control', channel: 1, cc: 80, value: 127 } },
                ])
              }
            >
              Add a control change
            </Button>
            <Button size="compact-xs" variant="default" onClick={() => save(null)}>
              Let it follow from the programs again
            </Button>
          </Group>
        </>
      )}
    </>
  );
}

/** Every ordered pair of sounds, from the states of the first: worked out beside the page. */
function AllPairs({ rig, stage }: { rig: Rig; stage: Stage }) {
  const { work, start, cancel } = useWorking('pairs');
  const name = (id: string) => stage.scene(id)?.name ?? id;
  const n = stage.orders.scenes.length;
  return (
    <section data-list="pairs">
      <h3>Every change, whatever was on before</h3>
      <Group gap={8}>
        <Button
          size="xs"
          variant="default"
          disabled={work.state === 'working'}
          onClick={() => start({ rig })}
        >
          Simulate all {n * (n - 1)} changes
        </Button>
        {work.state === 'working' && (
          <>
            <Button size="xs" variant="default" onClick={cancel}>
              Cancel
            </Button>
            <Progress w={220} value={100 * work.share} aria-label="How far it is" />
            <span role="status">{Math.round(100 * work.share)} %</span>
          </>
        )}
      </Group>
      {work.state === 'failed' && <p role="alert">It stopped: {work.why}. Try again.</p>}
      {work.state === 'done' && (
        <>
          <p>
            <strong>
              {work.answer.good} of {work.answer.pairs}
            </strong>{' '}
            changes end as meant.
            {work.answer.slowest &&
              ` The slowest, from ${name(work.answer.slowest.from)} ` +
                `to ${name(work.answer.slowest.to)}, takes ${fixed(work.answer.slowest.ms, 1)} ms.`}
          </p>
          {work.answer.faults.length > 0 && (
            <table className="sheet-table figures" data-table="pair-faults">
              <thead>
                <tr>
                  <th>Device</th>
                  <th>Because</th>
                  <th>Settings</th>
                  <th>Changes</th>
                  <th>Such as</th>
                </tr>
              </thead>
              <tbody>
                {work.answer.faults.map((f) => (
                  <tr key={`${f.device} ${f.because}`}>
                    <td>
                      <strong>{nameOf(rig, f.device)}</strong>
                    </td>
                    <td>{f.because}</td>
                    <td>{f.keys.map((k) => k.split(' ')[1]).join(', ')}</td>
                    <td>{f.count}</td>
                    <td>
                      {f.pairs
                        .slice(0, 3)
                        .map((p) => `${name(p.from)} to ${name(p.to)}`)
                        .join('; ')}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
        </>
      )}
    </section>
  );
}
