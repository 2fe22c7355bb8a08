import { DirectedGraph } from 'graphology';
import { dfs } from 'graphology-traversal';
import { brokenRig, touringRig } from '../src/core/demo';
import { Analyser, analyse, FixTrial } from '../src/core/report';
import { fixesOf } from '../src/core/report/tried';
import { applyEdit, type Rig } from '../src/core/rig';
import { faultsOf, Listener } from '../src/core/show';
import { bigRig, mixedRig, splitRig, suppliedRig } from './big-rig';

/** The middle of several runs, in milliseconds; the first runs warm up. */
function time(work: () => unknown, runs = 15): number {
  for (let i = 0; i < 3; i++) work();
  const taken = Array.from({ length: runs }, () => {
    const start = performance.now();
    work();
    return performance.now() - start;
  });
  return taken.sort((a, b) => a - b)[Math.floor(runs / 2)]!;
}

/** One bare depth-first walk of the rig's devices and leads by a graph library, for each sound. */
function bareWalk(rig: Rig): void {
  for (const _ of rig.sounds) {
    const graph = new DirectedGraph();
    for (const d of rig.devices) graph.addNode(d.id);
    for (const l of rig.leads) graph.mergeEdge(l.from.device, l.to.device);
    dfs(graph, () => undefined);
  }
}

const say = (what: string, ratio: number, meaning: string) =>
  console.log(`${what.padEnd(54)} ${ratio.toFixed(2).padStart(8)}   ${meaning}`);

const full = time(() => analyse(touringRig));
say(
  'full analysis / bare walk, touring rig',
  full / time(() => bareWalk(touringRig)),
  'times as long as only visiting every lead',
);

const listener = new Listener(touringRig);
const faults = faultsOf(listener.whole);
const everyFault = time(() => {
  for (const f of faults)
    for (const s of listener.sounds) listener.noticed(f.change(listener.whole), s);
}, 3);
say(
  `all ${faults.length} faults in all sounds / full analysis`,
  everyFault / full,
  'times as long; workers share it',
);

const analyser = new Analyser();
analyser.analyse(touringRig);
let turn = 0;
const knob = () => {
  const r = applyEdit(touringRig, {
    edit: 'setSetting',
    device: 'kiln',
    sound: 'lead',
    setting: 'drive',
    value: (turn++ % 100) / 10,
  });
  if (r.ok) analyser.analyse(r.value.rig);
};
say(
  'knob in one sound / full analysis',
  time(knob) / full,
  `of ${touringRig.sounds.length} sounds one is computed again`,
);

const moved = touringRig.devices.find((d) => d.at)!;
const place = () => {
  const at = { ...moved.at!, x: (turn++ % 100) + 1 };
  analyser.analyse({
    ...touringRig,
    devices: touringRig.devices.map((d) => (d === moved ? { ...d, at } : d)),
  });
};
say(
  'a place on the board / full analysis',
  time(place) / full,
  'nothing that is heard is computed again',
);

const trial = new FixTrial(brokenRig);
const fixes = trial.report.findings.flatMap((f) => fixesOf(f).map((fix) => [f, fix] as const));
let tried = 0;
say(
  'trying one fix / full analysis, practice rig',
  time(() => {
    const [finding, fix] = fixes[tried++ % fixes.length]!;
    trial.try(finding, fix);
  }, fixes.length) / time(() => analyse(brokenRig)),
  `the middle of ${fixes.length} fixes`,
);

/** The sizes are taken in turn, each time a fresh rig, so that what disturbs the machine disturbs all. */
const sizes = [50, 100, 200, 400, 800];
const ROUNDS = 5;
/** Of how many sounds a rig is made for each size, so that as much grows as in the others. */
const soundsFor = (size: number): number => Math.max(2, Math.round(size / 25));
const FAMILIES = [
  ['a chain', bigRig, 1.1],
  ['switchers, amplifiers, modelers', mixedRig, 1.1],
  ['splits that arrive apart', splitRig, 1.1],
  ['many supplies', suppliedRig, 1.1],
  ['sounds of 50 mixed devices', (n: number) => mixedRig(50, soundsFor(n)), 1.05],
] as const;
let missed = 0;
for (const [name, make, most] of FAMILIES) {
  const taken = sizes.map((): number[] => []);
  for (let round = 0; round < ROUNDS; round++)
    sizes.forEach((n, i) => {
      const rig = make(n);
      const start = performance.now();
      analyse(rig);
      // The first round warms up.
      if (round > 0) taken[i]!.push(performance.now() - start);
    });
  const times = taken.map((list) => list.sort((a, b) => a - b)[Math.floor(list.length / 2)]!);
  const exponent = Math.log(times.at(-1)! / times[0]!) / Math.log(sizes.at(-1)! / sizes[0]!);
  const against = times.slice(1).map((t) => (t / times[0]!).toFixed(1));
  say(
    `${name}: growth exponent, 50 to 800`,
    exponent,
    `at most ${most}; ${against.join(', ')} times`,
  );
  if (exponent > most) {
    missed++;
    console.log(`MISSED: ${name} grows faster than it may`);
  }
}
process.exitCode = missed ? 1 : 0;
