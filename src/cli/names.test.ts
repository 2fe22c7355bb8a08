import { DEMO_RIGS } from '../core/demo';
import { analyse } from '../core/report';
import { readRig, type Rig, writeRig } from '../core/rig';
import { withOtherIds } from '../core/testing/other-ids';
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
/** Commands that try hundreds of things do so on the small rig alone, with three pedals on its board. */
const LONG = new Set(['faults', 'drill', 'layout', 'propose']);
const fly = RIGS[1]!;
const kept = fly.devices.filter((d) => d.at).slice(0, 3);
const SMALL: Rig = {
  ...fly,
  devices: fly.devices.map((d) => (kept.includes(d) ? d : { ...d, at: undefined })),
};

test.each(SPOKEN.map((c) => [c.name, c] as const))(
  '%s calls things by name, never by id',
  async (name, command) => {
    let count = 0;
    for (const rig of LONG.has(name) ? [SMALL] : RIGS)
      for (const asked of name === 'midi' ? [{}, ...change(rig)] : [{}]) {
        const { lines } = await command.run(rig, { ...usual(command.options), ...asked });
        expect(lines.filter((l) => l.includes('zq'))).toEqual([]);
        count += lines.length;
      }
    expect(count).toBeGreaterThan(3);
  },
);
