import fc from 'fast-check';
import { touringRig } from '../../demo';
import { chartLines } from '../../formats/chart';
import { demoBook } from '../demo-book';
import {
  type Book,
  careId,
  type Change,
  changed,
  changeTo,
  type Due,
  dueOf,
  EMPTY_BOOK,
  knownOf,
  type Line,
  linksIn,
  measuredIn,
  pastOf,
  scheduleOf,
  type Show,
  sortOf,
  timeOfDay,
  withChanges,
} from '.';

const TODAY = '2026-11-27';
const line = (id: string, fields: Partial<Line>): Change =>
  changeTo<'line'>('line', id, undefined, {
    at: '2026-11-20T21:00:00.000Z',
    text: 'something',
    ...fields,
  });

describe('changes', () => {
  const start = withChanges(EMPTY_BOOK, [line('a', { text: 'kiln crackles', by: 'Odd' })]);
  const held = start.line[0]!;

  test('two who change different fields both keep what they changed, in either order', () => {
    const one = changeTo<'line'>('line', 'a', held, { text: 'kiln crackles a lot' });
    const two = changeTo<'line'>('line', 'a', held, { sort: 'fault', minutes: 4 });
    for (const order of [
      [one, two],
      [two, one],
    ])
      expect(withChanges(start, order).line[0]).toMatchObject({
        text: 'kiln crackles a lot',
        sort: 'fault',
        minutes: 4,
      });
  });

  test('the same field changed otherwise stays as it is there and is told with both', () => {
    const theirs = withChanges(start, [changeTo<'line'>('line', 'a', held, { text: 'theirs' })])
      .line[0];
    const mine = changeTo<'line'>('line', 'a', held, { text: 'mine' });
    const { record, differs } = changed('line', theirs, mine);
    expect(record?.text).toBe('theirs');
    expect(differs).toEqual([
      { is: 'line', id: 'a', field: 'text', theirs: 'theirs', yours: 'mine' },
    ]);
  });

  test('made twice, a change does no harm; of a tick the last counts', () => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom('done', 'failed', 'open'), { maxLength: 8 }), (list) => {
        const changes = list.map((state, i) =>
          changeTo<'tick'>('tick', 't', undefined, {
            show: 's',
            step: 'x',
            state: state,
            at: `2026-11-27T20:0${i}:00.000Z`,
          }),
        );
        const once = withChanges(EMPTY_BOOK, changes);
        const last = changes.at(-1);
        expect(last ? withChanges(once, [last]) : once).toEqual(once);
        if (list.length) expect(once.tick[0]!.state).toBe(list.at(-1));
      }),
    );
  });

  test('what cannot stand is refused with its field, and nothing of it is taken', () => {
    const bad = changeTo<'show'>('show', 's', undefined, { date: 'tomorrow', venue: 'Silo' });
    expect(changed('show', undefined, bad)).toMatchObject({
      problems: ['date: write a date as 2026-11-27'],
    });
    expect(withChanges(EMPTY_BOOK, [bad]).show).toEqual([]);
    expect(changed('line', undefined, line('x', { text: ' ' })).problems).toEqual([
      'text: write something',
    ]);
  });
});

describe('a typed line', () => {
  test('devices by whole names or a word of their own, leads by code, songs by title', () => {
    const names = (text: string) => linksIn(touringRig, text).map((l) => l.id);
    expect(names('kiln drive crackles when trodden on')).toEqual(['kiln']);
    expect(names('Kiln again')).toEqual(['kiln']);
    expect(names('l05 cuts out in Salt Ledger')).toEqual(expect.arrayContaining(['l05', 'ledger']));
    // The code on its ends, as the drill and the finder call it.
    expect(names('W05 crackles, the lead by the tuner')).toContain('l05');
    expect(names('the drive is odd')).toEqual([]);
    expect(names('nothing of ours')).toEqual([]);
  });

  test('what it is, by its words', () => {
    expect(sortOf('Kiln Drive crackles')).toBe('fault');
    expect(sortOf('fresh battery in the pack')).toBe('battery');
    expect(sortOf('new tubes, biased')).toBe('tube');
    expect(sortOf('resoldered the jack of l05')).toBe('repair');
    expect(sortOf('measured 1.9 ms')).toBe('measured');
    expect(sortOf('good show')).toBe('note');
  });

  test('a measurement finds its figure by unit and words, and says what is typical', () => {
    const text = 'measured latency of Gangway Echo, 1,9 ms';
    const [m] = measuredIn(touringRig, { text, links: linksIn(touringRig, text) });
    expect(m).toMatchObject({ device: 'echo', value: 1.9, unit: 'ms' });
    expect(measuredIn(touringRig, { text: 'measured 5 V', links: [] })).toEqual([]);
  });
});

