import { Button, Chip } from '@mantine/core';
import { useState } from 'react';
import { type Effects, SYMPTOM_IDS, SYMPTOMS, type SymptomId } from '../../../core/show';
import type { Hunt } from './use-evidence';

interface Props {
  hunt: Hunt;
  set: (change: Partial<Hunt>) => void;
  effects: Effects;
}

/** What is noticed, where, in which sound: three taps. */
export function NoticeForm({ hunt, set, effects }: Props) {
  const [ear, setEar] = useState<string | null>(null);
  const [what, setWhat] = useState<SymptomId[]>([]);
  const add = (list: SymptomId[]) => {
    if (!ear) return;
    const others = hunt.noticed.filter((n) => n.ear !== ear || n.sound !== hunt.sound);
    set({
      noticed: [...others, { ear, sound: hunt.sound, what: list }],
      ...(hunt.noticed.length ? {} : { began: new Date().toISOString() }),
      found: undefined,
    });
    setEar(null);
    setWhat([]);
  };
  return (
    <div className="notice-form">
      <h3>{hunt.noticed.length ? 'Anything else?' : 'What do you notice?'}</h3>
      <label className="faint small-print" htmlFor="hunt-sound">
        Sound that is on
      </label>
      <select
        id="hunt-sound"
        className="show-select"
        value={hunt.sound}
        onChange={(e) => set({ sound: e.currentTarget.value })}
      >
        {effects.sounds.map((s) => (
          <option key={s.id} value={s.id}>
            {s.name}
          </option>
        ))}
      </select>
      <div className="taps" role="group" aria-label="Where">
        {effects.ears.map((e) => (
          <button
            key={e.device}
            type="button"
            className="tap"
            data-ear={e.device}
            aria-pressed={ear === e.device}
            onClick={() => setEar(e.device)}
          >
            {e.name}
          </button>
        ))}
      </div>
      {ear && (
        <>
          <Chip.Group multiple value={what} onChange={(v) => setWhat(v)}>
            <div className="taps" role="group" aria-label="What">
              {SYMPTOM_IDS.map((id) => (
                <Chip key={id} value={id} size="md" radius="sm" title={SYMPTOMS[id].means}>
                  {SYMPTOMS[id].words}
                </Chip>
              ))}
            </div>
          </Chip.Group>
          <div className="taps">
            <Button size="md" disabled={!what.length} onClick={() => add(what)}>
              That is it
            </Button>
            <Button size="md" variant="default" onClick={() => add([])}>
              All fine here
            </Button>
          </div>
        </>
      )}
    </div>
  );
}

/** What was noticed so far, and what tests showed; any of it can be taken back. */
export function NoticedList({
  hunt,
  set,
  effects,
  doubtful,
}: Props & { doubtful: { noticed: number[]; answers: number[] } | null }) {
  const earName = (id: string) => effects.ears.find((e) => e.device === id)?.name ?? id;
  const soundName = (id: string) => effects.sounds.find((s) => s.id === id)?.name ?? id;
  return (
    <ul className="noticed">
      {hunt.noticed.map((n, i) => (
        <li
          key={`${n.ear} ${n.sound}`}
          data-noticed={n.ear}
          data-doubtful={doubtful?.noticed.includes(i)}
        >
          <span>
            <strong>{earName(n.ear)}</strong>, {soundName(n.sound)}:{' '}
            {n.what.map((w) => SYMPTOMS[w].words).join(', ') || 'all fine'}
          </span>
          <button
            type="button"
            className="linklike"
            onClick={() => set({ noticed: hunt.noticed.filter((x) => x !== n) })}
          >
            Take back
          </button>
        </li>
      ))}
      {hunt.answers.map((a, i) => (
        <li key={a.test} data-answered={a.test} data-doubtful={doubtful?.answers.includes(i)}>
          <span>
            {a.words}: <strong>{a.answer}</strong>
          </span>
          <button
            type="button"
            className="linklike"
            onClick={() => set({ answers: hunt.answers.filter((x) => x !== a) })}
          >
            Take back
          </button>
        </li>
      ))}
    </ul>
  );
}
