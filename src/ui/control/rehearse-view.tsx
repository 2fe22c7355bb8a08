'use client';
import { sure, at as entryAt } from '../../core/outcome';
import { Button, Group, Select, Switch } from '@mantine/core';
import { useCallback, useMemo, useState } from 'react';
import { isEngaged } from '../../core/rig/device-state';
import { kindOf } from '../../core/kinds';
import {
  begin,
  call,
  type Change,
  hex,
  isOn,
  messageWords,
  midiDevices,
  recovery,
  type Rehearsal,
  setStage,
  shownOn,
  soundNow,
  type Stage,
  stepAll,
  stepOn,
  steppable,
  whatIsOff,
} from '../../core/midi';
import { nameOf, type Rig, type Song } from '../../core/rig';
import {
  allScenes,
  displayLabels,
  runningOrder,
  type Scene,
  sceneOf,
  sectionScene,
} from '../../core/songs';
import { fixed, showLevel } from '../../core/units';
import { useKeys } from '../frame/use-keys';
import { PAD_KEYS } from './pad-keys';
import { useAnswer } from '../look/use-answer';
import { useDocument, useRig } from '../store/use-rig';
import { Practice } from './practice';

interface Stop {
  song: Song;
  section: string;
  name: string;
  scene: Scene;
}

/**
 * The stops of a rehearsal: every section of every song of a set, or of one song; without songs,
 * the sounds.
 */
function stopsOf(rig: Rig, setId: string | null): Stop[] {
  const set = rig.sets?.find((s) => s.id === setId);
  const songs = set
    ? runningOrder(rig, set).lines.flatMap((l) => (l.song ? [l.song] : []))
    : (rig.songs ?? []);
  return songs.flatMap((song) =>
    song.sections.flatMap((s) => {
      const scene = sectionScene(rig, song, s.id);
      return scene ? [{ song, section: s.id, name: s.name, scene }] : [];
    }),
  );
}

/**
 * A set played through on stand-ins: the floor to step on, the messages, what every device does and
 * shows, what is heard where, and how to get right again.
 */
export function RehearseView() {
  const rig = useDocument();
  const stage = useMemo(() => setStage(rig, allScenes(rig)), [rig]);
  const [setId, setSetId] = useState<string | null>(rig.sets?.[0]?.id ?? null);
  const stops = useMemo(() => stopsOf(rig, setId), [rig, setId]);
  const [at, setAt] = useState(0);
  const [practising, setPractising] = useState(false);
  const stop = stops[Math.min(at, stops.length - 1)];
  const plain = rig.sounds[0] && sceneOf(rig, rig.sounds[0]);
  const wanted = stop?.scene ?? plain;
  if (!wanted) return <div className="empty common-gap-2">Add a sound first.</div>;
  return (
    <div className="scroll bus-view-box">
      <Group gap={10} align="end" mb={6}>
        <Select
          size="xs"
          w={220}
          label="Set"
          data={[
            ...(rig.sets ?? []).map((s) => ({ value: s.id, label: s.name })),
            { value: '', label: 'all songs, as they are listed' },
          ]}
          value={setId ?? ''}
          allowDeselect={false}
          onChange={(v) => {
            setSetId(v || null);
            setAt(0);
          }}
        />
        {stops.length > 0 && (
          <Select
            size="xs"
            w={210}
            label="Song"
            searchable
            data={[
              ...new Map(
                stops.map((s) => [s.song.id, { value: s.song.id, label: s.song.title }]),
              ).values(),
            ]}
            value={stop!.song.id}
            allowDeselect={false}
            onChange={(v) =>
              setAt(
                Math.max(
                  0,
                  stops.findIndex((s) => s.song.id === v),
                ),
              )
            }
          />
        )}
        <Switch
          size="xs"
          label="Practise the changes of this song in time"
          checked={practising}
          disabled={!stop}
          onChange={(e) => setPractising(e.currentTarget.checked)}
        />
      </Group>
      {practising && stop ? (
        <Practice key={stop.song.id} song={stop.song} stage={stage} />
      ) : (
        <Floor
          key={`${setId}`}
          rig={rig}
          stage={stage}
          stops={stops}
          at={Math.min(at, Math.max(0, stops.length - 1))}
          onAt={setAt}
          plain={plain!}
        />
      )}
    </div>
  );
}

interface Log {
  words: string;
  change: Change | null;
}

/** What the display of a device reads while a scene is on: the song and the sound, as they fit. */
const display = (rig: Rig, song: Song | undefined, scene: Scene, device: string): string =>
  displayLabels(rig, song, scene)
    .find((l) => l.device === device)
    ?.lines.join(' / ') ?? '';

