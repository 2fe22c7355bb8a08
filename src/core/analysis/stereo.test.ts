import type { Lead, Rig } from '../rig';
import { analyse, FixTrial } from '../report';
import { allOn, device, lead } from '../testing/rigs';

const guitar = device('g', 'guitar-active', 'Guitar');
const desk = device('c', 'console-input-stereo', 'Desk', { settings: { input: 'line' } });
const modeler = device('m', 'modeler-floor', 'Modeler');
const block = (id: string, kind: string) => device(id, kind, id, { host: 'm' });
const inside = (id: string, from: string, to: string) => lead(id, from, to, 0, 'inside');
const heard = (rig: Rig) => analyse(rig).sounds[0]!.destinations.find((d) => d.device === 'c')!;
const STEREO = ['half-pair', 'half-wide', 'collapse', 'sides-exchanged'];
const told = (rig: Rig) => analyse(rig).findings.filter((f) => STEREO.includes(f.rule));
/** The fix of the only stereo finding cures it and leaves none behind. */
function cures(rig: Rig, words: string): void {
  const trial = new FixTrial(rig);
  const [finding, ...more] = trial.report.findings.filter((f) => STEREO.includes(f.rule));
  expect(more).toEqual([]);
  expect(finding!.fix!.words).toBe(words);
  expect(trial.try(finding!, finding!.fix!)).toMatchObject({ cures: true, breaks: [] });
}

/** Leads to a pair of jacks, the way they belong or exchanged. */
const pair = (id: string, from: string, to: string, isExchanged = false): Lead[] => [
  lead(id, `${from}`, isExchanged ? `${to}R` : to, 3),
  lead(`${id}R`, `${from}R`, isExchanged ? to : `${to}R`, 3),
];

test('width that was lost and made again behind a mono stage is stereo', () => {
  const chain = (toAmp: Lead[]) =>
    allOn(
      [
        guitar,
        modeler,
        ...[block('ch', 'chorus'), block('am', 'amp-block'), block('cb', 'cab-block')],
        ...[block('de', 'delay'), desk],
      ],
      [
        lead('1', 'g.out', 'm.in', 3),
        inside('i1', 'm.fromIn', 'ch.in'),
        ...toAmp,
        inside('i3', 'am.out', 'cb.in'),
        inside('i4', 'cb.out', 'de.in'),
        inside('i5', 'de.out', 'm.toOut'),
        inside('i6', 'de.outR', 'm.toOutR'),
        ...pair('o', 'm.out', 'c.in'),
      ],
    );
  const both = chain([inside('i2', 'ch.out', 'am.in'), inside('i2r', 'ch.outR', 'am.inR')]);
  expect(heard(both)).toMatchObject({ channels: 'stereo', collapsedAt: null });
  expect(heard(both).wideners).toEqual([{ device: 'de', exchanged: false }]);
  expect(told(both)).toEqual([]);

  const pedal = allOn(
    [
      guitar,
      device('ch', 'chorus', 'Ch'),
      device('dr', 'drive-low', 'Dr'),
      device('de', 'delay', 'De'),
      desk,
    ],
    [
      lead('1', 'g.out', 'ch.in', 3),
      lead('2', 'ch.out', 'dr.in', 0.3),
      lead('3', 'dr.out', 'de.in', 0.3),
      ...pair('o', 'de.out', 'c.in'),
    ],
  );
  expect(heard(pedal).channels).toBe('stereo');
  expect(told(pedal)).toEqual([]);
});

test('sides exchanged are stereo with exchanged sides, told with the leads that cross', () => {
  const rig = (isExchanged: boolean) =>
    allOn(
      [guitar, device('de', 'delay', 'De'), desk],
      [lead('1', 'g.out', 'de.in', 3), ...pair('o', 'de.out', 'c.in', isExchanged)],
    );
  expect(heard(rig(false)).wideners).toEqual([{ device: 'de', exchanged: false }]);
  expect(told(rig(false))).toEqual([]);
  expect(heard(rig(true))).toMatchObject({ channels: 'stereo' });
  expect(told(rig(true))[0]!.what).toBe(
    'Desk hears left and right exchanged of what De makes wide.',
  );
  cures(rig(true), 'Exchange the two leads from De at Desk');
});

test('left and right exchanged throughout: what is right stays right', () => {
  // Crossed twice is straight again.
  const twice = allOn(
    [guitar, device('de', 'delay', 'De'), device('eq', 'volume-two-channel', 'Vol'), desk],
    [
      lead('1', 'g.out', 'de.in', 3),
      lead('2', 'de.out', 'eq.in2', 1),
      lead('3', 'de.outR', 'eq.in1', 1),
      lead('4', 'eq.out1', 'c.inR', 3),
      lead('5', 'eq.out2', 'c.in', 3),
    ],
  );
  expect(heard(twice).wideners).toEqual([{ device: 'de', exchanged: false }]);
  expect(told(twice)).toEqual([]);
});

