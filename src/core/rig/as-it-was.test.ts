import { DEMO_RIGS, touringRig } from '../demo';
import { kindOf, KINDS } from '../kinds';
import { digest } from '../testing/digest';
import { applyEdit, type Edit, editWords, integrityProblems, promiseWords, type Rig } from '.';
import { partnerLead } from '.';

/** Every device taken out, moved, put into each way of a host and taken out of it again. */
function* edits(rig: Rig): Generator<Edit> {
  const leads = rig.leads.filter((_, i) => i % 5 === 0);
  for (const [i, { id }] of rig.devices.entries()) {
    yield { edit: 'removeDevice', device: id };
    yield { edit: 'setEngaged', device: id, sound: rig.sounds[0]?.id, engaged: i % 2 === 0 };
    yield { edit: 'moveFromLoop', device: id };
    const lead = leads[i % leads.length];
    if (lead) yield { edit: 'moveDevice', device: id, lead: lead.id, newLeads: ['n1', 'n2'] };
    for (const loop of kindOf(rig.devices[(i * 5) % rig.devices.length]?.kind ?? '').loops ?? [])
      yield { edit: 'moveToLoop', device: id, loops: [loop.id], newLeads: ['n1', 'n2'] };
  }
  for (const { id } of rig.leads) yield { edit: 'disconnect', lead: id };
}

test.each(DEMO_RIGS.map((r) => [r.id, r] as const))(
  'edits of %s do and say what they did and said',
  (_, rig) => {
    const now: Record<string, string[]> = {};
    for (const edit of edits(rig)) {
      const made = applyEdit(rig, edit);
      const outcome = made.ok ? digest(made.value) : made.problems.map((p) => p.what).join(' ');
      (now[edit.edit] ??= []).push(`${digest(editWords(rig, edit))} ${outcome}`);
    }
    expect(Object.entries(now).map(([name, list]) => `${name} ${digest(list)}`)).toMatchSnapshot();
  },
);

test('what is wrong with a document is told as it was', () => {
  const rig = touringRig;
  const wrong: Record<string, Rig> = {
    'a kind that is not there': at(rig, 3, { kind: 'kazoo' }),
    'a host that is none': at(rig, 3, { host: rig.devices[1]?.id }),
    'a supply that is none': at(rig, 3, { supply: { device: rig.devices[1]?.id ?? '' } }),
    'leads turned round': {
      ...rig,
      leads: rig.leads.map((l) => ({ ...l, from: l.to, to: l.from })),
    },
    'leads of another type': { ...rig, leads: rig.leads.map((l) => ({ ...l, type: 'digital' })) },
    'links of another type': { ...rig, leads: rig.leads.map((l) => ({ ...l, type: 'inside' })) },
    'air and midi': {
      ...rig,
      leads: rig.leads.map((l, i) => ({ ...l, type: i % 2 ? 'air' : 'midi' })),
    },
    'every lead twice': {
      ...rig,
      leads: [...rig.leads, ...rig.leads.map((l) => ({ ...l, id: `${l.id}-2` }))],
    },
    'every list twice': {
      ...rig,
      devices: [...rig.devices, ...rig.devices],
      sounds: [...rig.sounds, ...rig.sounds],
      songs: [...(rig.songs ?? []), ...(rig.songs ?? [])],
      boards: [...(rig.boards ?? []), ...(rig.boards ?? [])],
    },
    'nothing placed anywhere': { ...rig, boards: [], racks: [] },
    'settings out of range': {
      ...rig,
      devices: rig.devices.map((d) => ({
        ...d,
        settings: Object.fromEntries(Object.keys(d.settings ?? {}).map((k) => [k, 99])),
      })),
    },
  };
  expect(
    Object.entries(wrong).map(([name, r]) => {
      const found = integrityProblems(r);
      return `${name}: ${found.length} ${digest(found)}`;
    }),
  ).toMatchSnapshot();
});

test('promises and partners are told as they were', () =>
  expect(
    DEMO_RIGS.map((rig) =>
      digest([
        (rig.promises ?? []).map((p) => promiseWords(rig, p)),
        rig.leads.map((l) => partnerLead(rig, l)?.id),
      ]),
    ),
  ).toMatchSnapshot());

function at(rig: Rig, i: number, change: Partial<Rig['devices'][number]>): Rig {
  return { ...rig, devices: rig.devices.map((d, k) => (k === i ? { ...d, ...change } : d)) };
}

test('a device that takes the place of another keeps the leads it did', () => {
  const now = touringRig.devices.map(({ id }) =>
    digest(
      KINDS.filter((_, i) => i % 24 === 0).map((kind) =>
        applyEdit(touringRig, { edit: 'replaceDevice', device: id, kind: kind.id }),
      ),
    ),
  );
  expect(now).toMatchSnapshot();
}, 120_000);
