'use client';
import { Button, Select } from '@mantine/core';
import { type ReactElement, useMemo, useState } from 'react';
import { type Press, pressesBetween } from '../../core/midi';
import type { Presses } from '../../core/midi/presses';
import { at, reasonOf, sure } from '../../core/outcome';
import { nameOf, type Sound } from '../../core/rig';
import { fixed } from '../../core/units';
import { useAnswer } from '../look/use-answer';
import { useWorking } from '../look/use-working';
import { useDocument, useRig } from '../store/use-rig';

const count = (n: number, one: string, many: string): string => `${n} ${n === 1 ? one : many}`;

/** Sounds up to which the whole table is shown. */
const MOST = 16;

/**
 * How many switches are pressed and knobs or pedals set from every sound to every other, which, in
 * which order, and how to need only one.
 */
export function PressesTable() {
  const rig = useDocument();
  const { sounds } = rig;
  const current = useRig((s) => s.sound);
  const [pair, setPair] = useState<readonly [string, string] | null>(null);
  // A table of very many sounds would be neither read nor painted; then one row at a time is worked out.
  const many = sounds.length > MOST;
  const only = many ? (pair?.[0] ?? current) : undefined;
  const table = useMemo(
    () =>
      sounds.map((from) =>
        only === undefined || from.id === only
          ? sounds.map((to) => pressesBetween(rig, from, to))
          : [],
      ),
    [rig, sounds, only],
  );
  if (sounds.length < 2)
    return (
      <div className="empty common-gap-2">
        Add a second sound, then the way from one to the other can be counted.
      </div>
    );
  const [from, to] = (
    pair ??
    (many
      ? [current, sure(sounds.find((s) => s.id !== current)).id]
      : [at(sounds, 0).id, at(sounds, 1).id])
  ).map((id) => sounds.findIndex((s) => s.id === id));
  const chosen = table[sure(from)]?.[sure(to)];
  const cell = (a: Sound, b: Sound, i: number, k: number) => {
    if (a === b)
      return (
        <td key={b.id} className="faint">
          –
        </td>
      );
    const { presses, turns } = at(at(table, i), k);
    const said = `${count(presses.length, 'press', 'presses')}${turns.length ? `, ${turns.length} to set` : ''}`;
    return (
      <td key={b.id} data-presses={`${a.id} ${b.id}`}>
        <button
          type="button"
          className="press-count"
          aria-pressed={i === from && k === to}
          aria-label={`${a.name} to ${b.name}: ${said}`}
          title={`${a.name} to ${b.name}: ${said}`}
          onClick={() => setPair([a.id, b.id])}
        >
          {presses.length}
          {turns.length > 0 && <span className="faint"> + {turns.length} to set</span>}
        </button>
      </td>
    );
  };
  return (
    <div className="scroll common-box-2">
      <p className="faint common-text-3">
        Presses from the sound of a row to the sound of a column. A switch with assignments is one
        press; so is a sound called on a controller, for every device that the simulated bus then
        leaves as the sound wants it, and a device with programs for all inside it.
      </p>
      {many ? (
        <>
          <Select
            size="xs"
            w={280}
            searchable
            label="From"
            data={sounds.map((s) => ({ value: s.id, label: s.name }))}
            value={only}
            allowDeselect={false}
            onChange={(v) => v && setPair([v, sure(sounds.find((s) => s.id !== v)).id])}
          />
          <FromOne sounds={sounds} only={only} cell={cell} from={from} />
        </>
      ) : (
        <FromEach sounds={sounds} cell={cell} />
      )}
      {chosen &&
        from !== undefined &&
        to !== undefined &&
        sounds[from] &&
        sounds[to] &&
        sounds[from] !== sounds[to] && (
          <PressList from={at(sounds, from)} to={at(sounds, to)} chosen={chosen} />
        )}
    </div>
  );
}

