import loadHighs from 'highs';
import { kindOf } from '../kinds';
import { midiGraph, reachIn } from '../midi';
import { analyse, type Report } from '../report';
import { type Brief, integrityProblems, type Rig, rigSchema, type Way } from '../rig';
import { exactly } from '../solve';
import { builtUp, finished, type Proposal, proposeRig } from '.';

/** Every sort of rig that techs build, from answers and changed decisions alone. */

const named = (words: string, prefix: string) =>
  words
    .split(' ')
    .filter(Boolean)
    .map((kind, n) => ({ id: `${prefix}${n}`, kind, name: `${kindOf(kind).name} ${n + 1}` }));
const instruments = (words: string): Brief['sources'] =>
  named(words.replaceAll('~', ''), 's').map((s, n) => ({
    ...s,
    wireless: words.split(' ')[n]?.startsWith('~') === true,
  }));
const heard = (words: string): Brief['destinations'] =>
  (words.split(' ') as Way[]).map((way, n) => ({ id: `d${n}`, way, name: `${way} ${n + 1}` }));
const SOUNDS: Brief['sounds'] = [
  { id: 'clean', name: 'Clean', character: 'clean' },
  { id: 'edge', name: 'Edge', character: 'edge' },
  { id: 'crunch', name: 'Crunch', character: 'crunch' },
  { id: 'lead', name: 'Lead', character: 'saturated' },
];

interface Answered {
  /** Kinds that come in; with ~ by wireless. */
  plays: string;
  heard: string;
  pedals: string;
  means?: Brief['means'];
  not?: Record<string, string[]>;
  other?: string[];
  /** Rules of which the changed decision says that it brings them. */
  brings?: string[];
}

const briefOf = ({ plays, heard: ends, pedals, means, not = {} }: Answered): Brief => ({
  sources: instruments(plays),
  destinations: heard(ends).map((d) => ({ ...d, ...(not[d.way] && { not: not[d.way] }) })),
  gear: named(pedals, 'g'),
  sounds: SOUNDS,
  ...(means && { means }),
});

/** A whole rig with every promise kept and nothing above advice, but for the hiss of what was chosen. */
function begun(answers: Answered): Proposal & { report: Report; why: Record<string, string> } {
  const choice = { id: 'new', name: 'New', otherSchool: answers.other ?? [] };
  const made = finished(proposeRig(briefOf(answers), choice));
  expect(rigSchema.safeParse(made.rig).error).toBeUndefined();
  expect(integrityProblems(made.rig)).toEqual([]);
  // Each decision that was changed is one that was asked.
  for (const [id, value] of Object.entries(answers.means?.changed ?? {}))
    expect(made.choices.find((c) => c.id === id)).toMatchObject({ taken: value });
  const report = analyse(made.rig);
  expect(report.promises.filter((p) => !p.kept).map((p) => p.words)).toEqual([]);
  expect(
    report.findings
      .filter(
        (f) =>
          f.severity !== 'advice' &&
          !['noise', 'latency', ...(answers.brings ?? [])].includes(f.rule),
      )
      .map((f) => `${f.rule}: ${f.what}`),
  ).toEqual([]);
  return { ...made, report, why: Object.fromEntries(made.choices.map((c) => [c.id, c.why])) };
}

const one = (rig: Rig, kind: string) => {
  const found = rig.devices.filter((d) => d.kind === kind);
  expect([kind, found.length]).toEqual([kind, 1]);
  return found[0]!;
};
const all = (rig: Rig, kind: string) => rig.devices.filter((d) => d.kind === kind);
const byName = (rig: Rig, name: string) => rig.devices.find((d) => d.name === name)!;
/** Where the lead from a jack goes. */
const from = (rig: Rig, device: string, jack: string) => {
  const lead = rig.leads.find((l) => l.from.device === device && l.from.jack === jack);
  return lead && [lead.to.device, lead.to.jack];
};
/** Where the lead into a jack comes from. */
const into = (rig: Rig, device: string, jack: string) => {
  const lead = rig.leads.find((l) => l.to.device === device && l.to.jack === jack);
  return lead && [lead.from.device, lead.from.jack];
};
/** Who is heard by somebody, in one sound or in the last. */
const hears = (report: Report, device: string, n = SOUNDS.length - 1) =>
  report.sounds[n]!.destinations.find((d) => d.device === device)!.sources;
