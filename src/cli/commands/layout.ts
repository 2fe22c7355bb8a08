import { sizeOf } from '../../core/build';
import { applyEdits, type Edit, nameOf, type Rig, writeRig } from '../../core/rig';
import { fixed, howMany } from '../../core/units';
import { layoutOf } from '../build-json';
import { type Answer, command, named, refuse, saysWhy } from '../command';

interface Asked {
  board?: string;
  add?: string[];
  all?: boolean;
  turn: boolean;
  effort: string;
}

/** So many times the usual number of moves may be asked for. */
const MOST_EFFORT = 20;

/** Devices that the layout is to place, beyond those that stand on the board. */
const toAdd = (rig: Rig, { add = [], all }: Pick<Asked, 'add' | 'all'>): string[] =>
  all
    ? rig.devices
        .filter((d) => d.host === undefined && !d.at && !d.rack && d.place === 'floor' && sizeOf(d))
        .map((d) => d.id)
    : add.map((x) => named(rig.devices, x, (d) => d.name, 'device').id);

const placesOf = (edits: readonly Edit[]) =>
  edits.flatMap((e) =>
    e.edit === 'placeOnBoard' && e.at
      ? [
          {
            device: e.device,
            x: e.at.x,
            y: e.at.y,
            turn: e.at.turn ?? 0,
            under: e.at.under ?? false,
          },
        ]
      : [],
  );

const figures = (f: { metres: number; crossings: number; clashes: number }): string =>
  `${fixed(f.metres, 2)} m, ${howMany(f.crossings, 'crossing')}, ${f.clashes} to put right`;

export const layout = command<Asked & { out?: string }>({
  name: 'layout',
  about: 'the best layout of a board that is found, against how it stands',
  options: [
    { flags: '--board <name>', about: 'a board, by name or id; the first one' },
    { flags: '--add <devices...>', about: 'devices to place that stand nowhere yet' },
    { flags: '--all', about: 'place everything on the floor that stands nowhere yet' },
    { flags: '--no-turn', about: 'leave everything turned as it is' },
    {
      flags: '--effort <times>',
      about: 'moves against the usual number of them: 0.2 is quick, 3 takes three times as long',
      initial: '1',
    },
    { flags: '--out <path>', about: 'write the rig with the layout to a file' },
  ],
  run: async (rig, options): Promise<Answer> => {
    const board =
      options.board === undefined
        ? (rig.boards?.[0] ?? refuse('There is no board in this rig.'))
        : named(rig.boards, options.board, (b) => b.name, 'board');
    const effort = Number(options.effort);
    if (!(effort > 0 && effort <= MOST_EFFORT))
      refuse(`"${options.effort}" is no effort; give up to ${MOST_EFFORT}, such as 0.2.`);
    const choice = { mayTurn: options.turn, effort };
    const proposed = await layoutOf(rig, board.id, toAdd(rig, options), choice);
    if (!proposed.ok) return saysWhy(proposed);
    const found = proposed.value;
    const applied = applyEdits(rig, found.edits);
    if (!applied.ok) return refuse(...applied.problems.map((p) => p.what));
    const places = placesOf(found.edits);
    const now = found.now ? `; now ${figures(found.now)}` : '';
    const proven =
      found.leastMetres === null || found.leastMetres < 0.01
        ? ''
        : `; no layout has less than ${fixed(found.leastMetres, 2)} m (proven)`;
    return {
      json: { ...found, places, edits: undefined },
      lines: [
        `found ${figures(found.found)}${now}${proven}`,
        ...places.map(
          (p) =>
            `${nameOf(rig, p.device)}: ${p.x} mm from the left, ${p.y} mm from the rear` +
            (p.turn ? `, turned ${p.turn}°` : '') +
            (p.under ? ', under the deck' : ''),
        ),
      ],
      ...(options.out !== undefined && { content: writeRig(applied.value.rig) }),
    };
  },
});
