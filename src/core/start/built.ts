import {
  BOARD_SIZES,
  cutList,
  HEADROOM,
  placesOf,
  planPower,
  pressedDevices,
  proposeLayout,
  sizeOf,
  takersOf,
} from '../build';
import type { MipSolver } from '../optimum/mip';
import { applyEdits, type Edit, freeName, freshId, nameOf, type Rig } from '../rig';
import { placeOf } from '../rig/stands-where';
import { walkOrder } from '../walk';
import { Choices } from './choices';
import type { Proposal } from './propose';
import { allOf } from '../units';

/** How far it is, from 0 to 1, and what is being done. */
export type Tell = (share: number, words: string) => Promise<void>;

/** Supplies from the smallest: what is tried until one set feeds everything. */
const SUPPLIES: readonly (readonly string[])[] = [
  ['supply-isolated'],
  ['supply-large'],
  ['supply-isolated', 'supply-large'],
  ['supply-isolated', 'supply-isolated'],
  ['supply-isolated', 'supply-isolated', 'supply-large'],
  ['supply-isolated', 'supply-large', 'supply-large'],
  ['supply-isolated', 'supply-isolated', 'supply-isolated', 'supply-large'],
  ['supply-isolated', 'supply-isolated', 'supply-isolated', 'supply-large', 'supply-large'],
];
const SUPPLY_NAMES: Record<string, string> = {
  'supply-isolated': 'Board supply',
  'supply-large': 'Large supply',
};

/**
 * Moves of a layout against the usual number: a start is to be looked at soon, and laid out again at
 * leisure. All sizes are tried shortly before any is tried longer; the largest at last in full.
 */
const EFFORTS = [0.04, 0.25];
/** Of a board so much can be covered, the rest is ways and plugs: a rule of thumb. */
const COVERED = 0.75;

/**
 * A proposal with power and a board: the supplies on hand, else the smallest set of usual ones that
 * feeds everything, given out exactly; the smallest board of the common sizes on which it all stands
 * without a clash; and leads cut to their ways on it.
 */
export async function builtUp(
  { rig, choices }: Proposal,
  solver: MipSolver,
  tell: Tell,
): Promise<Proposal> {
  const more = new Choices(rig.brief?.means?.changed ?? {});
  await tell(0, 'choosing supplies');
  const fed = withSupplies(rig, more, solver);
  const laid = await onBoard(fed, more, (share, words) => tell(0.3 + 0.7 * share, words));
  // What feeds and holds is chosen of what was wired: another way of it is not wired anew.
  const own = more.all.map((c) => ({ ...c, isWired: false }));
  return { rig: withLengths(laid), choices: [...choices, ...own] };
}

const edited = (rig: Rig, edits: readonly Edit[]): Rig => {
  const made = applyEdits(rig, edits);
  return made.ok ? made.value.rig : rig;
};

/** A rig with supplies of some kinds, and everything plugged in that can be; how many stay without. */
function fedBy(rig: Rig, kinds: readonly string[], solver: MipSolver) {
  let next = rig;
  for (const kind of kinds) {
    const base = SUPPLY_NAMES[kind] ?? 'Supply';
    const name = freeName(
      base,
      next.devices.map((d) => d.name),
    );
    const id = freshId(
      name,
      next.devices.map((d) => d.id),
    );
    next = edited(next, [{ edit: 'addDevice', device: { id, kind, name, place: 'floor' } }]);
  }
  if (!takersOf(next).length || !placesOf(next).length)
    return { rig: next, starved: [], shared: 0 };
  const plan = planPower(next, solver);
  return plan.ok
    ? {
        rig: edited(next, plan.value.edits),
        starved: plan.value.starved.map((s) => nameOf(next, s.device)),
        shared: plan.value.shared,
      }
    : { rig: next, starved: takersOf(next).map((t) => t.device.name), shared: 0 };
}

function withSupplies(rig: Rig, choices: Choices, solver: MipSolver): Rig {
  if (!takersOf(rig).length) return rig;
  const onHand = rig.brief?.means?.supplies ?? [];
  const tried: Feeding[] = [];
  for (const kinds of onHand.length ? [onHand] : SUPPLIES) {
    tried.push({ label: countWords(kinds), ...fedBy(rig, kinds, solver) });
    const last = tried.at(-1);
    if (last && !last.starved.length && !last.shared) break;
  }
  // From the smallest: the first that feeds everything, and the first that gives each its own outlet.
  const most = tried.reduce((a, b) => (b.starved.length < a.starved.length ? b : a));
  const apart = tried.find((t) => !t.starved.length && !t.shared);
  const taken = choices.take(
    'supplies',
    'Supplies',
    [['fewest', most.label], ...(apart && apart !== most ? [['apart', apart.label] as const] : [])],
    apart && apart !== most ? 'apart' : 'fewest',
    (t) => whyFed(t === 'apart' && apart ? apart : most, onHand.length > 0),
  );
  return (taken === 'apart' && apart ? apart : most).rig;
}