const without = (rig: Rig, device: string, jack: string): Report =>
  analyse({
    ...rig,
    leads: rig.leads.filter((l) => l.to.device !== device || l.to.jack !== jack),
  });

test('stacked gain: nothing is switched off on the way up, each step is one more pedal', () => {
  const { rig } = begun({
    plays: 'guitar-single-coil',
    heard: 'combo house',
    pedals: 'drive-low drive-mid drive-high',
  });
  const on = rig.sounds.map((s) => Object.keys(s.states).filter((id) => s.states[id]!.engaged));
  expect(on.map((ids) => ids.length)).toEqual([0, 1, 2, 3]);
  for (const [n, ids] of on.entries())
    expect(on[n + 1] ?? ids).toEqual(expect.arrayContaining(ids));
});

test('two signals down one digital lead: the pickups to a head on one link, the modelled one past it', () => {
  const { rig, report } = begun({
    plays: 'instrument-digital',
    heard: 'head house recorder',
    pedals: '',
    means: { changed: { 'power-stage': 'digital', 'second-s0': 'dual' } },
  });
  const [guitar, modeler, head] = ['instrument-digital', 'modeler-floor', 'head-tube-digital'].map(
    (kind) => one(rig, kind).id,
  );
  expect(from(rig, guitar!, 'digital')).toEqual([modeler, 'digitalIn']);
  expect(from(rig, modeler!, 'digitalOut')).toEqual([head, 'digital']);
  const cabinet = one(rig, 'cabinet').id;
  expect(hears(report, cabinet)).toEqual([guitar]);
  for (const end of ['house 2', 'recorder 3']) {
    const own = `${end}, Guitar with a digital output 1 modelled`;
    expect(hears(report, byName(rig, end).id)).toEqual([guitar]);
    expect(hears(report, byName(rig, own).id)).toEqual([`${guitar}/modelled`]);
  }
  // With a pedal it goes through the first loop, in front of the amplifier.
  const more = begun({ plays: 'instrument-digital', heard: 'house', pedals: 'compressor delay' });
  const host = one(more.rig, 'modeler-floor').id;
  expect(from(more.rig, host, 'send1')).toEqual([one(more.rig, 'compressor').id, 'in']);
});

test('a session rig: an ear each for guitar and band, a pedal for the ear alone, a spare receiver, a voice', () => {
  const { rig, report } = begun({
    plays: '~guitar-humbucker mix-feed microphone-voice',
    heard: 'stage house in-ears',
    pedals: 'delay reverb',
    not: { 'in-ears': ['s2'] },
    means: {
      voice: 'modeler',
      changed: {
        'spare-s0': 'second',
        'other-ear': 'other',
        outputs: 'ears',
        'ears-pedal': 'pedal',
        'house-from': 'speaker',
      },
    },
  });
  const [guitar, band, voice] = ['guitar-humbucker', 'mix-feed', 'microphone-voice'].map(
    (kind) => one(rig, kind).id,
  );
  const ears = one(rig, 'in-ear-mix').id;
  expect([...hears(report, ears)].sort()).toEqual([guitar, band].sort());
  expect(into(rig, ears, 'inR')).toEqual([band, 'out']);
  expect(hears(without(rig, ears, 'inR'), ears)).toEqual([guitar]);
  expect(into(rig, byName(rig, 'house 2').id, 'in')).toEqual([byName(rig, 'stage 1').id, 'thru']);
  expect(hears(report, byName(rig, 'house 2').id)).toEqual([guitar]);
  expect(hears(report, byName(rig, 'house 2, Handheld microphone 3').id)).toEqual([voice]);
  const spare = byName(rig, 'Spare wireless').id;
  expect(from(rig, spare, 'out')).toEqual([one(rig, 'input-selector').id, 'b']);
  const promise = rig.promises!.find((p) => p.type === 'control-moves-only')!;
  expect(promise).toMatchObject({ control: 'ears-pedal', destinations: [ears] });
  expect(rig.controls!.map((c) => c.type)).toEqual(['pedal']);
});