/** The simulated stage: what is wanted now, and everything a foot can reach. */
function Floor({
  rig,
  stage,
  stops,
  at,
  onAt,
  plain,
}: {
  rig: Rig;
  stage: Stage;
  stops: Stop[];
  at: number;
  onAt: (n: number) => void;
  plain: Scene;
}) {
  const stop = stops[at];
  const wanted = stop?.scene ?? plain;
  const [now, setNow] = useState<Rehearsal>(() => begin(rig, stage, wanted));
  const [called, setCalled] = useState(wanted);
  const [log, setLog] = useState<Log>({
    words: 'Everything stands as it should. Step to the next section, then press what it takes.',
    change: null,
  });
  // A rig that was edited meanwhile has other devices: start again from how it should stand.
  const [of, setOf] = useState(stage);
  if (of !== stage) {
    setOf(stage);
    setNow(begin(rig, stage, wanted));
  }
  const pads = useMemo(() => {
    const scenes = stop
      ? stop.song.sections
          .map((s) => sectionScene(rig, stop.song, s.id))
          .filter((s) => s !== undefined)
      : stage.orders.scenes.filter((s) => rig.sounds.some((x) => x.id === s.id));
    return [...new Map(scenes.map((s) => [s.id, s])).values()];
  }, [rig, stage, stop]);
  const pedals = steppable(rig).filter(
    (d) => !midiDevices(rig).has(d.id) || !sure(midiDevices(rig).get(d.id)).commands,
  );
  const press = useCallback(
    (scene: Scene, pressed?: string[]) => {
      const done = call(stage, now, scene, pressed);
      setNow(done.now);
      setCalled(scene);
      setLog({
        words: done.change.pressed.length
          ? `${scene.name} called ` +
            `on ${done.change.pressed.map((p) => nameOf(rig, p)).join(' and ')}: all in place ` +
            `after ${fixed(done.change.doneMs, 1)} ms.`
          : `${scene.name}: no sender tells anything for it; step on what differs.`,
        change: done.change,
      });
    },
    [now, rig, stage],
  );
  const off = whatIsOff(rig, stage, now, wanted);
  const steps = recovery(rig, stage, now, wanted);
  const heard = useAnswer('heard', { sound: soundNow(now, wanted) });
  const app = [...midiDevices(rig).values()].find(
    (m) =>
      m.kind.id === 'set-list-app' || (m.commands && m.kind.jacks.some((j) => j.usb === 'host')),
  );
  const name = (s: Scene) => rig.sounds.find((x) => x.id === s.sound.id)?.name ?? s.name;
  const next = (d: number) => {
    const to = Math.min(stops.length - 1, Math.max(0, at + d));
    if (to === at) return;
    onAt(to);
    const next = entryAt(stops, to);
    setLog({
      words: `Now ${next.song.title}, ${next.name}: it wants ${name(next.scene)}.`,
      change: null,
    });
  };
  useKeys([
    ['ArrowRight', () => next(1)],
    ['ArrowLeft', () => next(-1)],
    ...pads.slice(0, 9).map((p, i): [string, () => void] => [entryAt(PAD_KEYS, i), () => press(p)]),
  ]);
  return (
    <div className="rehearse" data-rehearse>
      <section>
        <div className="cue-now" data-cue>
          {stop ? (
            <>
              <div className="faint">
                {stop.song.title} · {stop.song.bpm} bpm{stop.song.key ? ` · ${stop.song.key}` : ''}
              </div>
              <strong>{stop.name}</strong> <span>wants {name(wanted)}</span>
            </>
          ) : (
            <>
              <strong>{name(wanted)}</strong>
            </>
          )}
          <Group gap={6} mt={6}>
            <Button
              size="compact-sm"
              variant="default"
              disabled={at === 0}
              onClick={() => next(-1)}
            >
              Back
            </Button>
            <Button
              size="compact-sm"
              variant="default"
              disabled={at >= stops.length - 1}
              onClick={() => next(1)}
            >
              Next section
            </Button>
            <Button
              size="compact-sm"
              variant="default"
              onClick={() => {
                setNow(begin(rig, stage, wanted));
                setLog({ words: 'Everything was set as it should stand.', change: null });
              }}
            >
              Set all as it should be
            </Button>
            {app && stop && (
              <Button
                size="compact-sm"
                variant="default"
                onClick={() =>
                  press(wanted, [...new Set([app.device.id, ...stage.orders.roots(wanted)])])
                }
              >
                Send from {app.device.name}
              </Button>
            )}
          </Group>
        </div>
        <h3>Foot controller</h3>
        <div className="pads">
          {pads.map((p, i) => (
            <button
              key={p.id}
              type="button"
              className="pad"
              data-pad={p.id}
              data-wanted={p.id === wanted.id}
              onClick={() => press(p)}
            >
              {i < 9 && <kbd>{PAD_KEYS[i]}</kbd>}
              {name(p)}
            </button>
          ))}
        </div>
        <h3>Pedals and switches</h3>
        <div className="pads">
          {pedals.map((d) => {
            const on = isOn(rig, now, d.id);
            const should = isEngaged(kindOf(d.kind), d, wanted.sound.states[d.id]);
            return (
              <button
                key={d.id}
                type="button"
                className="pad small"
                data-step={d.id}
                data-lit={on}
                data-wrong={on !== should}
                aria-pressed={on}
                onClick={() => {
                  setNow(stepOn(rig, now, d.id));
                  setLog({
                    words: `Stepped on ${d.name}: it is ${on ? 'off' : 'on'} now.`,
                    change: null,
                  });
                }}
              >
                {d.name}
                <span>{on ? 'on' : 'off'}</span>
              </button>
            );
          })}
        </div>
        <Button
          mt={6}
          size="compact-xs"
          variant="default"
          onClick={() => setNow(stepAll(rig, stage, now, wanted))}
        >
          Do every step that is on foot
        </Button>
        <h3>On the wire</h3>
        <p data-log className="floor-gap">
          {log.words}
        </p>
        {log.change && log.change.traffic.sent.length > 0 && (
          <ul className="wirelog figures">
            {log.change.traffic.sent
              .filter((s) => s.message.type !== 'clock')
              .slice(0, 14)
              .map((s, i) => (
                <li key={i}>
                  <code>{hex(s.bytes)}</code> {nameOf(rig, s.from)} to {nameOf(rig, s.to)}:{' '}
                  {messageWords(s.message)}, {fixed(s.end, 2)} ms
                </li>
              ))}
          </ul>
        )}
      </section>
      <section>
        <div
          role="status"
          data-off={off.length}
          className={off.length ? 'verdict wrong' : 'verdict right'}
        >
          {off.length === 0 ? (
            <strong>As it should be.</strong>
          ) : (
            <>
              <strong>
                {off.length === 1 ? 'One thing is' : `${off.length} things are`} not as{' '}
                {name(wanted)} wants.
              </strong>
              <ol data-list="recovery">
                {steps.map((s) => (
                  <li key={s.words}>{s.words}</li>
                ))}
              </ol>
            </>
          )}
        </div>
        <h3>What every device does and shows</h3>
        <table className="sheet-table figures" data-table="stand-ins">
          <thead>
            <tr>
              <th>Device</th>
              <th>Is on</th>
              <th>Shows</th>
              <th>As wanted</th>
            </tr>
          </thead>
          <tbody>
            {[...now.machine].map(([id, s]) => {
              const m = sure(midiDevices(rig).get(id));
              const scene = stage.orders.scenes.find(
                (x) =>
                  x.sound.states[id]?.program &&
                  s.program &&
                  x.sound.states[id].program.number === s.program.number &&
                  (x.sound.states[id].program.bank ?? 0) === s.program.bank,
              );
              const reads = display(rig, stop?.song, scene ?? called, id);
              const wrong = off.filter((o) => o.device === id);
              return (
                <tr key={id} data-standin={id}>
                  <td>
                    <strong>{m.device.name}</strong>
                  </td>
                  <td>
                    {s.program
                      ? `wire ${m.bank === 'none' ? '' : `bank ${s.program.bank}, `}${s.program.number}`
                      : m.kind.alwaysOn
                        ? 'standing by'
                        : s.values.get(`${id} engaged`)
                          ? 'on'
                          : 'off'}
                  </td>
                  <td>
                    {s.program ? (
                      <span className="display">
                        {shownOn(m.shows, {
                          ...(m.bank !== 'none' && { bank: s.program.bank }),
                          number: s.program.number,
                        })}
                        {reads ? ` ${reads}` : ''}
                      </span>
                    ) : reads ? (
                      <span className="display">{reads}</span>
                    ) : (
                      ''
                    )}
                  </td>
                  <td>
                    {wrong.length ? (
                      <strong>no: {wrong.map((w) => w.key.split(' ')[1]).join(', ')}</strong>
                    ) : (
                      'yes'
                    )}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
        <h3>What is heard where, as it stands</h3>
        <Heard heard={heard} />
      </section>
    </div>
  );
}

function Heard({ heard }: { heard: ReturnType<typeof useAnswer<'heard'>> }) {
  const rig = useDocument();
  const units = useRig((s) => s.units);
  if (!heard) return <p className="faint">Listening …</p>;
  return (
    <table className="sheet-table figures" data-table="heard">
      <tbody>
        {heard.map((d) => (
          <tr key={d.device}>
            <td>{d.name}</td>
            <td>{d.levelDbu ? showLevel(d.levelDbu.normal, units.level) : 'silent'}</td>
            <td>{d.sources.map((s) => nameOf(rig, s)).join(', ')}</td>
            <td>{d.channels === 'silent' ? '' : d.channels}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
