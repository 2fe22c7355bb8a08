'use client';
import { Button, NumberInput, Select } from '@mantine/core';
import { useState } from 'react';
import type { Drill, Loss } from '../../core/show';
import { knownOf, linksIn } from '../../core/show/book';
import { nameOf } from '../../core/rig';
import { fixed, howMany } from '../../core/units';
import { CommitText } from '../look/commit-text';
import { useWorking } from '../look/use-working';
import { useDocument } from '../store/use-rig';
import { minutesWords } from './finder/finder-view';
import { newId } from './new-id';
import { Spares, Survivals } from './spares-part';
import { BookMark, Caution, Head, Progressing, useSet } from './parts';
import { today } from '../look/use-today';
import { useBook } from './use-book';

const SHOWN = 25;
const USUAL_SECONDS = 60;

/** Every single fault against the set: who loses what, how sound comes back, which spares to take. */
export function DrillView() {
  const rig = useDocument();
  const usual = useSet();
  const [set, setSet] = useState<string | null>(usual?.id ?? null);
  const [seconds, setSeconds] = useState<number>(USUAL_SECONDS);
  const book = useBook((s) => s.book);
  const { work, start, cancel } = useWorking('drill');
  return (
    <div className="scroll show-part">
      <Head title="Failure drill">
        {rig.sets?.length ? (
          <Select
            searchable
            size="sm"
            label="Set"
            data={rig.sets.map((s) => ({ value: s.id, label: s.name }))}
            value={set}
            onChange={setSet}
          />
        ) : null}
        <NumberInput
          size="sm"
          label="Sound back within, s"
          className="show-initials"
          min={5}
          max={3600}
          value={seconds}
          onChange={(v) => typeof v === 'number' && setSeconds(v)}
        />
        <Button
          size="md"
          disabled={work.state === 'working'}
          onClick={() => start({ rig, set, seconds, known: knownOf(book, today()) })}
        >
          {work.state === 'done' ? 'Drill again' : 'Start the drill'}
        </Button>
        <BookMark />
      </Head>
      {work.state === 'idle' && (
        <p className="faint">
          Tries every single fault on copies of the rig: who goes silent, in which songs, how long
          until sound is back, by which way. From it the smallest set of spares.
        </p>
      )}
      {work.state === 'working' && (
        <Progressing share={work.share} words={work.words} onCancel={cancel} />
      )}
      {work.state === 'failed' && <p role="alert">The drill stopped: {work.why}</p>}
      {work.state === 'done' && (
        <>
          <Survivals survivals={work.answer.survivals} seconds={seconds} />
          <Spares plan={work.answer.spares} seconds={seconds} />
          <Losses drill={work.answer.drill} />
        </>
      )}
      <Caution about={['tubes', 'mains', 'lifting']} />
    </div>
  );
}

function Losses({ drill }: { drill: Drill }) {
  const rig = useDocument();
  const [all, setAll] = useState(false);
  const list = all ? drill.losses : drill.losses.slice(0, SHOWN);
  const sound = (id: string) => nameOf(rig, id);
  return (
    <section>
      <h3>Single points of failure, the worst first</h3>
      <p className="small-print faint">
        {howMany(drill.tried, 'fault')} tried; after {drill.unheard} nobody notices anything in this
        set. Ranked by odds times seconds lost; what sounds otherwise counts a quarter of silence.
        Ways to sound are tried in every silent sound that is played; the slowest is shown.
      </p>
      <div className="show-table">
        <table className="sheet-table figures" data-table="losses">
          <thead>
            <tr>
              <th>If this fails</th>
              <th>Silent</th>
              <th>Otherwise</th>
              <th>Songs</th>
              <th>Sound back</th>
              <th>Decision</th>
            </tr>
          </thead>
          <tbody>
            {list.map((l) => (
              <tr key={l.fault.id} data-loss={l.fault.id}>
                <td>
                  {l.fault.words}
                  <div className="faint">{fixed(l.perThousand)} in 1000 shows</div>
                </td>
                <td>
                  {l.hits
                    .filter((h) => h.silent)
                    .map((h) => h.name)
                    .join(', ')}
                </td>
                <td>
                  {l.hits
                    .filter((h) => !h.silent)
                    .map((h) => h.name)
                    .join(', ')}
                </td>
                <td title={l.songs.join(', ')}>
                  {l.songs.length ||
                    [...new Set(l.hits.flatMap((h) => h.sounds.map((s) => sound(s.sound))))].length}
                  {l.songs.length ? '' : ' sounds'}
                </td>
                <td>
                  <Way loss={l} />
                </td>
                <td>
                  <Decision loss={l} />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {drill.losses.length > SHOWN && (
        <button type="button" className="linklike" onClick={() => setAll(!all)}>
          {all ? 'Show fewer' : `Show all ${drill.losses.length}`}
        </button>
      )}
    </section>
  );
}

/** The slowest of the quickest ways: until then somebody is silent. */
function Way({ loss }: { loss: Loss }) {
  const rig = useDocument();
  const silent = loss.hits.filter((h) => h.silent);
  if (!silent.length) return <>{loss.fault.mend.words}</>;
  const [worst] = silent
    .flatMap(({ name, bySound }) =>
      bySound.map(({ sound, ways }) => ({ name, sound, way: ways[0] })),
    )
    .sort((a, b) => (b.way?.seconds ?? Infinity) - (a.way?.seconds ?? Infinity));
  const sound = rig.sounds.find((s) => s.id === worst?.sound)?.name;
  const way = worst?.way;
  return way ? (
    <>
      <strong>{minutesWords(way.seconds)}</strong> {way.words}
      {way.spare ? ' (spare)' : ''}
    </>
  ) : (
    <strong>
      no way was found for {worst?.name} in {sound}
    </strong>
  );
}

const DECISION = 'Decision: ';

/** What was decided about a risk, with the reason; a line of the logbook, so that it stays with the device. */
function Decision({ loss }: { loss: Loss }) {
  const rig = useDocument();
  const about = { is: 'fault' as const, id: loss.fault.id.slice(0, 120), name: 'drill' };
  const line = useBook((s) =>
    s.book.line.find((l) => !l.gone && l.links.some((k) => k.is === 'fault' && k.id === about.id)),
  );
  const put = useBook((s) => s.put);
  return (
    <CommitText
      size="xs"
      aria-label={`Decision on ${loss.fault.words}`}
      placeholder="take, leave, because …"
      value={line?.text.slice(DECISION.length)}
      onCommit={(text) => {
        if (!text) return line && put('line', line.id, { gone: true });
        put('line', line?.id ?? newId(), {
          at: line?.at ?? new Date().toISOString(),
          text: `${DECISION}${text}`.slice(0, 1000),
          sort: 'note',
          links: [about, ...linksIn(rig, loss.fault.words)],
        });
      }}
    />
  );
}
