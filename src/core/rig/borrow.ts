import type { Edit } from './edits';
import { freeName, freshId } from './fresh-id';
import type { Control, Positions, Rig, Song, SongSet, Sound, State } from './schema';

/** What is taken from another rig, by the ids that it has there. */
export interface Wanted {
  sounds?: readonly string[];
  songs?: readonly string[];
  sets?: readonly string[];
  controls?: readonly string[];
  boards?: readonly string[];
}

/** What comes, as edits of this rig, and what of it cannot, in words. */
export interface Borrowed {
  edits: Edit[];
  lost: string[];
}

/**
 * Sounds, songs, sets, controls and boards of another rig for this one. What they say of a device holds
 * for the one here that has its name and is of its kind; what they say of others is left out, and told.
 * A song brings the sounds that it calls, a set its songs, where nothing here has their names. Programs
 * stay behind: they are places in one unit's memory. Names that are taken get a number.
 */
export function borrow(here: Rig, from: Rig, wanted: Wanted): Borrowed {
  const borrowing = new Borrowing(here, from);
  // A sound says where controls stand, and a control in which sounds it moves what: both have to be known.
  borrowing.expect(wanted);
  for (const id of wanted.controls ?? []) borrowing.control(id);
  for (const id of wanted.sounds ?? []) borrowing.sound(id);
  for (const id of wanted.songs ?? []) borrowing.song(id);
  for (const id of wanted.sets ?? []) borrowing.set(id);
  for (const id of wanted.boards ?? []) borrowing.board(id);
  return { edits: borrowing.edits, lost: borrowing.told() };
}

/** Things of one sort on both sides: what is here, what has come, and under which id. */
class Sort<T extends { id: string }> {
  private readonly ids: string[];
  private readonly names: string[];
  private readonly came = new Map<string, { id: string; name: string }>();
  private readonly brought = new Set<string>();

  constructor(
    private readonly here: readonly T[],
    private readonly there: readonly T[],
    private readonly nameOf: (thing: T) => string,
  ) {
    this.ids = here.map((x) => x.id);
    this.names = here.map(nameOf);
  }

  find = (id: string): T | undefined => this.there.find((x) => x.id === id);

  /** The id that a thing of the other rig has here: it came, or something here has its name. */
  idHere(id: string): string | undefined {
    const thing = this.find(id);
    return (
      this.came.get(id)?.id ??
      (thing && this.here.find((x) => this.nameOf(x) === this.nameOf(thing))?.id)
    );
  }

  /** A free id and a free name for a thing that comes; the same again for one that is expected. */
  fresh(thing: T): { id: string; name: string } {
    const known = this.came.get(thing.id);
    if (known) return known;
    const found = {
      id: freshId(thing.id, this.ids),
      name: freeName(this.nameOf(thing), this.names),
    };
    this.ids.push(found.id);
    this.names.push(found.name);
    this.came.set(thing.id, found);
    return found;
  }

  /** Whether this is the first time that a thing is brought. */
  brings(id: string): boolean {
    const first = !this.brought.has(id);
    this.brought.add(id);
    return first;
  }
}

const named = (x: { name: string }) => x.name;

class Borrowing {
  readonly edits: Edit[] = [];
  private readonly sounds: Sort<Sound>;
  private readonly songs: Sort<Song>;
  private readonly sets: Sort<SongSet>;
  private readonly controls: Sort<Control>;
  private readonly devices = new Map<string, string>();
  /** What cannot come, by what it belongs to. */
  private readonly lost = new Map<string, Set<string>>();

  constructor(
    private readonly here: Rig,
    private readonly from: Rig,
  ) {
    this.sounds = new Sort(here.sounds, from.sounds, named);
    this.songs = new Sort(here.songs ?? [], from.songs ?? [], (s) => s.title);
    this.sets = new Sort(here.sets ?? [], from.sets ?? [], named);
    this.controls = new Sort(here.controls ?? [], from.controls ?? [], named);
    for (const d of from.devices) {
      const same = here.devices.find((x) => x.name === d.name && x.kind === d.kind);
      if (same) this.devices.set(d.id, same.id);
    }
  }

  /** Gives what will come its place, so that one thing that comes can name another. */
  expect({ sounds = [], controls = [] }: Wanted): void {
    for (const id of sounds) {
      const sound = this.sounds.find(id);
      if (sound) this.sounds.fresh(sound);
    }
    for (const id of controls) {
      const control = this.controls.find(id);
      if (control) this.controls.fresh(control);
    }
  }

  told = (): string[] =>
    [...this.lost].map(
      ([what, names]) => `${what}: what it says of ${[...names].join(', ')} has no place here`,
    );

