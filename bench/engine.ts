import { DirectedGraph } from 'graphology';
import { dfs } from 'graphology-traversal';
import { brokenRig, hybridRig, touringRig } from '../src/core/demo';
import { notesOfStations } from '../src/core/note';
import { noiseIn } from '../src/core/note/noise';
import { Analyser, analyse, FixTrial } from '../src/core/report';
import { fixesOf } from '../src/core/report/tried';
import { applyEdit, type Edit, type Rig } from '../src/core/rig';
import { faultsOf, Listener } from '../src/core/show';
import { bigRig, mixedRig, splitRig, suppliedRig } from './big-rig';
import { arithmeticOf, kernelOf } from './floor';
import { garbageShare, inTurn, keptMegabytes, outcome, say, shareOf } from './measure';

/** The same rig as nobody has seen it: every lead a little longer, so that nothing is known of it yet. */
const fresh = (rig: Rig, round: number): Rig => ({
  ...structuredClone(rig),
  leads: rig.leads.map((l) => ({ ...l, metres: l.metres * (1 + round * 1e-7) })),
});

/** All figures of a rig: the report, and one note and the noise at every strip in every sound. */
function withNote(rig: Rig): void {
  analyse(rig);
  for (const s of rig.sounds) {
    notesOfStations(rig, s);
    noiseIn(rig, s);
  }
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

function floors(): void {
  const RIGS = [
    ['touring rig', touringRig, 15, 15],
    ['hybrid rig', hybridRig, 15, 15],
    ['chain of 200', bigRig(200), 10, 5],
    ['200 mixed devices', mixedRig(200), 8, 5],
  ] as const;
  for (const [name, rig, most, rounds] of RIGS) {
    const kernel = kernelOf(arithmeticOf(rig));
    const t = inTurn(
      {
        full: (round) => {
          const unseen = fresh(rig, round);
          return () => withNote(unseen);
        },
        floor: () => kernel,
      },
      rounds,
    );
    say(
      `${name}: all figures / their arithmetic`,
      t.full / t.floor,
      'note and noise included',
      most,
    );
  }
}

/** An edit of the touring rig that differs each time. */
const EDITS: Record<string, { most: number; edit: (n: number) => Edit }> = {
  'a knob in one of eight sounds': {
    most: 0.18,
    edit: (n) => ({
      edit: 'setSetting',
      device: 'kiln',
      sound: 'lead',
      setting: 'drive',
      value: ((n * 37) % 100) / 10,
    }),
  },
  'a lead that is longer': {
    most: 0.6,
    edit: (n) => ({ edit: 'setLead', lead: touringRig.leads[6]!.id, metres: 1 + n / 100 }),
  },
  'a note': { most: 0.05, edit: (n) => ({ edit: 'setDevice', device: 'kiln', notes: `n${n}` }) },
  'a name': { most: 0.05, edit: (n) => ({ edit: 'setDevice', device: 'kiln', name: `Kiln ${n}` }) },
  'a place on the board': {
    most: 0.05,
    edit: (n) => {
      const { id, at } = touringRig.devices.find((d) => d.at)!;
      return { edit: 'placeOnBoard', device: id, at: { ...at!, x: n + 1 } };
    },
  },
};

function edits(): void {
  const analyser = new Analyser();
  const names = Object.keys(EDITS);
  const report = (round: number) => {
    const unseen = fresh(touringRig, round);
    return () => analyse(unseen);
  };
  const withoutPromises = (round: number) => {
    const unseen = { ...fresh(touringRig, round + 1000), promises: [] };
    return () => analyse(unseen);
  };
  const of = inTurn<string>(
    {
      full: report,
      'bare walk': () => () => bareWalk(touringRig),
      ...Object.fromEntries(
        names.map((name) => [
          name,
          (round: number) => {
            analyser.analyse(touringRig);
            return () => {
              const r = applyEdit(touringRig, EDITS[name]!.edit(round));
              if (!r.ok) throw new Error(r.problems[0]?.what);
              analyser.analyse(r.value.rig);
            };
          },
        ]),
      ),
    },
    25,
  );
  const t = (name: string): number => of[name] ?? Infinity;
  const full = t('full');
  say('touring rig: report / bare walk', full / t('bare walk'), 'times as long as only visiting');
  for (const name of names)
    say(`${name} / report`, t(name) / full, 'touring rig', EDITS[name]!.most);
  // On rigs that nobody has seen above.
  const share = shareOf((n) => report(n + 2000), withoutPromises, 40);
  say('promises / report', share, 'touring rig', 0.2);
}

function trials(): void {
  const trial = new FixTrial(brokenRig);
  const fixes = trial.report.findings.flatMap((f) => fixesOf(f).map((fix) => [f, fix] as const));
  const t = inTurn(
    {
      full: (round) => {
        const unseen = fresh(brokenRig, round);
        return () => analyse(unseen);
      },
      fix: (round) => () => {
        const [finding, fix] = fixes[round % fixes.length]!;
        trial.try(finding, fix);
      },
    },
    fixes.length,
  );
  say(
    'trying one fix / report',
    t.fix / t.full,
    `practice rig, the middle of ${fixes.length} fixes`,
  );
  const listener = new Listener(touringRig);
  const faults = faultsOf(listener.whole);
  const every = inTurn(
    {
      full: (round) => {
        const unseen = fresh(touringRig, round);
        return () => analyse(unseen);
      },
      faults: () => () => {
        for (const f of faults)
          for (const s of listener.sounds) listener.noticed(f.change(listener.whole), s);
      },
    },
    3,
  );
  say(
    `all ${faults.length} faults in all sounds / report`,
    every.faults / every.full,
    'workers share it',
  );
}

async function memory(): Promise<void> {
  const held: Analyser[] = [];
  const megabytes = keptMegabytes(() => {
    const analyser = new Analyser();
    analyser.analyse(fresh(touringRig, 5000));
    held.push(analyser);
    return held;
  });
  say(
    'touring rig: MB that are kept',
    megabytes,
    'of its report and of what it is worked out from',
    5,
  );
  const share = await garbageShare(() => {
    for (let i = 0; i < 30; i++) analyse(fresh(touringRig, 6000 + i));
  });
  say('garbage / report', share, 'touring rig', 0.03);
}

/** The sizes are taken in turn, each time a fresh rig, so that what disturbs the machine disturbs all. */
const sizes = [50, 100, 200, 400, 800];
/** Of how many sounds a rig is made for each size, so that as much grows as in the others. */
const soundsFor = (size: number): number => Math.max(2, Math.round(size / 25));
const FAMILIES = [
  ['a chain', bigRig, 1.1],
  ['switchers, amplifiers, modelers', mixedRig, 1.1],
  ['splits that arrive apart', splitRig, 1.1],
  ['many supplies', suppliedRig, 1.1],
  ['sounds of 50 mixed devices', (n: number) => mixedRig(50, soundsFor(n)), 1.05],
] as const;

function growth(): void {
  for (const [name, make, most] of FAMILIES) {
    const t = inTurn(
      Object.fromEntries(
        sizes.map((n) => [
          String(n),
          () => {
            const rig = make(n);
            return () => analyse(rig);
          },
        ]),
      ),
      4,
      1,
    );
    const times = sizes.map((n) => t[String(n)]!);
    const exponent = Math.log(times.at(-1)! / times[0]!) / Math.log(sizes.at(-1)! / sizes[0]!);
    const against = times.slice(1).map((x) => (x / times[0]!).toFixed(1));
    say(`${name}: growth exponent, 50 to 800`, exponent, `${against.join(', ')} times`, most);
  }
}

floors();
edits();
trials();
void memory().then(() => {
  growth();
  process.exitCode = outcome();
});
