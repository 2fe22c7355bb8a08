import { sure } from '../outcome';
import { kindOf } from '../kinds';
import { deviceOf } from '../rig/find';
import type { Device, End, Lead, Rig } from '../rig/schema';
import type { SoundFigures } from './sound-figures';

/** One step of putting a rig together safely: its leads in order, and the devices that it is about. */
export interface ConnectionStep {
  what: string;
  why: string;
  leads: string[];
  devices: string[];
}

/** Leads by when they are plugged in: speakers, loops, lines to the house, the chain. */
function leadsByTurn(rig: Rig) {
  const isOnLoop = (e: End) =>
    kindOf(sure(deviceOf(rig, e.device)).kind).loops?.some(
      (l) => l.send.includes(e.jack) || l.return.includes(e.jack),
    ) === true;
  const turn = (l: Lead): 'speaker' | 'loops' | 'lines' | 'chain' =>
    l.type === 'speaker'
      ? 'speaker'
      : isOnLoop(l.from) || isOnLoop(l.to)
        ? 'loops'
        : l.type === 'balanced' || l.type === 'digital'
          ? 'lines'
          : 'chain';
  const out = {
    speaker: [] as Lead[],
    loops: [] as Lead[],
    lines: [] as Lead[],
    chain: [] as Lead[],
  };
  for (const l of rig.leads) if (l.type !== 'inside' && l.type !== 'air') out[turn(l)].push(l);
  return out;
}

/** Whether a device is switched on or fed by itself. */
const isPowered = ({ host, kind }: Device): boolean => {
  const { earth, outlets, power } = kindOf(kind);
  return host === undefined && [earth, outlets, power].some((x) => x !== undefined);
};

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
  const firstColumn = (d: Device) =>
    column({ device: d.id, jack: kindOf(d.kind).jacks[0]?.id ?? '' });
  const leads = leadsByTurn(rig);
  const speakers = reports.flatMap((r) => r.speakers);
  const amps = [...new Set(speakers.map((s) => s.amp))];
  const hasTubes = speakers.some((s) => s.tube);
  const step = (what: string, why: string, of: Partial<ConnectionStep>): ConnectionStep => ({
    what,
    why,
    leads: [],
    devices: [],
    ...of,
  });
  const steps = [
    step(
      amps.length
        ? 'Everything off; amplifiers on standby, masters down'
        : 'Everything off, levels down',
      'Nothing that is plugged in now can bang or run without a load.',
      { devices: amps },
    ),
    step(
      'Speakers, from the loads back to the amplifiers',
      'No amplifier is switched on before its load is there; a tube amplifier can be destroyed without one.',
      { leads: farEndFirst(leads.speaker) },
    ),
    step(
      'Loops: every send and its return together',
      'A send without its return can open the signal, and exchanged plugs are easiest to see now.',
      { leads: farEndFirst(leads.loops) },
    ),
    step(
      'Lines to the house, with the desk channels muted',
      'A balanced line that is plugged into an open channel thumps in everybody’s ears.',
      { leads: farEndFirst(leads.lines) },
    ),
    step(
      'The chain, from its far end to the instrument',
      'The instrument comes last, so that no half-plugged lead hums into an amplifier.',
      { leads: farEndFirst(leads.chain) },
    ),
    step(
      'Switch on: pedals, radio and rack first',
      'What comes up with a thump does so before anything amplifies it.',
      {
        devices: rig.devices
          .filter((d) => isPowered(d) && !amps.includes(d.id))
          .sort((a, b) => firstColumn(a) - firstColumn(b))
          .map((d) => d.id),
      },
    ),
    step(
      hasTubes
        ? 'Amplifiers last; tubes warm up on standby, then masters up'
        : 'Amplifiers last, then levels up',
      'Switch off in the reverse order: amplifiers first.',
      { devices: amps },
    ),
  ];
  return steps.filter((s, i) => i === 0 || s.leads.length > 0 || s.devices.length > 0);
}
