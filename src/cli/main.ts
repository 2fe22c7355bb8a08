import { readFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { Command } from 'commander';
import { analyse, type DestinationFigures, type Report, type SoundReport } from '../core/analysis';
import { SEVERITIES } from '../core/findings/finding';
import { problemLines, readRig, type Rig } from '../core/rig';
import { fixed, showLevel } from '../core/units';

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

function refuse(lines: string[]): never {
  process.stderr.write(`${lines.join('\n')}\n`);
  process.exit(EXIT.unreadable);
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
    polarity: d.polarity, widenedBy: name(d.widenedBy), collapsedAt: name(d.collapsedAt), walk: walkOf(rig, s, d.route),
  })));
  const passiveSections = result.sounds.flatMap((s) => s.tones.map((t) => ({
    sound: soundName(rig, s.sound), from: name(t.driver), to: name(t.listener), fromDevice: t.driver, toDevice: t.listener, barePickup: t.bare, leadPf: round(t.leadPf, 1),
    peakHz: round(t.peakHz, 1), peakDb: round(t.peakDb, 3), at1kHzDb: round(t.at1kHzDb, 3), at5kHzDb: round(t.at5kHzDb, 3), minus3dBHz: round(t.minus3dBHz, 1),
  })));
  if (options.json) return json({ rig: rig.name, destinations, passiveSections });
  for (const d of destinations) {
    say(`${d.sound} at ${d.destination}: ${showLevel(d.levelDbu)}, signal-to-noise ${d.signalToNoiseDb === null ? 'none' : `${fixed(d.signalToNoiseDb)} dB`}, saturation ${d.thdPercent ? `${d.thdPercent.soft} / ${d.thdPercent.normal} / ${d.thdPercent.hard} %` : 'none'}, ${d.channels}, ${d.latencyMs ?? 0} ms`);
  }
}

const program = new Command('yantrel').description('Reads rig files: what the signal passes through, how loud, how clean, how late, and what is wrong.');
program.exitOverride((e) => process.exit(e.exitCode === 0 ? EXIT.fine : EXIT.unreadable));
program.command('check').argument('<file>').option('--json', 'as JSON').description('findings; exit 0 with nothing worse than caution, 1 with a fault or danger, 2 if the file cannot be read').action(check);
program.command('walk').argument('<file>').option('--sound <name>', 'a sound, by name or id').option('--json', 'as JSON').description('the walk of one sound').action(walk);
program.command('report').argument('<file>').option('--json', 'as JSON').description('figures per destination and sound, and per passive section').action(report);
program.parse();
