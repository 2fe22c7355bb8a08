import { readFileSync, writeFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { Command, CommanderError } from 'commander';
import { analyse, type DestinationFigures, type Report, type SoundReport } from '../core/analysis';
import { SEVERITIES } from '../core/findings/finding';
import { toDot, toGraphml, walkGraph, walkSvg, wiringGraph, wiringSvg } from '../core/formats';
import { problemLines, readRig, type Rig } from '../core/rig';
import { fixed, showLevel } from '../core/units';
import { proposals } from './proposals';

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
    return refuse([`Cannot open ${file}: ${error instanceof Error ? error.message : String(error)}`]);
  }
  const read = readRig(text);
  return read.ok ? read.value : refuse([`${file} cannot be read:`, ...problemLines(read.problems)]);
}

/** Why a command cannot be done, in words for the person; it ends the command, and output that is under way is still written. */
class Refusal extends Error {}

function refuse(lines: string[]): never {
  throw new Refusal(lines.join('\n'));
}

const round = (x: number | null, digits = 2): number | null => (x === null || !Number.isFinite(x) ? null : Number(x.toFixed(digits)));

function check(file: string, options: { json?: boolean }) {
  const rig = load(file);
  const { findings } = analyse(rig);
  const open = findings.filter((f) => f.accepted === undefined);
  if (options.json) json(findings.map(({ key, rule, severity, subjects, sounds, what, why, fix, accepted }) => ({ key, rule, severity, subjects, sounds, what, why, fix, accepted })));
  else {
    say(`${rig.name}: ${SEVERITIES.map((s) => `${open.filter((f) => f.severity === s).length} ${s}`).join(', ')}`);
    for (const f of findings) say(`${f.severity.toUpperCase().padEnd(8)} ${f.what} ${f.why}${f.fix ? ` [fix: ${f.fix.words}]` : ''}${f.accepted ? ` [accepted: ${f.accepted}]` : ''}`);
  }
  process.exitCode = open.some((f) => f.severity === 'fault' || f.severity === 'danger') ? EXIT.faulty : EXIT.fine;
}

const walkOf = (rig: Rig, report: SoundReport, ids?: readonly string[]) =>
  report.stations
    .filter((s) => !ids || ids.includes(s.id))
    .sort((a, b) => a.column - b.column || a.lane - b.lane)
    .map((s) => ({
      device: s.device, name: rig.devices.find((d) => d.id === s.device)!.name, in: s.ins, out: s.outs, state: s.state, lane: s.lane,
      levelDbu: round(s.output.levelDbu?.normal ?? null), noiseDbu: round(s.output.noiseDbu), channels: s.width,
    }));

function walk(file: string, options: { sound?: string; json?: boolean }) {
  const rig = load(file);
  const report = soundReport(rig, analyse(rig), options.sound);
  const stations = walkOf(rig, report);
  if (options.json) return json({ sound: soundName(rig, report.sound), stations });
  for (const s of stations) say(`${String(s.lane + 1).padStart(2)}  ${s.name.padEnd(28)} ${s.state.padEnd(8)} ${showLevel(s.levelDbu).padStart(11)}  ${s.channels}`);
}

const soundName = (rig: Rig, id: string): string => rig.sounds.find((s) => s.id === id)?.name ?? 'As it stands';

function soundReport(rig: Rig, report: Report, wanted?: string): SoundReport {
  const found = wanted === undefined ? report.sounds[0] : report.sounds.find((s) => s.sound === wanted || soundName(rig, s.sound).toLowerCase() === wanted.toLowerCase());
  return found ?? refuse([`There is no sound "${wanted}" in ${rig.name}. It has: ${rig.sounds.map((s) => s.name).join(', ')}.`]);
}

const touches = (t: DestinationFigures['thdPercent']) => t && { soft: round(t.soft), normal: round(t.normal), hard: round(t.hard) };

