import { DEMO_RIGS, touringRig } from '../demo';
import { kindOf } from '../kinds';
import { analyse } from '../report';
import { isEngaged, outletsOf, type Rig, settingWords } from '../rig';
import { stateIn } from '../rig/device-state';
import { gramsOf } from '../build';
import { bookOf } from '.';

const blocksOf = (rig: Rig, id: string) =>
  bookOf(rig, analyse(rig)).find((p) => p.id === id)?.blocks ?? [];
const rowsOf = (rig: Rig, id: string) =>
  blocksOf(rig, id).flatMap((b) => (b.is === 'table' ? b.rows.map((r) => ({ b, r })) : []));

describe.each(DEMO_RIGS.map((r) => [r.name, r] as const))('on the paper of %s', (_, rig) => {
  test('every outlet of the power plan says which way its plug is wired and whether its return is its own', () => {
    const rows = rowsOf(rig, 'power').filter(({ b }) => b.head[0] === 'Supply');
    for (const { r } of rows) {
      const supply = rig.devices.find((d) => d.name === r[0])!;
      const outlet = outletsOf(supply)!.find((o) => o.label === r[1])!;
      expect(r[3]).toBe(outlet.ac ? 'either way' : `centre ${outlet.centre ?? 'negative'}`);
      expect(r[4]).toBe(outlet.isolated ? 'its own' : 'shared');
    }
  });
  test('cue sheets name the pedals that are engaged in the sound of each section', () => {
    const cues = rowsOf(rig, 'cues');
    for (const { r } of cues) {
      const sound = rig.sounds.find((s) => s.name === r[4]);
      if (!sound) continue;
      for (const name of r[5]!.split(', ').filter(Boolean)) {
        const device = rig.devices.find((d) => d.name === name)!;
        expect([name, isEngaged(kindOf(device.kind), device, stateIn(sound, device.id))]).toEqual([
          name,
          true,
        ]);
      }
    }
    if (rig.songs?.length) expect(cues.length).toBeGreaterThan(0);
  });
  test('every thing over 23 kg takes two persons, whatever it is packed in, and nothing lighter does', () => {
    const items = blocksOf(rig, 'pack').flatMap((b) => (b.is === 'list' ? b.items : []));
    for (const d of rig.devices)
      for (const item of items.filter((i) => i === d.name || i.startsWith(`${d.name}, `)))
        expect([item, item.includes('two persons')]).toEqual([item, (gramsOf(d) ?? 0) > 23_000]);
  });
});

test('knobs of what is engaged stand by the clock on the sheet of their sound', () => {
  const sheet = blocksOf(touringRig, 'settings');
  const at = sheet.findIndex((b) => b.is === 'heading' && b.words === 'Lead');
  const table = sheet.slice(at).find((b) => b.is === 'table');
  const row = table?.is === 'table' ? table.rows.find((r) => r[0] === 'Kiln Drive') : undefined;
  // The values of the rig, in the words of its kind: a knob from 0 to 10 by hours.
  const { settings } = touringRig.devices.find((d) => d.id === 'kiln')!;
  for (const [id, value] of Object.entries(settings!))
    expect(row![2]).toContain(settingWords('drive-mid', id, value));
  expect(row![2]).toMatch(/half past 11/);
  expect(row![1]).toBe('engaged');
});

test('the checklist says when adhesive has set: by the clock that was started, else after so many hours', () => {
  const words = (done?: Rig['done']) =>
    blocksOf({ ...touringRig, done }, 'checklist')
      .flatMap((b) => (b.is === 'words' ? [b.words] : []))
      .find((w) => w.includes('adhesive'));
  expect(words()).toContain('12 h after the last pedal was fastened: ______ (time)');
  expect(words({ ticks: [], cureHours: 20 })).toContain('20 h after');
  // Twenty hours from ten in the evening.
  expect(words({ ticks: [], cureHours: 20, cureFrom: '2026-09-14T22:00:00Z' })).toContain(
    '2026-09-15 18:00 UTC',
  );
});
