import { cases } from '../testing/cases';
import { chainOf } from '../testing/rigs';
import { applyEdits, type Edit, type Rig } from '../rig';
import { type Happening, type Head, type Journal, journalOf, type Keeping, next, opened } from '.';

/** A repeatable source of chance. */
function dice(seed: number) {
  let s = (seed * 2_654_435_761) >>> 0 || 1;
  const roll = () => {
    s ^= s << 13;
    s ^= s >>> 17;
    s ^= s << 5;
    return (s >>> 0) / 2 ** 32;
  };
  return {
    roll,
    below: (n: number) => Math.floor(roll() * n),
    of: <T>(l: readonly T[]) => l[Math.floor(roll() * l.length)]!,
  };
}

const START = chainOf(['guitar-active', 'boost', 'console-input'], 0.5);

/** A database as the server keeps it: a revision is added only on the newest one. */
class Database {
  readonly revisions: Head[] = [{ revision: 1, identity: 'r1', rig: START }];
  get head(): Head {
    return this.revisions.at(-1)!;
  }
  save(a: NonNullable<Journal['attempt']>): Happening {
    const known = this.revisions.find((r) => r.identity === a.identity);
    const newer = known && known !== this.head ? { newer: this.head } : {};
    if (known) return { is: 'saved', identity: a.identity, revision: known.revision, ...newer };
    if (this.head.identity !== a.base.identity)
      return this.revisions.some((r) => r.identity === a.base.identity)
        ? { is: 'behind', head: this.head }
        : { is: 'unknown base', head: this.head };
    const revision = this.head.revision + 1;
    this.revisions.push({ revision, identity: a.identity, rig: a.rig, words: a.words });
    return { is: 'saved', identity: a.identity, revision };
  }
}

/** A mark that an editor left: where, and what. It must be in some revision, or have been asked about. */
interface Mark {
  where: string;
  value: string;
}

const marksIn = (rig: Rig): string[] => [
  `name ${rig.name}`,
  `notes ${rig.notes ?? ''}`,
  ...rig.devices.flatMap((d) => [
    `devices[${d.id}] ${d.id}`,
    `devices[${d.id}].notes ${d.notes ?? ''}`,
  ]),
];

