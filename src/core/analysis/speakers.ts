import { at, sure } from '../outcome';
import type { Fix, Remark } from '../findings/finding';
import { figureWith, kindOf } from '../kinds';
import { jackOf, leadFrom, leadInto } from '../rig/find';
import { fixed } from '../units';
import type { Remarker } from './evidence';
import type { SoundContext } from '../signal/sound-context';

/** What a speaker output sees in one sound. */
export interface SpeakerLine {
  amp: string;
  /** Load in ohms; `null` where there is none. */
  loadOhms: number | null;
  /** The tap, or the lowest load that a solid-state stage bears, in ohms. */
  tapOhms: number;
  tube: boolean;
  watts: number;
  /** Each load with its share of the rated power, in watts. */
  loads: { device: string; watts: number; ratedWatts: number }[];
  /** Other speaker outputs on the same line. */
  others: string[];
  /** Level lost in the speaker leads of the line, in dB. */
  lossDb: number;
}

/** Resistance of a speaker lead in ohms a metre and conductor, by cross-section: copper, 0.01725 Ω·mm²/m. */
export const leadOhmsPerMetre = (squareMm: number): number => 0.01725 / squareMm;

/** Cross-section of a speaker lead where none is stated, in mm². */
export const USUAL_SQUARE_MM = 2.5;

/** Level lost in a speaker lead, in dB: `20·log10(Z / (Z + 2·ℓ·r))`. */
export const speakerLeadLossDb = (
  ohms: number,
  metres: number,
  squareMm = USUAL_SQUARE_MM,
): number => 20 * Math.log10(ohms / (ohms + 2 * metres * leadOhmsPerMetre(squareMm)));

/** Every speaker output of a sound with what it drives: parallel loads `1/Σ(1/Z)`, series loads `ΣZ`. */
export function speakerLines(ctx: SoundContext): SpeakerLine[] {
  const { drivers, nets } = ctx.flowing.circuit;
  return drivers.flatMap((d) => {
    const speaker = d.stages.find((s) => s.stage.speaker)?.stage.speaker;
    if (!speaker) return [];
    const net = at(nets, d.net);
    const siemens = net.coils.reduce((s, c) => s + 1 / c.ohms, 0);
    const metres = net.leads
      .map((id) => sure(ctx.rig.leads.find((l) => l.id === id)))
      .filter((l) => l.type === 'speaker');
    const ohms = siemens > 0 ? 1 / siemens : null;
    return [
      {
        amp: d.device,
        loadOhms: ohms,
        tapOhms: speaker.ohms,
        tube: speaker.tube,
        watts: speaker.watts,
        loads: net.coils.map((c) => ({
          device: c.device,
          ratedWatts: c.watts,
          watts: speaker.watts * (1 / c.ohms / siemens),
        })),
        others: drivers
          .filter((o) => o !== d && o.net === d.net && o.stages.some((s) => s.stage.speaker))
          .map((o) => o.device),
        lossDb:
          ohms === null
            ? 0
            : metres.reduce((s, l) => s + speakerLeadLossDb(ohms, l.metres, l.squareMm), 0),
      },
    ];
  });
}

/** One step of taps (8 into 4 or 16) is a factor of two; more is a danger. */
const ONE_STEP = 2;
/** Loads within this factor of the tap are the same load: nominal impedances are round figures. */
const SAME = 1.15;
/** Taps that most output transformers have, in ohms. */
const USUAL_TAPS = [4, 8, 16];

/** The tap that matches a load, where a usual one does. */
function matchingTap(ctx: SoundContext, amp: string, loadOhms: number): Fix | undefined {
  const ohms = USUAL_TAPS.find((t) => Math.max(t / loadOhms, loadOhms / t) <= SAME);
  const device = ctx.device(amp);
  const tap = figureWith(kindOf(device.kind), 'speaker tap');
  if (ohms === undefined || !tap) return undefined;
  return {
    words: `Set the tap of ${device.name} to ${ohms} Ω`,
    edits: [
      {
        edit: 'overrideFigure',
        device: amp,
        figure: tap.id,
        override: { value: ohms, from: 'sheet' },
      },
    ],
  };
}

/** From here on a lead takes away what one would hear, in dB. */
const HEARD_LOSS_DB = -0.5;

