import { sure, at as entryAt } from '../outcome';
import type { Fix, Remark } from '../findings/finding';
import { byKey } from '../graph';
import { settingOf } from '../rig/device-state';
import { figureWith, type Jack, kindOf, type Reads, type SettingRole, settingWith } from '../kinds';
import { deviceOf, endWords, jackOf, nameOf } from '../rig/find';
import type { Device, Lead, Rig } from '../rig/schema';
import { allOf } from '../units';

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

/** A control lead with what gives at one end and what is read at the other. */
interface Joint {
  from: Device;
  gives: NonNullable<Jack['gives']>;
  wants: Reads;
  /** The end that reads, in words. */
  far: string;
  subjects: string[];
}

/**
 * Pedals and switches that do not fit the jack which reads them, and branching control leads whose
 * ends expect different things.
 */
export function controlWiringRemarks(rig: Rig): Remark[] {
  const judged = rig.leads.flatMap((lead) => {
    const joint = jointOf(rig, lead);
    return joint ? [{ lead, joint }] : [];
  });
  const branches = byKey(judged, ({ lead }) => `${lead.from.device}/${lead.from.jack}`);
  return [
    ...judged.flatMap(({ joint }) => jointRemarks(rig, joint)),
    ...[...branches.values()]
      .filter((branch) => branch.length > 1)
      .map((branch) =>
        branchRemark(
          rig,
          branch.map(({ lead }) => lead),
        ),
      ),
  ];
}

function jointOf(rig: Rig, lead: Lead): Joint | undefined {
  if (lead.type !== 'control') return undefined;
  const from = sure(deviceOf(rig, lead.from.device));
  const gives = jackOf(from, lead.from.jack)?.gives;
  const wants = expected(rig, lead);
  if (!gives || !wants) return undefined;
  const subjects = [from.id, lead.to.device, lead.id];
  return { from, gives, wants, far: endWords(rig, lead.to), subjects };
}

function jointRemarks(rig: Rig, joint: Joint): Remark[] {
  const { from, gives, wants, far, subjects } = joint;
  if (gives === wants.what)
    return gives === 'expression'
      ? [...wiperRemark(joint), ...travelRemark(joint)]
      : [...actionRemark(joint), ...contactRemark(joint), ...secondRemark(rig, joint)];
  return [
    {
      rule: 'control-kind',
      severity: 'fault',
      subjects,
      what: `${from.name} is no ${wants.what === 'expression' ? 'pedal' : 'switch'}, which is what ${far} reads.`,
      why:
        `It gives ${gives === 'expression' ? 'the position of a pot' : 'a contact'}; the ` +
        `jack reads ${wants.what === 'expression' ? 'the position of a pot' : 'a contact'}.`,
    },
  ];
}

/** How a pedal or switch is made, as its setting with a role says. */
function made({ from }: Joint, role: SettingRole): { id: string; value: string } {
  const kind = kindOf(from.kind);
  const id = settingWith(kind, role)?.id ?? '';
  return { id, value: String(settingOf(kind, from, undefined, id) ?? '') };
}

/** A fix that makes the pedal or switch as it is wanted. */
const remade = ({ from }: Joint, setting: string, value: string, words: string): Fix => ({
  words,
  edits: [{ edit: 'setSetting', device: from.id, setting, value }],
});

function wiperRemark(joint: Joint): Remark[] {
  const { from, wants, far, subjects } = joint;
  const { id, value: wiper } = made(joint, 'wiper');
  if (!wants.wiper || wiper === wants.wiper) return [];
  return [
    {
      rule: 'control-wiper',
      severity: 'fault',
      subjects,
      what: `${from.name} works backward, or only at one end, at ${far}.`,
      why: `Its wiper is on the ${wiper}, and the jack reads the ${wants.wiper}.`,
      fix: remade(joint, id, wants.wiper, `Put the wiper of ${from.name} on the ${wants.wiper}`),
    },
  ];
}

function travelRemark({ from, wants, far, subjects }: Joint): Remark[] {
  const pot = figureWith(kindOf(from.kind), 'resistance of a pedal');
  const ohms = pot ? (from.figures?.[pot.id]?.value ?? pot.typical) : 0;
  if (!wants.ohms || (ohms >= wants.ohms[0] && ohms <= wants.ohms[1])) return [];
  return [
    {
      rule: 'control-ohms',
      severity: 'caution',
      subjects,
      what: `${from.name} does not use all of its travel at ${far}.`,
      why:
        `Its pot has ${ohms} Ω; the jack is made for ${wants.ohms[0]} to ${wants.ohms[1]} ` +
        'Ω. Calibrate it there, and see whether both ends are reached.',
    },
  ];
}

