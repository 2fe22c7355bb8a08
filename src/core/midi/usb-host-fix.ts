import type { Fix } from '../findings/finding';
import { at as entryAt, sure } from '../outcome';
import { deviceOf, jackOf } from '../rig/find';
import { freshId } from '../rig/fresh-id';
import type { End, Lead, Rig } from '../rig/schema';

/** Connects two devices that can only follow to a box that leads. */
export function usbHostFix(rig: Rig, lead: Lead): Fix {
  const box = freshId(
    'usb-host',
    rig.devices.map((d) => d.id),
  );
  const usb = (e: End) => jackOf(sure(deviceOf(rig, e.device)), e.jack)?.usb;
  const ids = [0, 1].reduce<string[]>(
    (list) => [...list, freshId(`${box}-lead`, [...rig.leads.map((l) => l.id), ...list])],
    [],
  );
  return {
    words:
      usb(lead.from) === 'device'
        ? 'Put a USB MIDI host between them'
        : 'Take the lead out: two hosts cannot be joined',
    edits:
      usb(lead.from) === 'host'
        ? [{ edit: 'disconnect', lead: lead.id }]
        : [
            { edit: 'disconnect', lead: lead.id },
            { edit: 'addDevice', device: { id: box, kind: 'usb-midi-host', name: 'USB host' } },
            {
              edit: 'connect',
              lead: { ...lead, id: entryAt(ids, 0), to: { device: box, jack: 'usb1' } },
            },
            {
              edit: 'connect',
              lead: {
                ...lead,
                id: entryAt(ids, 1),
                from: { device: box, jack: 'usb2' },
                to: lead.to,
              },
            },
          ],
  };
}
