import { type Fix, fixes, type Remark } from '../findings/finding';
import { kindOf } from '../kinds';
import { jackOf, leadFrom, leadInto } from '../rig/find';
import type { Lead } from '../rig/schema';
import { allOf, fixed } from '../units';
import type { Remarker } from './evidence';
import { againWords, broughtBack, type Unheard, unheardIn } from './missing-leads';
import type { SoundContext } from '../signal/sound-context';
import {
  loadsFor,
  matchingTap,
  ohms,
  ontoBox,
  SAME,
  thickerLeads,
  throughBox,
  withoutOne,
} from './speaker-fixes';
import type { SpeakerLine } from './speaker-lines';

/** One step of taps (8 into 4 or 16) is a factor of two; more is a danger. */
const ONE_STEP = 2;
/** From here on a lead takes away what one would hear, in dB. */
const HEARD_LOSS_DB = -0.5;

/** Under this part of its rating a load has little in hand when the amplifier is driven hard. */
const IN_HAND = 1.5;

/** Loads, taps, power ratings and leads between amplifiers and speakers. */
export const speakerRemarks: Remarker = ({ ctx, speakers, stations, destinations }) => {
  const paired = new Set<string>();
  const unheard = unheardIn({ ctx, stations, destinations });
  return [
    ...speakers.flatMap((line) => [
      ...twoAmps(ctx, line, paired),
      ...(line.loadOhms === null
        ? noLoad(ctx, line, unheard)
        : [
            ...impedance(ctx, line, line.loadOhms),
            ...powerRatings(ctx, line),
            ...leadLoss(ctx, line),
          ]),
    ]),
    ...ctx.rig.leads.flatMap((lead) => speakerLeads(ctx, lead)),
    ...halfLines(ctx),
  ];
};

const nameIn = (ctx: SoundContext) => (id: string) => ctx.device(id).name;

/** Two power stages on one line, told once for all of them. */
function twoAmps(ctx: SoundContext, { amp, others }: SpeakerLine, paired: Set<string>): Remark[] {
  const all = [amp, ...others];
  const key = [...all].sort().join();
  if (!others.length || paired.has(key)) return [];
  paired.add(key);
  return [
    {
      rule: 'two-amps',
      severity: 'danger',
      subjects: all,
      what: `${allOf(all.map(nameIn(ctx)))} drive one speaker line together.`,
      why: 'Two power stages on one cabinet feed each other and destroy themselves.',
      ...fixes(all.flatMap((one) => ontoBox(ctx, one))),
    },
  ];
}

function noLoad(
  ctx: SoundContext,
  { amp, tube, tapOhms }: SpeakerLine,
  unheard: Unheard,
): Remark[] {
  if (!tube) return [];
  const ways = loadsFor(ctx, amp, tapOhms);
  const back = broughtBack(ctx, ways[0]?.edits ?? [], unheard);
  return [
    {
      rule: 'no-load',
      severity: 'danger',
      subjects: [amp, ...back],
      about: amp,
      what: `${ctx.device(amp).name} has no load on its speaker output.`,
      why:
        'A tube amplifier driven without a load can destroy its output transformer. Connect ' +
        'a cabinet or a load box of the right impedance, with a speaker lead, before it is ' +
        `switched on.${againWords(ctx, back)}`,
      ...fixes(ways),
    },
  ];
}

function impedance(ctx: SoundContext, line: SpeakerLine, loadOhms: number): Remark[] {
  const { amp, tapOhms } = line;
  const subjects = [amp, ...line.loads.map((l) => l.device)];
  const name = ctx.device(amp).name;
  if (!line.tube)
    return loadOhms >= tapOhms / 1.02
      ? []
      : [
          {
            rule: 'impedance',
            severity: 'danger',
            subjects,
            what: `${name} sees ${ohms(loadOhms)}, less than the ${ohms(tapOhms)} it bears.`,
            why: 'A solid-state stage overheats or shuts down under its lowest load.',
            ...fixes(withoutOne(ctx, line)),
          },
        ];
  const apart = Math.max(loadOhms / tapOhms, tapOhms / loadOhms);
  if (apart <= SAME) return [];
  const danger = apart > ONE_STEP * SAME;
  const taps = matchingTap(ctx, amp, loadOhms);
  const help = taps.length ? 'a tap of it matches' : 'no tap of it matches';
  return [
    {
      rule: 'impedance',
      severity: danger ? 'danger' : 'caution',
      subjects,
      what: `${name} is set to ${ohms(tapOhms)} and sees ${ohms(loadOhms)}.`,
      why: danger
        ? `More than one step off stresses tubes and output transformer; ${help}.`
        : 'One step off works in many amplifiers and not in all: check the amplifier’s ' +
          `manual; ${help}.`,
      ...fixes([...taps, ...withoutOne(ctx, line)]),
    },
  ];
}

