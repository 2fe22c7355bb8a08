import { done, type Outcome, refused, sure } from '../outcome';
import { kindOf } from '../kinds';
import { applyEdits, type Edit, freshId, freeName, leadFrom, type Rig } from '../rig';
import { ChainError, type ChainPart, parseChain } from './chain-grammar';
import { ChainWords } from './chain-words';

/**
 * The edits that put what a line says into a lead, one behind the other: pedals and boxes with a way
 * through. What is not understood, or cannot stand in a lead, is refused in words.
 *
 *     chainInto(rig, 'l4', 'low drive > delay "Brine"')
 */
export function chainInto(rig: Rig, lead: string, line: string): Outcome<Edit[]> {
  let parts: ChainPart[];
  try {
    parts = parseChain(line);
  } catch (error) {
    if (error instanceof ChainError) return refused(`${error.message}.`);
    throw error;
  }
  const words = new ChainWords(rig.sheets);
  const edits: Edit[] = [];
  let now = rig;
  let at = lead;
  for (const part of parts) {
    if (part.is === 'fork' || part.loops.length || part.count > 1)
      return refused('Into a lead go things one behind the other: no ways side by side, no loops.');
    const kind = words.meant(part.words);
    if (!kind) {
      const near = words.guesses(part.words).map((k) => k.name);
      return refused(
        `“${part.words}” is no kind that is known${near.length ? `; near: ${near.join(', ')}` : ''}.`,
      );
    }
    const device = newDevice(now, kind.id, part.name ?? kind.name);
    const first = freshId(
      'lead',
      now.leads.map((l) => l.id),
    );
    const second = freshId('lead', [...now.leads.map((l) => l.id), first]);
    const edit: Edit = { edit: 'insertInLead', lead: at, device, newLeads: [first, second] };
    const made = applyEdits(now, [edit]);
    if (!made.ok) return made;
    edits.push(edit);
    now = made.value.rig;
    const out = kindOf(kind.id).through?.out;
    at = sure(leadFrom(now, device.id, out ?? 'out')).id;
  }
  return done(edits);
}

function newDevice(rig: Rig, kind: string, wanted: string) {
  const name = freeName(
    wanted,
    rig.devices.map((d) => d.name),
  );
  return {
    id: freshId(
      name,
      rig.devices.map((d) => d.id),
    ),
    kind,
    name,
  };
}
