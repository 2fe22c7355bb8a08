import { DEMO_RIGS } from '../core/demo';
import { analyse } from '../core/report';
import { readRig, type Rig, writeRig } from '../core/rig';
import { withOtherIds } from '../core/testing/other-ids';
import { device, inside, lead, rigOf, sound } from '../core/testing/rigs';
import { exportAs } from './commands/export';
import { measure } from './commands/measure';
import type { Option } from './command';
import { COMMANDS } from './program';

const RIGS = DEMO_RIGS.map(withOtherIds);

test.each(DEMO_RIGS.map((rig, i) => [rig.name, rig, RIGS[i]!] as const))(
  '%s under other ids is the same rig',
  (_, rig, other) => {
    expect(readRig(writeRig(other)).ok).toBe(true);
    const found = (r: Rig) => analyse(r).findings.map((f) => `${f.rule} ${f.what} ${f.why}`);
    expect(found(other)).toEqual(found(rig));
  },
);

/** What a command is asked with where nobody asks for anything. */
const usual = (options: readonly Option[]): object =>
  Object.fromEntries(
    options.flatMap((o) => {
      const name = /--(\w+)/.exec(o.flags)?.[1];
      return name && o.initial !== undefined ? [[name, o.initial]] : [];
    }),
  );

/** One change of sound, and what comes of it when a message gets lost. */
const change = ({ sounds: [from, to] }: Rig): object[] => [
  { from: from!.name, to: to!.name },
  { from: from!.name, to: to!.name, lost: true },
];

// Files for other programs go by ids. What is measured is told by the words of findings, and takes minutes here.
const SPOKEN = COMMANDS.filter((c) => c !== exportAs && c !== measure);
const fly = RIGS[1]!;
const kept = fly.devices.filter((d) => d.at).slice(0, 3);
const SMALL: Rig = {
  ...fly,
  devices: fly.devices.map((d) => (kept.includes(d) ? d : { ...d, at: undefined })),
};

/** A modeler with more blocks than it has room for: one has to leave. */
const blocks = ['compressor', 'chorus', 'phaser', 'tremolo', 'delay', 'reverb'];
const FULL = rigOf(
  [
    device('zq1zq', 'guitar-humbucker', 'Guitar'),
    device('zq2zq', 'modeler-compact', 'Modeler'),
    ...blocks.map((kind, i) => device(`zqb${i}zq`, kind, `Block ${i}`, { host: 'zq2zq' })),
    device('zq3zq', 'console-input', 'House', { settings: { input: 'line' } }),
  ],
  [
    lead('zq4zq', 'zq1zq.out', 'zq2zq.in', 3),
    ...['zq2zq.fromIn', ...blocks.map((_, i) => `zqb${i}zq.out`)].map((from, i) =>
      inside(`zql${i}zq`, from, i < blocks.length ? `zqb${i}zq.in` : 'zq2zq.toOut'),
    ),
    lead('zq5zq', 'zq2zq.out', 'zq3zq.in', 10, 'balanced'),
  ],
  [
    sound(
      'zq6zq',
      'All',
      blocks.map((_, i) => `zqb${i}zq`),
    ),
  ],
);

/** Commands that try hundreds of things do so on one small rig. */
const ONE: Record<string, Rig> = { faults: SMALL, drill: SMALL, layout: SMALL, propose: FULL };

test.each(SPOKEN.map((c) => [c.name, c] as const))(
  '%s calls things by name, never by id',
  async (name, command) => {
    let count = 0;
    for (const rig of ONE[name] ? [ONE[name]] : RIGS)
      for (const asked of name === 'midi' ? [{}, ...change(rig)] : [{}]) {
        const { lines } = await command.run(rig, { ...usual(command.options), ...asked });
        expect(lines.filter((l) => l.includes('zq'))).toEqual([]);
        count += lines.length;
      }
    expect(count).toBeGreaterThan(3);
  },
);