/** Loads that get more than they bear, or little less. The dummy load of an amplifier at rest gets nothing. */
const powerRatings = (ctx: SoundContext, { amp, idle, loads }: SpeakerLine): Remark[] =>
  loads.flatMap((load): Remark[] => {
    const ratio = load.ratedWatts / load.watts;
    const isDummy = kindOf(ctx.device(load.device).kind).job !== 'cabinet';
    if (ratio >= IN_HAND || (idle && isDummy)) return [];
    return [
      {
        rule: 'speaker-power',
        severity: ratio < 1 ? 'fault' : 'caution',
        subjects: [load.device, amp],
        about: `${load.device}+${amp}`,
        what:
          `${ctx.device(load.device).name} is rated ${fixed(load.ratedWatts, 0)} W and can ` +
          `get ${fixed(load.watts, 0)} W from ${ctx.device(amp).name}.`,
        why:
          ratio < 1
            ? 'Its speakers can burn at full power; 1.5 times the power is usual.'
            : `That is ${fixed(ratio, 2)} times the power; under 1.5 times there is little in ` +
              'hand when the amplifier is driven hard.',
      },
    ];
  });

function leadLoss(ctx: SoundContext, { amp, lossDb }: SpeakerLine): Remark[] {
  if (lossDb >= HEARD_LOSS_DB) return [];
  return [
    {
      rule: 'speaker-lead-loss',
      severity: 'advice',
      subjects: [amp],
      what: `The speaker leads of ${ctx.device(amp).name} take ${fixed(-lossDb)} dB.`,
      why: 'Long thin leads heat themselves instead of the speaker.',
      ...fixes(thickerLeads(ctx, amp)),
    },
  ];
}

/** Leads of the wrong sort at a speaker jack, and jacks that no lead may join. */
function speakerLeads(ctx: SoundContext, lead: Lead): Remark[] {
  const [from, to] = [ctx.device(lead.from.device), ctx.device(lead.to.device)];
  const sent = jackOf(from, lead.from.jack)?.signal;
  const taken = jackOf(to, lead.to.jack)?.signal;
  const retyped = (words: string, type: Lead['type']): Fix => ({
    words,
    edits: [{ edit: 'setLead', lead: lead.id, type }],
  });
  const remarks: Remark[] = [];
  if (sent === 'speaker' && lead.type !== 'speaker')
    remarks.push({
      rule: 'speaker-lead',
      severity: 'danger',
      subjects: [lead.id, from.id],
      what: `The lead from ${from.name} to ${to.name} is no speaker lead.`,
      why: 'An instrument lead in a speaker line overheats and can take the output stage with it.',
      fix: retyped('Make it a speaker lead', 'speaker'),
    });
  else if (lead.type === 'speaker' && sent !== 'speaker')
    remarks.push({
      rule: 'speaker-lead',
      severity: 'caution',
      subjects: [lead.id, from.id],
      what: `A speaker lead carries signal from ${from.name}.`,
      why: 'It has no screen, so it picks up hum.',
      fix: retyped('Make it an instrument lead', 'instrument'),
    });
  if (sent === 'speaker' && taken !== 'speaker')
    remarks.push({
      rule: 'speaker-into-signal',
      severity: 'danger',
      subjects: [lead.id, to.id],
      what: `The speaker output of ${from.name} runs into ${to.name}.`,
      why: 'Speaker level destroys a signal input, and the amplifier has no load. Disconnect it.',
      ...fixes(throughBox(ctx, lead)),
    });
  if (sent !== 'speaker' && taken === 'speaker')
    remarks.push({
      rule: 'signal-into-speaker',
      severity: 'fault',
      subjects: [lead.id, to.id],
      what: `${from.name} cannot drive ${to.name}.`,
      why: 'A speaker line needs a power stage; only a speaker output drives it.',
    });
  return remarks;
}

/**
 * An insert in a speaker line with one plug only. A switcher that leaves what is not selected without
 * a load is safe only if its maker says how it mutes the input.
 */
const halfLines = ({ rig }: SoundContext): Remark[] =>
  rig.devices.flatMap((device): Remark[] => {
    const line = kindOf(device.kind).loops?.find((l) => l.ofSpeakerLine);
    const isSent = line?.send.some((jack) => leadFrom(rig, device.id, jack));
    const comesBack = line?.return.some((jack) => leadInto(rig, device.id, jack));
    if (!isSent || comesBack) return [];
    return [
      {
        rule: 'half-line',
        severity: 'danger',
        subjects: [device.id],
        what: `The line insert of ${device.name} is sent out and does not come back.`,
        why: 'With one plug only, the line insert is not in use; what hangs on it gets nothing.',
      },
    ];
  });
