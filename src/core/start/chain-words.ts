import Fuse from 'fuse.js';
import { type Kind, KINDS } from '../kinds';
import { kindOfSheet, type Sheet } from '../rig/sheets';

/** What techs write for a kind, in their own words; each is found whole, in any order of its words. */
const SAID: Record<string, string> = {
  guitar: 'guitar-humbucker',
  'single coil': 'guitar-single-coil',
  humbucker: 'guitar-humbucker',
  baritone: 'guitar-baritone',
  mandolin: 'electric-mandolin',
  steel: 'lap-steel',
  piezo: 'instrument-piezo',
  acoustic: 'instrument-piezo',
  keys: 'line-instrument',
  vocal: 'microphone-voice',
  voice: 'microphone-voice',
  mic: 'microphone',
  radio: 'wireless',
  pack: 'wireless',
  tuner: 'tuner-true-bypass',
  comp: 'compressor',
  drive: 'drive-low',
  'low drive': 'drive-low',
  overdrive: 'drive-low',
  'mid drive': 'drive-mid',
  'high drive': 'drive-high',
  distortion: 'drive-high',
  volume: 'volume-passive',
  'volume pedal': 'volume-passive',
  echo: 'delay',
  verb: 'reverb',
  trem: 'tremolo',
  modulation: 'modulation-digital',
  pitch: 'pitch-shifter',
  di: 'direct-box',
  'direct box': 'direct-box',
  amp: 'combo-tube',
  combo: 'combo-tube',
  head: 'head-tube',
  cab: 'cabinet',
  house: 'console-input',
  desk: 'desk-input',
  console: 'console-input',
  ears: 'in-ear-mix',
  'in ears': 'in-ear-mix',
  splitter: 'splitter-buffered',
  isolator: 'hum-isolator',
  modeler: 'modeler-floor',
  switcher: 'loop-switcher',
  simulator: 'amp-cab-simulator',
  mixer: 'mixer-line',
  insert: 'insert-point',
};

/** A kind that words may mean, by its own name or by what techs say. */
interface Name {
  words: string;
  kind: Kind;
}

const wordsOf = (text: string): string[] =>
  text
    .toLowerCase()
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean);
const inOrder = (text: string): string => wordsOf(text).sort().join(' ');

/** Words for kinds: those of the sheets at hand first, then those that ship. */
export class ChainWords {
  private readonly names: Name[];
  private readonly exact = new Map<string, Kind>();
  private readonly near: Fuse<Name>;

  constructor(sheets: readonly Sheet[] = []) {
    const kinds = [...sheets.map(kindOfSheet), ...KINDS];
    const byId = new Map(kinds.map((k) => [k.id, k]));
    const said = Object.entries(SAID).flatMap(([words, id]) => {
      const kind = byId.get(id);
      return kind ? [{ words, kind }] : [];
    });
    this.names = [
      ...kinds.map((kind) => ({ words: kind.name, kind })),
      ...said,
      ...kinds.map((kind) => ({ words: kind.id, kind })),
    ];
    for (const { words, kind } of this.names)
      if (!this.exact.has(inOrder(words))) this.exact.set(inOrder(words), kind);
    this.near = new Fuse(this.names, { keys: ['words'], threshold: 0.45, ignoreLocation: true });
  }

  /**
   * The kind that words mean: what is called so, in any order of its words; else the one kind whose
   * words begin with each of them; nothing where none does, or several do and none is called so.
   */
  meant(text: string): Kind | undefined {
    const typed = wordsOf(text);
    if (!typed.length) return undefined;
    const exact = this.exact.get(inOrder(text));
    if (exact) return exact;
    const fits = this.names.filter(({ words }) => {
      const has = wordsOf(words);
      return typed.every((t) => has.some((w) => w.startsWith(t)));
    });
    const kinds = [...new Set(fits.map((f) => f.kind))];
    return kinds.length === 1 ? kinds[0] : undefined;
  }

  /** The nearest kinds to words that mean none, the nearest first: at most three. */
  guesses(text: string): Kind[] {
    const found = this.near.search(text).map((r) => r.item.kind);
    const begun = this.names
      .filter(({ words }) => wordsOf(text).some((t) => wordsOf(words).some((w) => w.startsWith(t))))
      .map((n) => n.kind);
    return [...new Set([...found, ...begun])].slice(0, 3);
  }
}
