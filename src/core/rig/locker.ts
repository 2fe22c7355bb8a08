import type { Sheet } from './sheets';

/** A photograph as a list tells it: its id, and how large it is, in pixels. */
export interface Photograph {
  id: string;
  width: number;
  height: number;
}

/**
 * A unit in the locker: what it is, whose, and in the place of which devices it is used now. It is
 * double-booked on the dates on which two rigs that use it play, and always where one rig uses it
 * twice. Weight in g, value in whatever money the crew counts in.
 */
export interface LockerUnit {
  serial: string;
  name: string;
  owner: string;
  grams: number | null;
  value: number | null;
  notes: string;
  /** The sheet of the locker that says what it is. */
  sheet: string | null;
  photographs: Photograph[];
  uses: { rig: string; rigName: string; device: string; deviceName: string; archived: boolean }[];
  doubleBooked: boolean;
  /** Dates to come on which two rigs play with it. */
  clashes: string[];
}

/** A sheet of the locker, and the rigs that hold a copy: whether theirs says the same. */
export interface LockerSheet {
  sheet: Sheet;
  version: number;
  photographs: Photograph[];
  /** The units that it says what they are, by serial number. */
  units: string[];
  uses: { rig: string; rigName: string; devices: number; isSame: boolean; archived: boolean }[];
}
