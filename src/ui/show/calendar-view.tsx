'use client';
import { Button, Select, TextInput } from '@mantine/core';
import { useEffect, useRef, useState } from 'react';
import { COUNTRIES } from '../../core/build';
import { scheduleOf, type Show, type Stretch, timeOfDay } from '../../core/show/book';
import { problemLines } from '../../core/rig';
import { CommitNumber } from '../look/commit-number';
import { CommitLines, CommitText } from '../look/commit-text';
import { FileField, NotRead, type Wrong } from '../look/read-file';
import { fileName, save } from '../look/save-file';
import { useWorking } from '../look/use-working';
import { useDocument, useRig } from '../store/use-rig';
import { newId } from './new-id';
import { BookMark, Caution, Head, showWords, useShow } from './parts';
import { today, useToday } from '../look/use-today';
import { useBook } from './use-book';
import { Venue } from './venue';
import { howMany } from '../../core/units';

/** The shows as a table, out and in: a file with anything wrong in it is refused whole. */
function ShowsTable() {
  const rig = useDocument();
  const book = useBook((s) => s.book);
  const put = useBook((s) => s.put);
  const setNotice = useRig((s) => s.setNotice);
  const input = useRef<HTMLInputElement>(null);
  const [wrong, setWrong] = useState<Wrong | null>(null);
  const take = async (file: File) => {
    const { showsFromCsv } = await import('../../core/formats/show-csv');
    const read = showsFromCsv(rig, await file.text());
    if (!read.ok) return setWrong({ file: file.name, lines: problemLines(read.problems) });
    for (const show of read.value) put('show', newId(), show);
    setNotice(`Read ${howMany(read.value.length, 'show')} from ${file.name}.`);
  };
  const write = async () => {
    const { showsToCsv } = await import('../../core/formats/show-csv');
    save(fileName(rig.name, 'shows.csv'), showsToCsv(rig, book), 'text/csv');
  };
  return (
    <>
      <Button size="compact-sm" variant="default" onClick={() => void write()}>
        As CSV
      </Button>
      <Button size="compact-sm" variant="default" onClick={() => input.current?.click()}>
        From CSV
      </Button>
      <FileField field={input} accept=".csv,.txt" onFile={(file) => void take(file)} />
      <NotRead wrong={wrong} onClose={() => setWrong(null)} />
    </>
  );
}

/** Shows of the rig: dates, venues, the day worked back from doors, what that place asks of the rig. */
export function CalendarView() {
  const rig = useDocument();
  const put = useBook((s) => s.put);
  const { show, shows, choose } = useShow();
  const double = useBook((s) => s.double);
  const add = () => {
    const id = newId();
    const last = shows.at(-1);
    put('show', id, {
      date: today(),
      venue: '',
      country: last?.country ?? '',
      set: last?.set ?? rig.sets?.[0]?.id ?? '',
      doors: last?.doors ?? '19:00',
      curtain: last?.curtain ?? '20:30',
    });
    choose(id);
  };
  const day = useToday();
  return (
    <div className="scroll show-part">
      <Head title="Shows">
        <Button size="md" onClick={add}>
          Add a show
        </Button>
        <ShowsTable />
        <BookMark />
      </Head>
      {shows.length === 0 && (
        <p className="empty">
          No show is written down yet. With dates, countries and sets the line check, the logbook
          and what is due know what they are for.
        </p>
      )}
      <div className="calendar-columns">
        <ul className="show-list" aria-label="Shows">
          {shows.map((s) => (
            <li key={s.id}>
              <button
                type="button"
                className="tap"
                aria-pressed={s.id === show?.id}
                data-show={s.id}
                data-past={s.date < day}
                onClick={() => choose(s.id)}
              >
                <strong className="figures">{s.date}</strong> {s.venue || 'somewhere'}
                {s.country && ` · ${s.country}`}
              </button>
            </li>
          ))}
        </ul>
        {show && <OneShow key={show.id} show={show} />}
      </div>
      {double.length > 0 && (
        <section data-double>
          <h3>Wanted twice on one day</h3>
          <ul>
            {double.map((d) => (
              <li key={`${d.date} ${d.serial} ${d.otherRig}`}>
                <strong>{d.date}</strong>: {d.name} ({d.serial}) is in {d.otherRig} too
                {d.otherVenue && `, at ${d.otherVenue}`}.
              </li>
            ))}
          </ul>
        </section>
      )}
    </div>
  );
}

