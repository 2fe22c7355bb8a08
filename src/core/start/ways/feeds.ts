import { type Kind, kindOf } from '../../kinds';
import type { Brief } from '../../rig/schema';
import { METRES, type Waiting } from '../making';
import type { Wiring } from './amp-parts';
import { type Playing } from './arrive';
import { type Comes, type End, isAmp, toEach, voiceOf } from './ends';

/** How the line of a feed comes to those who hear it. */
const COMES: Record<NonNullable<Kind['feed']>, Comes> = {
  voice: 'mic',
  band: 'line',
  tracks: 'box',
};

const WHY: Record<NonNullable<Kind['feed']>, string> = {
  voice: 'A voice goes to microphone inputs; on stage it is heard from the desk.',
  band: 'The desk sends it to those who play; it goes back to no desk.',
  tracks: 'Tracks sound as they were made: no pedal and no amplifier is for them.',
};

/** Whether one who may hear a feed gets it by a lead of the rig. */
export function hearsFeed(kindId: string, { way }: End): boolean {
  const { feed } = kindOf(kindId);
  if (isAmp({ way })) return false;
  return !(feed === 'band' && way === 'house') && !(feed === 'voice' && way === 'stage');
}

/**
 * The ears in which a player and a band's mix share a pack, an ear each, where that is chosen: the first
 * whom both reach, where both come as lines (an input that is set for a microphone is so on both sides).
 */
export function sharedEars(
  { choices, brief }: Wiring,
  played: readonly End[],
  band: readonly End[],
): End | undefined {
  const ears = played.find((e) => e.way === 'in-ears' && band.includes(e));
  if (!ears || !['modeler', 'simulator'].includes(voiceOf(brief))) return undefined;
  const taken = choices.take(
    'other-ear',
    `The band in ${ears.name}`,
    [
      ['own', 'an input of its own'],
      ['other', 'on the right ear, the player on the left'],
    ],
    'own',
    (t) =>
      t === 'own'
        ? 'Both are heard on both ears; how loud each is, is set where they are mixed.'
        : 'One pack, an ear each: neither can cover the other.',
  );
  return taken === 'other' ? ears : undefined;
}

/**
 * What is not played on strings, past everything to those who may hear it; `shared` are ears whose right
 * side it takes.
 */
export function straightFeed(
  { making, choices, brief }: Wiring,
  player: Playing,
  reached: readonly End[],
  { nameFor, shared }: { nameFor: (end: End) => string; shared?: End },
): void {
  const kind = kindOf(player.line.kind);
  if (!kind.feed) return;
  const ends = reached.filter((e) => hearsFeed(kind.id, e));
  const way = WHY[kind.feed];
  choices.take(
    `straight-${player.line.id}`,
    `The way of ${player.line.name}`,
    [['straight', 'past pedals and amplifiers']],
    'straight',
    () => way + (ends.length ? '' : ' Nobody is left who may hear it.'),
  );
  const out = (jack: string) => ({ device: player.device.id, jack });
  const ears = shared && making.devices.find((d) => d.name === shared.name);
  if (ears) making.join(out('out'), { device: ears.id, jack: 'inR' }, METRES.desk, 'balanced');
  const others = ears ? ends.filter((e) => e.name !== ears.name) : ends;
  if (!others.length) return;
  const isWide = kind.jacks.some((j) => j.id === 'outR');
  const at: Waiting = {
    left: out(ears ? 'outR' : 'out'),
    ...(isWide && !ears && { right: out('outR') }),
    metres: METRES.player,
  };
  const named = others.map((e) => ({ ...e, name: nameFor(e) }));
  const mono: Brief = { ...brief, means: { ...brief.means, house: 'mono' } };
  toEach(making, named, isWide ? brief : mono, at, COMES[kind.feed]);
}
