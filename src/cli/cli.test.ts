import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { brokenRig, touringRig } from '../core/demo';
import { allOn, device, lead } from '../core/testing/rigs';
import { command, Refusal } from './command';
import { endOf } from './end';
import { programOf } from './program';
import { writeRig } from '../core/rig';

const folder = mkdtempSync(join(tmpdir(), 'yantrel-cli-'));
const file = (name: string, text: string): string => {
  const path = join(folder, name);
  writeFileSync(path, text);
  return path;
};
/** The demo's touring rig, as the README has it: what it prints is run once for both. */
const touring = 'examples/salt-and-ferry.json';
/** An instrument lead at a loudspeaker, a delay before the dirt, and a hum that only a gate cures. */
const planted = allOn(
  [
    device('g', 'guitar-humbucker', 'Guitar'),
    device('e', 'delay', 'Echo'),
    device('d', 'drive-high', 'Drive'),
    device('h', 'head-tube', 'Head'),
    device('c', 'cabinet', 'Cabinet'),
  ],
  [
    lead('l1', 'g.out', 'e.in', 6),
    lead('l2', 'e.out', 'd.in', 0.3),
    lead('l3', 'd.out', 'h.in', 6),
    lead('l4', 'h.speaker', 'c.in', 1),
  ],
);
const broken = file('broken.json', writeRig(planted));
const torn = file('torn.json', writeRig(touringRig).slice(0, 500));
type Ran = ReturnType<typeof run>;
const run = (args: readonly string[]) =>
  spawnSync(process.execPath, ['scripts/yantrel.mjs', ...args], { encoding: 'utf8' });
const ran = new Map<string, Ran>();
/** Runs a command, or gives what it said when it was run before; one that writes is always run. */
function cli(...args: string[]): Ran {
  const key = args.join('\n');
  const before = args.includes('--out') ? undefined : ran.get(key);
  const now = before ?? run(args);
  ran.set(key, now);
  return now;
}

test('check exits 0, 1 or 2', () => {
  expect(cli('check', touring).status).toBe(0);
  const found = cli('check', broken, '--json');
  expect(found.status).toBe(1);
  expect(
    (JSON.parse(found.stdout) as { rule: string; severity: string }[]).some(
      (f) => f.rule === 'speaker-lead' && f.severity === 'danger',
    ),
  ).toBe(true);
  const unreadable = cli('check', torn);
  expect(unreadable.status).toBe(2);
  expect(unreadable.stderr).toMatch(/line \d+, column \d+/);
  expect(cli('check', join(folder, 'nothing.json')).status).toBe(2);
  expect(cli('dance').status).toBe(2);
}, 60_000);

test('fixes are tried, and all that are safe applied', () => {
  type Told = {
    rule: string;
    fix?: { words: string; tried?: { cures: boolean; breaks: string[] } };
    others?: NonNullable<Told['fix']>[];
  };
  const found = JSON.parse(cli('check', broken, '--json').stdout) as Told[];
  const lead = found.find((f) => f.rule === 'speaker-lead')!;
  expect(lead.fix?.tried).toMatchObject({ cures: true, breaks: [] });
  // What is called the fix breaks nothing; what breaks something is another way, and says so.
  const fixes = found.flatMap((f) => f.fix ?? []);
  expect(fixes.every((f) => f.tried?.cures && f.tried.breaks.length === 0)).toBe(true);
  const others = found.flatMap((f) => f.others ?? []);
  expect(others.every((f) => f.tried?.cures)).toBe(true);
  const untried = JSON.parse(cli('check', broken, '--json', '--untried').stdout) as Told[];
  expect(untried.find((f) => f.rule === 'speaker-lead')!.fix).not.toHaveProperty('tried');
  expect(cli('check', broken, '--tried').stdout).toMatch(/\[cured by: Make it a speaker lead\]/);
  const out = join(folder, 'cured.json');
  const cured = cli('check', broken, '--fix', '--out', out);
  expect(cured.stdout).toContain('Make it a speaker lead: cures "');
  expect(cured.stdout).toMatch(/\d+ fixed, \d+ left\./);
  const after = JSON.parse(cli('check', out, '--json').stdout) as Told[];
  expect(after.length).toBeLessThan(found.length);
  expect(after.some((f) => f.rule === 'speaker-lead')).toBe(false);
  expect(cli('check', broken, '--out', out).status).toBe(2);
}, 120_000);