test('a modeler behind loops of free order: a gate around its amplifier, the octave on an input of its own', () => {
  const { rig, choices, why } = begun({
    plays: 'guitar-humbucker',
    heard: 'house in-ears',
    pedals: 'compressor octave-dual feedback gate-loop drive-mid synth-pedal slicer delay',
    means: {
      voice: 'modeler',
      switching: 'loops-free',
      calls: 'own',
      house: 'mono',
      changed: {
        'effect-octave-with-dry-and-effect-outputs-2': 'dual',
        'holds-noise-gate-with-a-loop-4': 'amp',
      },
    },
  });
  const [modeler, gate, octave] = ['modeler-floor', 'gate-loop', 'octave-dual'].map(
    (kind) => one(rig, kind).id,
  );
  expect(into(rig, gate!, 'in')).toEqual([one(rig, 'guitar-humbucker').id, 'out']);
  expect(from(rig, modeler!, 'send2')).toEqual([gate, 'return']);
  expect(from(rig, gate!, 'out')).toEqual([modeler, 'return2']);
  expect(from(rig, octave!, 'effect')).toEqual([modeler, 'aux']);
  const own = byName(rig, 'house 1, Octave with dry and effect outputs 2 effect');
  // What is on the second line goes by the octave alone: unplugged there, nobody hears it.
  expect(hears(without(rig, modeler!, 'aux'), own.id)).toEqual([]);
  expect(hears(without(rig, modeler!, 'aux'), byName(rig, 'house 1').id)).not.toEqual([]);
  const orders = rig.sounds.map((s) => s.states[one(rig, 'loop-switcher').id]!.settings!.order);
  expect(new Set(orders).size).toBeGreaterThan(1);
  // What repeats nothing has nothing behind it: all that has programs or runs by clock is reached.
  for (const kind of ['slicer', 'delay', 'synth-pedal', 'loop-switcher', 'modeler-floor']) {
    const { name } = one(rig, kind);
    const { about, taken, options } = choices.find((c) => c.id === 'calls')!;
    const leads = options.find((o) => o.value === taken)!.label === name;
    expect([about, name, leads || why.calls!.includes(name)]).toEqual([about, name, true]);
  }
});

test.each(['pedal', 'switch'] as const)('two amplifiers in one preset, crossed by one %s', (by) => {
  const { rig } = begun({
    plays: 'guitar-humbucker',
    heard: 'house',
    pedals: 'reverb',
    means: { voice: 'modeler', changed: { pan: by } },
  });
  const [control] = rig.controls!;
  const mixer = one(rig, 'mixer-line').id;
  expect(control!.assigns.map((a) => [a.device, a.setting])).toEqual([
    [mixer, 'levelA'],
    [mixer, 'levelB'],
  ]);
  const [first, second] = all(rig, 'amp-block').map((d) => d.id);
  const house = one(rig, 'console-input-stereo').id;
  const at = (end: 'heel' | 'toe') => {
    const settings = Object.fromEntries(
      control!.assigns.map((a) => [
        a.setting,
        by === 'pedal' ? (end === 'heel' ? a.min! : a.max!) : end === 'heel' ? a.off! : a.on!,
      ]),
    );
    return {
      ...rig,
      devices: rig.devices.map((d) => (d.id === mixer ? { ...d, settings } : d)),
    };
  };
  const soundsBy = (end: 'heel' | 'toe') =>
    [first!, second!].map((amp) => {
      const level = without(at(end), amp, 'in').sounds[0]!.destinations.find(
        (d) => d.device === house,
      )!.levelDbu;
      return (level?.normal ?? -Infinity) < -60;
    });
  expect([soundsBy('heel'), soundsBy('toe')]).toEqual([
    [true, false],
    [false, true],
  ]);
});

