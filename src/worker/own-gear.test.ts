import { EXAMPLE_SHEETS } from '../core/demo';
import { kindOfSheet, type Rig } from '../core/rig';
import { NOTHING_KNOWN } from '../core/show';
import { device, lead, rigOf, sound } from '../core/testing/rigs';
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
  effects: { rig, share: { part: 0, of: 1 } },
  drill: { rig, set: null, seconds: 60, known: NOTHING_KNOWN },
  lineCheck: { rig, set: null },
  rescue: { rig, ...where },
  rewire: { rig, ...where },
  layout: { rig, board: 'board', add: ['pair'], mayTurn: true },
};

/** Asks a worker that was just started, and knows nothing but what ships. */
async function askFresh(proposal: ProposalName, ask: unknown): Promise<ProposalAnswered> {
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
  worker.onmessage({ data: { id: 1, proposal, ask: structuredClone(ask) } });
  return answer;
}

test.each(Object.keys(ASKS) as (keyof typeof ASKS)[])(
  'a worker that was just started answers %s for a rig of gear of one’s own',
  async (proposal) => {
    expect(await askFresh(proposal, ASKS[proposal])).not.toHaveProperty('error');
  },
);
