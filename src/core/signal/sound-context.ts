import { sure } from '../outcome';
import { type Flowing, type Rerun, runSignal } from './flow';
import { SILENT } from './hiss';
import type { PointFigures } from './point-figures';
import { buildCircuit, passesOf, pluggedJacks } from '../circuit';
import { kindOf, type Shunt } from '../kinds';
import { sourceDevice } from '../rig/source-id';
import type { Device, Rig, Sound } from '../rig/schema';
import { sameButLength } from '../rig/to-the-ear';
import { placeStations, type Station, stationsOf, type Step } from '../walk';

/** Everything that the analyses of one sound read. */
export interface SoundContext {
  rig: Rig;
  sound: Sound;
  flowing: Flowing;
  stations: Station[];
  steps: Step[];
  columns: number;
  lanes: number;
  device: (id: string) => Device;
  /** What is present at a jack. */
  at: (device: string, point: string) => ReturnType<Flowing['present']> & { net: number };
  /** Figures at nets, by their numbers, as far as they were asked for. */
  readonly figures: Map<number, PointFigures>;
  /** A device's own parts to ground, whatever it is connected to. */
  ownShunts: (device: string) => Shunt[];
  /** Destinations, with the jacks at which they hear. */
  destinations: { device: Device; points: string[] }[];
}

/** A sound's stations and steps, and how many columns and lanes they take. */
type Walked = Pick<SoundContext, 'stations' | 'steps' | 'columns' | 'lanes'>;

function walkOf(rig: Rig, sound: Sound): Walked {
  const { stations, steps } = stationsOf(rig, sound);
  return { stations, steps, ...placeStations(stations, steps) };
}

/** How a sound is prepared of which something is known: of `before` what is the same is taken over. */
export interface Prepare extends Rerun {
  before?: SoundContext;
}

/** No net has this number: what is there is silence. */
const NOWHERE = { flows: [], noise: SILENT, idle: SILENT, cancelled: [], net: -1 };

/**
 * A class, not an object with getters of its own: those hang on the shape of each object, which the
 * engine keeps until it collects everything, and with it all that they see.
 */
class Prepared implements SoundContext {
  private walked?: Walked;
  private readonly devices: Map<string, Device>;
  readonly flowing: Flowing;
  readonly figures = new Map<number, PointFigures>();
  readonly destinations: SoundContext['destinations'];

  constructor(
    readonly rig: Rig,
    readonly sound: Sound,
    private readonly plugged: Map<string, Set<string>>,
    { before, ...rerun }: Prepare = {},
  ) {
    // Asked at once, so that what was before is not held on to.
    if (before instanceof Prepared && before.goesAlike(rig, sound)) this.walked = before.walked;
    this.flowing = runSignal(buildCircuit(rig, sound, plugged), rerun);
    this.devices = new Map(rig.devices.map((d) => [d.id, d]));
    this.destinations = rig.devices.flatMap((device) => {
      const destination = kindOf(device.kind).destination;
      return destination ? [{ device, points: destination.jacks }] : [];
    });
  }

  /** Whether stations and steps of a sound are the same: they hang on no length of a lead. */
  private goesAlike(rig: Rig, sound: Sound): boolean {
    return (
      this.sound === sound &&
      this.rig.devices === rig.devices &&
      sameButLength(this.rig.leads, rig.leads)
    );
  }

  private get walk(): Walked {
    return (this.walked ??= walkOf(this.rig, this.sound));
  }
  get stations() {
    return this.walk.stations;
  }
  get steps() {
    return this.walk.steps;
  }
  get columns() {
    return this.walk.columns;
  }
  get lanes() {
    return this.walk.lanes;
  }

  readonly device = (id: string): Device => sure(this.devices.get(sourceDevice(id)));

  readonly at: SoundContext['at'] = (device, point) => {
    const net = this.flowing.circuit.netAt(device, point);
    return net ? { net: net.index, ...this.flowing.present(net.index) } : NOWHERE;
  };

  readonly ownShunts = (id: string): Shunt[] =>
    passesOf(sure(this.devices.get(id)), this.sound, this.plugged).filter((p) => p.is === 'shunt');
}

/**
 * Prepares a sound for analysis: circuit and signal at once, the walk's stations when they are first
 * asked for, which copies that are only listened to never do.
 */
export const soundContext = (
  rig: Rig,
  sound: Sound,
  plugged = pluggedJacks(rig),
  prepare?: Prepare,
): SoundContext => new Prepared(rig, sound, plugged, prepare);

/**
 * A sound on a copy of its rig, or with some of its settings otherwise, that is only listened to: noise is
 * left out, and where nothing is different from what is known, that is taken over.
 */
export const listenedTo = (
  known: SoundContext,
  copy: Rig,
  sound: Sound = known.sound,
): SoundContext =>
  soundContext(copy, sound, pluggedJacks(copy), {
    like: known.flowing,
    withoutNoise: true,
  });