/** The presses from each sound to each other. */
function FromEach({
  sounds,
  cell,
}: {
  sounds: Sound[];
  cell: (a: Sound, b: Sound, i: number, k: number) => ReactElement;
}) {
  return (
    <table className="sheet-table figures" data-table="presses">
      <thead>
        <tr>
          <th>From, to</th>
          {sounds.map((s) => (
            <th key={s.id}>{s.name}</th>
          ))}
        </tr>
      </thead>
      <tbody>
        {sounds.map((a, i) => (
          <tr key={a.id}>
            <td>
              <strong>{a.name}</strong>
            </td>
            {sounds.map((b, k) => cell(a, b, i, k))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** The presses from one sound to each of the others. */
function FromOne({
  sounds,
  only,
  cell,
  from,
}: {
  sounds: Sound[];
  only: string | undefined;
  cell: (a: Sound, b: Sound, i: number, k: number) => ReactElement;
  from: number | undefined;
}) {
  return (
    <div className="pads common-gap-3" data-table="presses">
      {sounds.map(
        (b, k) =>
          b.id !== only && (
            <table key={b.id}>
              <tbody>
                <tr>
                  <td className="presses-table-text">{b.name}</td>
                  {cell(at(sounds, sure(from)), b, sure(from), k)}
                </tr>
              </tbody>
            </table>
          ),
      )}
    </div>
  );
}

/** What is pressed to get from one sound to the other. */
function PressList({ from, to, chosen }: { from: Sound; to: Sound; chosen: Presses }) {
  const rig = useDocument();
  return (
    <section data-list="presses" aria-live="polite">
      <h3>
        {from.name} to {to.name}
      </h3>
      {chosen.presses.length + chosen.turns.length === 0 && (
        <p>Nothing to do: the two differ in nothing that is pressed or turned.</p>
      )}
      <PressOrder from={from} to={to} presses={chosen.presses} />
      {chosen.turns.length > 0 && (
        <>
          <h3>To set besides: a pedal by foot, a knob by hand</h3>
          <ul>
            {chosen.turns.map((p) => (
              <li key={p.device}>
                {nameOf(rig, p.device)}: {p.changes.join(', ')}
              </li>
            ))}
          </ul>
        </>
      )}
      <OnePressProposals
        key={`${from.id} ${to.id}`}
        from={from}
        to={to}
        needed={chosen.presses.length + chosen.turns.length > 1}
      />
    </section>
  );
}

/** The presses in the order that gets least loud on the way. */
function PressOrder({ from, to, presses }: { from: Sound; to: Sound; presses: Press[] }) {
  const rig = useDocument();
  const sequence = useAnswer('sequence', presses.length > 1 ? { from: from.id, to: to.id } : null);
  const words = (p: Press) =>
    (p.control
      ? (rig.controls?.find((c) => c.id === p.control)?.name ?? p.control)
      : nameOf(rig, p.device)) +
    (p.calls ? ` calls ${to.name}` : '') +
    `: ${p.changes.join(', ')}`;
  const steps = sequence?.steps.length === presses.length ? sequence.steps : null;
  return (
    <>
      <ol>
        {(steps?.map((s) => s.press) ?? presses).map((p, i) => (
          <li key={`${p.device} ${p.control ?? ''}`}>
            {words(p)}
            {steps?.[i]?.at && (
              <span className="faint">
                {' '}
                · until the next press {nameOf(rig, steps[i].at)} is {fixed(steps[i].loudestDb)} dB
                over the louder of the two
              </span>
            )}
          </li>
        ))}
      </ol>
      {steps && sequence && (
        <p className="faint common-text-2">
          {sequence.overshootDb < 0.1
            ? 'In this order nothing gets louder on the way than before or after.'
            : `In the best order it still gets ${fixed(sequence.overshootDb)} dB too loud on the way.`}{' '}
          Every order of up to four presses was evaluated.
        </p>
      )}
    </>
  );
}

/** Ways to need one press, worked out when asked for. */
function OnePressProposals({ from, to, needed }: { from: Sound; to: Sound; needed: boolean }) {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const { work, start } = useWorking('onePress');
  if (!needed) return null;
  return (
    <div data-list="one-press">
      <Button
        size="xs"
        variant="default"
        disabled={work.state === 'working'}
        onClick={() => start({ rig, from: from.id, to: to.id })}
      >
        How would it be one press?
      </Button>
      {work.state === 'working' && (
        <span role="status" className="faint">
          {' '}
          Trying ways on a copy …
        </span>
      )}
      {work.state === 'failed' && (
        <p role="alert">It stopped: {work.why}. Nothing was changed; try again.</p>
      )}
      {work.state === 'done' &&
        (!work.answer.ok ? (
          <p>{reasonOf(work.answer)}</p>
        ) : (
          work.answer.value.map((p) => (
            <article key={p.words} className="finding">
              <p>
                <strong>{p.words}</strong>
              </p>
              <p>
                {p.why} It then takes {count(p.after.presses.length, 'press', 'presses')}
                {p.after.turns.length ? ` and ${p.after.turns.length} to set` : ''} instead of{' '}
                {p.before.presses.length}
                {p.before.turns.length ? ` and ${p.before.turns.length} to set` : ''}:{' '}
                {[...p.after.presses, ...p.after.turns]
                  .map(
                    (x) =>
                      `${nameOf(rig, x.device) === x.device ? 'the new device' : nameOf(rig, x.device)} ` +
                      `(${x.changes.join(', ')})`,
                  )
                  .join('; ')}
                .
              </p>
              <p className="faint common-text-2">
                {p.changes.length
                  ? `It changes: ${p.changes.slice(0, 6).join('; ')}` +
                    (p.changes.length > 6 ? `, and ${p.changes.length - 6} more` : '') +
                    '.'
                  : 'Nothing that is heard changes in any sound.'}
              </p>
              <Button size="compact-sm" onClick={() => edit(p.edits, p.words)}>
                Do this
              </Button>
            </article>
          ))
        ))}
    </div>
  );
}
