import { kindOf, type Kind } from '../kinds';
import { sure } from '../outcome';
import { applyEdits, type Device, type Edit, type Lead, type Rig } from '../rig';
import { isEngaged, stateIn } from '../rig/device-state';
import { freshId } from '../rig/fresh-id';

/** A mistake that somebody makes at a correct rig: what it was, and the rig with it. */
export interface Planted {
  what: string;
  rig: Rig;
}

/** A kind of mistake: every way in which it can be made at a rig. */
export type Mistake = (rig: Rig) => Planted[];

const kindAt = (rig: Rig, id: string): Kind => kindOf(deviceAt(rig, id).kind);
const deviceAt = (rig: Rig, id: string): Device => sure(rig.devices.find((d) => d.id === id));
const jackAt = (rig: Rig, { device, jack }: Lead['from']) =>
  sure(kindAt(rig, device).jacks.find((j) => j.id === jack));
const nameAt = (rig: Rig, end: Lead['from']) =>
  `${deviceAt(rig, end.device).name}, ${jackAt(rig, end).label}`;
const words = (rig: Rig, l: Lead) => `${nameAt(rig, l.from)} to ${nameAt(rig, l.to)}`;

/** Leads that somebody plugs and that carry audio. */
const audio = (rig: Rig): Lead[] =>
  rig.leads.filter((l) => ['instrument', 'balanced', 'speaker'].includes(l.type));

const made = (rig: Rig, what: string, ...edits: Edit[]): Planted[] => {
  const done = applyEdits(rig, edits);
  return done.ok ? [{ what, rig: done.value.rig }] : [];
};

const pulled =
  (which: (rig: Rig, lead: Lead) => boolean): Mistake =>
  (rig) =>
    audio(rig)
      .filter((l) => which(rig, l))
      .flatMap((l) => made(rig, `pulled ${words(rig, l)}`, { edit: 'disconnect', lead: l.id }));

const isSend = (rig: Rig, l: Lead) =>
  kindAt(rig, l.from.device).loops?.some((x) => x.send.includes(l.from.jack)) === true;
const isReturn = (rig: Rig, l: Lead) =>
  kindAt(rig, l.to.device).loops?.some((x) => x.return.includes(l.to.jack)) === true;
const isInstrument = (rig: Rig, id: string) => kindAt(rig, id).job === 'instrument';
const isPlayed = (rig: Rig, id: string) =>
  rig.sounds.some((s) => isEngaged(kindAt(rig, id), deviceAt(rig, id), stateIn(s, id)));
/** Whether somebody hears both sides. */
const isHeardWide = (rig: Rig) =>
  rig.devices.some((d) => (kindOf(d.kind).destination?.jacks.length ?? 0) > 1);
/** The side of a pair that a lead carries, where the other side has a lead of its own. */
const sideOf = (rig: Rig, l: Lead): string | undefined => {
  const { pair } = jackAt(rig, l.from);
  return pair && rig.leads.some((o) => o.from.device === l.from.device && o.from.jack === pair.with)
    ? pair.side
    : undefined;
};

/** Two leads exchanged at one end, where both are at one device there. */
const exchanged =
  (end: 'from' | 'to', which: (rig: Rig, a: Lead, b: Lead) => boolean): Mistake =>
  (rig) =>
    audio(rig).flatMap((a, i) =>
      audio(rig)
        .slice(i + 1)
        .filter((b) => a[end].device === b[end].device && a[end].jack !== b[end].jack)
        .filter((b) => jackAt(rig, a[end]).signal === jackAt(rig, b[end]).signal)
        .filter((b) => which(rig, a, b))
        .flatMap((b) =>
          made(
            rig,
            `exchanged ${nameAt(rig, a[end])} and ${nameAt(rig, b[end])}`,
            ...[a, b].map((l): Edit => ({ edit: 'disconnect', lead: l.id })),
            { edit: 'connect', lead: { ...a, [end]: b[end] } },
            { edit: 'connect', lead: { ...b, [end]: a[end] } },
          ),
        ),
    );

const retyped =
  (from: Lead['type'], to: Lead['type']): Mistake =>
  (rig) =>
    audio(rig)
      .filter((l) => l.type === from)
      .flatMap((l) =>
        made(
          rig,
          `a lead of the sort ${to}, ${words(rig, l)}`,
          { edit: 'disconnect', lead: l.id },
          { edit: 'connect', lead: { ...l, type: to } },
        ),
      );

const remade =
  (type: Lead['type'], change: Partial<Lead>, which = (_: Rig, __: Lead) => true): Mistake =>
  (rig) =>
    audio(rig)
      .filter((l) => l.type === type && which(rig, l))
      .flatMap((l) =>
        made(
          rig,
          `${JSON.stringify(change)} for ${words(rig, l)}`,
          { edit: 'disconnect', lead: l.id },
          { edit: 'connect', lead: { ...l, ...change } },
        ),
      );