function actionRemark(joint: Joint): Remark[] {
  const { from, wants, far, subjects } = joint;
  const { id, value: action } = made(joint, 'action');
  return isWrong(action, wants.action)
    ? [
        {
          rule: 'control-action',
          severity: 'fault',
          subjects,
          what: `${far} expects a ${wants.action} switch; ${from.name} is ${action}.`,
          why:
            wants.action === 'momentary'
              ? 'A latching switch gives one edge a press: every second press is lost, or held.'
              : 'A momentary switch goes back when the foot leaves it.',
          fix: remade(joint, id, wants.action, `Make ${from.name} ${wants.action}`),
        },
      ]
    : [];
}

function contactRemark(joint: Joint): Remark[] {
  const { from, wants, far, subjects } = joint;
  const { id, value: contact } = made(joint, 'contact');
  const { contact: wanted } = wants;
  if (!isWrong(contact, wanted)) return [];
  const words = `Make the contact of ${from.name} ${wanted} at rest`;
  return [
    {
      rule: 'control-contact',
      severity: 'fault',
      subjects,
      what: `${from.name} reads as pressed while it is not, at ${far}.`,
      why: `Its contact is ${contact} at rest, and the jack expects ${wanted}.`,
      fix: remade(joint, id, wanted, words),
    },
  ];
}

/** Two switches on a jack that reads one: a fault where a control of the rig is on the second. */
function secondRemark(rig: Rig, { from, wants, far, subjects }: Joint): Remark[] {
  const isDouble = kindOf(from.kind).jacks.some((j) => j.gives === 'switch' && j.contacts === 2);
  if (!isDouble || wants.contacts === 2) return [];
  const used = (rig.controls ?? []).filter((c) => c.device === from.id).length > 1;
  return [
    {
      rule: 'control-second',
      severity: used ? 'fault' : 'advice',
      subjects,
      what: `${far} reads one of the two switches of ${from.name}.`,
      why: 'The second is on the ring, and nobody has said of this jack that it reads a second contact.',
    },
  ];
}

/** Whether something is made otherwise than is wanted; `any` takes whatever there is. */
const isWrong = (value: string, wanted: string | undefined): wanted is string =>
  wanted !== undefined && wanted !== 'any' && value !== wanted;

/** Several leads from one jack: what reads them must all expect the same, and shares a ground. */
function branchRemark(rig: Rig, leads: readonly Lead[]): Remark {
  const from = sure(deviceOf(rig, entryAt(leads, 0).from.device));
  const wants = leads.map((l) => sure(expected(rig, l)));
  const ends = leads.map((l) => nameOf(rig, l.to.device));
  const differ = (['what', 'wiper', 'action', 'contact'] as const).find(
    (k) => new Set(wants.map((w) => w[k]).filter((x) => x !== undefined && x !== 'any')).size > 1,
  );
  const subjects = [from.id, ...leads.map((l) => l.to.device)];
  const about = `${from.id} branch`;
  if (differ)
    return {
      rule: 'control-branch',
      severity: 'fault',
      subjects,
      about,
      what: `One lead from ${from.name} cannot serve ${allOf(ends)}.`,
      why:
        'They expect different ' +
        `things: ${leads.map((_, i) => `${ends[i]} ${entryAt(wants, i)[differ] ?? 'anything'}`).join(', ')}. ` +
        'Their sense pins are joined, so all must expect the same.',
    };
  if (wants[0]?.what === 'expression')
    return {
      rule: 'control-branch',
      severity: 'fault',
      subjects,
      about,
      what: `One pot in ${from.name} cannot serve ${allOf(ends)}.`,
      why:
        'Each jack feeds the pot from a supply of its own; joined, they work against one ' +
        'another.',
    };
  return {
    rule: 'control-branch-ground',
    severity: 'advice',
    subjects,
    about,
    what: `The branching lead of ${from.name} joins the grounds of ${allOf(ends)}.`,
    why:
      'Each must have its sleeve on ground and expect the same switch; where these ' +
      'devices are joined by another way too, listen for hum.',
  };
}
