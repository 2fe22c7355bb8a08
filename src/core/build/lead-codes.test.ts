import { DEMO_RIGS, hybridRig } from '../demo';
import { labelSheets } from '../formats';
import { cutList, leadCalled, leadCodes, makingOf } from '.';

test.each(DEMO_RIGS.map((rig) => [rig.name, rig] as const))(
  'a lead of %s is spoken of by the code that its cut list and its labels bear',
  (_, rig) => {
    const codes = leadCodes(rig);
    const { cuts } = cutList(rig);
    expect(cuts.map((c) => [c.lead.id, c.code])).toEqual([...codes].map(([id, c]) => [id, c.code]));
    expect(new Set([...codes.values()].map((c) => c.code)).size).toBe(codes.size);
    for (const { lead, labels } of cuts)
      expect(labels[0].startsWith(codes.get(lead.id)!.code)).toBe(true);
    expect(JSON.stringify(labelSheets(rig, 'flags', 'A4', 'http://127.0.0.1/x'))).toContain(
      leadCalled(rig, cuts[0]!.lead),
    );
  },
);

test('a name that somebody gave goes before the code; colours where the rig marks in colours; no lead in the hand has no code', () => {
  const [lead] = hybridRig.leads;
  expect(leadCalled(hybridRig, lead!)).toBe('W01');
  expect(leadCalled(hybridRig, { ...lead!, label: 'the long one' })).toBe('the long one');
  const inColours = { ...hybridRig, making: { ...makingOf(hybridRig), codes: 'colours' as const } };
  expect(leadCalled(inColours, lead!)).toBe('brown');
  const link = hybridRig.leads.find((l) => l.type === 'inside')!;
  expect(leadCodes(hybridRig).has(link.id)).toBe(false);
});