  sound(id: string): string | undefined {
    const sound = this.sounds.find(id);
    if (!sound || !this.sounds.brings(id)) return this.sounds.idHere(id);
    const { id: fresh, name } = this.sounds.fresh(sound);
    const positions = this.positions(sound.name, sound.controls);
    const sends = sound.sends?.flatMap((s) => {
      const [sender, to] = [this.deviceHere(sound.name, s.from), s.to];
      const reached = to && this.deviceHere(sound.name, to);
      return sender === undefined || (to && reached === undefined)
        ? []
        : [{ ...s, from: sender, ...(reached && { to: reached }) }];
    });
    this.edits.push({
      edit: 'addSound',
      sound: {
        ...sound,
        id: fresh,
        name,
        states: this.states(sound.name, sound.states),
        ...(sound.controls && { controls: positions }),
        ...(sends && { sends }),
      },
    });
    return fresh;
  }

  song(id: string): string | undefined {
    const song = this.songs.find(id);
    if (!song || !this.songs.brings(id)) return this.songs.idHere(id);
    const { id: fresh, name } = this.songs.fresh(song);
    const { instrument, divisions, states, ...rest } = song;
    const plays = instrument && this.deviceHere(song.title, instrument);
    const sections = song.sections.flatMap((s) => {
      const sound = this.sounds.idHere(s.sound) ?? this.sound(s.sound);
      if (sound === undefined) return [];
      return [{ ...s, sound, ...(s.states && { states: this.states(song.title, s.states) }) }];
    });
    this.edits.push({
      edit: 'addSong',
      song: {
        ...rest,
        id: fresh,
        title: name,
        sections,
        ...(plays && { instrument: plays }),
        ...(states && { states: this.states(song.title, states) }),
        ...(divisions && { divisions: this.byDevice(song.title, divisions) }),
      },
    });
    return fresh;
  }

  set(id: string): void {
    const set = this.sets.find(id);
    if (!set || !this.sets.brings(id)) return;
    const { id: fresh, name } = this.sets.fresh(set);
    const entries = set.entries.flatMap((e) => {
      const song = this.songs.idHere(e.song) ?? this.song(e.song);
      return song === undefined ? [] : [{ ...e, song }];
    });
    this.edits.push({ edit: 'addSet', set: { ...set, id: fresh, name, entries } });
  }

  control(id: string): void {
    const control = this.controls.find(id);
    if (!control || !this.controls.brings(id)) return;
    const { id: fresh, name } = this.controls.fresh(control);
    const { device, assigns, ...rest } = control;
    const on = device && this.deviceHere(control.name, device);
    this.edits.push({
      edit: 'addControl',
      control: {
        ...rest,
        id: fresh,
        name,
        ...(on && { device: on }),
        assigns: assigns.flatMap(({ sounds, ...a }) => {
          const moved = this.deviceHere(control.name, a.device);
          const inSounds = sounds?.flatMap((s) => this.sounds.idHere(s) ?? []);
          // An assignment that held in some sounds only holds in none where none of them is here.
          if (moved === undefined || (sounds && !inSounds?.length)) return [];
          return [{ ...a, device: moved, ...(inSounds && { sounds: inSounds }) }];
        }),
      },
    });
  }

  board(id: string): void {
    const board = this.from.boards?.find((b) => b.id === id);
    if (!board) return;
    const here = this.here.boards ?? [];
    const fresh = freshId(
      id,
      here.map((b) => b.id),
    );
    const name = freeName(board.name, here.map(named));
    this.edits.push({ edit: 'addBoard', board: { ...board, id: fresh, name } });
  }

  /** The device here that one of the other rig stands for; where there is none, that is told. */
  private deviceHere(about: string, id: string): string | undefined {
    const found = this.devices.get(id);
    if (found === undefined) this.miss(about, this.from.devices.find((d) => d.id === id)?.name);
    return found;
  }

  private miss(about: string, name: string | undefined): void {
    const names = this.lost.get(about) ?? new Set();
    names.add(name ?? 'something that is gone there');
    this.lost.set(about, names);
  }

  private byDevice<V>(about: string, of: Record<string, V>): Record<string, V> {
    return Object.fromEntries(
      Object.entries(of).flatMap(([id, v]) => {
        const here = this.deviceHere(about, id);
        return here === undefined ? [] : [[here, v] as const];
      }),
    );
  }

  private states(about: string, of: Record<string, State>): Record<string, State> {
    return Object.fromEntries(
      Object.entries(this.byDevice(about, of)).map(([id, { program: _program, ...s }]) => [id, s]),
    );
  }

  private positions(about: string, of: Positions = {}): Positions {
    return Object.fromEntries(
      Object.entries(of).flatMap(([id, at]) => {
        const here = this.controls.idHere(id);
        if (here === undefined) this.miss(about, this.controls.find(id)?.name);
        return here === undefined ? [] : [[here, at] as const];
      }),
    );
  }
}
