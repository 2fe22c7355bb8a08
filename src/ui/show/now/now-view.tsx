'use client';
import { ActionIcon, Button } from '@mantine/core';
import { useMediaQuery } from '@mantine/hooks';
import { IconArrowLeft, IconArrowRight, IconX } from '@tabler/icons-react';
import { useRouter } from 'next/navigation';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { Rig } from '../../../core/rig';
import { pagesOfSection } from '../../../core/formats/chart';
import { useKeys } from '../../frame/use-keys';
import { pathOf } from '../../frame/place-list';
import { useDocument, useRig } from '../../store/use-rig';
import { beginHunt, leaveHunt } from '../finder/use-evidence';
import { LineForm } from '../log/line-form';
import { useSet } from '../parts';
import { Chart, pagesOf } from './chart';
import { usePlaceInSet } from './place-in-set';
import { delaysIn, pressesTo, type Stop, stopsOf } from './stops';
import { useAwake } from './use-awake';

const PHONE = '(max-width: 640px)';

/** What is played now and next, for somebody who stands in the dark. */
export function NowView() {
  const rig = useDocument();
  const set = useSet();
  const stops = useMemo(() => (set ? stopsOf(rig, set) : []), [rig, set]);
  if (!set || !stops.length)
    return (
      <div className="empty common-gap-2">
        No set to play yet. Put songs into a running order under Songs, Sets; it is shown here, song
        by song.
      </div>
    );
  return <Playing key={set.id} rig={rig} setId={set.id} stops={stops} />;
}

function Playing({ rig, setId, stops }: { rig: Rig; setId: string; stops: Stop[] }) {
  const phone = useMediaQuery(PHONE, false, { getInitialValueInEffect: false });
  const [full, setFull] = useState<boolean | null>(null);
  const covers = full ?? phone;
  const [at, go] = usePlaceInSet(rig.id, setId, stops.length - 1);
  const [jump, setJump] = useState(false);
  const [turned, setTurned] = useState<{ song: string; at: number; page: number } | null>(null);
  const router = useRouter();
  const setSound = useRig((s) => s.setSound);
  const stop = stops[at];
  const next = stops[at + 1];
  const awake = useAwake(covers);
  useEffect(() => {
    if (stop?.section) setSound(stop.section.sound);
  }, [stop, setSound]);
  const pages = useMemo(() => pagesOf(stop?.song), [stop?.song]);
  const sections = stop?.song?.sections ?? [];
  const here = sections.findIndex((s) => s.id === stop?.section?.id);
  // The chart follows the sections whose headings it has; a page that was turned to stays until then.
  const span = pagesOfSection(pages, sections, here);
  const last = turned?.song === stop?.song?.id ? turned : null;
  const page = last?.at === at ? last.page : (span?.first ?? last?.page ?? 0);
  const turn = (by: number) => {
    if (stop?.song) setTurned({ song: stop.song.id, at, page: page + by });
  };
  // The pedals that move on turn pages first, while the section, or else the song, has further ones.
  const on = () =>
    stop?.section && page < (span?.last ?? pages.length - 1) ? turn(1) : go(at + 1);
  const back = () => (stop?.section && page > (span?.first ?? 0) ? turn(-1) : go(at - 1));
  useKeys([
    ['ArrowRight', () => go(at + 1)],
    ['ArrowLeft', () => go(at - 1)],
    ['PageDown', on],
    ['PageUp', back],
    // A button that has the focus is pressed by the same key.
    [' ', () => document.activeElement instanceof HTMLButtonElement || go(at + 1)],
    ['Escape', () => setFull(false)],
  ]);
  const touch = useRef<{ x: number; y: number } | null>(null);
  const broke = () => {
    leaveHunt(rig.id, beginHunt(stop?.section?.sound ?? rig.sounds[0]?.id ?? ''));
    router.push(pathOf(rig.id, 'show', 'finder'));
  };
  if (!stop) return null;
  return (
    <div
      className="stage-view"
      data-full={covers}
      data-stop={at}
      onTouchStart={(e) => {
        const t = e.touches[0];
        touch.current = t ? { x: t.clientX, y: t.clientY } : null;
      }}
      onTouchEnd={(e) => {
        const [from, to] = [touch.current, e.changedTouches[0]];
        if (!from || !to) return;
        const [dx, dy] = [to.clientX - from.x, to.clientY - from.y];
        if (Math.abs(dx) > 60 && Math.abs(dx) > 2 * Math.abs(dy)) go(at + (dx < 0 ? 1 : -1));
      }}
    >
      <div className="stage-bar">
        <button type="button" className="stage-song" onClick={() => setJump(!jump)}>
          {stop.song?.title ?? 'Song is gone'}
          <span className="faint">
            {' '}
            {stops.filter((s, i) => !s.section && i <= at).length} of{' '}
            {stops.filter((s) => !s.section).length}
          </span>
        </button>
        <Button size="md" className="stage-broke" onClick={broke}>
          It broke
        </Button>
        {covers ? (
          <ActionIcon size="lg" variant="default" aria-label="Close" onClick={() => setFull(false)}>
            <IconX size={20} />
          </ActionIcon>
        ) : (
          <Button size="compact-md" variant="default" onClick={() => setFull(true)}>
            Fill the screen
          </Button>
        )}
      </div>
      {jump ? (
        <ol className="stage-jump">
          {stops.map((s, i) =>
            s.section ? null : (
              <li key={s.line.entry.id}>
                <button
                  type="button"
                  className="tap"
                  onClick={() => {
                    go(i);
                    setJump(false);
                  }}
                >
                  {s.song?.title ?? 'gone'}
                </button>
              </li>
            ),
          )}
        </ol>
      ) : (
        <div className="stage-body">
          {stop.section ? (
            <NowSection rig={rig} stop={stop} before={stops[at - 1]} />
          ) : (
            <Gap rig={rig} stop={stop} />
          )}
          <Next rig={rig} stop={stop} next={next} />
          {stop.song?.chart && <Chart all={pages} page={page} onPage={(to) => turn(to - page)} />}
        </div>
      )}
      <div className="stage-foot">
        <ActionIcon
          size={56}
          variant="default"
          aria-label="Back"
          disabled={at === 0}
          onClick={() => go(at - 1)}
        >
          <IconArrowLeft size={28} />
        </ActionIcon>
        <div className="stage-log">
          <LineForm song={stop.song?.id ?? ''} />
          {awake && <span className="faint small-print">{awake}</span>}
        </div>
        <ActionIcon
          size={56}
          variant="filled"
          aria-label="On"
          disabled={at === stops.length - 1}
          onClick={() => go(at + 1)}
        >
          <IconArrowRight size={28} />
        </ActionIcon>
      </div>
    </div>
  );
}