test('mono on purpose is silent: a second lead would widen nothing that anybody hears', () => {
  const rig = allOn(
    [
      ...[guitar, device('ch', 'chorus', 'Ch'), device('de', 'delay', 'De')],
      ...[device('ph', 'phaser', 'Ph'), device('ci', 'console-input', 'In')],
    ],
    [
      lead('1', 'g.out', 'ch.in', 3),
      lead('2', 'ch.out', 'de.in', 0.3),
      lead('3', 'de.out', 'ph.in', 0.3),
      lead('4', 'ph.out', 'ci.in', 3),
    ],
  );
  expect(told(rig)).toEqual([]);
});

const looped = (back: Lead[]) =>
  allOn(
    [
      guitar,
      device('sw', 'loop-switcher', 'Yard', { settings: { order: '8' } }),
      ...[device('de', 'delay', 'De'), desk],
    ],
    [
      lead('1', 'g.out', 'sw.in', 3),
      lead('2', 'sw.send8', 'de.in', 0.3),
      ...back,
      ...pair('o', 'sw.out', 'c.in'),
    ],
  );

test('a stereo return on one TRS jack: an insert lead is right, one plain lead is half', () => {
  const insert = (id: string, from: string, conductor: 'tip' | 'ring'): Lead => ({
    ...lead(id, from, 'sw.return8', 0.3, 'insert'),
    conductor,
  });
  const whole = looped([insert('r', 'de.out', 'tip'), insert('rr', 'de.outR', 'ring')]);
  expect(heard(whole).channels).toBe('stereo');
  expect(told(whole)).toEqual([]);
  cures(looped([lead('r', 'de.out', 'sw.return8', 0.3)]), 'Use an insert lead for both sides');
});

const returned = (back: Lead[]) =>
  allOn(
    [
      ...[guitar, modeler, block('am', 'amp-block'), block('cb', 'cab-block')],
      ...[block('rv', 'reverb'), device('de', 'delay', 'De'), desk],
    ],
    [
      lead('1', 'g.out', 'm.in', 3),
      inside('i1', 'm.fromIn', 'am.in'),
      inside('i2', 'am.out', 'cb.in'),
      inside('i3', 'cb.out', 'm.toSend1'),
      lead('s', 'm.send1', 'de.in', 1),
      ...back,
      inside('i4', 'm.fromReturn1', 'rv.in'),
      inside('i5', 'm.fromReturn2', 'rv.inR'),
      inside('i6', 'rv.out', 'm.toOut'),
      inside('i7', 'rv.outR', 'm.toOutR'),
      ...pair('o', 'm.out', 'c.in'),
    ],
  );

test('half a stereo return of a modeler is found, and returns exchanged are told', () => {
  const half = returned([lead('r', 'de.out', 'm.return1', 1)]);
  expect(told(half).map((f) => f.what)).toContain(
    'De and Modeler are both stereo, but one lead joins them.',
  );
  const finding = told(half).find((f) => f.rule === 'half-pair')!;
  expect(new FixTrial(half).try(finding, finding.fix!)).toMatchObject({ cures: true, breaks: [] });

  const right = [lead('r', 'de.out', 'm.return1', 1), lead('rr', 'de.outR', 'm.return2', 1)];
  expect(told(returned(right))).toEqual([]);
  const crossed = [lead('r', 'de.out', 'm.return2', 1), lead('rr', 'de.outR', 'm.return1', 1)];
  cures(returned(crossed), 'Exchange the two leads from De at Modeler');
});

test('a side that a box keeps shut by what it selects is opened there', () => {
  const rig = (select: string) =>
    allOn(
      [
        ...[guitar, device('de', 'delay', 'Echo'), desk],
        device('l', 'splitter-buffered', 'Left fork', { settings: { select: 'both' } }),
        device('r', 'splitter-buffered', 'Right fork', { settings: { select } }),
      ],
      [
        lead('1', 'g.out', 'de.in', 3),
        lead('2', 'de.out', 'l.in', 0.3),
        lead('3', 'de.outR', 'r.in', 0.3),
        lead('4', 'l.a', 'c.in', 3),
        lead('5', 'r.a', 'c.inR', 3),
      ],
    );
  expect(told(rig('both'))).toEqual([]);
  const trial = new FixTrial(rig('b'));
  const finding = trial.report.findings.find((f) => f.rule === 'half-wide')!;
  const [best] = trial.waysOut(finding);
  expect(best).toMatchObject({
    fix: { words: 'Set Right fork, Selects: A and B' },
    tried: { cures: true, breaks: [] },
  });
});