test('a recorded part: six pedals, two amplifiers behind the chorus, a room on one of them', () => {
  const { rig, report } = begun({
    plays: 'guitar-single-coil',
    heard: 'combo combo',
    pedals: 'boost compressor drive-low drive-mid chorus reverb',
    means: { changed: { 'amps-fed': 'sides-wet' } },
  });
  const reverb = one(rig, 'reverb').id;
  const [dry, wet] = all(rig, 'combo-tube-loop').map((d) => d.id);
  expect(from(rig, one(rig, 'chorus').id, 'outR')).toBeDefined();
  expect(into(rig, wet!, 'in')![0]).toBe(reverb);
  const cut = without(rig, reverb, 'in');
  expect([hears(cut, dry!).length, hears(cut, wet!).length]).toEqual([1, 0]);
  expect(hears(report, wet!)).toHaveLength(1);
});

test('a loop switcher called by a tablet: its line by an isolator, wireless, a coil for what wants a pickup', () => {
  const { rig, why } = begun({
    plays: '~guitar-single-coil',
    heard: 'combo house',
    pedals:
      'treble-booster octave compressor drive-low drive-mid boost volume-active delay modulation-digital',
    means: { switching: 'loops-free', calls: 'tablet', changed: { usb: 'isolator' } },
  });
  const tablet = one(rig, 'set-list-app').id;
  expect(from(rig, tablet, 'usb')).toEqual([one(rig, 'usb-isolator').id, 'up']);
  expect(all(rig, 'pickup-simulator')).toHaveLength(1);
  const graph = midiGraph(rig);
  for (const kind of ['loop-switcher', 'delay', 'modulation-digital']) {
    const device = one(rig, kind);
    expect([kind, reachIn(graph, tablet).has(device.id)]).toEqual([kind, true]);
    expect(rig.sounds.every((s) => s.states[device.id]?.program)).toBe(true);
  }
  expect(why['spare-s0']).toContain('takes priority over the radio');
});

test('a foot controller that calls everything that has programs', () => {
  const { rig } = begun({
    plays: 'guitar-baritone',
    heard: 'head house',
    pedals: 'drive-low drive-mid delay reverb',
    means: { switching: 'loops-fixed', calls: 'controller' },
  });
  const reached = reachIn(midiGraph(rig), one(rig, 'foot-controller').id);
  for (const kind of ['loop-switcher-fixed', 'delay', 'reverb'])
    expect([kind, reached.has(one(rig, kind).id)]).toEqual([kind, true]);
});

test('real pedals in the loops of a modeler: the drive from send 1, the delay fed once and back twice', () => {
  const { rig } = begun({
    plays: 'guitar-humbucker',
    heard: 'house',
    pedals: 'drive-mid delay',
    means: { voice: 'modeler', changed: { dirt: 'loop' } },
  });
  const modeler = one(rig, 'modeler-floor').id;
  const [drive, delay] = [one(rig, 'drive-mid').id, one(rig, 'delay').id];
  expect(from(rig, modeler, 'send1')).toEqual([drive, 'in']);
  expect(from(rig, drive, 'out')).toEqual([modeler, 'return1']);
  expect(from(rig, modeler, 'send3')).toEqual([delay, 'in']);
  expect([from(rig, delay, 'out'), from(rig, delay, 'outR')]).toEqual([
    [modeler, 'return3'],
    [modeler, 'return4'],
  ]);
});

test('no amplifier: a guest’s insert, both sides into one stereo jack, lines by direct boxes', () => {
  const { rig, report } = begun({
    plays: 'electric-mandolin',
    heard: 'house',
    pedals:
      'buffer octave tremolo drive-low drive-mid volume-active insert-point chorus delay-dual reverb',
    means: { voice: 'simulator', changed: { wet: 'trs', lines: 'box' } },
  });
  const simulator = one(rig, 'amp-cab-simulator-trs').id;
  const comes = rig.leads.filter((l) => l.to.device === simulator);
  expect(comes.map((l) => [l.type, l.conductor])).toEqual([
    ['insert', 'tip'],
    ['insert', 'ring'],
  ]);
  expect(all(rig, 'direct-box')).toHaveLength(2);
  expect(report.sounds.at(-1)!.destinations[0]!.channels).toBe('stereo');
  expect(into(rig, one(rig, 'insert-point').id, 'in')![0]).toBe(one(rig, 'volume-active').id);
});