/** Loads, taps, power ratings and leads between amplifiers and speakers. */
export const speakerRemarks: Remarker = ({ ctx, speakers }) => {
  const remarks: Remark[] = [];
  const name = (id: string) => ctx.device(id).name;
  const ohms = (z: number) => `${fixed(z, z < 10 && z % 1 ? 2 : 0)} Ω`;
  const paired = new Set<string>();
  for (const line of speakers) {
    const { amp, loadOhms, tapOhms } = line;
    if (line.others.length && !paired.has([amp, ...line.others].sort().join())) {
      paired.add([amp, ...line.others].sort().join());
      remarks.push({
        rule: 'two-amps',
        severity: 'danger',
        subjects: [amp, ...line.others],
        what: `${[amp, ...line.others].map(name).join(' and ')} drive one speaker line together.`,
        why:
          'Two power stages on one cabinet feed each other and destroy themselves. Give each ' +
          'its own cabinet, or a switcher that connects one at a time.',
      });
    }
    if (loadOhms === null) {
      if (line.tube) {
        remarks.push({
          rule: 'no-load',
          severity: 'danger',
          subjects: [amp],
          what: `${name(amp)} has no load on its speaker output.`,
          why:
            'A tube amplifier driven without a load can destroy its output transformer. Connect ' +
            'a cabinet or a load box of the right impedance, with a speaker lead, before it is ' +
            'switched on.',
        });
      }
      continue;
    }
    if (line.tube) {
      const apart = Math.max(loadOhms / tapOhms, tapOhms / loadOhms);
      if (apart > SAME) {
        const danger = apart > ONE_STEP * SAME;
        remarks.push({
          rule: 'impedance',
          severity: danger ? 'danger' : 'caution',
          subjects: [amp, ...line.loads.map((l) => l.device)],
          what: `${name(amp)} is set to ${ohms(tapOhms)} and sees ${ohms(loadOhms)}.`,
          why: danger
            ? 'More than one step off stresses tubes and output transformer. Choose the tap that ' +
              'matches, or other cabinets.'
            : 'One step off works in many amplifiers and not in all: check the amplifier’s ' +
              'manual, or choose the tap that matches.',
          fix: matchingTap(ctx, amp, loadOhms),
        });
      }
    } else if (loadOhms < tapOhms / 1.02) {
      remarks.push({
        rule: 'impedance',
        severity: 'danger',
        subjects: [amp, ...line.loads.map((l) => l.device)],
        what: `${name(amp)} sees ${ohms(loadOhms)}, less than the ${ohms(tapOhms)} it bears.`,
        why:
          'A solid-state stage overheats or shuts down under its lowest load. Use fewer ' +
          'cabinets, or put them in series.',
      });
    }
    for (const load of line.loads) {
      const ratio = load.ratedWatts / load.watts;
      if (ratio >= 1.5) continue;
      remarks.push({
        rule: 'speaker-power',
        severity: ratio < 1 ? 'fault' : 'caution',
        subjects: [load.device, amp],
        about: `${load.device}+${amp}`,
        what:
          `${name(load.device)} is rated ${fixed(load.ratedWatts, 0)} W and can ` +
          `get ${fixed(load.watts, 0)} W from ${name(amp)}.`,
        why:
          ratio < 1
            ? 'Its speakers can burn at full power. Use a cabinet of at least 1.5 times the power.'
            : `That is ${fixed(ratio, 2)} times the power; under 1.5 times there is little in ` +
              'hand when the amplifier is driven hard.',
      });
    }
    if (line.lossDb < HEARD_LOSS_DB) {
      remarks.push({
        rule: 'speaker-lead-loss',
        severity: 'advice',
        subjects: [amp],
        what: `The speaker leads of ${name(amp)} take ${fixed(-line.lossDb)} dB.`,
        why: 'Long thin leads heat themselves instead of the speaker. Use shorter ones or a larger cross-section.',
      });
    }
  }
  for (const lead of ctx.rig.leads) {
    const from = jackOf(ctx.device(lead.from.device), lead.from.jack)?.signal;
    const to = jackOf(ctx.device(lead.to.device), lead.to.jack)?.signal;
    if (from === 'speaker' && lead.type !== 'speaker') {
      remarks.push({
        rule: 'speaker-lead',
        severity: 'danger',
        subjects: [lead.id, lead.from.device],
        what: `The lead from ${name(lead.from.device)} to ${name(lead.to.device)} is no speaker lead.`,
        why: 'An instrument lead in a speaker line overheats and can take the output stage with it.',
        fix: {
          words: 'Make it a speaker lead',
          edits: [{ edit: 'setLead', lead: lead.id, type: 'speaker' }],
        },
      });
    } else if (lead.type === 'speaker' && from !== 'speaker') {
      remarks.push({
        rule: 'speaker-lead',
        severity: 'caution',
        subjects: [lead.id, lead.from.device],
        what: `A speaker lead carries signal from ${name(lead.from.device)}.`,
        why: 'It has no screen, so it picks up hum.',
        fix: {
          words: 'Make it an instrument lead',
          edits: [{ edit: 'setLead', lead: lead.id, type: 'instrument' }],
        },
      });
    }
    if (from === 'speaker' && to !== 'speaker') {
      remarks.push({
        rule: 'speaker-into-signal',
        severity: 'danger',
        subjects: [lead.id, lead.to.device],
        what: `The speaker output of ${name(lead.from.device)} runs into ${name(lead.to.device)}.`,
        why: 'Speaker level destroys a signal input, and the amplifier has no load. Disconnect it.',
      });
    }
    if (from !== 'speaker' && to === 'speaker') {
      remarks.push({
        rule: 'signal-into-speaker',
        severity: 'fault',
        subjects: [lead.id, lead.to.device],
        what: `${name(lead.from.device)} cannot drive ${name(lead.to.device)}.`,
        why: 'A speaker line needs a power stage; only a speaker output drives it.',
      });
    }
  }
  // A switcher that leaves what is not selected without a load is safe only if its maker says how
  // it mutes the input.
  for (const device of ctx.rig.devices) {
    const line = kindOf(device.kind).loops?.find((l) => l.ofSpeakerLine);
    const isSent = line?.send.some((jack) => leadFrom(ctx.rig, device.id, jack));
    const comesBack = line?.return.some((jack) => leadInto(ctx.rig, device.id, jack));
    if (isSent && !comesBack)
      remarks.push({
        rule: 'half-line',
        severity: 'danger',
        subjects: [device.id],
        what: `The line insert of ${device.name} is sent out and does not come back.`,
        why:
          'With one plug only, the line insert is not in use; what hangs on it gets nothing. ' +
          'Bring the other end back before playing.',
      });
  }
  return remarks;
};
