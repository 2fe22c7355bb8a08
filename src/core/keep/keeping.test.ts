import { chainOf } from '../testing/rigs';
import type { Rig } from '../rig';
import { type Head, journalOf, type Keeping, next, opened } from '.';

const rig = chainOf(['guitar-active', 'boost', 'console-input'], 0.5);
const named = (name: string, from: Rig = rig): Rig => ({ ...from, name });
const noted = (notes: string, from: Rig = rig): Rig => ({ ...from, notes });
const head = (revision: number, of: Rig, identity = `r${revision}`): Head => ({
  revision,
  identity,
  rig: of,
});
const start = opened(head(1, rig));
const changed = (k: Keeping, to: Rig) => next(k, { is: 'edited', rig: to, words: 'a change' });
const sending = (k: Keeping, identity = 'mine') => next(k, { is: 'due', identity });
const attemptOf = (k: Keeping) => {
  if (k.state !== 'sending' && k.state !== 'away') throw new Error(`it is ${k.state}`);
  return k.attempt;
};

test('a change is sent, and what was changed meanwhile waits for the next save', () => {
  const out = changed(sending(changed(start, named('One'))), named('Two'));
  expect(attemptOf(out)).toMatchObject({ base: { revision: 1, identity: 'r1' }, count: 1 });
  const after = next(out, { is: 'saved', identity: 'mine', revision: 2 });
  expect(after).toMatchObject({ state: 'changed', pending: ['a change'] });
  expect([after.base.rig.name, after.rig.name]).toEqual(['One', 'Two']);
});

test('the base never moves without its document: a save that came second is merged, and mine is kept', () => {
  // The other renamed two things while a save of mine was out, and meanwhile I renamed one of them.
  const out = changed(sending(changed(start, noted('mine'))), named('Mine too', noted('mine')));
  const theirs = named('Theirs', rig);
  const asked = next(out, { is: 'behind', head: head(2, theirs) });
  expect(asked).toMatchObject({
    state: 'clash',
    base: { revision: 1 },
    clashes: [{ where: 'name', mine: 'Mine too', theirs: 'Theirs' }],
  });
  const settled = next(next(asked, { is: 'chosen', where: 'name', side: 'mine' }), {
    is: 'settled',
  });
  expect(settled).toMatchObject({
    state: 'changed',
    base: { revision: 2, rig: { name: 'Theirs' } },
  });
  expect([settled.rig.name, settled.rig.notes]).toEqual(['Mine too', 'mine']);
});

test('an answer that was lost is asked for again, with the same identity and the same document', () => {
  const out = changed(sending(changed(start, named('One'))), named('Two'));
  const away = next(out, { is: 'failed', why: 'The server cannot be reached.' });
  const again = sending(away, 'another');
  expect(attemptOf(again)).toBe(attemptOf(out));
  // It had been saved, and somebody has saved since: both are in.
  const theirs = noted('theirs', named('One'));
  const after = next(again, { is: 'saved', identity: 'mine', revision: 2, newer: head(3, theirs) });
  expect(after).toMatchObject({ state: 'changed', base: { revision: 3 } });
  expect([after.rig.name, after.rig.notes]).toEqual(['Two', 'theirs']);
});

test('news comes in under changes; news of what is known, or out of turn, changes nothing', () => {
  const k = next(changed(start, named('Mine')), { is: 'arrived', head: head(3, noted('new')) });
  expect([k.state, k.rig.name, k.rig.notes]).toEqual(['changed', 'Mine', 'new']);
  expect(next(k, { is: 'arrived', head: head(2, noted('old')) })).toBe(k);
  expect(next(k, { is: 'saved', identity: 'nobody', revision: 9 })).toBe(k);
  expect(next(start, { is: 'arrived', head: head(2, noted('new')) })).toEqual(
    opened(head(2, noted('new'))),
  );
});

test('two leads in one jack: one is asked about, and all else of both stays', () => {
  const wide = chainOf(['guitar-active', 'boost', 'console-input'], 0.5);
  const mixer = { id: 'm', kind: 'mixer-line', name: 'Mixer' };
  const lead = (id: string) => ({
    ...wide.leads[0]!,
    id,
    from: { device: 'g2', jack: 'out' },
    to: { device: 'm', jack: 'a' },
  });
  const spare = { ...wide.devices[0]!, id: 'g2', name: 'Spare' };
  const base = { ...wide, devices: [...wide.devices, spare, mixer] };
  const k = changed(opened(head(1, base)), {
    ...base,
    notes: 'mine',
    leads: [...base.leads, lead('a')],
  });
  const theirs = { ...base, name: 'Theirs', leads: [...base.leads, lead('b')] };
  const asked = next(k, { is: 'arrived', head: head(2, theirs) });
  expect(asked).toMatchObject({ state: 'clash', clashes: [{ where: 'leads[a]' }] });
  for (const side of ['mine', 'theirs'] as const) {
    const after = next(next(asked, { is: 'chosen', where: 'leads[a]', side }), { is: 'settled' });
    expect([after.rig.name, after.rig.notes]).toEqual(['Theirs', 'mine']);
    expect(after.rig.leads.map((l) => l.id)).toEqual([
      ...base.leads.map((l) => l.id),
      side === 'mine' ? 'a' : 'b',
    ]);
  }
});

