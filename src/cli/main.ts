import { readFileSync, writeFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { Command, CommanderError } from 'commander';
import { analyse, type Report, type SoundReport } from '../core/report';
import type { DestinationFigures } from '../core/signal';
import { SEVERITIES } from '../core/findings/finding';
import {
  billCsv,
  boardSvg,
  bookOf,
  bookPages,
  cutListCsv,
  gearToCsv,
  LABEL_KINDS,
  type LabelKind,
  labelSheets,
  midiChartCsv,
  type Paper,
  powerPlanCsv,
  programMapCsv,
  rackSvg,
  runningOrderToCsv,
  setsToCsv,
  setToSmf,
  songsToChordPro,
  songsToCsv,
  songToSmf,
  stageSvg,
  toDot,
  toGraphml,
  walkGraph,
  walkSvg,
  wiringGraph,
  wiringSvg,
  wiringToCsv,
} from '../core/formats';
import { setStage } from '../core/midi';
import { applyEdits, problemLines, readRig, type Rig, writeRig } from '../core/rig';
import { fixed, showLevel } from '../core/units';
import { allScenes, clockTime } from '../core/songs';
import { changeJson, findScene, midiJson, songsJson } from './midi';
import { planPower, sizeOf } from '../core/build';
import { printPdf } from '../print/pdf';
import { buildJson, layoutOf } from './build';
import { exactSolver, proposals } from './proposals';
import { round } from './round';

/** Exit codes: nothing worse than caution, a fault or a danger, a file that cannot be read. */
const EXIT = { fine: 0, faulty: 1, unreadable: 2 } as const;

const say = (text: string): void => void process.stdout.write(`${text}\n`);
const json = (value: unknown): void => say(JSON.stringify(value, null, 2));

function load(file: string): Rig {
  let text: string;
  try {
    // npm runs scripts in the project's folder; the file is meant from where the person is.
    text = readFileSync(resolve(process.env.INIT_CWD ?? '.', file), 'utf8');
  } catch (error) {
    return refuse([
      `Cannot open ${file}: ${error instanceof Error ? error.message : String(error)}`,
    ]);
  }
  const read = readRig(text);
  return read.ok ? read.value : refuse([`${file} cannot be read:`, ...problemLines(read.problems)]);
}

/**
 * Why a command cannot be done, in words for the person; it ends the command, and output that is
 * under way is still written.
 */
class Refusal extends Error {}

function refuse(lines: string[]): never {
  throw new Refusal(lines.join('\n'));
}

function check(file: string, options: { json?: boolean }) {
  const rig = load(file);
  const { findings } = analyse(rig);
  const open = findings.filter((f) => f.accepted === undefined);
  if (options.json)
    json(
      findings.map(({ key, rule, severity, subjects, sounds, what, why, fix, accepted }) => ({
        key,
        rule,
        severity,
        subjects,
        sounds,
        what,
        why,
        fix,
        accepted,
      })),
    );
  else {
    say(
      `${rig.name}: ${SEVERITIES.map((s) => `${open.filter((f) => f.severity === s).length} ${s}`).join(', ')}`,
    );
    for (const f of findings)
      say(
        `${f.severity.toUpperCase().padEnd(8)} ${f.what} ${f.why}${f.fix ? ` [fix: ${f.fix.words}]` : ''}${f.accepted ? ` [accepted: ${f.accepted}]` : ''}`,
      );
  }
  process.exitCode = open.some((f) => f.severity === 'fault' || f.severity === 'danger')
    ? EXIT.faulty
    : EXIT.fine;
}

const walkOf = (rig: Rig, report: SoundReport, ids?: readonly string[]) =>
  report.stations
    .filter((s) => !ids || ids.includes(s.id))
    .sort((a, b) => a.column - b.column || a.lane - b.lane)
    .map((s) => ({
      device: s.device,
      name: rig.devices.find((d) => d.id === s.device)!.name,
      in: s.ins,
      out: s.outs,
      state: s.state,
      lane: s.lane,
      levelDbu: round(s.output.levelDbu?.normal ?? null),
      noiseDbu: round(s.output.noiseDbu),
      channels: s.width,
    }));

function walk(file: string, options: { sound?: string; json?: boolean }) {
  const rig = load(file);
  const report = soundReport(rig, analyse(rig), options.sound);
  const stations = walkOf(rig, report);
  if (options.json) return json({ sound: soundName(rig, report.sound), stations });
  for (const s of stations)
    say(
      `${String(s.lane + 1).padStart(2)}  ${s.name.padEnd(28)} ${s.state.padEnd(8)} ${showLevel(s.levelDbu).padStart(11)}  ${s.channels}`,
    );
}

const soundName = (rig: Rig, id: string): string =>
  rig.sounds.find((s) => s.id === id)?.name ?? 'As it stands';

function soundReport(rig: Rig, report: Report, wanted?: string): SoundReport {
  const found =
    wanted === undefined
      ? report.sounds[0]
      : report.sounds.find(
          (s) =>
            s.sound === wanted || soundName(rig, s.sound).toLowerCase() === wanted.toLowerCase(),
        );
  return (
    found ??
    refuse([
      `There is no sound "${wanted}" in ${rig.name}. It has: ${rig.sounds.map((s) => s.name).join(', ')}.`,
    ])
  );
}

const touches = (t: DestinationFigures['thdPercent']) =>
  t && { soft: round(t.soft), normal: round(t.normal), hard: round(t.hard) };

function report(file: string, options: { json?: boolean }) {
  const rig = load(file);
  const result = analyse(rig);
  const name = (id: string | null) =>
    id === null ? null : (rig.devices.find((d) => d.id === id)?.name ?? id);
  const destinations = result.sounds.flatMap((s) =>
    s.destinations.map((d) => ({
      destination: d.name,
      device: d.device,
      hears: d.hears,
      sound: soundName(rig, s.sound),
      levelDbu: round(d.levelDbu?.normal ?? null),
      levelDbuByTouch: touches(d.levelDbu),
      peakDbu: round(d.peakDbu),
      noiseDbu: round(d.noiseDbu),
      idleNoiseDbu: round(d.idleNoiseDbu),
      signalToNoiseDb: round(d.signalToNoiseDb),
      noisiest: name(d.noisiest),
      thdPercent: touches(d.thdPercent),
      channels: d.channels,
      latencyMs: round(d.latencyMs, 3),
      polarity: d.polarity,
      sources: d.sources,
      widenedBy: name(d.widenedBy),
      collapsedAt: name(d.collapsedAt),
      side: d.side,
      pairedWith: name(d.pairedWith),
      notchHz: round(d.notchHz, 1),
      sides: d.sides.map((x) => ({
        jack: x.jack,
        sources: x.sources,
        levelDbu: round(x.levelDbu?.normal ?? null),
        noiseDbu: round(x.noiseDbu),
        latencyMs: round(x.latencyMs, 3),
      })),
      walk: walkOf(rig, s, d.route),
    })),
  );
  const passiveSections = result.sounds.flatMap((s) =>
    s.tones.map((t) => ({
      sound: soundName(rig, s.sound),
      from: name(t.driver),
      to: name(t.listener),
      fromDevice: t.driver,
      toDevice: t.listener,
      barePickup: t.bare,
      leadPf: round(t.leadPf, 1),
      peakHz: round(t.peakHz, 1),
      peakDb: round(t.peakDb, 3),
      at1kHzDb: round(t.at1kHzDb, 3),
      at5kHzDb: round(t.at5kHzDb, 3),
      minus3dBHz: round(t.minus3dBHz, 1),
    })),
  );
  const bySound = result.sounds.map((s) => ({
    sound: soundName(rig, s.sound),
    cycles: s.cycles.map((c) => ({
      devices: c.devices,
      gainDb: round(c.gainDb),
      howls: c.gainDb > 0,
      opens: c.opens ?? null,
    })),
    humLoops: s.humLoops.map((h) => ({
      devices: h.devices,
      leads: h.ties.flatMap((t) => t.lead ?? []),
      throughEarth: h.ties.some((t) => t.kind === 'earth'),
      throughSupply: h.ties.some((t) => t.kind === 'supply'),
      cure: h.cure,
    })),
    speakers: s.speakers.map((l) => ({
      ...l,
      loadOhms: round(l.loadOhms, 3),
      lossDb: round(l.lossDb, 3),
      loads: l.loads.map((x) => ({ ...x, watts: round(x.watts, 1) })),
    })),
    hosts: s.hosts,
  }));
  if (options.json)
    return json({
      rig: rig.name,
      destinations,
      passiveSections,
      sounds: bySound,
      promises: result.promises,
    });
  for (const d of destinations) {
    say(
      `${d.sound} at ${d.destination}: ${showLevel(d.levelDbu)}, ` +
        `signal-to-noise ${d.signalToNoiseDb === null ? 'none' : `${fixed(d.signalToNoiseDb)} dB`}, ` +
        `saturation ${d.thdPercent ? `${d.thdPercent.soft} / ${d.thdPercent.normal} / ${d.thdPercent.hard} %` : 'none'}, ${d.channels}, ${d.latencyMs ?? 0} ms`,
    );
  }
}

function midi(file: string, options: { from?: string; to?: string; bpm?: string; json?: boolean }) {
  const rig = load(file);
  const stage = setStage(rig, allScenes(rig));
  if ((options.from === undefined) !== (options.to === undefined))
    refuse(['Give both --from and --to, or neither for all pairs.']);
  if (options.from === undefined || options.to === undefined) {
    const all = midiJson(stage, rig);
    if (options.json) return json(all);
    say(
      `${rig.name}: ${all.pairs.good} of ${all.pairs.count} changes end as ` +
        `meant${all.pairs.slowest ? `; the slowest, ${all.pairs.slowest.from} to ${all.pairs.slowest.to}, ` + `takes ${fixed(all.pairs.slowest.ms)} ms` : ''}`,
    );
    for (const f of all.pairs.faults)
      say(
        `${f.device}: ${f.because}, ${f.settings.join(', ')}, in ${f.count} changes, such as ${f.pairs
          .slice(0, 2)
          .map((p) => `${p.from} to ${p.to}`)
          .join(' and ')}`,
      );
    return;
  }
  const [from, to] = [options.from, options.to].map(
    (text) =>
      findScene(stage, rig, text) ??
      refuse([`There is no sound "${text}". It has: ${rig.sounds.map((s) => s.name).join(', ')}.`]),
  );
  const bpm = options.bpm === undefined ? undefined : Number(options.bpm);
  if (bpm !== undefined && !(bpm >= 20 && bpm <= 400))
    refuse([`"${options.bpm}" is no tempo; give 20 to 400 bpm.`]);
  const change = changeJson(stage, rig, from!, to!, bpm);
  if (options.json) return json(change);
  say(
    `${change.from} to ${change.to}: pressed ` +
      `on ${change.pressed.join(', ') || 'nothing'}, all in place ` +
      `after ${fixed(change.doneMs, 2)} ms`,
  );
  for (const m of change.messages)
    say(
      `${fixed(m.startMs, 3).padStart(9)} to ${fixed(m.endMs, 3).padStart(9)} ` +
        `ms  ${m.from} > ${m.to}  ${m.bytes}  ${m.words}`,
    );
  for (const o of change.order)
    say(`${fixed(o.inPlaceMs, 2).padStart(9)} ms  ${o.device} in place`);
  for (const m of change.mismatches) say(`NOT AS MEANT  ${m.words} (${m.because})`);
}

function songs(file: string, options: { json?: boolean }) {
  const rig = load(file);
  const all = songsJson(rig);
  if (options.json) return json(all);
  for (const s of all.songs)
    say(
      `${s.title}: ${s.bpm} bpm, ${s.bars} ` +
        `bars, ${clockTime(s.lengthMs ?? 0)}; ${s.sections.map((x) => `${x.bar} ${x.name}`).join(', ')}`,
    );
  for (const s of all.sets)
    say(`${s.name}: ${s.songs.length} songs, ${clockTime((s.seconds ?? 0) * 1000)}`);
  if (all.unusedSounds.length) say(`No song calls ${all.unusedSounds.join(', ')}.`);
}

async function power(file: string, options: { headroom: string; json?: boolean }) {
  const rig = load(file);
  const headroom = Number(options.headroom);
  if (!(headroom >= 0 && headroom <= 2))
    refuse([`"${options.headroom}" is no headroom; give 0 to 2, such as 0.2.`]);
  const plan = planPower(rig, await exactSolver(), headroom);
  if (typeof plan === 'string') return options.json ? json({ problem: plan }) : say(plan);
  if (options.json)
    return json({ fed: plan.fed, starved: plan.starved, shared: plan.shared, moved: plan.moved });
  for (const f of plan.fed) say(`${f.device}: ${f.supply}, ${f.outlet}, ${f.volts} V`);
  for (const s of plan.starved) say(`${s.device}: NO POWER, ${s.why}; it takes ${s.cure}`);
}

const GRAPHS = ['graphml', 'dot', 'svg'];
const TABLES: Record<string, (rig: Rig) => string> = {
  gear: gearToCsv,
  wiring: wiringToCsv,
  'cut-list': cutListCsv,
  bill: billCsv,
  power: powerPlanCsv,
  songs: songsToCsv,
  sets: setsToCsv,
  midi: midiChartCsv,
  programs: programMapCsv,
};
const WRITERS = [...GRAPHS, 'csv', 'smf', 'chordpro', 'pdf'];

interface ExportOptions {
  as: string;
  what?: string;
  sound?: string;
  song?: string;
  set?: string;
  lead?: string;
  leadMs?: string;
  out?: string;
  paper?: string;
  part?: string[];
  link?: string;
}

function named<T extends { id: string }>(
  list: readonly T[] | undefined,
  text: string,
  name: (x: T) => string,
  what: string,
): T {
  return (
    list?.find((x) => x.id === text || name(x).toLowerCase() === text.trim().toLowerCase()) ??
    refuse([
      `There is no ${what} "${text}". It has: ${(list ?? []).map(name).join(', ') || 'none'}.`,
    ])
  );
}

/** A song or set of the rig as a Standard MIDI File. */
function smf(rig: Rig, options: ExportOptions): Uint8Array {
  const number = (text: string | undefined, what: string) => {
    const x = text === undefined ? undefined : Number(text);
    return x !== undefined && !(x >= 0) ? refuse([`"${text}" is no ${what}.`]) : x;
  };
  const lead = {
    bars: number(options.lead, 'number of bars'),
    ms: number(options.leadMs, 'number of milliseconds'),
  };
  if (options.song !== undefined)
    return songToSmf(
      rig,
      named(rig.songs, options.song, (s) => s.title, 'song'),
      lead,
    );
  if (options.set !== undefined)
    return setToSmf(
      rig,
      named(rig.sets, options.set, (s) => s.name, 'set'),
      lead,
    );
  if (rig.sets?.[0]) return setToSmf(rig, rig.sets[0], lead);
  return rig.songs?.[0]
    ? songToSmf(rig, rig.songs[0], lead)
    : refuse(['This rig has no songs yet.']);
}

/** A drawing of a board, a rack or the stage; `--part` names which one. */
function plan(rig: Rig, what: string, options: ExportOptions): string | undefined {
  const which = options.part?.[0];
  const one = <T extends { id: string; name: string }>(list: readonly T[] | undefined) =>
    which === undefined
      ? (list?.[0] ?? refuse([`There is no ${what} in this rig.`]))
      : named(list, which, (x) => x.name, what);
  if (what === 'board') return boardSvg(rig, one(rig.boards));
  if (what === 'rack') return rackSvg(rig, one(rig.racks));
  return what === 'stage' ? stageSvg(rig) : undefined;
}

/** The rig book, or chosen parts and labels of it, as the bytes of a PDF. */
async function pdf(rig: Rig, options: ExportOptions): Promise<Uint8Array> {
  const paper = (options.paper ?? 'A4') as Paper;
  if (paper !== 'A4' && paper !== 'Letter')
    refuse([`"${options.paper}" is no paper; choose A4 or Letter.`]);
  const book = bookOf(rig, analyse(rig));
  const asked = options.part ?? book.map((p) => p.id);
  const unknown = asked.find(
    (id) => !book.some((p) => p.id === id) && !(LABEL_KINDS as readonly string[]).includes(id),
  );
  if (unknown !== undefined)
    refuse([
      `There is no part "${unknown}". It has: ${[...book.map((p) => p.id), ...LABEL_KINDS].join(', ')}.`,
    ]);
  const labels = LABEL_KINDS.filter((k) => asked.includes(k)).flatMap((k: LabelKind) =>
    labelSheets(rig, k, paper, options.link ?? `http://127.0.0.1:3200/rigs/${rig.id}`),
  );
  const parts = book.filter((p) => asked.includes(p.id));
  if (!parts.length && !labels.length)
    refuse(['There is nothing to print: the rig has no such labels.']);
  return printPdf(
    bookPages(parts, labels, paper, {
      rig: rig.name,
      revision: 'from a file',
      date: new Date().toISOString().slice(0, 10),
    }),
  );
}

function graph(rig: Rig, options: ExportOptions): string {
  const what = options.what ?? 'wiring';
  const drawing = options.as === 'svg' ? plan(rig, what, options) : undefined;
  if (drawing !== undefined) return drawing;
  if (what !== 'wiring' && what !== 'walk')
    refuse([
      `"${what}" is not drawn; choose wiring or walk, and for svg also board, rack or stage.`,
    ]);
  const sound = what === 'walk' ? soundReport(rig, analyse(rig), options.sound) : undefined;
  const drawn = sound ? walkGraph(rig, sound) : wiringGraph(rig);
  return options.as === 'graphml'
    ? toGraphml(drawn)
    : options.as === 'dot'
      ? toDot(drawn)
      : sound
        ? walkSvg(rig, sound)
        : wiringSvg(rig);
}

function table(rig: Rig, options: ExportOptions): string {
  const what = options.what ?? 'songs';
  if (what === 'running-order')
    return runningOrderToCsv(
      rig,
      named(rig.sets, options.set ?? rig.sets?.[0]?.id ?? '', (s) => s.name, 'set'),
    );
  return (
    TABLES[what] ??
    refuse([
      `"${what}" is no table; choose ${[...Object.keys(TABLES), 'running-order'].join(', ')}.`,
    ])
  )(rig);
}

async function exportAs(file: string, options: ExportOptions) {
  const rig = load(file);
  if (!WRITERS.includes(options.as))
    refuse([`"${options.as}" is not written; choose ${WRITERS.join(', ')}.`]);
  const content = GRAPHS.includes(options.as)
    ? graph(rig, options)
    : options.as === 'csv'
      ? table(rig, options)
      : options.as === 'smf'
        ? smf(rig, options)
        : options.as === 'pdf'
          ? await pdf(rig, options)
          : songsToChordPro(rig.songs ?? []);
  if (options.out === undefined) return void process.stdout.write(content);
  try {
    writeFileSync(resolve(process.env.INIT_CWD ?? '.', options.out), content);
  } catch (error) {
    refuse([
      `Cannot write ${options.out}: ${error instanceof Error ? error.message : String(error)}`,
    ]);
  }
}

async function propose(file: string, options: { sound?: string; host?: string; json?: boolean }) {
  const rig = load(file);
  const chosen = soundReport(rig, analyse(rig), options.sound);
  const found = await proposals(
    rig,
    rig.sounds.find((s) => s.id === chosen.sound) ?? {
      id: chosen.sound,
      name: 'As it stands',
      states: {},
    },
    options.host,
  );
  if (options.json) return json(found);
  for (const [what, words] of found.words) say(`${what.padEnd(10)} ${words}`);
}

function build(file: string, options: { json?: boolean }) {
  const all = buildJson(load(file));
  if (options.json) return json(all);
  say(`${all.leads.length} leads, ${all.joints} joints, about ${all.hours} h`);
  for (const l of all.leads) if (l.shortM) say(`${l.code} is too short by ${l.shortM} m`);
  for (const b of all.boards)
    say(
      `${b.name}: ${b.devices} devices, ${b.leadM} m of lead, ${b.crossings} ` +
        `crossings, ${b.clashes.length} to put right`,
    );
  for (const r of all.racks)
    say(`${r.name}: ${fixed(r.grams / 1000)} kg, ${r.used} U, ${r.clashes.length} to put right`);
  for (const c of all.cases)
    say(`${c.order}. ${c.name}: ${fixed(c.grams / 1000)} kg${c.lift ? ', two persons lift' : ''}`);
}

async function layout(
  file: string,
  options: { board?: string; add?: string[]; all?: boolean; json?: boolean; out?: string },
) {
  const rig = load(file);
  const board =
    options.board === undefined
      ? (rig.boards?.[0] ?? refuse(['There is no board in this rig.']))
      : named(rig.boards, options.board, (b) => b.name, 'board');
  const add = options.all
    ? rig.devices
        .filter((d) => d.host === undefined && !d.at && !d.rack && d.place === 'floor' && sizeOf(d))
        .map((d) => d.id)
    : (options.add ?? []).map((x) => named(rig.devices, x, (d) => d.name, 'device').id);
  const found = await layoutOf(rig, board.id, add);
  if (typeof found === 'string') return options.json ? json({ problem: found }) : say(found);
  if (options.out !== undefined) {
    const applied = applyEdits(rig, found.edits);
    if (!applied.ok) refuse(applied.problems.map((p) => p.what));
    else
      writeFileSync(resolve(process.env.INIT_CWD ?? '.', options.out), writeRig(applied.value.rig));
  }
  if (options.json)
    return json({
      ...found,
      places: found.edits.flatMap((e) =>
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
      ),
      edits: undefined,
    });
  say(
    `found ${fixed(found.found.metres, 2)} m, ${found.found.crossings} ` +
      `crossings, ${found.found.clashes} to put ` +
      `right${found.now ? `; now ${fixed(found.now.metres, 2)} m, ${found.now.crossings} ` + `crossings, ${found.now.clashes} to put right` : ''}${found.proven ? '; every arrangement in rows was tried' : ''}`,
  );
  for (const e of found.edits)
    if (e.edit === 'placeOnBoard' && e.at)
      say(
        `${e.device}: ${e.at.x} mm from the left, ${e.at.y} mm from the rear${e.at.under ? ', under the deck' : ''}`,
      );
}

const program = new Command('yantrel').description(
  'Reads rig files: what the signal passes through, how loud, how clean, how late, and what is wrong.',
);
program.exitOverride();
program
  .command('check')
  .argument('<file>')
  .option('--json', 'as JSON')
  .description(
    'findings; exit 0 with nothing worse than caution, 1 with a fault or danger, 2 if the file cannot be read',
  )
  .action(check);
program
  .command('walk')
  .argument('<file>')
  .option('--sound <name>', 'a sound, by name or id')
  .option('--json', 'as JSON')
  .description('the walk of one sound')
  .action(walk);
program
  .command('report')
  .argument('<file>')
  .option('--json', 'as JSON')
  .description('figures per destination and sound, and per passive section')
  .action(report);
program
  .command('midi')
  .argument('<file>')
  .option('--from <sound>', 'the sound that is on, by name or id')
  .option('--to <sound>', 'the sound that is called')
  .option('--bpm <tempo>', 'with clock at this tempo')
  .option('--json', 'as JSON')
  .description(
    'what goes over the MIDI bus in a change of sound, when everything is in place, and ' +
      'how it stands then; without sounds, all ordered pairs',
  )
  .action(midi);
program
  .command('power')
  .argument('<file>')
  .option('--headroom <share>', 'share of the load that an outlet keeps free', '0.2')
  .option('--json', 'as JSON')
  .description('the best assignment of devices to outlets, and why any is left without')
  .action(power);
program
  .command('build')
  .argument('<file>')
  .option('--json', 'as JSON')
  .description(
    'leads with their ways and lengths, boards, racks, mains, cases, figures against limits',
  )
  .action(build);
program
  .command('layout')
  .argument('<file>')
  .option('--board <name>', 'a board, by name or id; the first one')
  .option('--add <devices...>', 'devices to place that stand nowhere yet')
  .option('--all', 'place everything on the floor that stands nowhere yet')
  .option('--out <path>', 'write the rig with the layout to a file')
  .option('--json', 'as JSON')
  .description('the best layout of a board that is found, against how it stands')
  .action(layout);
program
  .command('songs')
  .argument('<file>')
  .option('--json', 'as JSON')
  .description('songs and sets in time, delay times, program map, unused sounds')
  .action(songs);
program
  .command('export')
  .argument('<file>')
  .requiredOption('--as <format>', WRITERS.join(', '))
  .option(
    '--what <part>',
    'of drawings wiring, walk, board, rack or stage; of csv songs, sets, midi, ' +
      'programs, power, gear, wiring, cut-list, bill or running-order',
  )
  .option('--sound <name>', 'a sound, by name or id')
  .option('--song <title>', 'a song, for smf')
  .option('--set <name>', 'a set, for smf and running-order')
  .option('--lead <bars>', 'smf: send this many bars ahead of each section')
  .option('--lead-ms <ms>', 'smf: send this many milliseconds ahead')
  .option('--paper <size>', 'pdf: A4 or Letter', 'A4')
  .option(
    '--part <ids...>',
    'pdf: parts of the book or labels (flags, strips, panels, cases); svg: which board or rack',
  )
  .option('--link <address>', 'pdf: what the code on a case label opens')
  .option('--out <path>', 'a file; without it the text is printed')
  .description(
    'the rig book as PDF, the routing graph as GraphML or DOT, drawings as SVG, songs ' +
      'and charts as CSV, songs and sets as Standard MIDI Files or ChordPro headers',
  )
  .action(exportAs);
program
  .command('propose')
  .argument('<file>')
  .option('--sound <name>', 'a sound, by name or id')
  .option('--host <id>', 'the modeler to decide about; the first one, if there is any')
  .option('--json', 'as JSON')
  .description(
    'proposals: order, inside or outside, where to isolate, where buffers earn their keep',
  )
  .action(propose);
program.parseAsync().catch((error: unknown) => {
  // The command line has been explained already; help asked for is no failure.
  const explained = error instanceof CommanderError;
  if (!explained)
    process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`);
  process.exitCode = explained && error.exitCode === 0 ? EXIT.fine : EXIT.unreadable;
});