test('a handful of slots: compressor and drive in front of a small modeler', () => {
  const { rig } = begun({
    plays: 'guitar-single-coil',
    heard: 'house',
    pedals: 'compressor drive-low',
    means: { voice: 'modeler' },
  });
  const modeler = one(rig, 'modeler-compact').id;
  expect(into(rig, modeler, 'in')).toEqual([one(rig, 'drive-low').id, 'out']);
  expect(rig.devices.filter((d) => d.host === modeler).map((d) => d.kind)).toEqual([
    'amp-block',
    'cab-block',
  ]);
});

test('loops in loops: drives side by side under one pedal, all of it in the dry loop of a synth', () => {
  const { rig, report } = begun({
    plays: 'guitar-humbucker',
    heard: 'combo',
    pedals:
      'synth-pedal pitch-shifter feedback wah drive-low fuzz volume-two-channel phaser tuner-buffered delay',
    other: ['tuner-place'],
    means: { changed: { cross: 'cross', 'holds-synth-pedal-with-a-dry-loop-1': 'held' } },
  });
  const [synth, selector, volume, drive, fuzz] = [
    ...['synth-pedal', 'line-selector', 'volume-two-channel', 'drive-low', 'fuzz'],
  ].map((kind) => one(rig, kind).id);
  expect(from(rig, synth!, 'send')).toBeDefined();
  expect(into(rig, synth!, 'return')).toBeDefined();
  const inLoop = [from(rig, selector!, 'sendA')![0], from(rig, selector!, 'sendB')![0]];
  expect(inLoop.sort()).toEqual([drive, fuzz].sort());
  expect([into(rig, volume!, 'in1')![0], into(rig, volume!, 'in2')![0]].sort()).toEqual(
    [drive, fuzz].sort(),
  );
  // Whichever of the two is on is heard; with the synth’s loop open, nothing of the guitar is.
  expect(rig.sounds.map((s) => s.states[selector!]!.settings!.mode)).toEqual([
    ...['bypass', 'a', 'mix', 'mix'],
  ]);
  for (const [n] of SOUNDS.entries()) expect(hears(report, 'combo-1', n)).toHaveLength(1);
});

test('several heads, one cabinet, one loop and one attenuator for all of them', () => {
  const { rig, report } = begun({
    plays: 'guitar-humbucker',
    heard: 'head head head',
    pedals: 'tuner-true-bypass delay',
    means: { amps: 'one', changed: { turns: 'switcher', attenuator: 'attenuator' } },
    // Heads on one switcher share a ground with it: the decision says so before it is taken.
    brings: ['hum-loop'],
  });
  const switcher = one(rig, 'amp-switcher').id;
  expect(from(rig, switcher, 'lineSend')).toEqual([one(rig, 'attenuator').id, 'in']);
  expect(from(rig, switcher, 'loopSend')).toEqual([one(rig, 'delay').id, 'in']);
  expect(report.promises.find((p) => p.id === 'no-tube-unloaded')!.kept).toBe(true);
  // Loops and loudspeakers alone come to more than a dozen leads.
  expect(
    rig.leads.filter((l) => [l.from, l.to].some((e) => e.device === switcher)).length,
  ).toBeGreaterThan(12);
});

test('a mini board around a small modeler stands on a small board, fed', async () => {
  const made = begun({
    plays: 'guitar-single-coil',
    heard: 'house',
    pedals: 'drive-low drive-mid boost volume-active delay reverb',
    means: { voice: 'modeler' },
  });
  const solver = exactly(await loadHighs({}));
  const { rig } = await builtUp(made, solver, () => Promise.resolve());
  expect(rig.boards).toHaveLength(1);
  expect(rig.devices.filter((d) => kindOf(d.kind).power && !d.host && !d.supply)).toEqual([]);
});