test('a database that was set back is asked about before anything is written', () => {
  const k = next(sending(changed(start, named('Mine'))), {
    is: 'unknown base',
    head: head(1, rig, 'another'),
  });
  expect(k.state).toBe('astray');
  expect(sending(k)).toBe(k);
  expect(next(k, { is: 'decided', side: 'theirs' })).toEqual(opened(head(1, rig, 'another')));
  const mine = next(k, { is: 'decided', side: 'mine' });
  expect(mine).toMatchObject({
    state: 'changed',
    base: { identity: 'another' },
    rig: { name: 'Mine' },
  });
  expect(mine.pending.at(-1)).toBe('put back what the database had lost');
});

test('what an earlier page left is taken up; its attempt is sent again, and a newer base is a set-back', () => {
  const journal = { base: head(1, rig), rig: named('Left'), pending: ['a change'] };
  expect(next(start, { is: 'recovered', journal, fresh: true })).toMatchObject({
    state: 'changed',
  });
  const later = opened(head(2, noted('new')));
  expect(next(later, { is: 'recovered', journal, fresh: true }).rig).toMatchObject({
    name: 'Left',
    notes: 'new',
  });
  const attempt = attemptOf(sending(changed(start, named('Left'))));
  const again = next(later, { is: 'recovered', journal: { ...journal, attempt }, fresh: true });
  expect(again).toMatchObject({ state: 'away', newer: { revision: 2 } });
  expect(
    next(again, { is: 'saved', identity: 'mine', revision: 2, newer: head(3, named('Left')) }),
  ).toEqual(opened(head(3, named('Left'))));
  const ahead = { ...journal, base: head(7, rig) };
  expect(next(later, { is: 'recovered', journal: ahead, fresh: true }).state).toBe('astray');
  // A page from an old copy, with no server: the newer of the two is opened, and nothing is asked.
  expect(next(later, { is: 'recovered', journal: ahead, fresh: false })).toMatchObject({
    state: 'changed',
    base: { revision: 7 },
  });
  const busy = changed(later, named('Busy', later.rig));
  expect(next(busy, { is: 'recovered', journal, fresh: true })).toBe(busy);
});

test('what the server will never take says so, and the next change tries again', () => {
  const k = next(sending(changed(start, named('Bad'))), { is: 'refused', why: 'It is too large.' });
  expect(k).toMatchObject({ state: 'refused', why: 'It is too large.', pending: ['a change'] });
  expect(changed(k, named('Good'))).toMatchObject({ state: 'changed', pending: { length: 2 } });
});

test('the journal holds an attempt while it is out or unanswered, and at no other time', () => {
  const waiting = changed(start, named('One'));
  const out = sending(waiting);
  const away = next(out, { is: 'failed', why: 'The server cannot be reached.' });
  const done = next(out, { is: 'saved', identity: 'mine', revision: 2 });
  expect([start, waiting, out, away, done].map((k) => 'attempt' in journalOf(k))).toEqual([
    ...[false, false, true, true, false],
  ]);
  expect(journalOf(away)).toMatchObject({ base: { revision: 1 }, rig: { name: 'One' } });
});

test('of what came in while a save was out, the newest is taken up, whichever way it came', () => {
  const out = sending(changed(start, named('One')));
  const second = noted('second', named('One'));
  const third = noted('third', named('One'));
  const meanwhile = (n: number, r: Rig) => next(out, { is: 'arrived', head: head(n, r) });
  const saved = (k: Keeping, newer?: Head) =>
    next(k, { is: 'saved', identity: 'mine', revision: 2, newer });
  expect(saved(meanwhile(4, third), head(3, second)).base.revision).toBe(4);
  expect(saved(meanwhile(3, second), head(4, third)).base.revision).toBe(4);
  expect(saved(meanwhile(3, second)).rig.notes).toBe('second');
  expect(saved(out).base.revision).toBe(2);
});
