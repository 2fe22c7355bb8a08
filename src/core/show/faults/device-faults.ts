import { kindOf, type Pass } from '../../kinds';
import { resolveState } from '../../rig/device-state';
import { blocksOf } from '../../rig/find';
import type { Device, Rig } from '../../rig/schema';
import { placeOf } from '../../rig/stands-where';
import { noisyAt, passing, standing } from './changes';
import { type Fault, REACH_SECONDS, type Sort, WEAR, type Whole } from './fault';
import { boxes, soundOuts } from './look';

/** How much softer a device that has become weak is, in dB. */
const WEAK_DB = 12;

/** Devices: dead, stuck through, stuck engaged, noisy, weak, one side dead. */
export const deviceFaults: Sort = {
  id: 'device',
  words: 'Devices',
  odds:
    'A device dies in 0.4 of 1000 shows, becomes noisy in 0.3, sticks in 0.2; twice that where it ' +
    'is trodden on. The battery of an instrument is empty in 2.5.',
  expand: ({ rig }) => boxes(rig).flatMap((d) => [...ofDevice(rig, d), ...ofBattery(d)]),
};

/** Whether a device needs power to do what it does. */
export const needsPower = (device: Device): boolean => {
  const kind = kindOf(device.kind);
  return kind.power !== undefined || kind.mains !== undefined || kind.phantom === true;
};

/**
 * What still passes without power: metal, loads and bare pickups, as the device is when bypassed. What
 * has a stage in its bypass passes nothing.
 */
const unpowered = (passes: Pass[]): Pass[] =>
  passes.filter((p) => p.is !== 'stage' && p.is !== 'arrive' && (p.is !== 'source' || p.bare));

/** Devices without power, with what lives inside them. */
export const dead = (whole: Whole, devices: readonly string[]): Whole =>
  passing(
    whole,
    devices.flatMap((d) => [d, ...blocksOf(whole.rig, d).map((b) => b.id)]),
    'dead',
    (own, state) => unpowered(own({ ...state, engaged: false })),
  );

/** Every active stage that drives one of these jacks, changed. */
export const withStages = (
  whole: Whole,
  device: string,
  key: string,
  change: (stage: Extract<Pass, { is: 'stage' }>) => Pass,
): Whole =>
  passing(whole, [device], key, (own, state) =>
    own(state).map((p) => (p.is === 'stage' ? change(p) : p)),
  );

function ofDevice(rig: Rig, device: Device): Fault[] {
  const kind = kindOf(device.kind);
  const outs = soundOuts(device);
  const active = needsPower(device);
  if (kind.job === 'supply' || kind.job === 'controller' || kind.job === 'interface') return [];
  if (kind.job === 'instrument' && !active) return [];
  const where = placeOf(device);
  const base = {
    sort: 'device' as const,
    subjects: [device.id],
    dark: [],
    where,
    mend: {
      words: `put the spare in place of ${device.name}`,
      seconds: REACH_SECONDS[where] + 90,
      spare: { is: 'device' as const, kind: device.kind },
    },
  };
  const wear = WEAR[where];
  const faults: Fault[] = [];
  const add = (
    id: string,
    words: string,
    odds: number,
    rest: Partial<Fault> & Pick<Fault, 'change'>,
  ) => faults.push({ ...base, id: `${id} ${device.id}`, words, perThousand: odds * wear, ...rest });
  if (active)
    add('dead', `${device.name} is dead`, 0.4, {
      dark: [device.id],
      change: (w) => dead(w, [device.id]),
    });
  if (canStick(rig, device, true))
    add('stuck through', `${device.name} stays bypassed`, 0.2, {
      change: (w) => standing(w, device.id, { engaged: false }),
    });
  if (canStick(rig, device, false))
    add('stuck engaged', `${device.name} stays engaged`, 0.15, {
      change: (w) => standing(w, device.id, { engaged: true }),
    });
  const [out] = outs;
  if (active && out) {
    add('noisy', `${device.name} has become noisy`, 0.3, {
      change: (w) => noisyAt(w, device.id, out.id, 'hiss'),
    });
    add('weak', `${device.name} has become weak`, 0.15, {
      change: (w) =>
        withStages(w, device.id, 'weak', (s) => ({ ...s, outputDb: s.outputDb - WEAK_DB })),
    });
  }
  for (const jack of active ? outs.filter((j) => j.pair) : [])
    add(`side dead ${jack.id}`, `${jack.label} of ${device.name} is dead`, 0.15, {
      change: (w) =>
        withStages(w, device.id, `side ${jack.id}`, (s) =>
          s.to === jack.id ? { ...s, muted: true } : s,
        ),
    });
  return faults;
}

/** An instrument with a preamplifier of its own is silent without its battery. */
function ofBattery(device: Device): Fault[] {
  const kind = kindOf(device.kind);
  const [out] = soundOuts(device);
  if (kind.job !== 'instrument' || needsPower(device) || out?.connector !== 'TS') return [];
  const played = { ...resolveState(kind, device, undefined), engaged: true };
  const isActive = kind.passes(played, () => true).some((p) => p.is === 'source' && !p.bare);
  if (!isActive) return [];
  const where = placeOf(device);
  return [
    {
      id: `battery ${device.id}`,
      sort: 'device',
      words: `the battery of ${device.name} is empty`,
      subjects: [device.id],
      perThousand: 1 * WEAR[where],
      dark: [],
      where,
      mend: {
        words: `put a new battery into ${device.name}`,
        seconds: REACH_SECONDS[where] + 60,
        spare: { is: 'part', words: 'battery' },
      },
      change: (w) => dead(w, [device.id]),
    },
  ];
}

/** Whether a device is engaged, or bypassed, in any sound, and can be switched at all. */
function canStick(rig: Rig, device: Device, engaged: boolean): boolean {
  const kind = kindOf(device.kind);
  if (kind.alwaysOn || kind.stateWords || kind.mains) return false;
  if (!kind.through) return false;
  const usual = device.engaged ?? kind.startsEngaged === true;
  const states = rig.sounds.map((s) => s.states[device.id]?.engaged ?? usual);
  return states.includes(engaged) && (engaged || states.includes(true));
}