function OneShow({ show }: { show: Show }) {
  const rig = useDocument();
  const put = useBook((s) => s.put);
  const set = (fields: Partial<Show>) => put('show', show.id, fields);
  return (
    <section className="one-show">
      <div className="show-fields">
        <TextInput
          size="sm"
          type="date"
          label="Date"
          value={show.date}
          onChange={(e) => e.currentTarget.value && set({ date: e.currentTarget.value })}
        />
        <CommitText
          size="sm"
          label="Venue"
          value={show.venue}
          onCommit={(venue) => set({ venue: (venue ?? '').slice(0, 120) })}
        />
        <Select
          size="sm"
          label="Country"
          searchable
          clearable
          data={COUNTRIES.map((c) => ({ value: c.code, label: c.name }))}
          value={show.country || null}
          onChange={(country) => set({ country: country ?? '' })}
        />
        <CommitNumber
          size="sm"
          label="Mains measured, V"
          min={50}
          max={500}
          value={show.volts ?? undefined}
          onCommit={(volts) => set({ volts: volts ?? null })}
        />
        <Select
          searchable
          size="sm"
          label="Set"
          clearable
          data={(rig.sets ?? []).map((s) => ({ value: s.id, label: s.name }))}
          value={show.set || null}
          onChange={(id) => set({ set: id ?? '' })}
        />
        <TextInput
          size="sm"
          type="time"
          label="Doors"
          value={show.doors}
          onChange={(e) => set({ doors: e.currentTarget.value })}
        />
        <TextInput
          size="sm"
          type="time"
          label="Curtain"
          value={show.curtain}
          onChange={(e) => set({ curtain: e.currentTarget.value })}
        />
        <CommitText
          size="sm"
          label="Crew"
          value={show.crew}
          onCommit={(crew) => set({ crew: (crew ?? '').slice(0, 400) })}
        />
      </div>
      <CommitLines
        size="sm"
        label="Notes"
        autosize
        minRows={1}
        value={show.notes}
        onCommit={(notes) => set({ notes: (notes ?? '').slice(0, 4000) })}
      />
      <Day show={show} />
      <Venue show={show} />
      <button type="button" className="linklike" onClick={() => set({ gone: true })}>
        Take {showWords(show)} out
      </button>
      <Caution about={['mains', 'lifting', 'radio']} />
    </section>
  );
}

/** Lengths move by so many minutes. */
const STEP_MINUTES = 5;

/** The day worked back from doors; the upper edge of a stretch is dragged, or moved by arrow keys. */
function Day({ show }: { show: Show }) {
  const rig = useDocument();
  const put = useBook((s) => s.put);
  const { work, start } = useWorking('lineCheck');
  useEffect(() => start({ rig, set: show.set || null }), [rig, show.set, start]);
  const checkSeconds =
    work.state === 'done' ? work.answer.steps.reduce((s, x) => s + x.seconds, 0) : null;
  const stretches = scheduleOf(rig, show, checkSeconds);
  const total = stretches.reduce((s, x) => s + x.minutes, 0);
  const first = stretches[0];
  const setMinutes = (id: string, minutes: number | null) => {
    const { [id]: _, ...others } = show.minutes;
    put('show', show.id, {
      minutes: minutes === null ? others : { ...others, [id]: Math.max(0, Math.min(720, minutes)) },
    });
  };
  return (
    <div className="day" data-arrive={first ? timeOfDay(first.from) : ''}>
      <h3>The day{first && `: be there at ${timeOfDay(first.from)}`}</h3>
      {stretches.map((s) => (
        <StretchRow key={s.id} stretch={s} total={total} onMinutes={(m) => setMinutes(s.id, m)} />
      ))}
      <p className="faint small-print">
        Worked back from doors. Drag the grip of a stretch, or move it by arrow keys; typical times
        until then.
      </p>
    </div>
  );
}

function StretchRow({
  stretch,
  total,
  onMinutes,
}: {
  stretch: Stretch;
  total: number;
  onMinutes: (minutes: number | null) => void;
}) {
  const [drag, setDrag] = useState<number | null>(null);
  const from = useRef<{ x: number; width: number } | null>(null);
  const minutes = drag ?? stretch.minutes;
  const fixedLength = stretch.id === 'wait';
  return (
    <div className="stretch" data-stretch={stretch.id}>
      <span className="figures stretch-time">
        {timeOfDay(stretch.from)}–{timeOfDay(stretch.to)}
      </span>
      <span className="stretch-words">
        <strong>{stretch.words}</strong> <span className="faint small-print">{stretch.why}</span>
      </span>
      <span className="stretch-bar">
        <span style={{ width: `${(100 * minutes) / Math.max(total, 1)}%` }} />
        {!fixedLength && (
          <span
            role="slider"
            tabIndex={0}
            className="stretch-grip"
            style={{ left: `${(100 * minutes) / Math.max(total, 1)}%` }}
            aria-label={`Minutes for ${stretch.words}`}
            aria-valuemin={0}
            aria-valuemax={720}
            aria-valuenow={minutes}
            onKeyDown={(e) => {
              const by = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[e.key];
              if (!by) return;
              e.preventDefault();
              onMinutes(stretch.minutes + by * STEP_MINUTES);
            }}
            onPointerDown={(e) => {
              e.currentTarget.setPointerCapture(e.pointerId);
              const bar = e.currentTarget.parentElement;
              from.current = { x: e.clientX, width: bar?.clientWidth ?? 1 };
              setDrag(stretch.minutes);
            }}
            onPointerMove={(e) => {
              if (!from.current) return;
              const by = ((e.clientX - from.current.x) / from.current.width) * total;
              const to = stretch.minutes + Math.round(by / STEP_MINUTES) * STEP_MINUTES;
              setDrag(Math.max(0, to));
            }}
            onPointerUp={() => {
              from.current = null;
              if (drag !== null && drag !== stretch.minutes) onMinutes(drag);
              setDrag(null);
            }}
          />
        )}
      </span>
      <span className="figures">{minutes} min</span>
      {stretch.set && (
        <button type="button" className="linklike" onClick={() => onMinutes(null)}>
          as usual
        </button>
      )}
    </div>
  );
}