function report(file: string, options: { json?: boolean }) {
  const rig = load(file);
  const result = analyse(rig);
  const name = (id: string | null) => (id === null ? null : (rig.devices.find((d) => d.id === id)?.name ?? id));
  const destinations = result.sounds.flatMap((s) => s.destinations.map((d) => ({
    destination: d.name, device: d.device, hears: d.hears, sound: soundName(rig, s.sound),
    levelDbu: round(d.levelDbu?.normal ?? null), levelDbuByTouch: touches(d.levelDbu), peakDbu: round(d.peakDbu), noiseDbu: round(d.noiseDbu), idleNoiseDbu: round(d.idleNoiseDbu),
    signalToNoiseDb: round(d.signalToNoiseDb), noisiest: name(d.noisiest), thdPercent: touches(d.thdPercent), channels: d.channels, latencyMs: round(d.latencyMs, 3),
    polarity: d.polarity, sources: d.sources, widenedBy: name(d.widenedBy), collapsedAt: name(d.collapsedAt), side: d.side, pairedWith: name(d.pairedWith), notchHz: round(d.notchHz, 1),
    sides: d.sides.map((x) => ({ jack: x.jack, sources: x.sources, levelDbu: round(x.levelDbu?.normal ?? null), noiseDbu: round(x.noiseDbu), latencyMs: round(x.latencyMs, 3) })), walk: walkOf(rig, s, d.route),
  })));
  const passiveSections = result.sounds.flatMap((s) => s.tones.map((t) => ({
    sound: soundName(rig, s.sound), from: name(t.driver), to: name(t.listener), fromDevice: t.driver, toDevice: t.listener, barePickup: t.bare, leadPf: round(t.leadPf, 1),
    peakHz: round(t.peakHz, 1), peakDb: round(t.peakDb, 3), at1kHzDb: round(t.at1kHzDb, 3), at5kHzDb: round(t.at5kHzDb, 3), minus3dBHz: round(t.minus3dBHz, 1),
  })));
  const bySound = result.sounds.map((s) => ({
    sound: soundName(rig, s.sound),
    cycles: s.cycles.map((c) => ({ devices: c.devices, gainDb: round(c.gainDb), howls: c.gainDb > 0, opens: c.opens ?? null })),
    humLoops: s.humLoops.map((h) => ({ devices: h.devices, leads: h.ties.flatMap((t) => t.lead ?? []), throughEarth: h.ties.some((t) => t.kind === 'earth'), throughSupply: h.ties.some((t) => t.kind === 'supply'), cure: h.cure })),
    speakers: s.speakers.map((l) => ({ ...l, loadOhms: round(l.loadOhms, 3), lossDb: round(l.lossDb, 3), loads: l.loads.map((x) => ({ ...x, watts: round(x.watts, 1) })) })),
    hosts: s.hosts,
  }));
  if (options.json) return json({ rig: rig.name, destinations, passiveSections, sounds: bySound, promises: result.promises });
  for (const d of destinations) {
    say(`${d.sound} at ${d.destination}: ${showLevel(d.levelDbu)}, signal-to-noise ${d.signalToNoiseDb === null ? 'none' : `${fixed(d.signalToNoiseDb)} dB`}, saturation ${d.thdPercent ? `${d.thdPercent.soft} / ${d.thdPercent.normal} / ${d.thdPercent.hard} %` : 'none'}, ${d.channels}, ${d.latencyMs ?? 0} ms`);
  }
}

const WRITERS = ['graphml', 'dot', 'svg'] as const;

function exportAs(file: string, options: { as: string; what: string; sound?: string; out?: string }) {
  const rig = load(file);
  const writer = WRITERS.find((w) => w === options.as) ?? refuse([`"${options.as}" is not written; choose ${WRITERS.join(', ')}.`]);
  if (options.what !== 'wiring' && options.what !== 'walk') refuse([`"${options.what}" is not drawn; choose wiring or walk.`]);
  const sound = options.what === 'walk' ? soundReport(rig, analyse(rig), options.sound) : undefined;
  const graph = sound ? walkGraph(rig, sound) : wiringGraph(rig);
  const text = writer === 'graphml' ? toGraphml(graph) : writer === 'dot' ? toDot(graph) : sound ? walkSvg(rig, sound) : wiringSvg(rig);
  if (options.out === undefined) return void process.stdout.write(text);
  try {
    writeFileSync(resolve(process.env.INIT_CWD ?? '.', options.out), text);
  } catch (error) {
    refuse([`Cannot write ${options.out}: ${error instanceof Error ? error.message : String(error)}`]);
  }
}

async function propose(file: string, options: { sound?: string; host?: string; json?: boolean }) {
  const rig = load(file);
  const chosen = soundReport(rig, analyse(rig), options.sound);
  const found = await proposals(rig, rig.sounds.find((s) => s.id === chosen.sound) ?? { id: chosen.sound, name: 'As it stands', states: {} }, options.host);
  if (options.json) return json(found);
  for (const [what, words] of found.words) say(`${what.padEnd(10)} ${words}`);
}

const program = new Command('yantrel').description('Reads rig files: what the signal passes through, how loud, how clean, how late, and what is wrong.');
program.exitOverride();
program.command('check').argument('<file>').option('--json', 'as JSON').description('findings; exit 0 with nothing worse than caution, 1 with a fault or danger, 2 if the file cannot be read').action(check);
program.command('walk').argument('<file>').option('--sound <name>', 'a sound, by name or id').option('--json', 'as JSON').description('the walk of one sound').action(walk);
program.command('report').argument('<file>').option('--json', 'as JSON').description('figures per destination and sound, and per passive section').action(report);
program.command('export').argument('<file>').requiredOption('--as <format>', WRITERS.join(', ')).option('--what <drawing>', 'wiring, or the walk of one sound', 'wiring').option('--sound <name>', 'a sound, by name or id').option('--out <path>', 'a file; without it the text is printed').description('the routing graph as GraphML or DOT, the drawings as SVG').action(exportAs);
program.command('propose').argument('<file>').option('--sound <name>', 'a sound, by name or id').option('--host <id>', 'the modeler to decide about; the first one, if there is any').option('--json', 'as JSON').description('proposals: order, inside or outside, where to isolate, where buffers earn their keep').action(propose);
program.parseAsync().catch((error: unknown) => {
  // The command line has been explained already; help asked for is no failure.
  const explained = error instanceof CommanderError;
  if (!explained) process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`);
  process.exitCode = explained && error.exitCode === 0 ? EXIT.fine : EXIT.unreadable;
});
