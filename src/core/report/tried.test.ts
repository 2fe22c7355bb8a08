import { brokenRig, DEMO_RIGS, touringRig } from '../demo';
import type { Finding } from '../findings/finding';
import { applyEdits, type Device, type Edit, type Lead, type Rig } from '../rig';
import { sure } from '../outcome';
import { chainOf, device, lead, rigOf, sound } from '../testing/rigs';
import { digest } from '../testing/digest';
import { analyse, Analyser, cureAll, FixTrial, isSafe } from '.';

const serious = (f: Finding) => f.severity !== 'advice' && f.accepted === undefined;

/** Of the rig in which much is wrong one sound: every fix is tried in each, and again from outside. */
const RIGS = DEMO_RIGS.map((r) => (r === brokenRig ? { ...r, sounds: r.sounds.slice(0, 1) } : r));

describe.each(RIGS.map((r) => [r.id, r] as const))('fixes of %s', (_, rig) => {
  const trial = new FixTrial(rig);
  const ways = trial.report.findings.flatMap((finding) =>
    trial.waysOut(finding).map((way) => ({ finding, ...way })),
  );

  test('what is offered cures; what is safe makes nothing worse, judged anew from outside', () => {
    for (const { finding, fix, tried } of ways) {
      expect(tried.cures).toBe(true);
      const applied = applyEdits(rig, fix.edits);
      expect(applied.ok).toBe(true);
      if (!applied.ok || !isSafe(tried)) continue;
      const after = analyse(applied.value.rig);
      expect(after.findings.some((f) => f.key === finding.key)).toBe(false);
      const known = new Set(trial.report.findings.map((f) => f.key));
      expect(after.findings.filter((f) => serious(f) && !known.has(f.key))).toEqual([]);
      for (const p of trial.report.promises.filter((x) => x.kept))
        expect(after.promises.find((x) => x.id === p.id)?.kept).toBe(true);
      for (const [i, s] of trial.report.sounds.entries())
        for (const [k, d] of s.destinations.entries())
          expect(after.sounds[i]!.destinations[k]!.sources).toEqual(
            expect.arrayContaining(d.sources),
          );
    }
  });

  test('curing all leaves fewer findings, no new one of caution or worse, and tells each step', async () => {
    const cured = await cureAll(rig);
    expect(cured.done).toHaveLength(new Set(cured.done.map((d) => d.what)).size);
    const again = applyEdits(rig, cured.edits);
    expect(digest(again.ok && again.value.rig)).toBe(digest(cured.rig));
    const [before, after] = [trial.report, analyse(cured.rig)].map((r) =>
      r.findings.filter(serious).map((f) => f.key),
    );
    expect(after!.filter((key) => !before!.includes(key))).toEqual([]);
    expect(after!.length).toBeLessThanOrEqual(before!.length);
  }, 60_000);
});

test('a fix that breaks a promise says which, and is not safe', () => {
  const rig: Rig = {
    ...touringRig,
    promises: [...(touringRig.promises ?? [])],
  };
  const trial = new FixTrial(rig);
  const kept = sure(trial.report.promises.find((p) => p.kept && p.words.includes('hear')));
  const finding = sure(trial.report.findings[0]);
  const [sound] = rig.sounds;
  // Everything that makes a sound is put aside: nobody hears anything any more.
  const edits = rig.devices.flatMap((d) =>
    ['bari', 'steel', 'mando'].includes(d.id)
      ? [{ edit: 'removeDevice' as const, device: d.id }]
      : [],
  );
  const tried = trial.try(finding, { words: 'silence all', edits });
  expect(tried.breaks.some((b) => b.includes(kept.words))).toBe(true);
  expect(tried.breaks.some((b) => b.includes('no longer hears'))).toBe(true);
  expect(tried.breaks.join(' ')).toContain(sure(sound).name);
  expect(isSafe(tried)).toBe(false);
});

test('edits that cannot be made cure nothing', () => {
  const trial = new FixTrial(brokenRig);
  const tried = trial.try(sure(trial.report.findings[0]), {
    words: 'x',
    edits: [{ edit: 'removeDevice', device: 'nobody' }],
  });
  expect(tried).toMatchObject({ cures: false, breaks: ['it cannot be done here'] });
});

test('a level that changes is told with how much, where and in which sound', () => {
  const rig = chainOf(['guitar-active', ['boost', { engaged: false }], 'console-input']);
  const trial = new FixTrial(rig);
  const finding: Finding = {
    key: 'x',
    rule: 'noise',
    severity: 'advice',
    subjects: [],
    sounds: [],
    what: '',
    why: '',
  };
  const tried = trial.try(finding, {
    words: 'boost',
    edits: [{ edit: 'setEngaged', device: 'd1', engaged: true }],
  });
  const [before, after] = [rig, sure(applied(rig))].map(
    (r) => analyse(r).sounds[0]!.destinations[0]!.levelDbu!.normal,
  );
  expect(tried.costs.join(' ')).toContain(
    `Device 2 is ${(after! - before!).toFixed(1)} dB louder in`,
  );
  function applied(r: Rig): Rig | undefined {
    const made = applyEdits(r, [{ edit: 'setEngaged', device: 'd1', engaged: true }]);
    return made.ok ? made.value.rig : undefined;
  }
});

