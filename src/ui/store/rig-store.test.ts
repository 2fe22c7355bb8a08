import { analyse, Analyser, type SoundReport } from '../../core/report';
import { touringRig } from '../../core/demo';
import { patchRig, type Rig } from '../../core/rig';
import type { Door } from '../../worker';
import { createRigStore } from './rig-store';
import * as working from './working';

/** A door to the same engine, in this thread; what is shown is told at once. */
function door(document: () => Rig): Door & { asked: string[] } {
  const analyser = new Analyser();
  let rig: Rig | undefined;
  const asked: string[] = [];
  const answer = (
    question: string,
    ask: { rig?: Rig; patches?: Parameters<typeof patchRig>[1]; shown?: string },
    take: (first: SoundReport) => void = () => undefined,
  ) => {
    asked.push(question);
    rig = question === 'open' ? ask.rig! : patchRig(rig!, ask.patches!);
    const report = analyser.analyse(rig, { sound: ask.shown ?? '', take });
    return {
      changed: report.sounds,
      order: report.sounds.map((s) => s.sound),
      promises: report.promises,
      findings: report.findings,
    };
  };
  return {
    asked,
    close: () => undefined,
    wake: () => {
      if (!rig) answer('open', { rig: document() });
    },
    ask: ((q: string, a: never, first?: never) =>
      Promise.resolve(answer(q, a, first))) as Door['ask'],
  };
}

const opened = () => {
  const store = createRigStore(touringRig, analyse(touringRig), false, working);
  const d = door(() => store.getState().history.rig);
  store.getState().setDoor(d);
  return { store, d, get: store.getState };
};
const settle = () => new Promise((r) => setTimeout(r, 0));

test(
  'an edit changes the document at once, the figures after the worker, and is waiting ' +
    'to be saved in words',
  async () => {
    const { store, get, d } = opened();
    const level = () =>
      get()
        .report.sounds.find((s) => s.sound === 'lead')!
        .stations.find((s) => s.id === 'kiln')!.output.levelDbu!.normal;
    const before = level();
    get().edit({ edit: 'setSetting', device: 'kiln', sound: 'lead', setting: 'level', value: 9 });
    expect(get().history.rig.sounds.find((s) => s.id === 'lead')!.states.kiln!.settings).toEqual({
      level: 9,
    });
    expect(get().lastEdit?.words).toBe("set Kiln Drive, Level at 4 o'clock, in Lead");
    expect(level()).toBe(before);
    await settle();
    expect(level()).toBeGreaterThan(before + 10);
    expect(d.asked).toEqual(['open', 'patch']);
    expect(store.getState().report.sounds).toHaveLength(touringRig.sounds.length);
  },
);

test('the sound that is shown has its figures first, the other sounds and the findings follow', async () => {
  const { get } = opened();
  await settle();
  get().setSound('lead');
  const before = get().report;
  get().edit({ edit: 'setSetting', device: 'kiln', setting: 'level', value: 9 });
  const first = get().report;
  const [lead, edge] = ['lead', 'edge'].map((id) => first.sounds.findIndex((s) => s.sound === id));
  expect(first.sounds[lead!]).not.toBe(before.sounds[lead!]);
  expect(first.sounds[edge!]).toBe(before.sounds[edge!]);
  expect(first.findings).toBe(before.findings);
  await settle();
  expect(get().report.findings).not.toBe(before.findings);
  expect(get().report).toEqual(analyse(get().history.rig));
});

test('undo and redo go through the document, the figures and the words', async () => {
  const { get, store } = opened();
  const said: string[] = [];
  store.subscribe((now, before) => {
    if (now.lastEdit && now.lastEdit !== before.lastEdit) said.push(now.lastEdit.words);
  });
  get().edit(
    [
      { edit: 'removeDevice', device: 'kiln' },
      { edit: 'renameRig', name: 'Less' },
    ],
    'two things at once',
  );
  get().undo();
  expect(get().history.rig).toEqual(touringRig);
  get().redo();
  expect(get().history.rig.devices.some((d) => d.id === 'kiln')).toBe(false);
  expect(said).toEqual([
    'two things at once',
    'undid: two things at once',
    'did again: two things at once',
  ]);
  await settle();
  expect(get().report.sounds[0]!.stations.some((s) => s.device === 'kiln')).toBe(false);
  get().undo();
  get().undo();
  expect(get().history.rig).toEqual(touringRig);
});

test('a refusal is said and changes nothing; an edit that changes nothing is no step', () => {
  const { get } = opened();
  expect(get().edit({ edit: 'setSetting', device: 'kiln', setting: 'drive', value: 99 }).ok).toBe(
    false,
  );
  expect(get().notice).toBe('Drive takes a number from 0 to 10, not 99');
  expect(get().history.past).toEqual([]);
  get().edit({ edit: 'renameRig', name: touringRig.name });
  expect([get().history.past.length, get().lastEdit]).toEqual([0, null]);
});

test('the chosen sound stays chosen, unless it is removed', () => {
  const { get } = opened();
  get().setSound('lead');
  get().edit({ edit: 'renameSound', sound: 'edge', name: 'Edges' });
  expect(get().sound).toBe('lead');
  get().edit({ edit: 'removeSound', sound: 'lead' });
  expect(get().sound).toBe('flat');
});