const tapOf =
  (value: number): Mistake =>
  (rig) =>
    rig.devices
      .filter((d) => d.kind.startsWith('head-'))
      .flatMap((d) =>
        made(rig, `the tap of ${d.name} at ${value} Ω`, {
          edit: 'overrideFigure',
          device: d.id,
          figure: 'tapOhms',
          override: { value, from: 'sheet' },
        }),
      );

/** A box of one job moved right before or behind one of another, both switched on somewhere. */
const moved =
  (job: Kind['job'], where: 'before' | 'behind', other: Kind['job']): Mistake =>
  (rig) => {
    const are = (j: Kind['job']) =>
      rig.devices.filter((d) => kindOf(d.kind).job === j && d.host === undefined);
    const isMono = (d: Device) =>
      audio(rig).filter((l) => [l.from.device, l.to.device].includes(d.id)).length === 2;
    return are(job)
      .filter(isMono)
      .flatMap((d) =>
        are(other).flatMap((o) => {
          const { through } = kindOf(o.kind);
          const lead = rig.leads.find((l) =>
            where === 'before'
              ? l.to.device === o.id && l.to.jack === through?.in
              : l.from.device === o.id && l.from.jack === through?.out,
          );
          if (!lead || [lead.from.device, lead.to.device].includes(d.id)) return [];
          const ids = ['-a', '-b'].map((x) =>
            freshId(
              `moved${x}`,
              rig.leads.map((l) => l.id),
            ),
          );
          return made(rig, `${d.name} ${where} ${o.name}`, {
            edit: 'moveDevice',
            device: d.id,
            lead: lead.id,
            newLeads: [sure(ids[0]), sure(ids[1])],
          });
        }),
      );
  };

/** A box put into the lead of an instrument. */
const inFront =
  (kind: string): Mistake =>
  (rig) =>
    audio(rig)
      .filter((l) => isInstrument(rig, l.from.device))
      .flatMap((l) =>
        made(rig, `${kind} behind ${nameAt(rig, l.from)}`, {
          edit: 'insertInLead',
          lead: l.id,
          newLeads: ['put-a', 'put-b'],
          device: { id: 'put', kind, name: 'Put in', engaged: true },
        }),
      );

const secondCabinet: Mistake = (rig) =>
  rig.devices
    .filter((d) => kindOf(d.kind).job === 'cabinet')
    .flatMap((d) => {
      const through = kindOf(d.kind).jacks.find(
        (j) => j.signal === 'speaker' && j.id !== 'in' && j.direction !== 'in',
      );
      return through
        ? made(
            rig,
            `a second cabinet behind ${d.name}`,
            { edit: 'addDevice', device: { id: 'second', kind: d.kind, name: 'Second cabinet' } },
            {
              edit: 'connect',
              lead: {
                id: 'second-lead',
                type: 'speaker',
                metres: 1,
                from: { device: d.id, jack: through.id },
                to: { device: 'second', jack: 'in' },
              },
            },
          )
        : [];
    });

const removed =
  (which: (d: Device) => boolean): Mistake =>
  (rig) =>
    rig.devices
      .filter(which)
      .flatMap((d) => made(rig, `without ${d.name}`, { edit: 'removeDevice', device: d.id }));

