'use client';
import { Group, Select, Switch } from '@mantine/core';
import { type Dispatch, type SetStateAction, useMemo, useState } from 'react';
import { setStage, soundNow } from '../../../core/midi';
import { at as entryAt, sure } from '../../../core/outcome';
import { allScenes, sceneOf } from '../../../core/songs';
import { useKeys } from '../../frame/use-keys';
import { useAnswer } from '../../look/use-answer';
import { callPlace } from '../../show/now/place-in-set';
import { useDocument } from '../../store/use-rig';
import { FloorSide } from './floor-side';
import { HowItStands } from './how-it-stands';
import { PAD_KEYS } from './pad-keys';
import { Practice } from './practice';
import { type Stop, stopsOf } from './stops';
import { useFloor } from './use-floor';

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
      <WhatToPlay
        setId={setId}
        setSetId={setSetId}
        setAt={setAt}
        stops={stops}
        stop={stop}
        practising={practising}
        setPractising={setPractising}
      />
      {practising && stop ? (
        <Practice key={stop.song.id} song={stop.song} stage={stage} />
      ) : (
        <OnTheFloor
          key={`${setId}`}
          rig={rig}
          stage={stage}
          stops={stops}
          at={Math.min(at, Math.max(0, stops.length - 1))}
          onAt={(n) => {
            setAt(n);
            // The show view of another window goes along, as it does with the tablet.
            callPlace(rig, setId, n);
          }}
          plain={sure(plain)}
        />
      )}
    </div>
  );
}

/** Which set, which song, and whether the changes are practised in time. */
function WhatToPlay({
  setId,
  setSetId,
  setAt,
  stops,
  stop,
  practising,
  setPractising,
}: {
  setId: string | null;
  setSetId: Dispatch<SetStateAction<string | null>>;
  setAt: Dispatch<SetStateAction<number>>;
  stops: Stop[];
  stop: Stop | undefined;
  practising: boolean;
  setPractising: Dispatch<SetStateAction<boolean>>;
}) {
  const rig = useDocument();
  return (
    <Group gap={10} align="end" mb={6}>
      <Select
        searchable
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
          value={sure(stop).song.id}
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
  );
}

/** The simulated stage: what is wanted now, and everything a foot can reach. */
function OnTheFloor(given: Parameters<typeof useFloor>[0]) {
  const floor = useFloor(given);
  const heard = useAnswer('heard', { sound: soundNow(floor.now, floor.wanted) });
  useKeys([
    ['ArrowRight', () => floor.next(1)],
    ['ArrowLeft', () => floor.next(-1)],
    ...floor.pads
      .slice(0, 9)
      .map((p, i): [string, () => void] => [entryAt(PAD_KEYS, i), () => floor.press(p)]),
  ]);
  return (
    <div className="rehearse" data-rehearse>
      <FloorSide floor={floor} />
      <HowItStands floor={floor} heard={heard} />
    </div>
  );
}