test('undo takes back my own last step, whatever others did since, or says why it cannot', () => {
  const { get } = opened();
  const noted = (rig: Rig, notes: string): Rig => ({
    ...rig,
    devices: rig.devices.map((d) => (d.id === 'brine' ? { ...d, notes } : d)),
  });
  get().edit({ edit: 'renameRig', name: 'Mine' });
  get().edit({ edit: 'setDevice', device: 'kiln', notes: 'mine' });
  get().adopt(noted(get().history.rig, 'theirs'));
  get().undo();
  const at = (id: string) => get().history.rig.devices.find((d) => d.id === id)?.notes;
  expect([get().history.rig.name, at('kiln'), at('brine')]).toEqual(['Mine', undefined, 'theirs']);
  get().redo();
  expect([at('kiln'), at('brine')]).toEqual(['mine', 'theirs']);
  get().undo();
  get().adopt({ ...get().history.rig, name: 'Theirs' });
  get().undo();
  expect(get().history.rig.name).toBe('Theirs');
  expect(get().notice).toBe(
    '“renamed the rig to Mine” can no longer be taken back: somebody changed it since (name).',
  );
  expect(get().history.past).toEqual([]);
});

test('figures of an earlier revision say that they are behind until the worker has answered', async () => {
  const none = { sounds: [], promises: [], findings: [] };
  const { getState } = createRigStore(touringRig, none, true);
  const d = door(() => touringRig);
  expect(getState().isBehind).toBe(true);
  getState().setDoor(d);
  await settle();
  expect(getState().isBehind).toBe(false);
  expect(getState().report.findings).toEqual(analyse(touringRig).findings);
});

test('what the last edit did to the findings is what they differ by, and is forgotten with what others change', async () => {
  const { get } = opened();
  await settle();
  const keys = (rig: Rig) => new Set(analyse(rig).findings.map((f) => f.key));
  get().edit({ edit: 'disconnect', lead: touringRig.leads[0]!.id });
  await settle();
  const [old, now] = [keys(touringRig), keys(get().history.rig)];
  expect(new Set(get().sinceEdit?.fresh)).toEqual(new Set([...now].filter((k) => !old.has(k))));
  expect(get().sinceEdit?.cured).toBe([...old].filter((k) => !now.has(k)).length);
  get().undo();
  await settle();
  expect(get().sinceEdit?.cured).toBeGreaterThan(0);
  get().adopt(touringRig);
  await settle();
  expect(get().sinceEdit).toBeNull();
  get().edit({ edit: 'setDevice', device: 'kiln', notes: 'a note' });
  await settle();
  expect(get().sinceEdit).toBeNull();
});

test('several are chosen; one alone is what is chosen then, and choosing one thing ends it', () => {
  const { get } = opened();
  get().choose(['kiln', 'flare', 'kiln']);
  expect(get().chosen).toEqual(['kiln', 'flare']);
  get().choose(['flare']);
  expect([get().chosen, get().selection]).toEqual([[], { kind: 'device', id: 'flare' }]);
  get().choose(['kiln', 'flare']);
  get().select({ kind: 'lead', id: 'l08' });
  expect([get().chosen, get().selection]).toEqual([[], { kind: 'lead', id: 'l08' }]);
});

test('figures that came with the rig are not worked out again until something changes', async () => {
  const { get, d } = opened();
  await settle();
  expect(d.asked).toEqual([]);
  get().edit({ edit: 'setDevice', device: 'kiln', notes: 'a note' });
  expect(d.asked).toEqual(['open', 'patch']);
  // A door that comes later has heard of nothing: what is judged by now it need not be told.
  await settle();
  const other = door(() => get().history.rig);
  get().setDoor(other);
  expect(other.asked).toEqual([]);
  get().edit({ edit: 'setDevice', device: 'kiln', notes: 'another' });
  await settle();
  expect(other.asked).toEqual(['open', 'patch']);
  expect(get().report).toEqual(analyse(get().history.rig));
});

test('a door that comes after an edit is told at once; so is one where some sounds have no figures yet', async () => {
  const report = analyse(touringRig);
  const late = createRigStore(touringRig, report, false, working);
  late.getState().edit({ edit: 'renameRig', name: 'Early' });
  const part = createRigStore(touringRig, { ...report, sounds: report.sounds.slice(0, 1) });
  for (const { getState } of [late, part]) {
    const d = door(() => getState().history.rig);
    getState().setDoor(d);
    expect(d.asked).toEqual(['open']);
    await settle();
    expect(getState().report.sounds).toHaveLength(touringRig.sounds.length);
  }
});

test('what is edited before what edits is there is done in order as soon as it is; a refusal is told then', async () => {
  const { getState } = createRigStore(touringRig, analyse(touringRig));
  getState().undo();
  const [name, drive] = [
    getState().edit({ edit: 'renameRig', name: 'Early' }),
    getState().edit({ edit: 'setSetting', device: 'kiln', setting: 'drive', value: 99 }),
  ];
  expect([name.ok, drive.ok, getState().history.rig]).toEqual([true, true, touringRig]);
  await getState().ready();
  expect(getState().history.rig.name).toBe('Early');
  expect(getState().history.past).toHaveLength(1);
  expect(getState().notice).toBe('Drive takes a number from 0 to 10, not 99');
  getState().undo();
  expect(getState().history.rig.name).toBe(touringRig.name);

  const other = createRigStore(touringRig, analyse(touringRig));
  other.getState().edit({ edit: 'renameRig', name: 'Early' });
  other.getState().edit({ edit: 'setRigNotes', notes: 'and more' });
  other.getState().undo();
  await other.getState().ready();
  expect(other.getState().history.past).toHaveLength(1);
  expect(other.getState().history.rig.notes).toBe(touringRig.notes);
});
