'use client';
import { Button, Checkbox, Group, MultiSelect, Select, TagsInput, TextInput } from '@mantine/core';
import { useRouter } from 'next/navigation';
import { useMemo, useState } from 'react';
import { kindOf } from '../../core/kinds';
import { ORDER_RULES } from '../../core/order';
import { sure } from '../../core/outcome';
import { analyse, settled } from '../../core/report';
import type { Report } from '../../core/report/report';
import { type Brief, freshId, type Way } from '../../core/rig';
import type { Rig } from '../../core/rig/schema';
import { proposeRig, type ReadChain, START_INSTRUMENTS, START_PEDALS } from '../../core/start';
import { kindOptions, WAY_NAMES, WAY_WORDS } from '../brief/words';
import { askServer, problemText } from '../keep/ask-server';
import { SeverityMark } from '../look/severity';
import { WhatIsHeard } from '../look/what-is-heard';
import { ChainLine, readLine } from './chain-line';

/** Rules on which a start can follow either school. */
const CHOOSABLE = [
  'compressor-early',
  'filter-before-dirt',
  'boost-place',
  'volume-place',
  'gain-low-to-high',
  'tuner-place',
  'pitch-early',
  'time-after-dirt',
];

const instruments = kindOptions(START_INSTRUMENTS);
const pedals = kindOptions(START_PEDALS);

/** What was answered so far. */
interface Answers {
  name: string;
  ins: string[];
  wireless: string;
  ways: string[];
  owned: string[];
  other: string[];
  sounds: string[];
}

const NOTHING_YET: Answers = {
  ...{ name: '', ins: [], wireless: 'no', ways: [], owned: [], other: [] },
  sounds: ['Clean', 'Crunch', 'Lead'],
};

/** What still has to be answered, in words. */
const missingIn = ({ name, ins, ways, sounds }: Answers): string[] => [
  ...(name.trim() ? [] : ['a name']),
  ...(ins.length ? [] : ['an instrument']),
  ...(ways.length ? [] : ['where it is heard']),
  ...(sounds.length ? [] : ['a sound']),
];

/** What a line still lacks to make a rig of. */
const missingInLine = ({ name }: Answers, read: ReadChain): string[] => [
  ...(name.trim() ? [] : ['a name']),
  ...(read.broken ? ['the end of the line'] : []),
  ...read.items.flatMap((i) => (i.kind === undefined ? [`what “${i.words}” is`] : [])),
];

/** The rig that the answers ask for; nothing while too little is answered. */
function rigFor({ name, ins, wireless, ways, owned, other, sounds }: Answers): Rig | null {
  if (!ins.length || !ways.length || !sounds.length) return null;
  const brief: Brief = {
    sources: ins.map((kind, n) => ({
      id: `source-${n + 1}`,
      kind,
      name: kindOf(kind).name,
      ...(n === 0 && wireless === 'yes' && { wireless: true }),
    })),
    destinations: (ways as Way[]).map((way) => ({ id: way, way, name: WAY_NAMES[way] })),
    gear: owned.map((kind, n) => ({ id: `gear-${n + 1}`, kind, name: kindOf(kind).name })),
    sounds: sounds.map((sound, n) => ({ id: `sound-${n + 1}`, name: sound })),
  };
  return settled(
    proposeRig(brief, {
      id: freshId(name || 'rig', []),
      name: name.trim() || 'New rig',
      otherSchool: other,
    }),
  );
}

/**
 * The short start: what comes in, what must be heard where, which pedals are on hand; then an
 * ordered rig to edit.
 */