describe('what the logbook knows', () => {
  const book: Book = withChanges(EMPTY_BOOK, demoBook(touringRig, TODAY));

  test('six shows behind and four ahead; failures by device and lead; what failed most is first', () => {
    expect(book.show.filter((s) => s.date < TODAY).length).toBe(6);
    expect(book.show.filter((s) => s.date > TODAY).length).toBe(4);
    const known = knownOf(book, TODAY);
    expect(known.shows).toBe(6);
    expect(known.failures.kiln).toBe(2);
    expect(known.failures.l05).toBe(1);
    const [first] = pastOf(book);
    expect(first).toMatchObject({ id: 'kiln', failed: 2, repaired: 1 });
  });

  test('batteries are due by shows since the last one, tubes by hours', () => {
    const due = dueOf(touringRig, book, TODAY);
    const battery = due.find((d) => d.id === 'battery radio')!;
    const last = book.line.find((l) => l.sort === 'battery')!.at.slice(0, 10);
    expect(battery.since).toBe(last);
    expect(battery.used).toBe(book.show.filter((s) => s.date > last && s.date <= TODAY).length);
    expect(battery.due).toBe(true);
    const fresh = withChanges(book, [
      line('b', {
        at: `${TODAY}T10:00:00.000Z`,
        sort: 'battery',
        links: [{ is: 'device', id: 'radio', name: 'Radio pack' }],
      }),
    ]);
    expect(dueOf(touringRig, fresh, TODAY).find((d) => d.id === 'battery radio')!.due).toBe(false);
    expect(due.find((d) => d.id === 'tubes head')).toMatchObject({ unit: 'hours', due: false });
  });

  test('what is due as often as the crew says, for that device alone; taken back, as is usual', () => {
    const set = (every: number | null) => {
      const id = careId(touringRig.id, 'head', 'tubes');
      const fields = { device: 'head', care: 'tubes', every };
      return withChanges(book, [changeTo('care', id, undefined, fields)]);
    };
    const before = dueOf(touringRig, book, TODAY);
    const tubes = (b: Book) => dueOf(touringRig, b, TODAY).find((d) => d.id === 'tubes head')!;
    const { used, of, usual } = tubes(book);
    expect([of, tubes(set(used - 1)).of, tubes(set(used - 1)).due]).toEqual([
      usual,
      used - 1,
      true,
    ]);
    expect(tubes(set(used + 1)).due).toBe(false);
    expect(tubes(set(null)).of).toBe(usual);
    const others = (list: readonly Due[]) =>
      list.filter((d) => d.id !== 'tubes head').map((d) => [d.id, d.of, d.due]);
    expect(others(dueOf(touringRig, set(1), TODAY)).sort()).toEqual(others(before).sort());
  });

  test('of two of a kind the number on the unit says which; what is said of it is known in other rigs', () => {
    const [radio] = touringRig.devices.filter((d) => d.id === 'radio');
    const twin = { ...radio!, id: 'radio-2', name: 'Radio pack two', gear: { serial: 'RX-0042' } };
    const both = { ...touringRig, devices: [...touringRig.devices, twin] };
    expect(linksIn(both, 'RX-0042 drops out near the stairs')).toEqual([
      { is: 'device', id: 'radio-2', name: 'Radio pack two', serial: 'RX-0042' },
    ]);
    expect(linksIn(both, 'RX-00421 is another one')).toEqual([]);
  });
});

describe('a show day', () => {
  const show: Show = {
    id: 's',
    date: TODAY,
    venue: 'Silo',
    country: 'FR',
    volts: null,
    set: '',
    crew: '',
    doors: '19:00',
    curtain: '20:30',
    minutes: {},
    notes: '',
    gone: false,
  };

  test('is worked back from doors without a gap; a length that is set moves all before it', () => {
    const day = scheduleOf(touringRig, show, 600);
    const last = day.findIndex((s) => s.id === 'spare');
    expect(timeOfDay(day[last]!.to)).toBe('19:00');
    for (let i = 1; i < day.length; i++) expect(day[i]!.from).toBe(day[i - 1]!.to);
    expect(day.find((s) => s.id === 'check')!.minutes).toBe(10);
    const unknown = scheduleOf(touringRig, show, null).find((s) => s.id === 'check')!;
    expect(unknown.why).toContain('typical');
    const longer = scheduleOf(touringRig, { ...show, minutes: { sound: 90 } }, 600);
    const usual = day.find((s) => s.id === 'sound')!.minutes;
    expect(longer[0]!.from).toBe(day[0]!.from - (90 - usual));
    expect(longer.find((s) => s.id === 'sound')!.set).toBe(true);
  });

  test('a curtain after midnight is the next day; times of day wrap', () => {
    const late = scheduleOf(touringRig, { ...show, doors: '23:00', curtain: '00:30' }, 600);
    expect(late.at(-1)).toMatchObject({ id: 'wait', minutes: 90 });
    expect(timeOfDay(-30)).toBe('23:30');
  });
});

test('a chart: chords over the syllables that they come before, sections as headings', () => {
  expect(
    chartLines('{title: X}\n{start_of_verse: Verse 1}\n[Em]Low [F]tide\n# no\n\nplain'),
  ).toEqual([
    { is: 'head', text: 'Verse 1' },
    {
      is: 'line',
      parts: [
        { chord: 'Em', text: 'Low ' },
        { chord: 'F', text: 'tide' },
      ],
    },
    { is: 'line', parts: [{ chord: '', text: 'plain' }] },
  ]);
});