/** A section: its sound in huge type, how long it is, what the foot did, times of delays. */
function NowSection({ rig, stop, before }: { rig: Rig; stop: Stop; before: Stop | undefined }) {
  const sound = rig.sounds.find((s) => s.id === stop.section?.sound);
  const presses = pressesTo(rig, before, stop);
  const delays = delaysIn(rig, stop);
  return (
    <section className="stage-now" data-now>
      <div className="stage-section">{stop.section?.name}</div>
      <div className="stage-sound">{sound?.name ?? 'no sound'}</div>
      <Bars key={`${stop.line.entry.id} ${stop.section?.id}`} stop={stop} />
      <dl className="stage-facts">
        {presses.length > 0 && (
          <>
            <dt>Switches</dt>
            <dd>{presses.join(' · ')}</dd>
          </>
        )}
        {delays.length > 0 && (
          <>
            <dt>Delay</dt>
            <dd className="figures">{delays.join(' · ')}</dd>
          </>
        )}
        <SongFacts rig={rig} stop={stop} />
      </dl>
    </section>
  );
}

function SongFacts({ rig, stop }: { rig: Rig; stop: Stop }) {
  const { song } = stop;
  if (!song) return null;
  const instrument = rig.devices.find((d) => d.id === song.instrument)?.name;
  const capo = /capo\s*(\d+)/i.exec(`${song.tuning ?? ''} ${song.notes ?? ''}`)?.[1];
  return (
    <>
      {instrument && (
        <>
          <dt>On</dt>
          <dd>{instrument}</dd>
        </>
      )}
      {song.tuning && (
        <>
          <dt>Tuning</dt>
          <dd>{song.tuning}</dd>
        </>
      )}
      {capo && (
        <>
          <dt>Capo</dt>
          <dd>{capo}</dd>
        </>
      )}
      <dt>Tempo</dt>
      <dd className="figures">
        {song.bpm} bpm{song.key ? ` · ${song.key}` : ''}
      </dd>
    </>
  );
}

/** Bars counted from when the section was called. */
function Bars({ stop }: { stop: Stop }) {
  const [began] = useState(() => Date.now());
  const now = useNow(200);
  const bar = Math.min(
    stop.bars,
    1 + Math.floor(((now - began) / 1000 / Math.max(stop.seconds, 0.001)) * stop.bars),
  );
  return (
    <div className="stage-bars figures" aria-hidden>
      bar {bar} of {stop.bars}
    </div>
  );
}

/** What must be done before a song, and how much time is left for it. */
function Gap({ rig, stop }: { rig: Rig; stop: Stop }) {
  const [began] = useState(() => Date.now());
  const now = useNow(250);
  const left = Math.round(stop.seconds - (now - began) / 1000);
  return (
    <section className="stage-now" data-gap>
      <div className="stage-section">Before the song</div>
      <div className="stage-sound">{stop.line.changeover.words}</div>
      <div className="stage-bars figures" data-late={stop.seconds > 0 && left < 0}>
        {[
          stop.seconds > 0 ? (left >= 0 ? `${left} s left` : `${-left} s over`) : '',
          stop.line.clock ? `due ${stop.line.clock.slice(0, 5)}` : '',
        ]
          .filter(Boolean)
          .join(' · ')}
      </div>
      <dl className="stage-facts">
        {stop.line.entry.notes && (
          <>
            <dt>Note</dt>
            <dd>{stop.line.entry.notes}</dd>
          </>
        )}
        <SongFacts rig={rig} stop={stop} />
      </dl>
    </section>
  );
}

function Next({ rig, stop, next }: { rig: Rig; stop: Stop; next: Stop | undefined }) {
  if (!next) return <section className="stage-next">Last of the set</section>;
  const presses = pressesTo(rig, stop.section ? stop : undefined, next);
  return (
    <section className="stage-next" data-next>
      <span className="faint">Next</span>{' '}
      <strong>
        {next.section
          ? `${next.section.name}: ${rig.sounds.find((s) => s.id === next.section?.sound)?.name ?? ''}`
          : `${next.song?.title ?? ''}, ${next.line.changeover.words}`}
      </strong>
      {presses.length > 0 && <div>{presses.join(' · ')}</div>}
    </section>
  );
}

/** The time, as often as it is looked at. */
function useNow(ms: number): number {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), ms);
    return () => clearInterval(timer);
  }, [ms]);
  return now;
}