export function NewRig() {
  const router = useRouter();
  const [answers, setAnswers] = useState(NOTHING_YET);
  const [saying, setSaying] = useState<string | null>(null);
  const [line, setLine] = useState('');
  const read = useMemo(
    () => (line.trim() ? readLine(line, answers.name) : null),
    [line, answers.name],
  );
  const rig = useMemo(() => (read ? (read.rig ?? null) : rigFor(answers)), [read, answers]);
  const report = useMemo(() => (rig ? analyse(rig) : null), [rig]);
  const make = async () => {
    const missing = read ? missingInLine(answers, read) : missingIn(answers);
    if (!rig || missing.length) return setSaying(`Still needed: ${missing.join(', ')}.`);
    const reply = await askServer<{ id: string }>('/api/rigs', 'POST', {
      rig,
      words: read ? 'started from a line' : 'started from the short questions',
    });
    if (reply.ok) router.push(`/rigs/${reply.value.id}/signal`);
    else setSaying(problemText(reply.problem));
  };
  return (
    <main className="page new-rig-columns">
      <form
        className="new-rig-columns-2"
        onSubmit={(e) => {
          e.preventDefault();
          void make();
        }}
      >
        <h1 className="new-rig-text">A new rig</h1>
        <TextInput
          label="What is it called?"
          placeholder="Fly rig, autumn"
          value={answers.name}
          onChange={(e) => {
            const name = e.currentTarget.value;
            setAnswers((before) => ({ ...before, name }));
          }}
          data-autofocus
        />
        <ChainLine line={line} read={read} onLine={setLine} />
        {!read && (
          <Questions
            answers={answers}
            onAnswer={(part) => setAnswers((before) => ({ ...before, ...part }))}
          />
        )}
        <Group>
          <Button type="submit">Make this rig</Button>
          <Button variant="default" component="a" href="/">
            Cancel
          </Button>
        </Group>
        {saying && <p role="alert">{saying}</p>}
      </form>
      <Proposal rig={rig} report={report} />
    </main>
  );
}

/** What is asked before a rig is proposed. */
function Questions({
  answers,
  onAnswer,
}: {
  answers: Answers;
  onAnswer: (part: Partial<Answers>) => void;
}) {
  return (
    <>
      <MultiSelect
        label="What comes in?"
        placeholder={answers.ins.length ? '' : 'choose instruments'}
        searchable
        data={instruments}
        value={answers.ins}
        onChange={(ins) => onAnswer({ ins })}
        hidePickedOptions
      />
      <Select
        label="Does the first one come by wireless?"
        data={[
          { value: 'no', label: 'no, on a lead' },
          { value: 'yes', label: 'yes' },
        ]}
        value={answers.wireless}
        allowDeselect={false}
        onChange={(v) => onAnswer({ wireless: v ?? 'no' })}
      />
      <Checkbox.Group
        label="Where must it be heard?"
        value={answers.ways}
        onChange={(ways) => onAnswer({ ways })}
      >
        <Group gap={12} mt={4}>
          {Object.entries(WAY_WORDS).map(([value, label]) => (
            <Checkbox key={value} value={value} label={label} />
          ))}
        </Group>
      </Checkbox.Group>
      <MultiSelect
        label="Which pedals are on hand?"
        description="The order does not matter; two of a kind can be added later."
        searchable
        data={pedals}
        value={answers.owned}
        onChange={(owned) => onAnswer({ owned })}
        hidePickedOptions
      />
      <TagsInput
        label="Which sounds?"
        description="Quietest first; type and press Enter"
        value={answers.sounds}
        onChange={(sounds) => onAnswer({ sounds })}
        maxTags={30}
      />
      <MultiSelect
        label="Where do you follow the other school?"
        description="Everything else is ordered in the usual way"
        data={ORDER_RULES.filter((r) => CHOOSABLE.includes(r.id)).map((r) => ({
          value: r.id,
          label: `${r.thing}: ${r.other}`,
        }))}
        value={answers.other}
        onChange={(other) => onAnswer({ other })}
      />
    </>
  );
}

/** The rig that is proposed: its order and what is heard where. */
function Proposal({ rig, report }: { rig: Rig | null; report: Report | null }) {
  const first = report?.sounds[0];
  return (
    <section aria-live="polite" aria-label="Proposal">
      <h2 className="new-rig-text-2">The proposal</h2>
      {!first || !rig || !report ? (
        <div className="empty">
          Choose what comes in and where it must be heard; the order appears here.
        </div>
      ) : (
        <>
          <ol data-list="proposal">
            {[...first.stations]
              .sort((a, b) => a.column - b.column || a.lane - b.lane)
              .map((s) => (
                <li key={s.id}>
                  {sure(rig.devices.find((d) => d.id === s.device)).name}
                  {s.id.includes(':') ? `, by its ${s.id.split(':')[1]}` : ''}
                </li>
              ))}
          </ol>
          <WhatIsHeard report={report} rig={rig} />
          {report.findings.map((f) => (
            <div key={f.key} className="new-rig-text-3">
              <SeverityMark severity={f.severity} /> {f.what}
            </div>
          ))}
        </>
      )}
    </section>
  );
}