test('a note and the ladder are told for every destination and sound', () => {
  const note = JSON.parse(cli('note', touring, '--json').stdout) as {
    destinations: {
      sound: string;
      normal?: Record<string, unknown>;
      weightedSignalToNoiseDb: number | null;
      noise: Record<'playing' | 'idle', { weightedNoiseDbu: number; noisiest: string } | null>;
    }[];
    added: { name: string; addedDb: (number | null)[] }[];
  };
  expect(note.destinations.length).toBe(touringRig.sounds.length * 7);
  const heard = note.destinations.find((d) => d.normal)!.normal!;
  expect(Object.keys(heard)).toEqual([
    ...['noteLevelDbu', 'loudnessDbu', 'truePeakDbu', 'crestDb', 'brightnessHertz', 'bandsDbu'],
  ]);
  expect(Object.keys(heard.bandsDbu as object)).toHaveLength(25);
  expect(note.added.some((a) => a.addedDb[1]! > -30)).toBe(true);
  const noisy = note.destinations.find((d) => d.normal && d.noise.playing)!;
  expect(noisy.weightedSignalToNoiseDb).toBeCloseTo(
    (noisy.normal!.loudnessDbu as number) - noisy.noise.playing!.weightedNoiseDbu,
    1,
  );
  expect(touringRig.devices.map((d) => d.name)).toContain(noisy.noise.playing!.noisiest);
  expect(cli('note', touring, '--mains', '40').stderr).toMatch(/50 or 60 Hz, not of "40"/);
  const ladder = cli('ladder', touring, '--at', 'House, wide pair');
  expect(ladder.stdout.trim().split('\n')).toHaveLength(touringRig.sounds.length);
  expect(ladder.stdout).toMatch(/Lead at House, wide pair: .*loudness .* dBu, saturation .* %/);
  expect(cli('ladder', touring, '--at', 'the moon').stderr).toMatch(/no destination "the moon"/);
}, 60_000);

test('report gives every destination in every sound, and the passive sections', () => {
  const report = JSON.parse(cli('report', touring, '--json').stdout) as {
    destinations: Record<string, unknown>[];
    passiveSections: Record<string, unknown>[];
  };
  expect(report.destinations).toHaveLength(touringRig.sounds.length * 7);
  const lead = report.destinations.find(
    (d) => d.sound === 'Lead' && d.destination === 'House, wide pair',
  )!;
  expect(lead).toMatchObject({ channels: 'stereo', latencyMs: 8 });
  expect(Object.keys(lead)).toEqual(
    expect.arrayContaining(['levelDbu', 'peakDbu', 'signalToNoiseDb', 'thdPercent', 'walk']),
  );
  expect(Object.keys(lead.thdPercent as object)).toEqual(['soft', 'normal', 'hard']);
  expect(Object.keys(report.passiveSections[0]!)).toEqual(
    expect.arrayContaining(['peakHz', 'peakDb', 'at5kHzDb', 'minus3dBHz']),
  );
}, 30_000);

test('walk takes a sound by name, and says which there are', () => {
  const walk = JSON.parse(cli('walk', touring, '--sound', 'silent tuning', '--json').stdout) as {
    sound: string;
    stations: { device: string; state: string }[];
  };
  expect(walk.sound).toBe('Silent tuning');
  expect(walk.stations.find((s) => s.device === 'tuner')!.state).toBe('muted');
  expect(cli('walk', touring, '--sound', 'none').stderr).toContain('It has: Tide flat, Edge');
}, 30_000);

test('export writes the routing graph and the drawings, and refuses what it does not write', () => {
  expect(cli('export', touring, '--as', 'graphml').stdout).toContain('<graphml');
  const out = join(folder, 'wiring.dot');
  expect(cli('export', touring, '--as', 'dot', '--out', out).status).toBe(0);
  const dot = readFileSync(out, 'utf8');
  for (const device of touringRig.devices) expect(dot).toContain(device.name);
  expect(cli('export', touring, '--as', 'svg', '--what', 'walk', '--sound', 'Lead').stdout).toMatch(
    /^<\?xml[\s\S]*<svg/,
  );
  const other = cli('export', touring, '--as', 'parchment');
  expect(other.status).toBe(2);
  expect(other.stderr).toContain('choose graphml, dot, svg');
  expect(
    cli('export', touring, '--as', 'dot', '--out', join(folder, 'none', 'x.dot')).stderr,
  ).toContain('Cannot write');
}, 60_000);

