import { EXAMPLE_SHEETS } from '../core/demo';
import { kindOfSheet, type Rig } from '../core/rig';
import { ALONE, mostTurned, type Share, type ToMeasure, type TriedFix } from '../core/report';
import { type Effects, joinedEffects, NOTHING_KNOWN } from '../core/show';
import { device, lead, rigOf, sound } from '../core/testing/rigs';
import { wired } from '../core/testing/wired';
import type { ProposalAnswered, ProposalName, Proposals } from './messages';

const sheet = EXAMPLE_SHEETS.find((s) => s.id === 'tandem-drive')!;
const rig: Rig = {
  ...rigOf(
    [
      device('g', 'guitar-humbucker', 'Guitar'),
      device('pair', kindOfSheet(sheet).id, 'Pair'),
      device('rec', 'recorder', 'Recorder'),
    ],
    [lead('a', 'g.out', 'pair.in', 3), lead('b', 'pair.out', 'rec.in', 3)],
    [sound('soft', 'Soft', [], {}), sound('hard', 'Hard', ['pair'], {})],
  ),
  sheets: [sheet],
  boards: [{ id: 'board', name: 'Board', width: 600, depth: 400, rails: [{ y: 0, depth: 400 }] }],
};

const where = { fault: 'none', sound: 'soft', ear: 'rec' };
const ASKS: { [N in Exclude<ProposalName, 'start'>]: Proposals[N]['ask'] } = {
  order: { rig, sound: 'soft' },
  inside: { rig, host: 'pair', held: [] },
  isolation: { rig, sound: 'soft' },
  buffers: { rig, sound: 'soft' },
  power: { rig, headroom: 0.2 },
  onePress: { rig, from: 'soft', to: 'hard' },
  pairs: { rig },
  trials: { rig },
  outcome: { rig, edits: [{ edit: 'disconnect', lead: 'a' }] },
  bySound: { rig, edits: [{ edit: 'disconnect', lead: 'a' }] },
  cure: { rig },
  measure: { rig },
  effects: { rig },
  drill: { rig, set: null, seconds: 60, known: NOTHING_KNOWN },
  lineCheck: { rig, set: null },
  rescue: { rig, ...where },
  rewire: { rig, ...where },
  layout: { rig, board: 'board', add: ['pair'], mayTurn: true },
};

/** Asks a worker that was just started, and knows nothing but what ships. */
async function askFresh(
  proposal: ProposalName,
  ask: unknown,
  share = ALONE,
): Promise<ProposalAnswered> {
  let answered: (a: ProposalAnswered) => void = () => undefined;
  const answer = new Promise<ProposalAnswered>((resolve) => (answered = resolve));
  const worker = {
    onmessage: (_: { data: object }): void => undefined,
    postMessage: (said: ProposalAnswered) => {
      if ('answer' in said || 'error' in said) answered(said);
    },
  };
  Object.assign(globalThis, { self: worker });
  await jest.isolateModulesAsync(async () => void (await import('./solve.worker')));
  worker.onmessage({ data: { id: 1, proposal, ask: structuredClone(ask), share } });
  return answer;
}

test.each(Object.keys(ASKS) as (keyof typeof ASKS)[])(
  'a worker that was just started answers %s for a rig of gear of one’s own',
  async (proposal) => {
    expect(await askFresh(proposal, ASKS[proposal])).not.toHaveProperty('error');
  },
);

/** A drive that nobody hears, a lead into nothing, a hum: some findings, with ways out and figures that turn them. */
const wrong: Rig = wired(
  {
    g: 'guitar-single-coil',
    d: 'drive-high',
    e: 'delay',
    h: 'head-tube',
    c: 'cabinet',
    r: 'recorder',
  },
  'g.out>e.in e.out>d.in d.out>h.in h.speaker>r.in',
  { One: 'd e', Two: '' },
);

/** What a worker answers that does one of some shares. */
async function answerOf<T>(proposal: ProposalName, share: Share): Promise<T> {
  const said = await askFresh(proposal, { rig: wrong }, share);
  if (!('answer' in said)) throw new Error(JSON.stringify(said));
  return said.answer as T;
}

/** What two workers answer, each of its share. */
async function inShares<T>(proposal: ProposalName): Promise<T[]> {
  const found: T[] = [];
  for (const part of [0, 1]) found.push(await answerOf<T>(proposal, { part, of: 2 }));
  return found;
}

test('what several workers find, each of its share, is what one finds', async () => {
  const trials = await answerOf<Record<string, TriedFix[]>>('trials', ALONE);
  const tried = await inShares<Record<string, TriedFix[]>>('trials');
  expect(Object.keys(trials).length).toBeGreaterThan(2);
  expect(tried.every((t) => Object.keys(t).length < Object.keys(trials).length)).toBe(true);
  expect(Object.assign({}, ...tried)).toEqual(trials);

  const measure = await answerOf<ToMeasure[]>('measure', ALONE);
  expect(measure.length).toBeGreaterThan(1);
  expect(mostTurned((await inShares<ToMeasure[]>('measure')).flat())).toEqual(measure);

  const [first, ...others] = await inShares<Effects>('effects');
  expect(joinedEffects([first!, ...others])).toEqual(await answerOf<Effects>('effects', ALONE));
});
