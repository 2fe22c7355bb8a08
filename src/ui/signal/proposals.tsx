'use client';
import { Button, Drawer, Group, Progress, SegmentedControl, Select } from '@mantine/core';
import { type ReactNode, useEffect, useRef, useState } from 'react';
import { kindOf } from '../../core/kinds';
import { type Edit, nameOf } from '../../core/rig';
import type { FigureChange } from '../../core/solve';
import { fixed, showChange } from '../../core/units';
import { CANCELLED, propose, type ProposalName, type Proposals, type Working } from '../../worker';
import { useDocument, useRig } from '../store/use-rig';

/** Proposals that are asked for one sound; ways to one press are asked for a pair, under Control. */
type SoundProposal = Exclude<ProposalName, 'onePress' | 'pairs' | 'power' | 'layout'>;

const PARTS: Record<SoundProposal, { label: string; about: string }> = {
  order: {
    label: 'Order',
    about:
      'The best order of this sound’s main chain, under the schools and pins you chose. ' +
      'The order rules judge every place and every pair; the cheapest arrangement is ' +
      'found exactly.',
  },
  inside: {
    label: 'Inside or outside',
    about:
      'Which jobs stay in the modeler and which go to real pedals, solved exactly: slots, ' +
      'processing, sends and returns must fit.',
  },
  isolation: {
    label: 'Isolate',
    about: 'The cheapest places to open hum loops. A protective earth is never one of them.',
  },
  buffers: {
    label: 'Buffers',
    about:
      'Every lead is tried with a buffer in it; what each gives at 5 kHz is told one after the other.',
  },
};

type Answer = { [N in SoundProposal]: { name: N; answer: Proposals[N]['answer'] } }[SoundProposal];
type Work =
  | { state: 'idle' }
  | { state: 'working'; share: number; words: string }
  | { state: 'failed'; why: string }
  | { state: 'done'; found: Answer; rig: unknown };

/**
 * Proposals, worked out beside the rest: asked for, watched, stopped, and taken as one step that
 * can be undone.
 */
export function ProposalsDrawer({ opened, onClose }: { opened: boolean; onClose: () => void }) {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const sound = useRig((s) => s.sound);
  const [part, setPart] = useState<SoundProposal>('order');
  const [work, setWork] = useState<Work>({ state: 'idle' });
  const hosts = rig.devices.filter((d) => kindOf(d.kind).hosts);
  const [chosenHost, setHost] = useState<string | null>(null);
  const host = hosts.find((h) => h.id === chosenHost)?.id ?? hosts[0]?.id;
  const [held, setHeld] = useState<[string, boolean][]>([]);
  const running = useRef<Working<unknown> | null>(null);
  useEffect(() => () => running.current?.cancel(), []);
  const start = (name: SoundProposal, keep: [string, boolean][] = []) => {
    running.current?.cancel();
    setHeld(keep);
    setWork({ state: 'working', share: 0, words: 'Starting' });
    const onProgress = (share: number, words: string) =>
      setWork((w) => (w.state === 'working' ? { state: 'working', share, words } : w));
    const mine = propose(
      name,
      (name === 'inside' ? { rig, host: host ?? '', held: keep } : { rig, sound }) as never,
      onProgress,
    );
    running.current = mine;
    mine.answer.then(
      (answer) =>
        running.current === mine &&
        setWork({ state: 'done', found: { name, answer } as Answer, rig }),
      (e: Error) =>
        running.current === mine &&
        setWork(e.message === CANCELLED ? { state: 'idle' } : { state: 'failed', why: e.message }),
    );
  };
  const take = (edits: Edit[], words: string) => {
    if (edit(edits, words).ok) setWork({ state: 'idle' });
  };
  const name = rig.sounds.find((s) => s.id === sound)?.name ?? 'this sound';
  return (
    <Drawer opened={opened} onClose={onClose} position="right" size={560} title="Proposals">
      <SegmentedControl
        fullWidth
        size="xs"
        value={part}
        onChange={(v) => {
          setPart(v as SoundProposal);
          running.current?.cancel();
          setWork({ state: 'idle' });
        }}
        data={Object.entries(PARTS).map(([value, p]) => ({ value, label: p.label }))}
      />
      <p className="small-print">{PARTS[part].about}</p>
      {part === 'inside' && hosts.length > 1 && (
        <Select
          size="xs"
          label="Modeler"
          data={hosts.map((h) => ({ value: h.id, label: h.name }))}
          value={host ?? null}
          allowDeselect={false}
          onChange={setHost}
        />
      )}
      {part === 'inside' && !host ? (
        <div className="empty">There is no modeler in this rig.</div>
      ) : (
        <Group gap={8} my={8}>
          <Button size="xs" onClick={() => start(part)} disabled={work.state === 'working'}>
            {part === 'inside' ? 'Work it out' : `Work it out for ${name}`}
          </Button>
          {work.state === 'working' && (
            <Button size="xs" variant="default" onClick={() => running.current?.cancel()}>
              Cancel
            </Button>
          )}
        </Group>
      )}
      {work.state === 'working' && (
        <div role="status">
          <Progress value={100 * work.share} aria-label="How far it is" />
          <div className="common-text-2">
            {Math.round(100 * work.share)} %: {work.words}
          </div>
        </div>
      )}
      {work.state === 'failed' && (
        <p role="alert">It stopped: {work.why}. Nothing was changed; try again.</p>
      )}
      {work.state === 'done' && work.rig !== rig && (
        <p role="alert">The rig has changed since. Work it out again before you take it.</p>
      )}
      {work.state === 'done' && (
        <Found
          found={work.found}
          stale={work.rig !== rig}
          held={held}
          onTake={take}
          onHold={(device, inside) =>
            start('inside', [...held.filter(([d]) => d !== device), [device, inside]])
          }
        />
      )}
    </Drawer>
  );
}

