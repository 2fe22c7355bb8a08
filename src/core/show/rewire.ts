import { type Jack, kindOf } from '../kinds';
import { sure } from '../outcome';
import { FixTrial } from '../report';
import { type Edit, freshId, nameOf, type Rig } from '../rig';
import { copyWith } from '../rig/copies';
import { leadTypeFor } from '../rig/find';
import { Listener } from './effects';
import { type Fault, faultsOf, type Whole } from './faults';
import { rescues } from './rescue';
import { bitOf } from './symptoms';

/** One lead more with which a fault no longer silences an ear, tried on a copy. */
export interface Rewire {
  words: string;
  edits: Edit[];
}

/** How long the lead is taken to be, in m. */
const METRES = 3;
/** What one press may take, in s; more is no way to go on in a song. */
const PRESS_SECONDS = 40;

/**
 * A lead between two jacks that are free, with which a place hears something again though a fault
 * lasts, by itself or after one press; with which nothing is heard otherwise while all is well, in any
 * sound; and which breaks nothing, as any fix is tried. Each is tried on copies. The first that is
 * found; nothing where there is none.
 */
export function rewire(
  listener: Listener,
  fault: Fault,
  sound: string,
  ear: number,
): Rewire | undefined {
  const { whole, written } = listener;
  const id = freshId(
    'second-way',
    [...written.leads, ...written.devices].map((x) => x.id),
  );
  const [outs, ins] = [freeJacks(whole, 'out'), freeJacks(whole, 'in')];
  let trial: FixTrial | undefined;
  for (const from of outs)
    for (const to of ins) {
      if (from.device === to.device || !fits(from.jack, to.jack)) continue;
      const ends = {
        from: { device: from.device, jack: from.jack.id },
        to: { device: to.device, jack: to.jack.id },
      };
      const type = leadTypeFor(whole.rig, ends.from, ends.to);
      const edits: Edit[] = [{ edit: 'connect', lead: { id, metres: METRES, type, ...ends } }];
      const made = copyWith(written, edits);
      const way = made && wayWith(made, listener, fault, { sound, ear });
      if (way === undefined) continue;
      trial ??= new FixTrial(written);
      if (trial.outcome(edits).breaks.length) continue;
      return {
        words: `A lead from ${labelOf(whole.rig, from)} to ${labelOf(whole.rig, to)}: ${way}`,
        edits,
      };
    }
  return undefined;
}

/** How sound comes back in a rig with one lead more, in words; nothing where it does not, or costs something. */
function wayWith(
  made: Rig,
  listener: Listener,
  fault: Fault,
  { sound, ear }: { sound: string; ear: number },
): string | undefined {
  const other = new Listener(made);
  const on = other.sounds.find((s) => s.id === sound);
  const same = faultsOf(other.whole).find((f) => f.id === fault.id);
  if (!on || !same) return undefined;
  const alike = listener.sounds.every((s) =>
    listener.noticed(other.whole, s).every((bits) => bits === 0),
  );
  if (!alike) return undefined;
  const broken = same.change(other.whole);
  if ((sure(other.noticed(broken, on)[ear]) & bitOf('silent')) === 0) return 'sound goes on';
  const [way] = sure(rescues(other, same, on, [ear])[0]);
  return way && !way.spare && way.instead === undefined && way.seconds <= PRESS_SECONDS
    ? `then ${way.words}`
    : undefined;
}

interface Free {
  device: string;
  jack: Jack;
}

const labelOf = (rig: Rig, { device, jack }: Free): string =>
  `${jack.label} of ${nameOf(rig, device)}`;

/** Jacks for sound that hold no plug, of boxes that can be reached. */
const freeJacks = ({ rig, plugged }: Whole, direction: 'in' | 'out'): Free[] =>
  rig.devices
    .filter((d) => d.host === undefined)
    .flatMap((d) =>
      kindOf(d.kind)
        .jacks.filter(
          (j) =>
            j.direction === direction &&
            j.signal === 'audio' &&
            !j.inside &&
            !plugged.get(d.id)?.has(j.id),
        )
        .map((jack) => ({ device: d.id, jack })),
    );

const fits = (out: Jack, into: Jack): boolean =>
  out.connector === into.connector ||
  into.connector === 'combo' ||
  (out.connector !== 'XLR' && into.connector !== 'XLR');
