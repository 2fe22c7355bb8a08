'use client';
import { Button, Drawer, Group, Progress, SegmentedControl, Select } from '@mantine/core';
import { useEffect, useRef, useState } from 'react';
import { kindOf } from '../../../core/kinds';
import type { Edit } from '../../../core/rig';
import { CANCELLED, propose, type Working } from '../../../worker';
import { useDocument, useRig } from '../../store/use-rig';
import { type Answer, Found, type SoundProposal } from './found';

const PARTS: Record<SoundProposal, { label: string; about: string }> = {
  order: {
    label: 'Order',
    about:
      'The best order of this sound’s main chain, under the schools and pins you chose. ' +
      'The order rules judge every place and every pair; the cheapest arrangement is ' +
      'found exactly. As few devices move as cure what is told.',
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

type Work =
  | { state: 'idle' }
  | { state: 'working'; share: number; words: string }
  | { state: 'failed'; why: string }
  | { state: 'done'; found: Answer; rig: unknown };

/** A proposal that is being worked out: begun, stopped, or thrown away. */
function useWork(host: string | undefined) {
  const rig = useDocument();
  const sound = useRig((s) => s.sound);
  const [work, setWork] = useState<Work>({ state: 'idle' });
  const [held, setHeld] = useState<[string, boolean][]>([]);
  const running = useRef<Working<unknown> | null>(null);
  useEffect(() => () => running.current?.cancel(), []);
  const stop = () => running.current?.cancel();
  const clear = () => {
    stop();
    setWork({ state: 'idle' });
  };
  const start = (name: SoundProposal, keep: [string, boolean][] = []) => {
    stop();
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
  return { work, held, start, stop, clear };
}

/** How far the work is, why it stopped, or that the rig has moved on since. */
function HowItGoes({ work, stale }: { work: Work; stale: boolean }) {
  if (work.state === 'working')
    return (
      <div role="status">
        <Progress value={100 * work.share} aria-label="How far it is" />
        <div className="common-text-2">
          {Math.round(100 * work.share)} %: {work.words}
        </div>
      </div>
    );
  if (work.state === 'failed')
    return <p role="alert">It stopped: {work.why}. Nothing was changed; try again.</p>;
  return stale ? (
    <p role="alert">The rig has changed since. Work it out again before you take it.</p>
  ) : null;
}

/**
 * Proposals, worked out beside the rest: asked for, watched, stopped, and taken as one step that
 * can be undone.
 */
export function ProposalsDrawer({ opened, onClose }: { opened: boolean; onClose: () => void }) {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const sound = useRig((s) => s.sound);
  const [part, setPart] = useState<SoundProposal>('order');
  const hosts = rig.devices.filter((d) => kindOf(d.kind).hosts);
  const [chosenHost, setHost] = useState<string | null>(null);
  const host = hosts.find((h) => h.id === chosenHost)?.id ?? hosts[0]?.id;
  const { work, held, start, stop, clear } = useWork(host);
  const take = (edits: Edit[], words: string) => {
    if (edit(edits, words).ok) clear();
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
          clear();
        }}
        data={Object.entries(PARTS).map(([value, p]) => ({ value, label: p.label }))}
      />
      <p className="small-print">{PARTS[part].about}</p>
      {part === 'inside' && hosts.length > 1 && (
        <Select
          searchable
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
            <Button size="xs" variant="default" onClick={stop}>
              Cancel
            </Button>
          )}
        </Group>
      )}
      <HowItGoes work={work} stale={work.state === 'done' && work.rig !== rig} />
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