/** A correct rig: a guitar through a pedal into a head, its cabinet, a microphone and the house. */
const correct: Rig = rigOf(
  [
    device('g', 'guitar-active', 'Guitar'),
    device('d', 'drive-low', 'Drive', { engaged: true }),
    device('h', 'head-tube', 'Head'),
    device('c', 'cabinet', 'Cabinet'),
    device('m', 'microphone', 'Mic'),
    device('o', 'console-input', 'House'),
  ],
  [
    lead('1', 'g.out', 'd.in', 3),
    lead('2', 'd.out', 'h.in', 6),
    lead('3', 'h.speaker', 'c.in', 1.5, 'speaker'),
    lead('4', 'c.air', 'm.air', 0.1, 'air'),
    lead('5', 'm.out', 'o.in', 20, 'balanced'),
  ],
);

describe('a mistake planted in a correct rig is told, and its first safe fix leaves no more than there was', () => {
  const before = new Set(analyse(correct).findings.map((f) => f.key));
  const withLead = (id: string, change: Partial<Lead>): Rig => ({
    ...correct,
    leads: correct.leads.map((l) => (l.id === id ? { ...l, ...change } : l)),
  });
  const withDevice = (id: string, change: Partial<Device>): Rig => ({
    ...correct,
    devices: correct.devices.map((d) => (d.id === id ? { ...d, ...change } : d)),
  });
  test.each<[string, Rig]>([
    ['speaker-lead', withLead('3', { type: 'instrument' })],
    ['impedance', withDevice('h', { figures: { tapOhms: { value: 4, from: 'sheet' } } })],
    ['impedance', withDevice('h', { figures: { tapOhms: { value: 16, from: 'sheet' } } })],
  ])('%s', (rule, rig) => {
    const trial = new FixTrial(rig);
    const fresh = trial.report.findings.filter((f) => !before.has(f.key));
    expect(fresh[0]?.rule).toBe(rule);
    const [best] = trial.waysOut(sure(fresh[0]));
    expect(best && isSafe(best.tried)).toBe(true);
    const cured = applyEdits(rig, sure(best).fix.edits);
    const after = analyse(cured.ok ? cured.value.rig : rig).findings;
    expect(after.filter((f) => !before.has(f.key))).toEqual([]);
  });
});

test.each(RIGS.map((r) => [r.id, r] as const))(
  'on a copy of %s, where no dear ways out are looked for, the same is found',
  (_, rig) => {
    const said = (a: Analyser) =>
      a.analyse(rig).findings.map(({ key, severity, what, why, sounds }) => ({
        key,
        severity,
        what,
        why,
        sounds,
      }));
    expect(said(new Analyser().forCopies())).toEqual(said(new Analyser()));
  },
);

describe('a finding in new clothes', () => {
  const SET: Record<string, Device['settings']> = {
    desk: { input: 'line' },
    dirt: { drive: 10, level: 10 },
    more: { drive: 10, level: 10 },
  };
  const chain = (order: readonly string[]): Rig => {
    const kinds: Record<string, string> = { echo: 'delay', dirt: 'drive-high', more: 'drive-high' };
    const ids = ['g', ...order, 'desk'];
    return rigOf(
      ids.map((id) => {
        const kind = kinds[id] ?? (id === 'g' ? 'guitar-humbucker' : 'console-input');
        return device(id, kind, id, {
          ...(SET[id] && { settings: SET[id] }),
          // Coils in a quiet place: what is heard between notes is hiss.
          ...(id === 'g' && { figures: { humDbu: { value: -120, from: 'sheet' } } }),
        });
      }),
      ids.slice(1).map((id, i) => lead(`l${i}`, `${ids[i]}.out`, `${id}.in`, 0.3)),
      [sound('a', 'A', order)],
    );
  };
  const hiss = (rig: Rig, edit: Edit) => {
    const { breaks, bearable } = new FixTrial(rig).outcome([edit]);
    const [all, borne] = [breaks, bearable].map((l) => l.filter((b) => b.includes('hiss')).length);
    return { all, borne };
  };

  test('hiss at a desk that another box gives most of now speaks against no proposal', () => {
    const rig = chain(['echo', 'more', 'dirt']);
    const before = analyse(rig).findings.find((f) => f.rule === 'noise');
    const move: Edit = { edit: 'moveDevice', device: 'dirt', lead: 'l0', newLeads: ['n1', 'n2'] };
    const moved = applyEdits(rig, [move]);
    const after = moved.ok && analyse(moved.value.rig).findings.find((f) => f.rule === 'noise');
    expect(before && after && before.key !== after.key).toBe(true);
    expect(hiss(rig, move)).toEqual({ all: 1, borne: 1 });
  });

  test('hiss where there was none does', () => {
    const rig = chain(['echo']);
    expect(analyse(rig).findings.map((f) => f.rule)).not.toContain('noise');
    const put: Edit = {
      edit: 'insertInLead',
      lead: 'l1',
      newLeads: ['n1', 'n2'],
      device: device('dirt', 'drive-high', 'dirt', { engaged: true, settings: SET.dirt }),
    };
    expect(hiss(rig, put)).toEqual({ all: 1, borne: 0 });
  });
});