test('propose says what it would move, and why', () => {
  const said = cli('propose', broken).stdout.split('\n');
  for (const what of ['order', 'isolate', 'buffer'])
    expect(said.some((l) => l.startsWith(what.padEnd(10)) && l.length > 12)).toBe(true);
  expect(JSON.parse(cli('propose', broken, '--json').stdout)).toHaveProperty('isolation.cuts');
}, 60_000);

test('build, layout and the rig book of a file', () => {
  const built = JSON.parse(cli('build', touring, '--json').stdout) as {
    leads: { id: string; cutM: number; shortM: number }[];
    racks: { grams: number }[];
    boards: { clashes: unknown[] }[];
    mains: { strips: { feeds: string[] }[] };
  };
  expect(built.leads.find((l) => l.id === 'l05')).toMatchObject({ cutM: 0.15, shortM: 0 });
  expect(built.racks[0]!.grams).toBeGreaterThan(20_000);
  expect(built.boards[0]!.clashes).toEqual([]);
  expect(built.mains.strips[0]!.feeds).toHaveLength(5);
  const small = file(
    'small.json',
    writeRig({
      ...brokenRig,
      devices: brokenRig.devices.map((d) =>
        d.at && !['gale', 'ember', 'lift'].includes(d.id) ? { ...d, at: undefined } : d,
      ),
    }),
  );
  const out = join(folder, 'arranged.json');
  const laid = JSON.parse(
    cli('layout', small, '--effort', '0.2', '--json', '--out', out).stdout,
  ) as {
    leastMetres: number;
    better: boolean;
    found: { clashes: number };
    now: { clashes: number };
    places: unknown[];
  };
  expect(laid).toMatchObject({
    better: true,
    found: { clashes: 0 },
    now: { clashes: 5 },
  });
  for (const wrong of ['0', '-1', 'much', '21'])
    expect(cli('layout', small, '--effort', wrong).stderr).toContain(`"${wrong}" is no effort`);
  expect(
    (JSON.parse(cli('build', out, '--json').stdout) as typeof built).boards[0]!.clashes,
  ).toEqual([]);
  const pdf = join(folder, 'labels.pdf');
  expect(
    cli(
      'export',
      touring,
      '--as',
      'pdf',
      '--paper',
      'Letter',
      '--part',
      'power',
      'cases',
      '--out',
      pdf,
    ).status,
  ).toBe(0);
  const bytes = readFileSync(pdf, 'latin1');
  const sizes = [...bytes.matchAll(/\/MediaBox\s*\[0 0 ([\d.]+) ([\d.]+)\]/g)].map(
    (m) => `${Number(m[1])}x${Number(m[2])}`,
  );
  expect(sizes.length).toBeGreaterThan(2);
  expect(new Set(sizes)).toEqual(new Set(['612x792']));
  expect(cli('export', touring, '--as', 'pdf', '--part', 'soup').stderr).toContain(
    'There is no part "soup". It has: summary',
  );
  expect(cli('export', touring, '--as', 'svg', '--what', 'rack').stdout).toContain(
    'Tide rack, front',
  );
}, 120_000);

test('several files and folders: one object a line, each with its file; one that is torn keeps nobody back', () => {
  const said = cli('check', touring, torn, broken, '--json', '--untried');
  expect(said.status).toBe(2);
  const lines = said.stdout
    .trim()
    .split('\n')
    .map((l) => JSON.parse(l) as { file: string; result?: unknown[]; problems?: string[] });
  expect(lines.map((l) => l.file)).toEqual([touring, torn, broken]);
  expect(lines[1]?.problems?.join()).toMatch(/line \d+, column \d+/);
  expect(lines[2]?.result).toEqual(JSON.parse(cli('check', broken, '--json', '--untried').stdout));
  const inFolder = cli('check', folder, '--json', '--untried').stdout.trim().split('\n');
  expect(inFolder.length).toBeGreaterThanOrEqual(3);
  expect(cli('check', touring, broken).stdout).toContain(`== ${broken}`);
});

