import { DEMO_RIGS } from '../demo';
import { type Brief, type Way, WAYS } from '../rig';
import { digest } from '../testing/digest';
import { briefOf, briefState, proposeRig, START_INSTRUMENTS, START_PEDALS } from '.';

const line = (kind: string, i: number) => ({ id: `k${i}`, kind, name: `Gear ${i}` });
const ways = (list: readonly Way[]) => list.map((way, i) => ({ id: `w${i}`, way, name: way }));
const sounds = ['Clean', 'Lead'].map((name, i) => ({ id: `s${i}`, name }));
const started = (brief: Brief, otherSchool: string[] = []) =>
  digest(proposeRig(brief, { id: 'new', name: 'New', otherSchool }).rig);

test('what is started from a brief is what it was', () => {
  const instruments = START_INSTRUMENTS.map((k) => k.id);
  const pedals = START_PEDALS.map((k) => k.id);
  const now: Record<string, string> = {};
  for (const way of WAYS)
    for (const [n, source] of instruments.entries()) {
      // Another handful of pedals each time, so that each comes before and behind others.
      const gear = pedals.filter((_, i) => (i + n) % 4 === 0).map(line);
      now[`${source} into ${way}`] = started({
        gear,
        sounds,
        sources: [line(source, 99)],
        destinations: ways([way, WAYS[n % WAYS.length] ?? way]),
      });
    }
  const all = {
    gear: pedals.map(line),
    sounds,
    sources: instruments.slice(0, 3).map((k, i) => line(k, 100 + i)),
    destinations: ways(WAYS),
  };
  now.everything = started(all);
  now['other schools'] = started(all, ['filter-before-dirt', 'volume-place', 'compressor-early']);
  const [source, destination] = [line('guitar-active', 1), ways(['house'])];
  now.least = started({ sources: [source], destinations: destination, gear: [], sounds: [] });
  expect(now).toMatchSnapshot();
});

test('the brief that a rig answers is what it was', () => {
  expect(
    DEMO_RIGS.map((rig) => {
      const brief = briefOf(rig);
      const other = DEMO_RIGS.find((r) => r !== rig);
      return digest([brief, briefState(rig, brief), other && briefState(other, brief)]);
    }),
  ).toMatchSnapshot();
});
