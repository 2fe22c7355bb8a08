import { sure } from '../outcome';
import { kindOf } from '../kinds';
import { deviceOf } from '../rig/find';
import type { End, Lead, Rig } from '../rig/schema';
import type { SoundFigures } from './sound-figures';

/** One step of putting a rig together safely: its leads in order, and the devices that it is about. */
export interface ConnectionStep {
  what: string;
  why: string;
  leads: string[];
  devices: string[];
}

/**
 * The order in which to connect and switch on a rig so that no amplifier runs without its load and
 * nothing bangs: loads first, then loops, then lines to the house, then the chain from its far end,
 * mains last. Usual practice and no more; amplifier manuals and local codes come first. Air and
 * links inside hosts are no leads.
 */
export function connectionOrder(rig: Rig, reports: readonly SoundFigures[]): ConnectionStep[] {
  const first = reports[0];
  if (!first) return [];
  const column = (end: End): number =>
    Math.max(
      -1,
      ...first.stations
        .filter(
          (s) => s.device === end.device && (s.outs.includes(end.jack) || s.ins.includes(end.jack)),
        )
        .map((s) => s.column),
    );
  const farEndFirst = (leads: readonly Lead[]): string[] =>
    leads
      .map((l) => ({ id: l.id, at: column(l.from) }))
      .sort((a, b) => b.at - a.at)
      .map((l) => l.id);
  const isOnLoop = (e: End) =>
    kindOf(sure(deviceOf(rig, e.device)).kind).loops?.some(
      (l) => l.send.includes(e.jack) || l.return.includes(e.jack),
    ) === true;
  const real = rig.leads.filter((l) => l.type !== 'inside' && l.type !== 'air');
  const speaker = real.filter((l) => l.type === 'speaker');
  const loops = real.filter((l) => l.type !== 'speaker' && (isOnLoop(l.from) || isOnLoop(l.to)));
  const lines = real.filter(
    (l) => ![...speaker, ...loops].includes(l) && (l.type === 'balanced' || l.type === 'digital'),
  );
  const chain = real.filter((l) => ![...speaker, ...loops, ...lines].includes(l));
  const speakers = reports.flatMap((r) => r.speakers);
  const amps = [...new Set(speakers.map((s) => s.amp))];
  const tubes = amps.filter((a) => speakers.some((s) => s.amp === a && s.tube));
  const powered = rig.devices.filter(
    (d) =>
      d.host === undefined &&
      !amps.includes(d.id) &&
      (kindOf(d.kind).earth !== undefined ||
        kindOf(d.kind).outlets !== undefined ||
        kindOf(d.kind).power !== undefined),
  );
  const steps: ConnectionStep[] = [
    {
      what: amps.length
        ? 'Everything off; amplifiers on standby, masters down'
        : 'Everything off, levels down',
      why: 'Nothing that is plugged in now can bang or run without a load.',
      leads: [],
      devices: amps,
    },
    {
      what: 'Speakers, from the loads back to the amplifiers',
      why: 'No amplifier is switched on before its load is there; a tube amplifier can be destroyed without one.',
      leads: farEndFirst(speaker),
      devices: [],
    },
    {
      what: 'Loops: every send and its return together',
      why: 'A send without its return can open the signal, and exchanged plugs are easiest to see now.',
      leads: farEndFirst(loops),
      devices: [],
    },
    {
      what: 'Lines to the house, with the desk channels muted',
      why: 'A balanced line that is plugged into an open channel thumps in everybody’s ears.',
      leads: farEndFirst(lines),
      devices: [],
    },
    {
      what: 'The chain, from its far end to the instrument',
      why: 'The instrument comes last, so that no half-plugged lead hums into an amplifier.',
      leads: farEndFirst(chain),
      devices: [],
    },
    {
      what: 'Switch on: pedals, radio and rack first',
      why: 'What comes up with a thump does so before anything amplifies it.',
      leads: [],
      devices: powered
        .sort(
          (a, b) =>
            column({ device: a.id, jack: kindOf(a.kind).jacks[0]?.id ?? '' }) -
            column({ device: b.id, jack: kindOf(b.kind).jacks[0]?.id ?? '' }),
        )
        .map((d) => d.id),
    },
    {
      what: tubes.length
        ? 'Amplifiers last; tubes warm up on standby, then masters up'
        : 'Amplifiers last, then levels up',
      why: 'Switch off in the reverse order: amplifiers first.',
      leads: [],
      devices: amps,
    },
  ];
  return steps.filter((s, i) => i === 0 || s.leads.length > 0 || s.devices.length > 0);
}
