import loadHighs from 'highs';
import { planPower, pressedDevices, proposeLayout } from '../core/build';
import { walkOrder } from '../core/walk';
import { pairRows, setStage } from '../core/midi';
import {
  analyse,
  bySound,
  cureAll,
  FixTrial,
  isIn,
  type Share,
  type TriedFix,
  whatToMeasure,
} from '../core/report';
import { learnSheets, type Rig, type Sound } from '../core/rig';
import {
  drillOf,
  effectsOf,
  faultsOf,
  lineCheckOf,
  Listener,
  rescues,
  rewire,
  smallestSpares,
  survivals,
} from '../core/show';
import {
  exactly,
  type MipSolver,
  proposeBuffers,
  proposeInside,
  proposeIsolation,
  proposeOnePress,
  proposeOrder,
} from '../core/solve';
import { builtUp, finished, priced, proposeRig } from '../core/start';
import type {
  BestSoFar,
  ProposalAnswered,
  ProposalAsked,
  ProposalName,
  Proposals,
  SoFar,
  Wake,
} from './messages';

const soundIn = (rig: Rig, id: string): Sound =>
  rig.sounds.find((s) => s.id === id) ?? { id, name: 'As it stands', states: {} };

const setIn = (rig: Rig, id: string | null) => rig.sets?.find((s) => s.id === id);

/** Says how far it is; the pause lets the message out. */
const tellingSoFar = (id: number) => async (share: number, words: string, soFar?: SoFar) => {
  const said: ProposalAnswered = { id, share, words, ...(soFar && { soFar }) };
  self.postMessage(said);
  await new Promise((r) => setTimeout(r, 0));
};
const telling = (id: number) => (share: number, words: string, best?: BestSoFar) =>
  tellingSoFar(id)(share, words, best && { best });

const solver = async (): Promise<MipSolver> => {
  const highs = await loadHighs({});
  return exactly(highs);
};

const WORK: {
  [N in ProposalName]: (
    ask: Proposals[N]['ask'],
    id: number,
    share: Share,
  ) => Promise<Proposals[N]['answer']>;
} = {
  order: ({ rig, sound }, id) => proposeOrder(rig, soundIn(rig, sound), telling(id)),
  inside: async ({ rig, host, held }) => proposeInside(rig, host, await solver(), new Map(held)),
  isolation: ({ rig, sound }) => Promise.resolve(proposeIsolation(rig, soundIn(rig, sound))),
  buffers: ({ rig, sound }, id) => proposeBuffers(rig, soundIn(rig, sound), telling(id)),
  power: async ({ rig, headroom, seconds }) => planPower(rig, await solver(), headroom, seconds),
  onePress: ({ rig, from, to }) => Promise.resolve(proposeOnePress(rig, from, to)),
  start: async ({ brief, choice, built }, id) => {
    const made = priced(finished(proposeRig(brief, choice)), brief, choice);
    const whole = built ? await builtUp(made, await solver(), telling(id)) : made;
    return { ...whole, report: analyse(whole.rig) };
  },
  layout: async ({ rig, board, add, mayTurn }, id) =>
    proposeLayout(rig, board, add, pressedDevices(rig), walkOrder(rig), telling(id), {
      mayTurn,
      solver: await solver(),
    }),
  trials: async ({ rig }, id, share) => {
    const tell = tellingSoFar(id);
    const trial = new FixTrial(rig);
    const open = trial.report.findings.filter((f) => f.accepted === undefined);
    const found: Record<string, TriedFix[]> = {};
    for (const [i, f] of open.entries()) {
      if (!isIn(share, i) || !trial.candidates(f).length) continue;
      const ways = (found[f.key] = trial.waysOut(f));
      // The worst is tried first, and said as soon as it is known.
      await tell((i + 1) / open.length, f.what, { tried: { [f.key]: ways } });
    }
    return found;
  },
  effects: ({ rig }, id, share) => effectsOf(new Listener(rig), telling(id), share),
  drill: async ({ rig, set, seconds, known }, id) => {
    const drill = await drillOf(rig, setIn(rig, set), known, telling(id));
    const spares = smallestSpares(rig, drill, seconds, await solver());
    return { drill, spares, survivals: survivals(rig, drill, spares, seconds) };
  },
  lineCheck: async ({ rig, set }) => lineCheckOf(rig, setIn(rig, set), await solver()),
  rewire: ({ rig, fault, sound, ear }) => {
    const listener = new Listener(rig);
    const made = faultsOf(listener.whole).find((f) => f.id === fault);
    const at = listener.ears.findIndex((e) => e.device === ear);
    return Promise.resolve((made && at >= 0 && rewire(listener, made, sound, at)) || null);
  },
  rescue: ({ rig, fault, sound, ear }) => {
    const listener = new Listener(rig);
    const [made, on] = [
      faultsOf(listener.whole).find((f) => f.id === fault),
      listener.sounds.find((s) => s.id === sound),
    ];
    const at = listener.ears.findIndex((e) => e.device === ear);
    return Promise.resolve(
      made && on && at >= 0 ? (rescues(listener, made, on, [at])[0] ?? []) : [],
    );
  },
  outcome: ({ rig, edits }) => Promise.resolve(new FixTrial(rig).outcome(edits)),
  bySound: ({ rig, edits }) => Promise.resolve(bySound(rig, edits)),
  cure: ({ rig }, id) => cureAll(rig, telling(id)),
  measure: ({ rig }, id, share) => whatToMeasure(rig, telling(id), share),
  pairs: async ({ rig }, id) => {
    const tell = telling(id);
    const rows = pairRows(setStage(rig));
    for (;;) {
      const { done, value } = rows.next();
      if (done) return value;
      await tell(value, 'changes simulated');
    }
  },
};

self.onmessage = ({ data }: MessageEvent<ProposalAsked | Wake>) => {
  const answer = (said: ProposalAnswered) => self.postMessage(said);
  if ('wakes' in data) return answer({ listens: true });
  // A worker begins without the gear of one's own that the rig is made of.
  if ('rig' in data.ask) learnSheets(data.ask.rig.sheets);
  const work = WORK[data.proposal] as (...a: [unknown, number, Share]) => Promise<unknown>;
  work(data.ask, data.id, data.share).then(
    (result) => answer({ id: data.id, answer: result }),
    (error: unknown) =>
      answer({ id: data.id, error: error instanceof Error ? error.message : String(error) }),
  );
};

self.postMessage({ listens: true } satisfies ProposalAnswered);
