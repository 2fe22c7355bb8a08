import { midiChartCsv, namesFromCsv, namesToCsv, programMapCsv } from '../formats';
import { applyEdits, problemLines, type Rig } from '../rig';
import { cueSheet } from '../songs';
import { touringRig } from '../demo';
import { midiDevices, numbersOn, programName, screenOn, withName } from '.';

const MODELER = [...midiDevices(touringRig).values()].find((m) => m.programs && m.bank === 'none')!;
const { id } = MODELER.device;
const read = (text: string, rig: Rig = touringRig): Rig => {
  const edits = namesFromCsv(midiDevices(rig).get(id)!, text);
  if (!edits.ok) throw new Error(problemLines(edits.problems).join());
  const done = applyEdits(rig, edits.value);
  if (!done.ok) throw new Error(problemLines(done.problems).join());
  return done.value.rig;
};
const wrong = (text: string) => {
  const edits = namesFromCsv(MODELER, text);
  return edits.ok ? [] : problemLines(edits.problems);
};

test('names are read by the wire or as the screen shows them, and come back as they went', () => {
  const first = screenOn(MODELER, { number: 0 });
  const named = read(`screen,name\n${first},Harbour pad\n`);
  const by = read('program,name\n0,Harbour pad\n');
  expect(midiDevices(named)).toEqual(midiDevices(by));
  const m = midiDevices(named).get(id)!;
  expect(programName(m, { number: 0 })).toBe('Harbour pad');
  expect(programName(m, { number: 1 })).toBeUndefined();
  expect(midiDevices(read(namesToCsv(m)))).toEqual(midiDevices(named));
});

test('what is wrong with a list of names is told with its row', () => {
  expect(wrong('name\nX\n')[0]).toContain('there is no column "program"');
  expect(wrong('program,name\n128,X\n1,Y\n1,Z\n')).toEqual([
    'row 2: "128" is no program; give 0 to 127, as on the wire',
    'row 4: this program has a name already: Y',
  ]);
  expect(wrong('screen,name\n999,X\n')).toEqual([
    `row 2: "999" is shown for no program of ${MODELER.device.name}`,
  ]);
});

test('a name is shown wherever the number is: on screens, charts, maps and cue sheets', () => {
  const address = touringRig.sounds.flatMap((s) => s.states[id]?.program ?? [])[0]!;
  const names = withName(undefined, address, ' Harbour pad ');
  const rig: Rig = {
    ...touringRig,
    devices: touringRig.devices.map((d) =>
      d.id === id ? { ...d, midi: { ...d.midi, names } } : d,
    ),
  };
  const m = midiDevices(rig).get(id)!;
  expect(numbersOn(m, address)).toBe(`${numbersOn(MODELER, address)} “Harbour pad”`);
  expect(midiChartCsv(rig)).toContain('Harbour pad');
  expect(programMapCsv(rig)).toContain('Harbour pad');
  expect(JSON.stringify(rig.songs!.map((s) => cueSheet(rig, s)))).toContain('Harbour pad');
  expect(withName(names, address, '')).toBeUndefined();
});
