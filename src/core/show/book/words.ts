import { leadCodes } from '../../build';
import { kindOf } from '../../kinds';
import { nameOf } from '../../rig/find';
import type { Rig } from '../../rig/schema';
import type { LineSort } from './blank';
import type { Line, Link } from './records';

const escaped = (t: string) => t.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
/** A word or several, standing by themselves. */
const isIn = (text: string, words: string): boolean =>
  new RegExp(`(^|[^\\p{L}\\p{N}])${escaped(words.toLowerCase())}($|[^\\p{L}\\p{N}])`, 'u').test(
    text,
  );

/** A device as a line of the logbook names it: with the number of the unit, where the rig knows one. */
export const linkTo = ({ id, name, gear }: Rig['devices'][number]): Link => ({
  is: 'device',
  id,
  name,
  ...(gear?.serial && { serial: gear.serial }),
});

/** Words that are in so many names that they find nothing by themselves. */
const SHORTEST = 4;

/**
 * The devices, leads, songs and sounds that a line names: by their whole names, by a word of a name
 * that no other device has ("kiln" for Kiln Drive), units by their serial numbers, leads by their codes.
 */
export function linksIn(rig: Rig, written: string): Link[] {
  const text = written.toLowerCase();
  const things: Link[] = [
    ...rig.devices.map(linkTo),
    ...(rig.songs ?? []).map((s): Link => ({ is: 'song', id: s.id, name: s.title })),
    ...rig.sounds.map((s): Link => ({ is: 'sound', id: s.id, name: s.name })),
  ];
  const wordsOf = (name: string) => name.toLowerCase().split(/[^\p{L}\p{N}’']+/u);
  const common = new Map<string, number>();
  for (const t of things.filter((x) => x.is === 'device'))
    for (const w of new Set(wordsOf(t.name))) common.set(w, (common.get(w) ?? 0) + 1);
  // Of two of a kind the number on the unit says which.
  const isSaid = ({ name, serial }: Link) =>
    isIn(text, name) || (serial !== undefined && isIn(text, serial));
  const whole = things.filter(isSaid);
  const part = things.filter(
    (t) =>
      t.is === 'device' &&
      !whole.includes(t) &&
      wordsOf(t.name).some((w) => w.length >= SHORTEST && common.get(w) === 1 && isIn(text, w)),
  );
  const codes = leadCodes(rig);
  const leads = rig.leads.flatMap((l): Link[] => {
    const code = codes.get(l.id)?.code;
    const called = l.label ?? code ?? l.id;
    return [called, code ?? l.id, l.id].some((said) => isIn(text, said))
      ? [
          {
            is: 'lead',
            id: l.id,
            name: `${called}, ${nameOf(rig, l.from.device)} to ${nameOf(rig, l.to.device)}`,
          },
        ]
      : [];
  });
  return [...whole, ...part, ...leads];
}

/** What tells of what a line is; the first that fits counts. */
const SORTS: [LineSort, RegExp][] = [
  ['battery', /\b(new|fresh|changed?) batter|\bbatter\w* (changed|new|fresh)/i],
  ['tube', /\b(re)?tubed\b|\b(new|changed?) tubes?\b|\btubes? (changed|new|replaced)/i],
  ['repair', /\b(replaced|resoldered|repaired|swapped|fixed|mended|cleaned|changed|restrung)\b/i],
  ['measured', /\bmeasure[sd]?\b|\breads? -?\d/i],
  [
    'fault',
    /\b(dead|died|crackl|hum|hums|hiss|silent|broke|broken|fail|cuts? out|no sound|loose|stuck|intermittent|buzz|dropped|weak|wrong)/i,
  ],
];

/** What a line is, by its words. */
export const sortOf = (text: string): LineSort =>
  SORTS.find(([, words]) => words.test(text))?.[0] ?? 'note';

/** A figure that a line gives: of which device, which figure of its kind, and the value in its unit. */
export interface Measured {
  device: string;
  figure: string;
  label: string;
  value: number;
  unit: string;
  typical: number;
  /** Whether it lies where such a figure is believed. */
  believable: boolean;
}

/**
 * Figures that a line of measurements gives for the devices that it names: a number with a unit that
 * only one figure of the kind has, or with words of that figure's name beside it.
 */
export function measuredIn(rig: Rig, line: Pick<Line, 'text' | 'links'>): Measured[] {
  const numbers = [
    ...line.text.matchAll(
      /(-?\d+(?:[.,]\d+)?)\s*(dBu|dB|ms|Hz|W|pF|nF|kΩ|MΩ|Ω|kohm|ohms?)(?![\p{L}])/giu,
    ),
  ];
  return line.links
    .filter((l) => l.is === 'device')
    .flatMap((link) => {
      const device = rig.devices.find((d) => d.id === link.id);
      if (!device) return [];
      const figures = kindOf(device.kind).figures;
      return numbers.flatMap(([, number, unit]): Measured[] => {
        const { value, unit: plain } = inUnit(Number((number ?? '').replace(',', '.')), unit ?? '');
        const fits = figures.filter((f) => f.unit === plain);
        const named = fits.filter((f) =>
          f.label
            .toLowerCase()
            .split(/\W+/)
            .some((w) => w.length >= SHORTEST && line.text.toLowerCase().includes(w)),
        );
        const [figure, second] = named.length ? named : fits;
        if (!figure || (second && !named.length)) return [];
        return [
          {
            device: device.id,
            figure: figure.id,
            label: figure.label,
            value,
            unit: figure.unit,
            typical: figure.typical,
            believable: value >= figure.min && value <= figure.max,
          },
        ];
      });
    });
}

function inUnit(value: number, unit: string): { value: number; unit: string } {
  const u = unit.toLowerCase();
  if (u === 'mω') return { value: value * 1e6, unit: 'Ω' };
  if (u === 'kω' || u === 'kohm') return { value: value * 1e3, unit: 'Ω' };
  if (u.startsWith('ohm') || u === 'ω') return { value, unit: 'Ω' };
  const known = ['dBu', 'dB', 'ms', 'Hz', 'W', 'pF', 'nF'].find((k) => k.toLowerCase() === u);
  return { value, unit: known ?? unit };
}
