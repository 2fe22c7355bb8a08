import { readFileSync } from 'node:fs';
import * as z from 'zod';
import { chainOf, device, lead, rigOf } from '../testing/rigs';
import { joinsOf } from './conductors';
import { applyEdits, type Edit, type Rig } from '.';
import { rigSchema } from './schema';

test('what a file may hold is what the published schema says, limit by limit', () => {
  const published = JSON.parse(readFileSync('docs/rig.schema.json', 'utf8')) as object;
  expect({
    title: 'Yantrel rig, version 1',
    ...(JSON.parse(JSON.stringify(z.toJSONSchema(rigSchema, { io: 'input' }))) as object),
  }).toEqual(published);
});

const done = (rig: Rig, edit: Edit): Rig => {
  const r = applyEdits(rig, [edit]);
  if (!r.ok) throw new Error(r.problems[0]!.what);
  return r.value.rig;
};

test('a measured capacity is kept, changed and forgotten; other changes leave it', () => {
  const rig = chainOf(['guitar-active', 'boost', 'console-input']);
  const id = rig.leads[1]!.id;
  const at = (r: Rig) => r.leads[1]!;
  const measured = done(rig, { edit: 'setLead', lead: id, pF: 640 });
  expect(at(measured).pF).toBe(640);
  const longer = done(measured, { edit: 'setLead', lead: id, metres: 4 });
  expect(at(longer)).toMatchObject({ pF: 640, metres: 4 });
  expect(at(done(longer, { edit: 'setLead', lead: id, pF: 12 })).pF).toBe(12);
  expect('pF' in at(done(longer, { edit: 'setLead', lead: id, pF: null }))).toBe(false);
});

describe('which conductors a lead joins', () => {
  const joins = (l: Rig['leads'][number], rig: Rig) =>
    joinsOf(
      l,
      rig.devices.find((d) => d.id === l.from.device),
      rig.devices.find((d) => d.id === l.to.device),
    );
  const strip = device('s', 'insert-jack', 'Strip');
  const echo = device('e', 'delay', 'Echo');
  const rig = rigOf(
    [
      ...[strip, echo, device('b', 'boost', 'B')],
      ...[device('m', 'amp-cab-simulator-trs', 'Sim'), device('w', 'loop-switcher', 'Loops')],
    ],
    [],
  );
  test('a branch of an insert lead goes out on the tip and comes back on the ring, or as it says', () => {
    const out = lead('1', 's.insert', 'e.in', 1, 'insert');
    const back = lead('2', 'e.out', 's.insert', 1, 'insert');
    expect(joins(out, rig)).toEqual([['insert', 'in']]);
    expect(joins(back, rig)).toEqual([['out', 'insertReturn']]);
    expect(joins({ ...out, conductor: 'ring' }, rig)).toEqual([['insertReturn', 'in']]);
    expect(joins({ ...back, conductor: 'tip' }, rig)).toEqual([['out', 'insert']]);
  });
  test('both sides where both jacks have two and the lead has a ring; else the tip alone', () => {
    const into = (type: Rig['leads'][number]['type']) =>
      joins(lead('1', 'w.send7', 'm.in', 1, type), rig);
    expect(into('stereo')).toEqual([
      ['send7', 'in'],
      ['send7R', 'inR'],
    ]);
    expect(into('instrument')).toEqual([['send7', 'in']]);
    expect(joins(lead('1', 'e.out', 'm.in', 1, 'stereo'), rig)).toEqual([['out', 'in']]);
  });
  test('what carries messages, or hangs on a jack that is not there, joins nothing', () => {
    expect(joins(lead('1', 'e.out', 'b.in', 1, 'midi'), rig)).toEqual([]);
    expect(joins(lead('1', 'e.nowhere', 'b.in', 1), rig)).toEqual([]);
  });
});