test('of several files, one that a command has no answer to keeps nobody back', () => {
  const bare = file('bare.json', writeRig(allOn([device('g', 'guitar-humbucker', 'Guitar')], [])));
  const said = cli('ladder', bare, touring);
  expect(said.status).toBe(2);
  expect(said.stderr).toBe(`== ${bare}\nThe rig has no destination.\n`);
  expect(said.stdout).toContain(`== ${touring}\n`);
  expect(said.stdout).toContain('Lead at ');
  const lines = cli('ladder', bare, touring, '--json').stdout.trim().split('\n');
  expect(lines.map((l) => Object.keys(JSON.parse(l) as object))).toEqual([
    ['file', 'problems'],
    ['file', 'result'],
  ]);
});

test('a mistake of the program is told as one: exit 3, with its place under --debug', async () => {
  const program = programOf([
    command({
      name: 'fall',
      about: 'falls',
      options: [],
      run: () => {
        throw new TypeError('a hole');
      },
    }),
  ]);
  await expect(program.parseAsync(['node', 'yantrel', 'fall', touring])).rejects.toThrow('a hole');
  expect(endOf(new TypeError('a hole'), false)).toEqual({
    exit: 3,
    words: 'Yantrel made a mistake: a hole. Run it again with --debug to see where.',
  });
  expect(endOf(new TypeError('a hole'), true).words).toContain('cli.test');
  expect(endOf(new Refusal('There is no sound.'), false)).toEqual({
    exit: 2,
    words: 'There is no sound.',
  });
});

test('every command line that the README prints runs as it is printed', () => {
  const readme = readFileSync('README.md', 'utf8');
  const lines = readme.match(/^npm run -s yantrel -- .*$/gm) ?? [];
  expect(lines.length).toBeGreaterThan(10);
  // What one line writes, a later one reads.
  const written = new Map<string, string>();
  for (const line of lines) {
    const typed = line
      .replace(/\s+#.*$/, '')
      .replace('npm run -s yantrel --', '')
      .trim();
    const args = typed.match(/"[^"]*"|\S+/g)?.map((a) => a.replace(/^"|"$/g, '')) ?? [];
    const out = args.indexOf('--out');
    if (out >= 0) {
      written.set(args[out + 1]!, join(folder, `from-readme-${args[out + 1]}`));
      args[out + 1] = written.get(args[out + 1]!)!;
    } else args.forEach((a, i) => (args[i] = written.get(a) ?? a));
    const ran = cli(...args);
    expect([line, ran.status === 0 || ran.status === 1, ran.stderr]).toEqual([line, true, '']);
  }
}, 120_000);

test('who reads the first line only, as head does, is told of no mistake; a full disk is told as one', () => {
  const said = spawnSync(
    'sh',
    ['-c', `"${process.execPath}" scripts/yantrel.mjs report ${touring} --json | head -1`],
    { encoding: 'utf8' },
  );
  expect([said.stdout, said.stderr]).toEqual(['{\n', '']);
  const full = spawnSync(
    'sh',
    ['-c', `"${process.execPath}" scripts/yantrel.mjs line ${touring} > /dev/full`],
    {
      encoding: 'utf8',
    },
  );
  expect([full.status, full.stderr]).toEqual([
    2,
    expect.stringMatching(/^The answer could not be written: ENOSPC/),
  ]);
});

test('a rig of a line, and a line of a rig; what is not understood is marked under the line', () => {
  const made = join(folder, 'made.json');
  expect(
    cli('new', 'guitar > low drive "Kiln" > amp', '--name', 'Small', '--out', made).status,
  ).toBe(0);
  const line = 'Guitar, humbuckers > Drive, low gain "Kiln" > Tube combo';
  expect(cli('line', made).stdout.trim()).toBe(line);
  expect(JSON.parse(cli('line', made, '--json').stdout)).toEqual({ rig: 'Small', line });
  const lost = cli('new', 'guitar > compresor > amp');
  expect(lost.status).toBe(2);
  expect(lost.stderr.split('\n').slice(0, 3)).toEqual([
    'guitar > compresor > amp',
    '         ~~~~~~~~~',
    '"compresor" is no kind that is known; near: Compressor.',
  ]);
  const broken = cli('new', 'guitar > (amp');
  expect([broken.status, broken.stderr]).toEqual([2, expect.stringContaining('end with ")"')]);
  const noLine = cli('line', 'examples/observatory-hybrid.json');
  expect([noLine.status, noLine.stdout]).toEqual([1, expect.stringContaining('no line can say')]);
});
