import { pluggedJacks } from '../../circuit';
import { effectiveRig } from '../../control/effective';
import type { Rig } from '../../rig/schema';
import { learnSheets } from '../../rig/sheets';
import { amplifierFaults } from './amplifier-faults';
import { deviceFaults } from './device-faults';
import { type Fault, type Sort, type SortId, type Whole } from './fault';
import { handFaults } from './hand-faults';
import { jackFaults } from './jack-faults';
import { leadFaults } from './lead-faults';
import { midiFaults } from './midi-faults';
import { powerFaults } from './power-faults';
import { programFaults } from './program-faults';
import { wirelessFaults } from './wireless-faults';

export * from './fault';
export { type Noise, NOISES, noiseName } from './changes';

/** Every sort of fault there is; one that is missing does not compile. */
export const SORTS: { [S in SortId]: Sort } = {
  hand: handFaults,
  lead: leadFaults,
  jack: jackFaults,
  device: deviceFaults,
  power: powerFaults,
  amplifier: amplifierFaults,
  wireless: wirelessFaults,
  midi: midiFaults,
  program: programFaults,
};

/** A rig as it is meant: every plug in its jack, every sound as written. */
export function wholeOf(written: Rig): Whole {
  learnSheets(written.sheets);
  const heard = effectiveRig(written);
  const rig = heard.sounds.length
    ? heard
    : { ...heard, sounds: [{ id: 'as-it-stands', name: 'As it stands', states: {} }] };
  return { rig, plugged: pluggedJacks(rig), sound: (s) => s };
}

/** Every single fault that a rig can have, with its odds. */
export const faultsOf = (whole: Whole): Fault[] =>
  Object.values(SORTS).flatMap((s) => s.expand(whole));
