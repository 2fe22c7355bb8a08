import type { Rig } from '../rig/schema';
import { wired } from './wired';

const LINE = { settings: { input: 'line' } };
const ONE_AMP = { a: 'combo-tube', m: 'microphone', f: 'console-input' };
const AT_AMP = 'a.air>m.air m.out>f.in';
const HEAD = { h: 'head-tube', c: 'cabinet', m: 'microphone', f: 'console-input' };
const AT_HEAD = 'h.speaker>c.in c.air>m.air m.out>f.in';
const TO_DESK = { d: 'direct-box', e: 'direct-box', f: 'console-input-stereo' };
const AT_DESK = 'd.out>f.in e.out>f.inR';

/** Rigs as techs wire them by hand, each without a fault or a caution. */
export const HAND_WIRED: Record<string, Rig> = {
  'one amplifier or both': wired(
    {
      g: 'guitar-single-coil',
      t: 'tuner-true-bypass',
      o: 'compressor',
      d: 'drive-low',
      s: 'splitter-isolated',
      b: 'combo-tube',
      n: 'microphone',
      k: 'console-input',
      ...ONE_AMP,
    },
    `g.out>t.in t.out>o.in o.out>d.in d.out>s.in s.a>a.in s.b>b.in ${AT_AMP} b.air>n.air n.out>k.in`,
    {
      Both: ['o s a b m n', { s: { isolateB: true } }],
      One: ['d s a m', { s: { isolateB: true, select: 'a' } }],
    },
  ),
  'a gate around drive and preamplifier': wired(
    { g: 'guitar-humbucker', n: 'gate-loop', d: 'drive-mid', ...HEAD },
    `g.out>n.in n.send>d.in d.out>h.in h.send>n.return n.out>h.return ${AT_HEAD}`,
    { Clean: 'n h c m', Lead: 'n d h c m' },
  ),
  'a modeler around a preamplifier': wired(
    {
      g: 'guitar-humbucker',
      p: 'modeler-floor',
      ...HEAD,
      d: ['drive-mid', { host: 'p' }],
      e: ['delay', { host: 'p' }],
    },
    'g.out>p.in p.fromIn>d.in d.out>p.toSend1 p.send1>h.in h.send>p.return1 p.fromReturn1>e.in ' +
      `e.out>p.toOut p.out>h.return ${AT_HEAD}`,
    { Clean: 'd h c m', Wide: 'e h c m' },
  ),
  'an acoustic into two direct boxes': wired(
    { g: 'instrument-piezo', t: 'tuner-buffered', q: 'eq', r: 'reverb', ...TO_DESK },
    `g.out>t.in t.out>q.in q.out>r.in r.out>d.in r.outR>e.in ${AT_DESK}`,
    { Hall: 'q r', Dry: 'q' },
  ),
  'five loops in a fixed order': wired(
    {
      g: 'guitar-humbucker',
      w: 'loop-switcher-fixed',
      o: 'compressor',
      d: 'drive-low',
      q: 'eq',
      e: 'delay',
      r: 'reverb',
      ...ONE_AMP,
    },
    'g.out>w.in w.send1>o.in o.out>w.return1 w.send2>d.in d.out>w.return2 w.send3>q.in q.out>w.return3 ' +
      `w.send4>e.in e.out>w.return4 w.send5>r.in r.out>w.return5 w.out>a.in ${AT_AMP}`,
    {
      Clean: ['o d q e r a m', { w: { loop1: true, loop5: true } }],
      Drive: ['o d q e r a m', { w: { loop2: true, loop4: true } }],
      Solo: ['o d q e r a m', { w: { loop3: true } }],
    },
  ),
  'loops in a free order and an echo in the head': wired(
    {
      g: 'guitar-humbucker',
      w: 'loop-switcher',
      o: 'compressor',
      d: 'drive-mid',
      e: 'delay',
      ...HEAD,
    },
    'g.out>w.in w.send1>o.in o.out>w.return1 w.send2>d.in d.out>w.return2 w.out>h.in ' +
      `h.send>e.in e.out>h.return ${AT_HEAD}`,
    { Clean: ['o h c m', { w: { order: '1' } }], Drive: ['d e h c m', { w: { order: '2' } }] },
  ),
  'a simulator, wide from there': wired(
    {
      g: 'guitar-humbucker',
      d: 'drive-low',
      s: 'amp-cab-simulator',
      e: 'delay',
      r: 'reverb',
      f: ['console-input-stereo', LINE],
    },
    'g.out>d.in d.out>s.in s.out>e.in s.outR>e.inR e.out>r.in e.outR>r.inR r.out>f.in r.outR>f.inR',
    { Wide: 's e r', Drive: 'd s r' },
  ),
  'a modeler alone, with a real drive in its loop': wired(
    {
      g: 'guitar-humbucker',
      p: 'modeler-floor',
      d: 'drive-mid',
      a: ['amp-block', { host: 'p' }],
      c: ['cab-block', { host: 'p' }],
      e: ['delay', { host: 'p' }],
      f: ['console-input-stereo', LINE],
    },
    'g.out>p.in p.fromIn>p.toSend1 p.send1>d.in d.out>p.return1 p.fromReturn1>a.in a.out>c.in ' +
      'c.out>e.in e.out>p.toOut e.outR>p.toOutR p.out>f.in p.outR>f.inR',
    { Wide: 'a c e', Drive: 'd a c' },
  ),
  'a dry head and wet cabinets on both sides': wired(
    {
      g: 'guitar-humbucker',
      d: 'drive-mid',
      ...HEAD,
      q: 'attenuator',
      z: 'hum-isolator',
      e: ['delay', { settings: { mix: 10 } }],
      r: ['reverb', { settings: { mix: 10 } }],
      p: 'power-amp',
      x: 'cabinet',
      y: 'cabinet',
      i: 'microphone',
      j: 'microphone',
      k: 'console-input',
      l: 'console-input',
    },
    'g.out>d.in d.out>h.in h.speaker>q.in q.out>c.in q.line>z.in z.out>e.in e.out>r.in e.outR>r.inR ' +
      'r.out>p.in r.outR>p.inR p.speaker>x.in p.speakerR>y.in c.air>m.air x.air>i.air y.air>j.air ' +
      'm.out>f.in i.out>k.in j.out>l.in',
    { Clean: 'h c m q e r p x y i j', Drive: 'd h c m q e r p x y i j' },
  ),
  'a guitar or a steel, a tuner on a leg': wired(
    {
      g: 'guitar-single-coil',
      l: 'lap-steel',
      s: 'input-selector',
      t: 'tuner-buffered',
      d: 'drive-low',
      v: 'volume-active',
      e: 'delay',
      ...ONE_AMP,
    },
    `g.out>s.a l.out>s.b s.out>d.in d.out>v.in v.tuner>t.in v.out>e.in e.out>a.in ${AT_AMP}`,
    { Guitar: 'g a m', Steel: ['l e a m', { s: { select: 'b' } }] },
  ),
  'a voice to desk and ears': wired(
    {
      v: 'microphone-voice',
      s: 'splitter-microphone',
      f: 'console-input',
      e: ['in-ear-mix', { settings: { input: 'mic' } }],
    },
    'v.out>s.in s.a>f.in s.b>e.in',
    { Song: 'v' },
  ),
  'keys through a reverb': wired(
    { k: 'line-instrument', m: 'mixer-stereo', r: 'reverb', ...TO_DESK },
    `k.out>m.a m.out>r.in m.outR>r.inR r.out>d.in r.outR>e.in ${AT_DESK}`,
    { Song: 'k r' },
  ),
  'a synthesizer pedal with a drive in its loop': wired(
    {
      g: 'guitar-humbucker',
      y: 'synth-pedal',
      d: 'drive-low',
      s: 'amp-cab-simulator',
      f: ['console-input', LINE],
    },
    'g.out>y.in y.send>d.in d.out>y.return y.out>s.in s.out>f.in',
    { Synth: 'y d s', Guitar: 'd s' },
  ),
  'an insert, then a drive': wired(
    { g: 'guitar-humbucker', i: 'insert-point', o: 'compressor', d: 'drive-low', ...ONE_AMP },
    `g.out>i.in i.send>o.in o.out>i.return i.out>d.in d.out>a.in ${AT_AMP}`,
    { Clean: 'o a m', Drive: 'd a m' },
  ),
  'an octave blended in': wired(
    { g: 'guitar-humbucker', b: 'blend-loop', o: 'octave', d: 'drive-low', ...ONE_AMP },
    `g.out>b.in b.send>o.in o.out>b.return b.out>d.in d.out>a.in ${AT_AMP}`,
    { Clean: 'o a m', Drive: 'o d a m' },
  ),
  'one of two lines': wired(
    { g: 'guitar-humbucker', w: 'line-selector', d: 'drive-low', e: 'drive-mid', ...ONE_AMP },
    `g.out>w.in w.sendA>d.in d.out>w.returnA w.sendB>e.in e.out>w.returnB w.out>a.in ${AT_AMP}`,
    { One: ['d e a m', { w: { mode: 'a' } }], Other: ['d e a m', { w: { mode: 'b' } }] },
  ),
  'two heads on one cabinet': wired(
    { g: 'guitar-humbucker', z: 'amp-switcher', x: 'head-tube', ...HEAD },
    'g.out>z.in z.amp1>x.in z.amp2>h.in x.speaker>z.speaker1 h.speaker>z.speaker2 z.cab1>c.in ' +
      'c.air>m.air m.out>f.in',
    {
      One: ['x h c m', { z: { amp: '1', cab: '1', loop: false } }],
      Other: ['x h c m', { z: { amp: '2', cab: '1', loop: false } }],
    },
  ),
  'a chorus into two amplifiers': wired(
    {
      g: 'guitar-humbucker',
      d: 'drive-low',
      o: 'chorus',
      s: 'hum-isolator',
      ...ONE_AMP,
      x: 'combo-tube',
      n: 'microphone',
      f: 'console-input-stereo',
    },
    `g.out>d.in d.out>o.in o.out>s.in o.outR>s.inR s.out>a.in s.outR>x.in ${AT_AMP} x.air>n.air n.out>f.inR`,
    { Clean: 'o a x m n', Drive: 'd o a x m n' },
  ),
  'an octave to a line of its own': wired(
    {
      g: 'guitar-humbucker',
      t: 'tuner-true-bypass',
      o: 'octave-dual',
      d: 'drive-low',
      e: 'direct-box',
      k: 'console-input',
      ...ONE_AMP,
    },
    `g.out>t.in t.out>o.in o.out>d.in d.out>a.in o.effect>e.in e.out>k.in ${AT_AMP}`,
    { Clean: 'o a m', Drive: 'o d a m' },
  ),
  'an attenuator': wired(
    { g: 'guitar-humbucker', d: 'drive-mid', ...HEAD, q: 'attenuator' },
    'g.out>d.in d.out>h.in h.speaker>q.in q.out>c.in c.air>m.air m.out>f.in',
    { Clean: 'h q c m', Drive: 'd h q c m' },
  ),
  'two radios on a selector': wired(
    {
      g: 'guitar-humbucker',
      k: 'guitar-humbucker',
      x: 'wireless',
      y: 'wireless',
      s: 'input-selector',
      q: 'eq',
      d: 'drive-high',
      n: 'gate',
      ...HEAD,
    },
    `g.out>x.in k.out>y.in x.out>s.a y.out>s.b s.out>q.in q.out>d.in d.out>n.in n.out>h.in ${AT_HEAD}`,
    {
      One: ['g x q h c m', { s: { select: 'a' } }],
      Other: ['k y d n h c m', { s: { select: 'b' } }],
    },
  ),
  'a modeler in the loop of a head': wired(
    {
      g: 'guitar-humbucker',
      d: 'drive-low',
      p: 'modeler-compact',
      ...HEAD,
      e: ['delay', { host: 'p' }],
      r: ['reverb', { host: 'p' }],
    },
    'g.out>d.in d.out>h.in h.send>p.in p.fromIn>e.in e.out>r.in r.out>p.toOut p.out>h.return ' +
      AT_HEAD,
    { Clean: 'h c m e r', Drive: 'd h c m e' },
  ),
  'a fuzz that wants the pickup': wired(
    {
      g: 'guitar-single-coil',
      z: 'fuzz-low-impedance',
      b: 'buffer',
      o: 'phaser',
      e: 'delay-analog',
      ...ONE_AMP,
    },
    `g.out>z.in z.out>b.in b.out>o.in o.out>e.in e.out>a.in ${AT_AMP}`,
    { Clean: 'b o a m', Fuzz: 'z b e a m', Bare: 'b a m' },
  ),
  'a steel with a volume pedal': wired(
    {
      g: 'lap-steel',
      b: 'buffer',
      v: 'volume-passive',
      e: 'delay',
      r: 'reverb',
      ...ONE_AMP,
    },
    `g.out>b.in b.out>v.in v.out>e.in e.out>r.in r.out>a.in ${AT_AMP}`,
    { Echo: 'b e a m', Hall: 'b r a m' },
  ),
  'a modeler into a direct box': wired(
    {
      g: 'guitar-humbucker',
      k: 'modeler-compact',
      a: ['amp-block', { host: 'k' }],
      c: ['cab-block', { host: 'k' }],
      r: ['reverb', { host: 'k' }],
      d: 'direct-box-active',
      f: 'console-input',
    },
    'g.out>k.in k.fromIn>a.in a.out>c.in c.out>r.in r.out>k.toOut k.out>d.in d.out>f.in',
    { Hall: 'a c r', Dry: 'a c' },
  ),
  'a digital guitar into a head': wired(
    {
      g: 'instrument-digital',
      h: 'head-tube-digital',
      c: 'cabinet',
      m: 'microphone',
      f: 'console-input',
    },
    'g.digital>h.digital h.speaker>c.in c.air>m.air m.out>f.in',
    { One: 'g h c m' },
  ),
  'two cabinets in series': wired(
    {
      g: 'guitar-humbucker',
      x: 'speaker-series',
      ...HEAD,
      d: 'cabinet',
      h: ['head-tube', { figures: { tapOhms: { value: 16, from: 'sheet' } } }],
    },
    'g.out>h.in h.speaker>x.in x.a>c.in x.b>d.in c.air>m.air m.out>f.in',
    { One: 'h c d m' },
  ),
  'a loop switcher around a preamplifier': wired(
    {
      g: 'guitar-humbucker',
      w: 'loop-switcher',
      d: 'drive-low',
      x: 'drive-mid',
      o: 'chorus',
      e: 'delay',
      ...HEAD,
    },
    'g.out>w.in w.send1>d.in d.out>w.return1 w.send2>x.in x.out>w.return2 w.send3>h.in h.send>w.return3 ' +
      `w.send4>o.in o.out>w.return4 w.send5>e.in e.out>w.return5 w.out>h.return ${AT_HEAD}`,
    {
      Clean: ['d x o e h c m', { w: { order: '3 4' } }],
      Edge: ['d x o e h c m', { w: { order: '1 3 5' } }],
      Drive: ['d x o e h c m', { w: { order: '2 3' } }],
    },
  ),
  'a switcher, then two amplifiers': wired(
    {
      g: 'guitar-humbucker',
      w: 'loop-switcher-fixed',
      o: 'compressor',
      d: 'drive-low',
      x: 'drive-mid',
      e: 'delay',
      s: 'splitter-isolated',
      b: 'combo-tube',
      n: 'microphone',
      k: 'console-input',
      ...ONE_AMP,
    },
    'g.out>w.in w.send1>o.in o.out>w.return1 w.send2>d.in d.out>w.return2 w.send3>x.in x.out>w.return3 ' +
      `w.send4>e.in e.out>w.return4 w.out>s.in s.a>a.in s.b>b.in ${AT_AMP} b.air>n.air n.out>k.in`,
    {
      Clean: ['o d x e a b m n', { w: { loop1: true }, s: { isolateB: true } }],
      Edge: ['o d x e a b m n', { w: { loop2: true }, s: { isolateB: true } }],
      Solo: [
        'o d x e a b m n',
        { w: { loop2: true, loop3: true, loop4: true }, s: { isolateB: true } },
      ],
    },
  ),
  'an acoustic with its tuner on a tap': wired(
    {
      g: 'instrument-piezo',
      o: 'compressor',
      q: 'eq',
      v: 'volume-active',
      t: 'tuner-true-bypass',
      e: 'delay',
      d: 'direct-box',
      f: 'console-input',
    },
    'g.out>o.in o.out>q.in q.out>v.in v.tuner>t.in v.out>e.in e.out>d.in d.out>f.in',
    { Dry: 'o q', Echo: 'o q e' },
  ),
};