test('a touring rack: a modeler in it, power amplifiers, ears, tracks for the house and a click for the ears', () => {
  const { rig, report } = begun({
    plays: '~guitar-humbucker playback',
    heard: 'head house in-ears',
    pedals: 'pitch-shifter tuner-buffered',
    means: {
      voice: 'modeler',
      calls: 'own',
      changed: { modeler: 'modeler-rack', 'power-stage': 'power' },
    },
  });
  const tracks = one(rig, 'playback').id;
  expect(one(rig, 'modeler-rack').place).toBe('rack');
  expect(from(rig, one(rig, 'power-amp').id, 'speaker')).toEqual([one(rig, 'cabinet').id, 'in']);
  const who = Object.fromEntries(
    rig.devices.filter((d) => kindOf(d.kind).destination).map((d) => [d.name, hears(report, d.id)]),
  );
  expect(who['house 2, Playback, tracks and click 2']).toEqual([tracks]);
  expect(who['in-ears 3, Playback, tracks and click 2 click']).toEqual([`${tracks}/click`]);
  for (const [name, sources] of Object.entries(who))
    if (name.startsWith('house')) expect(sources).not.toContain(`${tracks}/click`);
});

test('two combos in stereo: one models, the other is its slave', () => {
  const { rig, report } = begun({
    plays: 'guitar-single-coil',
    heard: 'combo combo',
    pedals: 'drive-low delay',
    means: { voice: 'modeler', changed: { modeler: 'combo-modeling' } },
  });
  const [master, slave] = all(rig, 'combo-modeling').map((d) => d.id);
  expect(from(rig, master!, 'slaveOut')).toEqual([slave, 'powerIn']);
  for (const combo of [master!, slave!]) expect(hears(report, combo)).toHaveLength(1);
  // Only what stands behind the amplifier makes the two differ.
  const delay = one(rig, 'delay').id;
  expect(into(rig, delay, 'in')).toEqual([master, 'send1']);
});

test('five uses of a splitter', () => {
  const two = { plays: 'guitar-humbucker', heard: 'combo combo', pedals: 'drive-low delay' };
  const inTurns = begun({ ...two, means: { amps: 'one' } });
  expect(one(inTurns.rig, 'splitter-isolated')).toBeDefined();
  const together = begun({ ...two, means: { changed: { 'amps-fed': 'same' } } });
  const sounding = together.report.sounds[0]!.destinations.filter((d) => d.sources.length);
  expect(sounding).toHaveLength(2);
  const wet = begun({ ...two, means: { changed: { 'amps-fed': 'dry-wet' } } });
  expect(into(wet.rig, 'combo-2', 'in')![0]).toBe(one(wet.rig, 'delay').id);
  const tuned = begun({
    plays: 'guitar-humbucker',
    heard: 'combo',
    pedals: 'tuner-buffered drive-low',
    means: { changed: { 'tuner-tuner-buffered-1': 'tap' } },
  });
  const tap = one(tuned.rig, 'splitter-tuner').id;
  expect(from(tuned.rig, tap, 'tuner')![0]).toBe(one(tuned.rig, 'tuner-buffered').id);
  expect(from(tuned.rig, tap, 'out')![0]).toBe(one(tuned.rig, 'drive-low').id);
  const both = { plays: 'guitar-humbucker guitar-single-coil', heard: 'combo', pedals: 'looper' };
  const selected = begun({ ...both, means: { changed: { join: 'selector' } } });
  expect(hears(selected.report, 'combo-1')).toEqual(['guitar-humbuckers-1']);
  // On a passive box each loads the other: alone, the first is louder.
  const blended = begun({
    ...both,
    pedals: '',
    means: { together: true, changed: { join: 'passive' } },
  });
  const box = one(blended.rig, 'combiner-passive').id;
  const level = ({ sounds }: Report) =>
    sounds[0]!.stations.find((s) => s.device === 'guitar-humbuckers-1')!.output.levelDbu!.normal;
  expect(level(without(blended.rig, box, 'b'))).toBeGreaterThan(level(blended.report) + 1);
});
