import { type Job, type Kind, kindOf, KINDS } from '../kinds';

/** Places in the usual order; what is not listed does not stand in the pedal row. */
const USUAL: readonly Job[] = [
  'fuzz',
  'tuner',
  'buffer',
  'pitch',
  'filter',
  'compressor',
  'boost',
  'drive',
  'gate',
  'eq',
  'volume',
  'modulation',
  'delay',
  'reverb',
  'looper',
];

const plain = (k: Kind, jack: string) => k.jacks.some((j) => j.id === jack && j.connector === 'TS');

/** Whether something waits for a pedal that somebody brings along: a loop that goes on while it is empty. */
const isForGuest = (k: Kind): boolean =>
  k.loops?.length === 1 && k.loops[0]?.id === 'insert' && plain(k, 'send');

/** Pedals that a start can put in a row: those of one channel. */
export const START_PEDALS: readonly Kind[] = KINDS.filter(
  (k) => isPedal(k) && plain(k, 'in') && plain(k, 'out'),
);

/** Whether a kind, of those that ship or of one's own, can stand in the row of a start. */
export function isPedal(k: Kind): boolean {
  const { through } = k;
  return (
    (isForGuest(k) || (USUAL.includes(k.job) && k.family !== 'Routing')) &&
    through !== undefined &&
    plain(k, through.in) &&
    plain(k, through.out)
  );
}

/** Where a pedal goes, smaller first, by the school chosen for each rule. */
export function rank(kindId: string, other: ReadonlySet<string>): number {
  const kind = kindOf(kindId);
  if (kind.wantsBarePickup && !other.has('bare-pickup')) return -1;
  const at = (job: Job) => USUAL.indexOf(job);
  // A guest stands behind what is driven and in front of what is wide.
  if (isForGuest(kind)) return at('volume') + 0.5;
  const gain = kind.figures.find((f) => f.id === 'gainHighDb')?.typical ?? 0;
  const moved: [string, Job, number][] = [
    ['tuner-place', 'tuner', at('reverb') + 0.5],
    ['pitch-early', 'pitch', at('compressor') + 0.5],
    ['filter-before-dirt', 'filter', at('drive') + 0.92],
    ['compressor-early', 'compressor', at('drive') + 0.94],
    ['boost-place', 'boost', at('drive') + 0.96],
    ['volume-place', 'volume', at('tuner') + 0.5],
  ];
  const place =
    moved.find(([rule, job]) => job === kind.job && other.has(rule))?.[2] ?? at(kind.job);
  const step = Math.min(0.9, Math.max(0, gain) / 100);
  return kind.job === 'drive' ? place + (other.has('gain-low-to-high') ? 0.9 - step : step) : place;
}
