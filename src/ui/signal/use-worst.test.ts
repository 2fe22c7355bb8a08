import { brokenRig } from '../../core/demo';
import type { Finding } from '../../core/findings/finding';
import { analyse } from '../../core/report';
import { sure } from '../../core/outcome';
import { worstIn } from './use-worst';

const { findings } = analyse(brokenRig);
const [first, second] = [sure(brokenRig.sounds[0]).id, sure(brokenRig.sounds[1]).id];
const one = sure(findings.find((f) => f.severity === 'fault' && f.subjects.length > 0));
const at = sure(one.subjects[0]);
const but = (change: Partial<Finding>): Finding => ({ ...one, ...change });

it('marks a device in the sounds in which something is wrong with it, and in no other', () => {
  expect(worstIn([but({ sounds: [first] })], first).get(at)).toBe('fault');
  expect(worstIn([but({ sounds: [first] })], second).size).toBe(0);
});

it('marks it in every sound where what is wrong has no sound, as its power', () => {
  for (const sound of [first, second])
    expect(worstIn([but({ sounds: [] })], sound).get(at)).toBe('fault');
});

it('marks it by the worst that is open', () => {
  const all = [but({ severity: 'caution' }), one, but({ severity: 'danger', accepted: 'known' })];
  expect(worstIn(all, sure(one.sounds[0] ?? first)).get(at)).toBe('fault');
  expect(worstIn([but({ severity: 'advice', sounds: [] })], first).size).toBe(0);
});

it('every open finding of the practice rig marks its device in its sounds', () => {
  for (const f of findings)
    if (f.severity !== 'advice' && f.accepted === undefined && f.subjects[0] !== undefined)
      for (const sound of f.sounds.length ? f.sounds : [first])
        expect(worstIn(findings, sound).has(f.subjects[0])).toBe(true);
});