/** One history: two or three editors, and everything that can go wrong between them and the database. */
function history(seed: number) {
  const chance = dice(seed);
  const db = new Database();
  let made = 0;
  const marks: Mark[] = [];
  const asked = new Set<string>();
  const removed = new Set<string>();
  const wire: { to: number; e: Happening }[] = [];
  const pages: { k: Keeping; journals: Journal[]; fresh: boolean }[] = Array.from(
    { length: 2 + chance.below(2) },
    () => ({ k: opened(db.head), journals: [], fresh: true }),
  );
  const tell = (i: number, e: Happening) => {
    const page = pages[i]!;
    const before = page.k.state;
    page.k = next(page.k, e);
    if (page.k.state === 'clash')
      for (const c of page.k.clashes) asked.add(c.where.replace(/ \(order\)$/, ''));
    if (e.is === 'arrived') page.fresh = true;
    if (page.k.state === 'saved' && before !== 'saved') takeUp(i);
  };
  const takeUp = (i: number) => {
    const journal = pages[i]!.journals.shift();
    if (journal) tell(i, { is: 'recovered', journal, fresh: pages[i]!.fresh });
  };
  const edit = (i: number) => {
    const { rig } = pages[i]!.k;
    const id = `x${made++}`;
    const device = chance.of(rig.devices);
    const [mark, change] = chance.of<[Mark, Edit]>([
      [
        { where: 'name', value: `N${id}` },
        { edit: 'renameRig', name: `N${id}` },
      ],
      [
        { where: `devices[${id}]`, value: id },
        { edit: 'addDevice', device: { id, kind: 'boost', name: id } },
      ],
      [
        { where: `devices[${device.id}].notes`, value: id },
        { edit: 'setDevice', device: device.id, notes: id },
      ],
      [
        { where: `gone ${device.id}`, value: '' },
        { edit: 'removeDevice', device: device.id },
      ],
    ]);
    const done = applyEdits(rig, [change]);
    if (!done.ok || done.value.rig.devices.length < 2) return;
    if (change.edit === 'removeDevice') removed.add(device.id);
    else marks.push(mark);
    tell(i, { is: 'edited', rig: done.value.rig, words: mark.where });
  };
  const send = (i: number) => {
    const page = pages[i]!;
    tell(i, { is: 'due', identity: `s${seed}-${made++}` });
    if (page.k.state !== 'sending') return;
    const { attempt } = page.k;
    const luck = chance.roll();
    // Lost on the way there; lost on the way back; or answered, at once or late.
    if (luck < 0.2) return wire.push({ to: i, e: { is: 'failed', why: 'away' } });
    const answer = db.save(attempt);
    if (luck < 0.4) return wire.push({ to: i, e: { is: 'failed', why: 'away' } });
    wire.push({ to: i, e: answer });
    for (const [j] of pages.entries())
      if (chance.roll() < 0.6) wire.push({ to: j, e: { is: 'arrived', head: db.head } });
  };
  const deliver = () => {
    const [one] = wire.splice(chance.below(wire.length), 1);
    if (one) tell(one.to, one.e);
  };
  const settle = (i: number) => {
    const { k } = pages[i]!;
    if (k.state === 'astray')
      return tell(i, { is: 'decided', side: chance.of(['mine', 'theirs']) });
    if (k.state !== 'clash') return;
    for (const c of k.clashes)
      if (chance.roll() < 0.7)
        tell(i, { is: 'chosen', where: c.where, side: chance.of(['mine', 'theirs']) });
    tell(i, { is: 'settled' });
  };
  const crash = (i: number) => {
    const page = pages[i]!;
    // What was on the wire to the page is lost with it; what it kept is found by the next one.
    for (let n = wire.length - 1; n >= 0; n--) if (wire[n]!.to === i) wire.splice(n, 1);
    page.journals.push(journalOf(page.k));
    page.fresh = chance.roll() < 0.8;
    page.k = opened(page.fresh ? db.head : chance.of(db.revisions));
    takeUp(i);
  };
  for (let n = 0; n < 18; n++) {
    const i = chance.below(pages.length);
    const luck = chance.roll();
    if (luck < 0.4) edit(i);
    else if (luck < 0.62) send(i);
    else if (luck < 0.85) deliver();
    else if (luck < 0.93) settle(i);
    else crash(i);
  }
  // Everybody comes to rest: the line is good, and every question is answered.
  for (let n = 0; n < 200; n++) {
    while (wire.length) deliver();
    let busy = false;
    for (const [i, page] of pages.entries()) {
      settle(i);
      tell(i, { is: 'due', identity: `s${seed}-${made++}` });
      if (page.k.state === 'sending') {
        tell(i, db.save(page.k.attempt));
        busy = true;
      }
      tell(i, { is: 'arrived', head: db.head });
      if (page.k.state === 'saved') takeUp(i);
      busy ||= page.k.state !== 'saved' || page.k.base.revision !== db.head.revision;
    }
    if (!busy) break;
  }
  return { db, pages, marks, asked, removed };
}

test('thousands of histories: pages and database agree in the end, and no edit went by unasked', () => {
  for (let seed = 1; seed <= cases(2500, 10_000); seed++) {
    const { db, pages, marks, asked, removed } = history(seed);
    for (const { k, journals } of pages) {
      if (k.state !== 'saved' || journals.length)
        throw new Error(`history ${seed} ends ${k.state}`);
      if (JSON.stringify(k.rig) !== JSON.stringify(db.head.rig))
        throw new Error(`history ${seed}: a page shows another rig than the database holds`);
    }
    const seen = new Set(db.revisions.flatMap((r) => marksIn(r.rig)));
    for (const m of marks) {
      const device = /devices\[(.*?)\]/.exec(m.where)?.[1];
      const told = [...asked].some((a) => m.where.startsWith(a) || a.startsWith(m.where));
      if (
        !seen.has(`${m.where} ${m.value}`) &&
        !told &&
        !overwritten(marks, m) &&
        !removed.has(device ?? '')
      )
        throw new Error(`history ${seed}: ${m.where} = ${m.value} was lost`);
    }
  }
}, 240_000);

/** Changed again before it was saved, by whoever: the later value is what must be found. */
const overwritten = (marks: readonly Mark[], m: Mark): boolean =>
  marks.slice(marks.indexOf(m) + 1).some((x) => x.where === m.where);
