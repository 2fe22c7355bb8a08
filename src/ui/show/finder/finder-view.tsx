'use client';
import { Button } from '@mantine/core';
import { useMemo } from 'react';
import { type Candidate, type Effects, Finder, type FaultFacts } from '../../../core/show';
import { knownOf, linksIn } from '../../../core/show/book';
import { nameOf, type Rig } from '../../../core/rig';
import { leadOf } from '../../../core/rig/find';
import { leadCalled } from '../../../core/build';
import { useDocument, useRig } from '../../store/use-rig';
import { BookMark, Caution, Head, Progressing, useShow } from '../parts';
import { useToday } from '../../look/use-today';
import { useBook } from '../use-book';
import { useEffects } from '../use-effects';
import { newId } from '../new-id';
import { Candidates } from './candidates';
import { NextTest } from './next-test';
import { NoticeForm, NoticedList } from './noticing';
import { SoundBack } from './sound-back';
import { beginHunt, type Hunt, useHunt } from './use-evidence';

/** It broke: what is noticed, what it can be, the next test, sound back now. */
export function FinderView() {
  const { is, again } = useEffects();
  if (is.state === 'failed')
    return (
      <div className="empty common-gap-2" role="alert">
        The faults of this rig could not be worked out: {is.why}{' '}
        <Button size="compact-sm" variant="default" onClick={again}>
          Try again
        </Button>
      </div>
    );
  if (is.state === 'working')
    return (
      <div className="scroll show-part">
        <Head title="It broke" />
        <p className="faint">Trying every single fault on copies of the rig …</p>
        <Progressing share={is.share} words={is.words} />
      </div>
    );
  return <Hunting effects={is.effects} />;
}

function Hunting({ effects }: { effects: Effects }) {
  const rig = useDocument();
  const sound = useRig((s) => s.sound);
  const book = useBook((s) => s.book);
  const put = useBook((s) => s.put);
  const { show } = useShow();
  const [hunt, set] = useHunt(rig.id, sound);
  const day = useToday();
  const known = useMemo(() => knownOf(book, day), [book, day]);
  const found = useMemo(
    () => (hunt.noticed.length ? new Finder(rig, effects, hunt, known).find() : null),
    [rig, effects, hunt, known],
  );
  const doubtful = useMemo(
    () => (found?.candidates.length === 0 ? new Finder(rig, effects, hunt).doubtful() : null),
    [found, rig, effects, hunt],
  );
  const first = found?.candidates[0]?.faults.map((f) => effects.faults[f]);
  const itWas = (c: Candidate) => {
    const faults = c.faults.flatMap((f) => effects.faults[f] ?? []);
    const words = faults.map((f) => `Found: ${f.words}. Mended: ${f.mend.words}.`).join(' ');
    const text = words.slice(0, 1000);
    put('line', newId(), {
      at: new Date().toISOString(),
      text,
      show: show?.id ?? '',
      sort: 'fault',
      minutes: Math.max(1, Math.round((Date.now() - Date.parse(hunt.began)) / 60_000)),
      links: linksOf(rig, faults),
    });
    set({ ...beginHunt(hunt.sound), found: { words, spares: faults.flatMap(spareOf) } });
  };
  return (
    <div className="scroll show-part finder">
      <Head title="It broke">
        {hunt.noticed.length > 0 && (
          <Button variant="default" size="compact-md" onClick={() => set(beginHunt(sound))}>
            Begin anew
          </Button>
        )}
        <BookMark />
      </Head>
      <Done hunt={hunt} />
      <div className="finder-columns">
        <section>
          <NoticedList hunt={hunt} set={set} effects={effects} doubtful={doubtful} />
          <NoticeForm hunt={hunt} set={set} effects={effects} />
          {found && (
            <p className="finder-expect" data-expect={Math.round(found.seconds)}>
              {found.candidates.length === 0
                ? 'Nothing explains all of this. Take back what is least sure; what is marked is enough.'
                : found.at !== undefined
                  ? `All that is left is at ${leadOrName(rig, found.at)}. Mend it, the likeliest first.`
                  : `${found.candidates.length} are possible. About ${minutesWords(found.seconds)} until it is known.`}
            </p>
          )}
        </section>
        {found && (
          <section>
            <NextTest found={found} hunt={hunt} set={set} />
            {first?.[0] && hunt.noticed.some((n) => n.what.length) && (
              <SoundBack fault={first[0]} hunt={hunt} />
            )}
            <Candidates found={found} effects={effects} onItWas={itWas} />
          </section>
        )}
      </div>
      <Caution about={['tubes', 'mains', 'hearing']} />
    </div>
  );
}

export const minutesWords = (seconds: number): string =>
  seconds < 90 ? `${Math.max(1, Math.round(seconds))} s` : `${Math.round(seconds / 60)} min`;

function leadOrName(rig: Rig, id: string): string {
  const lead = leadOf(rig, id);
  return lead ? `lead ${leadCalled(rig, lead)}` : nameOf(rig, id);
}

const spareOf = (f: FaultFacts): string[] =>
  f.mend.spare
    ? [
        f.mend.spare.is === 'lead'
          ? `${f.mend.spare.type} lead, ${f.mend.spare.metres} m`
          : f.mend.spare.is === 'device'
            ? 'another unit of it'
            : f.mend.spare.words,
      ]
    : [];

const linksOf = (rig: ReturnType<typeof useDocument>, faults: readonly FaultFacts[]) =>
  [...new Set(faults.flatMap((f) => f.subjects))].flatMap((id) => {
    const device = rig.devices.find((d) => d.id === id);
    if (device)
      return [
        {
          is: 'device' as const,
          id,
          name: device.name,
          ...(device.gear?.serial && { serial: device.gear.serial }),
        },
      ];
    return linksIn(rig, nameOf(rig, id) === id ? id : '').filter((l) => l.id === id);
  });

/** What was found last, and what to buy. */
function Done({ hunt }: { hunt: Hunt }) {
  if (!hunt.found) return null;
  return (
    <p className="show-note" role="status" data-found>
      {hunt.found.words} It is in the logbook.
      {hunt.found.spares.length > 0 && <strong> To buy: {hunt.found.spares.join(', ')}.</strong>}
    </p>
  );
}
