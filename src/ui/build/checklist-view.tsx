'use client';
import { Button, Checkbox, Group, Progress, TextInput } from '@mantine/core';
import { type Dispatch, type SetStateAction, useEffect, useMemo, useState } from 'react';
import { checklist, cureEnds, USUAL_CURE_HOURS } from '../../core/build';
import type { Part, Step } from '../../core/build/checklist';
import type { Rig } from '../../core/rig/schema';
import { CommitNumber } from '../look/commit-number';
import { useDocument, useRig } from '../store/use-rig';

const WHO = 'yantrel initials';
const when = (iso: string) =>
  new Date(iso).toLocaleString([], { dateStyle: 'short', timeStyle: 'short' });

type Tick = NonNullable<Rig['done']>['ticks'][number];

/**
 * What has to be done to build and carry the rig, in working order; ticks are kept with person and
 * time, power waits until adhesive has set.
 */
export function ChecklistView() {
  const rig = useDocument();
  const parts = useMemo(() => checklist(rig), [rig]);
  const ticks = useMemo(() => new Map((rig.done?.ticks ?? []).map((t) => [t.id, t])), [rig.done]);
  const [who, setWho] = useState('');
  const [now, setNow] = useState<number | null>(null);
  useEffect(() => {
    setWho(localStorage.getItem(WHO) ?? '');
    setNow(Date.now());
    const timer = setInterval(() => setNow(Date.now()), 20_000);
    return () => clearInterval(timer);
  }, []);
  const ends = cureEnds(rig);
  const waits = ends !== undefined && now !== null && now < ends;
  const all = parts.flatMap((p) => p.steps);
  const done = all.filter((s) => ticks.has(s.id)).length;
  const hours = rig.done?.cureHours ?? USUAL_CURE_HOURS;
  if (!all.length)
    return (
      <div className="empty common-gap-2">
        There is nothing to build yet: put devices and leads together under Signal.
      </div>
    );
  return (
    <div className="scroll common-box" data-place="checklist">
      <ChecklistHead
        who={who}
        setWho={setWho}
        hours={hours}
        done={done}
        all={all}
        ends={ends}
        now={now}
        waits={waits}
      />
      {!who.trim() && (
        <p className="checklist-view-text">
          Write your initials first; each tick keeps them and the time.
        </p>
      )}
      <Progress
        mt={6}
        value={(100 * done) / all.length}
        aria-label={`${done} of ${all.length} done`}
      />
      <div className="checklist">
        {parts.map((p) => (
          <ChecklistPart key={p.id} p={p} ticks={ticks} waits={waits} who={who} />
        ))}
      </div>
      <p className="faint common-text-2">
        Supplies are plugged in last and by somebody who knows them; amplifiers only with their
        load. Local codes and licensed practice come first.
      </p>
    </div>
  );
}

/** One part of the checklist, with a box for each step. */
function ChecklistPart({
  p,
  ticks,
  waits,
  who,
}: {
  p: Part;
  ticks: ReadonlyMap<string, Tick>;
  waits: boolean;
  who: string;
}) {
  const edit = useRig((s) => s.edit);
  return (
    <section data-list={`check ${p.id}`}>
      <h3>
        {p.title}{' '}
        <span className="faint checklist-view-text-2">
          {p.steps.filter((s) => ticks.has(s.id)).length} of {p.steps.length}
        </span>
      </h3>
      {p.afterCure && waits && (
        <p role="alert" className="checklist-view-text-3">
          Not yet: the adhesive has to set first.
        </p>
      )}
      {p.steps.map((s) => {
        const t = ticks.get(s.id);
        return (
          <Checkbox
            key={s.id}
            size="xs"
            mt={4}
            data-step={s.id}
            checked={t !== undefined}
            disabled={!t && ((p.afterCure && waits) || !who.trim())}
            title={s.why}
            label={
              <>
                {s.words}
                {t && (
                  <span className="faint">
                    {' '}
                    · {t.by}, {when(t.at)}
                  </span>
                )}
              </>
            }
            onChange={(e) =>
              edit(
                e.currentTarget.checked
                  ? { edit: 'tick', step: s.id, by: who.trim(), at: new Date().toISOString() }
                  : { edit: 'untick', step: s.id },
              )
            }
          />
        );
      })}
    </section>
  );
}

/** Which checklist, and how far it is done. */
function ChecklistHead({
  who,
  setWho,
  hours,
  done,
  all,
  ends,
  now,
  waits,
}: {
  who: string;
  setWho: Dispatch<SetStateAction<string>>;
  hours: number;
  done: number;
  all: Step[];
  ends: number | undefined;
  now: number | null;
  waits: boolean;
}) {
  const edit = useRig((s) => s.edit);
  const rig = useDocument();
  return (
    <Group gap={10} align="end">
      <TextInput
        size="xs"
        w={110}
        label="Who ticks"
        placeholder="initials"
        maxLength={40}
        value={who}
        onChange={(e) => {
          setWho(e.currentTarget.value);
          localStorage.setItem(WHO, e.currentTarget.value);
        }}
      />
      <CommitNumber
        w={130}
        label="Adhesive sets, h"
        min={0}
        max={240}
        value={hours}
        onCommit={(h) =>
          h !== undefined && edit({ edit: 'setCure', from: rig.done?.cureFrom ?? null, hours: h })
        }
      />
      <Button
        size="xs"
        variant="default"
        onClick={() =>
          edit({
            edit: 'setCure',
            from: rig.done?.cureFrom ? null : new Date().toISOString(),
            hours,
          })
        }
      >
        {rig.done?.cureFrom ? 'Stop the timer' : 'Fastened: start the timer'}
      </Button>
      <Button size="xs" variant="default" onClick={() => window.print()}>
        Print
      </Button>
      <span data-checked className="small-print">
        {done} of {all.length} done
        {ends !== undefined && now !== null
          ? waits
            ? `; no power or leads before ${when(new Date(ends).toISOString())}`
            : '; the adhesive has set'
          : ''}
      </span>
    </Group>
  );
}
