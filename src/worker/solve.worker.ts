import loadHighs from 'highs';
import type { Rig, Sound } from '../core/rig';
import { type MipSolver, proposeBuffers, proposeInside, proposeIsolation, proposeOrder } from '../core/solve';
import type { ProposalAnswered, ProposalAsked, Proposals, ProposalName } from './messages';

const soundIn = (rig: Rig, id: string): Sound => rig.sounds.find((s) => s.id === id) ?? { id, name: 'As it stands', states: {} };

/** Says how far it is; the pause lets the message out. */
const telling = (id: number) => async (share: number, words: string) => {
  const said: ProposalAnswered = { id, share, words };
  self.postMessage(said);
  await new Promise((r) => setTimeout(r, 0));
};

const solver = async (): Promise<MipSolver> => {
  const highs = await loadHighs({});
  return (lp) => highs.solve(lp) as ReturnType<MipSolver>;
};

const WORK: { [N in ProposalName]: (ask: Proposals[N]['ask'], id: number) => Promise<Proposals[N]['answer']> } = {
  order: ({ rig, sound }, id) => proposeOrder(rig, soundIn(rig, sound), telling(id)),
  inside: async ({ rig, host, held }) => proposeInside(rig, host, await solver(), new Map(held)),
  isolation: ({ rig, sound }) => Promise.resolve(proposeIsolation(rig, soundIn(rig, sound))),
  buffers: ({ rig, sound }, id) => proposeBuffers(rig, soundIn(rig, sound), telling(id)),
};

self.onmessage = ({ data }: MessageEvent<ProposalAsked>) => {
  const answer = (said: ProposalAnswered) => self.postMessage(said);
  (WORK[data.proposal] as (ask: unknown, id: number) => Promise<unknown>)(data.ask, data.id).then(
    (result) => answer({ id: data.id, answer: result }),
    (error: unknown) => answer({ id: data.id, error: error instanceof Error ? error.message : String(error) }),
  );
};