/** A set of supplies that was tried. */
interface Feeding extends ReturnType<typeof fedBy> {
  label: string;
}

const whyFed = ({ starved, shared }: Feeding, onHand: boolean): string =>
  [
    starved.length
      ? `${allOf(starved)} get${starved.length > 1 ? '' : 's'} nothing: ` +
        (onHand ? 'what is on hand does not do.' : 'none of the sets that were tried does.')
      : onHand
        ? 'What is on hand feeds everything.'
        : `The first set from the smallest that feeds everything, with ${HEADROOM * 100} % of ` +
          `current to spare${shared ? '' : ', each from an outlet of its own'}.`,
    shared
      ? `${shared} share${shared > 1 ? '' : 's'} an outlet with another, where grounds meet: listen for hum.`
      : '',
  ]
    .filter(Boolean)
    .join(' ');

const KIND_WORDS: Record<string, string> = {
  'supply-isolated': 'supply of eight isolated outlets',
  'supply-large': 'supply of four large outlets',
};

/** "2 × supply of eight isolated outlets and 1 × …" */
function countWords(kinds: readonly string[]): string {
  const counts = new Map<string, number>();
  for (const k of kinds) counts.set(k, (counts.get(k) ?? 0) + 1);
  return allOf([...counts].map(([k, n]) => `${n} × ${KIND_WORDS[k] ?? k}`));
}

/** What stands on the floor and has a size. */
const floorOf = (rig: Rig) =>
  rig.devices.filter((d) => d.host === undefined && placeOf(d) === 'floor' && sizeOf(d));

/** Whether a board keeps to the widest and deepest that was allowed. */
const isWithin = ({ limits }: Rig, { width, depth }: { width: number; depth: number }): boolean =>
  width <= (limits?.boardWidth ?? Infinity) && depth <= (limits?.boardDepth ?? Infinity);

async function onBoard(rig: Rig, choices: Choices, tell: Tell): Promise<Rig> {
  const standing = floorOf(rig);
  if (!standing.length) return rig;
  const area = standing.reduce((sum, d) => {
    const size = sizeOf(d);
    return sum + (size ? size.width * size.depth : 0);
  }, 0);
  const sizes = [...BOARD_SIZES]
    .filter(({ board }) => board.rails.length > 1 && isWithin(rig, board))
    .sort((a, b) => a.board.width * a.board.depth - b.board.width * b.board.depth);
  const large = sizes.filter((s) => s.board.width * s.board.depth * COVERED >= area);
  const pressed = pressedDevices(rig);
  const last = large.at(-1);
  const tries = [
    ...EFFORTS.flatMap((effort) => large.map((size) => ({ size, effort }))),
    ...(last ? [{ size: last, effort: 1 }] : []),
  ];
  for (const [n, { size, effort }] of tries.entries()) {
    const board = { id: 'board', name: 'Board', ...size.board };
    const withBoard = edited(rig, [{ edit: 'addBoard', board }]);
    const laid = await proposeLayout(
      withBoard,
      board.id,
      standing.map((d) => d.id),
      pressed,
      walkOrder(rig),
      (share) => tell((n + share) / tries.length, `trying the board: ${size.label}`),
      { effort },
    );
    if (!laid.ok || laid.value.found.clashes > 0) continue;
    choices.take(
      'board',
      'Board',
      [['so', size.label]],
      'so',
      () =>
        'The smallest of the common sizes on which everything stood without a clash, in a short search.',
    );
    return edited(withBoard, laid.value.edits);
  }
  choices.take(
    'board',
    'Board',
    [['none', 'none']],
    'none',
    () =>
      'A short search found no way to stand all of it on one board of the common sizes that is ' +
      'allowed: take two, or leave something out.',
  );
  return rig;
}

/** Leads whose ways are known, cut to them. */
const withLengths = (rig: Rig): Rig =>
  edited(
    rig,
    cutList(rig).cuts.flatMap(({ routed, cut, lead }): Edit[] =>
      routed === null ? [] : [{ edit: 'setLead', lead: lead.id, metres: Number(cut.toFixed(3)) }],
    ),
  );
