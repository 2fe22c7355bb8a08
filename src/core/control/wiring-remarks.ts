import { sure, at as entryAt } from '../outcome';
import type { Remark } from '../findings/finding';
import { settingOf } from '../rig/device-state';
import { kindOf, figureWith, type SettingRole, settingWith, type Reads } from '../kinds';
import { deviceOf, endWords, jackOf, nameOf } from '../rig/find';
import type { Lead, Rig } from '../rig/schema';

/** What the far end of a control lead expects: its kind's figures, with what it was set to. */
function expected(rig: Rig, lead: Lead): Reads | undefined {
  const device = sure(deviceOf(rig, lead.to.device));
  const reads = jackOf(device, lead.to.jack)?.reads;
  return (
    reads && {
      ...reads,
      ...(device.expects && Object.hasOwn(device.expects, lead.to.jack)
        ? device.expects[lead.to.jack]
        : {}),
    }
  );
}

/**
 * Pedals and switches that do not fit the jack which reads them, and branching control leads whose
 * ends expect different things.
 */
export function controlWiringRemarks(rig: Rig): Remark[] {
  const found: Remark[] = [];
  const branches = new Map<string, Lead[]>();
  for (const lead of rig.leads) {
    if (lead.type !== 'control') continue;
    const from = sure(deviceOf(rig, lead.from.device));
    const gives = jackOf(from, lead.from.jack)?.gives;
    const wants = expected(rig, lead);
    if (!gives || !wants) continue;
    const key = `${lead.from.device}/${lead.from.jack}`;
    branches.set(key, [...(branches.get(key) ?? []), lead]);
    const kind = kindOf(from.kind);
    const made = (role: SettingRole) => {
      const id = settingWith(kind, role)?.id ?? '';
      return { id, value: String(settingOf(kind, from, undefined, id) ?? '') };
    };
    const far = endWords(rig, lead.to);
    const subjects = [from.id, lead.to.device, lead.id];
    if (gives !== wants.what) {
      found.push({
        rule: 'control-kind',
        severity: 'fault',
        subjects,
        what: `${from.name} is no ${wants.what === 'expression' ? 'pedal' : 'switch'}, which is what ${far} reads.`,
        why:
          `It gives ${gives === 'expression' ? 'the position of a pot' : 'a contact'}; the ` +
          `jack reads ${wants.what === 'expression' ? 'the position of a pot' : 'a contact'}.`,
      });
    } else if (gives === 'expression') {
      const { id, value: wiper } = made('wiper');
      if (wants.wiper && wiper !== wants.wiper) {
        found.push({
          rule: 'control-wiper',
          severity: 'fault',
          subjects,
          what: `${from.name} works backward, or only at one end, at ${far}.`,
          why: `Its wiper is on the ${wiper}, and the jack reads the ${wants.wiper}.`,
          fix: {
            words: `Put the wiper of ${from.name} on the ${wants.wiper}`,
            edits: [{ edit: 'setSetting', device: from.id, setting: id, value: wants.wiper }],
          },
        });
      }
      const pot = figureWith(kind, 'resistance of a pedal');
      const ohms = pot ? (from.figures?.[pot.id]?.value ?? pot.typical) : 0;
      if (wants.ohms && (ohms < wants.ohms[0] || ohms > wants.ohms[1])) {
        found.push({
          rule: 'control-ohms',
          severity: 'caution',
          subjects,
          what: `${from.name} does not use all of its travel at ${far}.`,
          why:
            `Its pot has ${ohms} Ω; the jack is made for ${wants.ohms[0]} to ${wants.ohms[1]} ` +
            'Ω. Calibrate it there, and see whether both ends are reached.',
        });
      }
    } else {
      const { id: actionId, value: action } = made('action');
      const { id: contactId, value: contact } = made('contact');
      if (wants.action && wants.action !== 'any' && action !== wants.action) {
        found.push({
          rule: 'control-action',
          severity: 'fault',
          subjects,
          what: `${far} expects a ${wants.action} switch; ${from.name} is ${action}.`,
          why:
            wants.action === 'momentary'
              ? 'A latching switch gives one edge a press: every second press is lost, or held.'
              : 'A momentary switch goes back when the foot leaves it.',
          fix: {
            words: `Make ${from.name} ${wants.action}`,
            edits: [
              { edit: 'setSetting', device: from.id, setting: actionId, value: wants.action },
            ],
          },
        });
      }
      if (wants.contact && wants.contact !== 'any' && contact !== wants.contact) {
        found.push({
          rule: 'control-contact',
          severity: 'fault',
          subjects,
          what: `${from.name} reads as pressed while it is not, at ${far}.`,
          why: `Its contact is ${contact} at rest, and the jack expects ${wants.contact}.`,
          fix: {
            words: `Make the contact of ${from.name} ${wants.contact} at rest`,
            edits: [
              { edit: 'setSetting', device: from.id, setting: contactId, value: wants.contact },
            ],
          },
        });
      }
    }
  }
  for (const leads of branches.values()) {
    if (leads.length < 2) continue;
    const from = sure(deviceOf(rig, entryAt(leads, 0).from.device));
    const wants = leads.map((l) => sure(expected(rig, l)));
    const ends = leads.map((l) => nameOf(rig, l.to.device));
    const differ = (['what', 'wiper', 'action', 'contact'] as const).find(
      (k) => new Set(wants.map((w) => w[k]).filter((x) => x !== undefined && x !== 'any')).size > 1,
    );
    const subjects = [from.id, ...leads.map((l) => l.to.device)];
    if (differ)
      found.push({
        rule: 'control-branch',
        severity: 'fault',
        subjects,
        about: `${from.id} branch`,
        what: `One lead from ${from.name} cannot serve ${ends.join(' and ')}.`,
        why:
          'They expect different ' +
          `things: ${leads.map((_, i) => `${ends[i]} ${entryAt(wants, i)[differ] ?? 'anything'}`).join(', ')}. ` +
          'Their sense pins are joined, so all must expect the same.',
      });
    else if (wants[0]?.what === 'expression')
      found.push({
        rule: 'control-branch',
        severity: 'fault',
        subjects,
        about: `${from.id} branch`,
        what: `One pot in ${from.name} cannot serve ${ends.join(' and ')}.`,
        why:
          'Each jack feeds the pot from a supply of its own; joined, they work against one ' +
          'another. Give one device the pedal, and let it send control changes.',
      });
    else
      found.push({
        rule: 'control-branch-ground',
        severity: 'advice',
        subjects,
        about: `${from.id} branch`,
        what: `The branching lead of ${from.name} joins the grounds of ${ends.join(' and ')}.`,
        why:
          'Each must have its sleeve on ground and expect the same switch; where these ' +
          'devices are joined by another way too, listen for hum.',
      });
  }
  return found;
}
