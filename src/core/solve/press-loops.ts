import { walkOrder } from '../walk';
import { kindOf, settingWith } from '../kinds';
import { midiOf, type Presses } from '../midi';
import { at as entryAt, sure } from '../outcome';
import { isEngaged, stateIn } from '../rig/device-state';
import type { Edit } from '../rig/edits';
import { deviceOf, leadInto } from '../rig/find';
import { freshId } from '../rig/fresh-id';
import type { Device, Rig } from '../rig/schema';
import { type Try } from './press-ways';

/** Devices on the walk that are switched by themselves, know no MIDI and can stand in a loop. */
const loopable = (rig: Rig, before: Presses): Device[] => {
  const order = walkOrder(rig);
  return [...new Set(before.presses.map((p) => p.device))]
    .map((id) => sure(deviceOf(rig, id)))
    .filter(
      (d) =>
        d.host === undefined &&
        !midiOf(d) &&
        kindOf(d.kind).through &&
        !kindOf(d.kind).alwaysOn &&
        !kindOf(d.kind).earth &&
        leadInto(rig, d.id, kindOf(d.kind).through!.in),
    )
    .sort((x, y) => order.indexOf(x.id) - order.indexOf(y.id));
};

/**
 * Puts what is switched by hand into loops of a switcher with programs, one that is there or a new
 * one where the first of them stands.
 */
export function byLoops(rig: Rig, before: Presses): Try | undefined {
  const devices = loopable(rig, before);
  if (!devices.length) return undefined;
  const free = (d: Device) =>
    (kindOf(d.kind).loops ?? []).filter(
      (l) =>
        !rig.leads.some(
          (x) =>
            (x.from.device === d.id && l.send.includes(x.from.jack)) ||
            (x.to.device === d.id && l.return.includes(x.to.jack)),
        ),
    );
  const there = rig.devices.find(
    (d) =>
      settingWith(kindOf(d.kind), 'loop order') &&
      d.host === undefined &&
      free(d).length >= devices.length,
  );
  const edits: Edit[] = [];
  const ids: string[] = rig.leads.map((l) => l.id);
  const lead = (word: string) => {
    const id = freshId(word, ids);
    ids.push(id);
    return id;
  };
  const switcher =
    there?.id ??
    freshId(
      'loop-switcher',
      rig.devices.map((d) => d.id),
    );
  const loops = there ? free(there) : (kindOf('loop-switcher').loops ?? []);
  if (loops.length < devices.length) return undefined;
  const first = entryAt(devices, 0);
  if (!there) {
    const into = sure(leadInto(rig, first.id, kindOf(first.kind).through!.in));
    edits.push({
      edit: 'insertInLead',
      lead: into.id,
      device: { id: switcher, kind: 'loop-switcher', name: 'Loop switcher', place: 'floor' },
      newLeads: [lead('switcher'), lead('switcher')],
    });
  }
  const number = new Map(
    devices.map((d, i) => [d.id, Number(entryAt(loops, i).id.replace(/\D/g, ''))]),
  );
  for (const [i, d] of devices.entries()) {
    const way = lead(`loop-${d.id}`);
    edits.push({
      edit: 'connect',
      lead: {
        id: way,
        from: { device: switcher, jack: entryAt(entryAt(loops, i).send, 0) },
        to: { device: switcher, jack: entryAt(entryAt(loops, i).return, 0) },
        type: entryAt(loops, i).send.length > 1 ? 'stereo' : 'instrument',
        metres: 0.5,
      },
    });
    edits.push({
      edit: 'moveDevice',
      device: d.id,
      lead: way,
      newLeads: [lead(`loop-${d.id}`), lead(`loop-${d.id}`)],
    });
    edits.push({ edit: 'setEngaged', device: d.id, engaged: true });
  }
  for (const s of rig.sounds) {
    const on = devices
      .filter((d) => isEngaged(kindOf(d.kind), d, stateIn(s, d.id)))
      .map((d) => sure(number.get(d.id)));
    const was = there
      ? String(stateIn(s, there.id)?.settings?.order ?? there.settings?.order ?? '')
      : '';
    edits.push({
      edit: 'setSetting',
      device: switcher,
      sound: s.id,
      setting: 'order',
      value: [was, ...on].filter((x) => x !== '').join(' '),
    });
    for (const d of devices)
      edits.push({ edit: 'setEngaged', device: d.id, sound: s.id, engaged: true });
  }
  return {
    words: `Put ${devices.map((d) => d.name).join(', ')} into loops of ${there?.name ?? 'a loop switcher'}`,
    why: 'They stay on, and each sound says which loops are in: the switcher changes all of them at once.',
    edits,
  };
}