/** Kinds of mistake, and the rules by which one of each is told. */
export const MISTAKES: Record<string, { plant: Mistake; told: string[] }> = {
  'the lead of an instrument is missing': {
    plant: pulled((rig, l) => isInstrument(rig, l.from.device)),
    told: ['open-end', 'no-route', 'unplugged'],
  },
  'a lead between boxes is missing': {
    plant: pulled(
      (rig, l) =>
        !isInstrument(rig, l.from.device) &&
        l.type === 'instrument' &&
        !isSend(rig, l) &&
        !isReturn(rig, l) &&
        sideOf(rig, l) === undefined,
    ),
    told: ['open-end', 'no-route', 'half-pair'],
  },
  'a send is missing': {
    plant: pulled((rig, l) => isSend(rig, l)),
    told: ['half-loop', 'no-route', 'silent', 'open-end', 'priority'],
  },
  'a return is missing': {
    plant: pulled((rig, l) => isReturn(rig, l) && sideOf(rig, l) === undefined),
    told: ['half-loop', 'open-end', 'no-route'],
  },
  'the left side is missing': {
    plant: pulled((rig, l) => sideOf(rig, l) === 'left'),
    told: ['half-pair', 'half-wide', 'silent', 'no-route', 'open-end'],
  },
  'the right side is missing': {
    plant: pulled((rig, l) => sideOf(rig, l) === 'right'),
    told: ['half-pair', 'half-wide', 'collapse', 'silent', 'no-route', 'open-end'],
  },
  'a speaker lead is missing': {
    plant: pulled((_, l) => l.type === 'speaker'),
    told: ['no-load'],
  },
  'a line to a desk is missing': {
    plant: pulled((rig, l) => l.type === 'balanced' && sideOf(rig, l) === undefined),
    told: ['open-end', 'no-route', 'half-pair', 'half-wide'],
  },
  'left and right are exchanged where they leave': {
    plant: exchanged(
      'from',
      (rig, a, b) => isHeardWide(rig) && jackAt(rig, a.from).pair?.with === b.from.jack,
    ),
    told: ['sides-exchanged'],
  },
  'left and right are exchanged where they arrive': {
    plant: exchanged(
      'to',
      (rig, a, b) => isHeardWide(rig) && jackAt(rig, a.to).pair?.with === b.to.jack,
    ),
    told: ['sides-exchanged'],
  },
  'two sends are exchanged': {
    plant: exchanged(
      'from',
      (rig, a, b) =>
        isSend(rig, a) && isSend(rig, b) && jackAt(rig, a.from).pair?.with !== b.from.jack,
    ),
    told: ['swapped'],
  },
  'two returns are exchanged': {
    plant: exchanged(
      'to',
      (rig, a, b) =>
        isReturn(rig, a) && isReturn(rig, b) && jackAt(rig, a.to).pair?.with !== b.to.jack,
    ),
    told: ['swapped', 'sides-exchanged'],
  },
  'input and return are exchanged': {
    plant: exchanged('to', (rig, a, b) => isReturn(rig, a) !== isReturn(rig, b)),
    told: ['swapped'],
  },
  'output and send are exchanged': {
    plant: exchanged('from', (rig, a, b) => isSend(rig, a) !== isSend(rig, b)),
    told: ['swapped', 'unfiltered', 'no-route'],
  },
  'an instrument lead to a loudspeaker': {
    plant: retyped('speaker', 'instrument'),
    told: ['speaker-lead'],
  },
  'a speaker lead between boxes': {
    plant: retyped('instrument', 'speaker'),
    told: ['speaker-lead'],
  },
  'a tap for less than the cabinet has': { plant: tapOf(4), told: ['impedance'] },
  'a tap for more than the cabinet has': { plant: tapOf(16), told: ['impedance'] },
  'a second cabinet': { plant: secondCabinet, told: ['impedance'] },
  'a long, thin speaker lead': {
    plant: remade('speaker', { metres: 15, squareMm: 0.75 }),
    told: ['speaker-lead-loss'],
  },
  'a very long lead from the instrument': {
    plant: remade(
      'instrument',
      { metres: 25 },
      (rig, l) => isInstrument(rig, l.from.device) && isPlayed(rig, l.from.device),
    ),
    told: ['dull-lead'],
  },
  'a very long lead from an instrument at rest': {
    plant: remade(
      'instrument',
      { metres: 25 },
      (rig, l) => isInstrument(rig, l.from.device) && !isPlayed(rig, l.from.device),
    ),
    told: ['dull-lead'],
  },
  'a balanced line on an unbalanced lead': {
    plant: remade('balanced', { type: 'instrument' }, (rig, l) =>
      [l.from, l.to].every((end) => ['XLR', 'combo'].includes(jackAt(rig, end).connector)),
    ),
    told: ['unbalanced-line'],
  },
  'a buffer ahead of what wants the pickup': {
    plant: (rig) =>
      rig.devices.some((d) => kindOf(d.kind).wantsBarePickup) ? inFront('buffer')(rig) : [],
    told: ['bare-pickup'],
  },
  'a delay before the drives': {
    plant: moved('delay', 'before', 'drive'),
    told: ['time-after-dirt'],
  },
  'a reverb before the drives': {
    plant: moved('reverb', 'before', 'drive'),
    told: ['time-after-dirt'],
  },
  'a wah behind the drives': {
    plant: moved('filter', 'behind', 'drive'),
    told: ['filter-before-dirt'],
  },
  'a compressor behind the drives': {
    plant: moved('compressor', 'behind', 'drive'),
    told: ['compressor-early', 'noise'],
  },
  'a gate before the drives': {
    plant: moved('gate', 'before', 'drive'),
    told: ['gate-place', 'noise'],
  },
  'a volume pedal behind the reverb': {
    plant: moved('volume', 'behind', 'reverb'),
    told: ['volume-place'],
  },
  'a tuner behind the delay': { plant: moved('tuner', 'behind', 'delay'), told: ['tuner-place'] },
  'a MIDI lead is missing': {
    plant: (rig) =>
      rig.leads
        .filter((l) => l.type === 'midi')
        .flatMap((l) => made(rig, `pulled ${words(rig, l)}`, { edit: 'disconnect', lead: l.id })),
    told: ['midi-cut', 'midi-clock', 'midi-commander'],
  },
  'the isolator of two amplifiers left out': {
    plant: removed((d) => d.kind === 'hum-isolator'),
    told: ['hum-loop'],
  },
};