function Found({
  found,
  stale,
  held,
  onTake,
  onHold,
}: {
  found: Answer;
  stale: boolean;
  held: [string, boolean][];
  onTake: (edits: Edit[], words: string) => void;
  onHold: (device: string, inside: boolean) => void;
}) {
  const rig = useDocument();
  const name = (id: string) => nameOf(rig, id);
  if (typeof found.answer === 'string') return <div className="empty">{found.answer}</div>;
  if (found.name === 'order') {
    const p = found.answer;
    if (!p.edits.length)
      return (
        <div className="empty" data-proposal="order">
          It is in order already: no other arrangement breaks fewer rules{p.exact ? ', proven' : ''}
          .
        </div>
      );
    return (
      <div data-proposal="order">
        <p className="small-print">{p.order.map(name).join(' → ')}</p>
        <p className="small-print">
          Broken rules: {fixed(p.pointsNow)} points now, {fixed(p.points)} then
          {p.exact ? ' (proven the fewest)' : ' (the fewest found)'}.
        </p>
        <Figures title="What is heard differently, all moves made" rows={p.figures} />
        <Button
          size="xs"
          mt={6}
          disabled={stale}
          onClick={() => onTake(p.edits, 'took the proposed order')}
        >
          Take this order
        </Button>
        {p.moves.map((m) => (
          <article key={m.device} className="finding" data-move={m.device}>
            <strong>{m.words}</strong>
            {m.reasons.map((r) => (
              <p key={r} className="small-print">
                {r}
              </p>
            ))}
            <p className="small-print">
              Left where it is: {fixed(m.ifLeft.points)} points more
              {m.ifLeft.breaks.length ? `; ${m.ifLeft.breaks.join(' ')}` : ''}
            </p>
            <Figures title="and heard against the proposal" rows={m.ifLeft.figures} />
          </article>
        ))}
      </div>
    );
  }
  if (found.name === 'inside') {
    const p = found.answer;
    if (!p.possible)
      return (
        <div className="empty" data-proposal="inside">
          It does not fit, whatever leaves: {p.short.join(', ')}. Take a block out, correct what one
          costs, or free a send and return.
        </div>
      );
    return (
      <div data-proposal="inside">
        <table className="sheet-table numbers figures">
          <thead>
            <tr>
              <th>{name(p.host)}</th>
              <th>Has</th>
              <th>Now</th>
              <th>Then</th>
            </tr>
          </thead>
          <tbody>
            <tr>
              <td>Slots</td>
              <td>{p.has.slots}</td>
              <td>{p.now.slots}</td>
              <td>{p.then.slots}</td>
            </tr>
            <tr>
              <td>Processing</td>
              <td>{p.has.percent} %</td>
              <td>{fixed(p.now.percent, 0)} %</td>
              <td>{fixed(p.then.percent, 0)} %</td>
            </tr>
          </tbody>
        </table>
        {p.moves.length === 0 && <p>Everything can stay where it is.</p>}
        {p.moves.length > 0 && (
          <Button
            size="xs"
            mt={6}
            disabled={stale}
            onClick={() =>
              onTake(p.edits, `moved ${p.moves.map((m) => name(m.device)).join(', ')} as proposed`)
            }
          >
            Make these moves
          </Button>
        )}
        {p.moves.map((m) => (
          <article key={m.device} className="finding" data-move={m.device}>
            <strong>
              {name(m.device)}: {m.to}, {m.place}
            </strong>
            <ul className="found-box">
              {m.reasons.map((r) => (
                <li key={r}>{r}</li>
              ))}
            </ul>
            <p className="small-print">
              {'impossible' in m.ifLeft
                ? 'Left where it is, the rest does not fit.'
                : `Left where it is: ${fixed(m.ifLeft.points)} points worse.`}
            </p>
            <Button
              size="compact-xs"
              variant="default"
              disabled={'impossible' in m.ifLeft}
              onClick={() => onHold(m.device, m.to === 'outside')}
            >
              Keep it {m.to === 'outside' ? 'inside' : 'outside'} and work it out again
            </Button>
          </article>
        ))}
        {held.length > 0 && (
          <p className="faint common-text-2">
            Kept as you said:{' '}
            {held.map(([d, inside]) => `${name(d)} ${inside ? 'inside' : 'outside'}`).join(', ')}.
          </p>
        )}
        <p className="faint common-text-2">
          Points weigh what is always on, what changes between sounds, what it costs inside, and
          what is on hand as a real pedal. They are a judgement; budgets and loops are not.
        </p>
      </div>
    );
  }
  if (found.name === 'isolation') {
    const p = found.answer;
    return (
      <div data-proposal="isolation">
        <p className="small-print">
          {p.loopsNow} hum {p.loopsNow === 1 ? 'loop' : 'loops'} now, {p.loopsThen} then.
          {p.pairs > 0
            ? ` ${p.pairs} more are pairs of leads between the same two boxes: tie those together ` +
              'along their whole length.'
            : ''}
        </p>
        {p.cuts.map((c) => (
          <article key={c.words} className="finding">
            <strong>{c.words}</strong>
            <p className="small-print">
              {c.why.charAt(0).toUpperCase()}
              {c.why.slice(1)}.
            </p>
          </article>
        ))}
        {p.left.length > 0 && (
          <p className="small-print">
            Left, because nothing there may be opened: {p.left.join('; ')}. Keep those leads short
            and side by side.
          </p>
        )}
        {p.cuts.length > 0 ? (
          <Button
            size="xs"
            disabled={stale}
            onClick={() => onTake(p.edits, 'opened the hum loops as proposed')}
          >
            Do all of this
          </Button>
        ) : (
          <div className="empty">No hum loop needs opening.</div>
        )}
      </div>
    );
  }
  const p = found.answer;
  return (
    <div data-proposal="buffers">
      {p.spared.map((s) => (
        <p key={s} className="small-print">
          {s}
        </p>
      ))}
      {p.gains.length === 0 && (
        <div className="empty">No buffer would give a decibel at 5 kHz.</div>
      )}
      {p.gains.map((g, i) => (
        <article key={g.lead + i} className="finding" data-gain={i}>
          <strong>
            {i + 1}. {g.words}: {showChange(g.gainDb)} at 5 kHz
          </strong>
          <p className="small-print">
            Heard at the input of {name(g.listener)}
            {i > 0 ? ', on top of the ones before' : ''}.
          </p>
          <Button
            size="compact-xs"
            variant="default"
            disabled={stale}
            onClick={() =>
              onTake(
                p.gains.slice(0, i + 1).flatMap((x) => x.edits),
                `put in ${i + 1 === 1 ? 'a buffer' : `${i + 1} buffers`}`,
              )
            }
          >
            Put in {i === 0 ? 'this one' : `these ${i + 1}`}
          </Button>
        </article>
      ))}
    </div>
  );
}

function Figures({ title, rows }: { title: string; rows: readonly FigureChange[] }): ReactNode {
  const rig = useDocument();
  const differ = rows.filter(
    (r) =>
      Math.abs(r.levelDb ?? 0) >= 0.05 ||
      Math.abs(r.thdPercent ?? 0) >= 0.05 ||
      Math.abs(r.signalToNoiseDb ?? 0) >= 0.05,
  );
  if (!differ.length) return <p className="faint common-text-2">{title}: nothing.</p>;
  const db = (v: number | null) => (v === null ? '–' : showChange(v));
  return (
    <table className="sheet-table numbers figures common-text-2">
      <thead>
        <tr>
          <th>{title}</th>
          <th>Level</th>
          <th>Saturation</th>
          <th>Signal to noise</th>
        </tr>
      </thead>
      <tbody>
        {differ.map((r) => (
          <tr key={r.destination}>
            <td>{nameOf(rig, r.destination)}</td>
            <td>{db(r.levelDb)}</td>
            <td>
              {r.thdPercent === null
                ? '–'
                : `${r.thdPercent > 0 ? '+' : ''}${fixed(r.thdPercent)} %`}
            </td>
            <td>{db(r.signalToNoiseDb)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
