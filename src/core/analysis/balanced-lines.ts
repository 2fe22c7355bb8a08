import { isMetal } from '../circuit';
import type { Remark } from '../findings/finding';
import { kindOf } from '../kinds';
import { endWords, jackOf } from '../rig/find';
import type { End, Lead } from '../rig/schema';
import { fixed } from '../units';
import type { Remarker } from './evidence';
import type { SoundContext } from '../signal/sound-context';

/**
 * A lead of one conductor between two jacks that are balanced: what it picks up on its way stays in the
 * signal, and phantom power does not go back over it.
 */
export const balancedLineRemarks: Remarker = ({ ctx }) =>
  ctx.rig.leads
    .filter((l) => l.type === 'instrument' && isMetal(l))
    .filter((l) => isBalanced(ctx, l.from) && isBalanced(ctx, l.to))
    .map((l) => unbalanced(ctx, l));

const BALANCED: ReadonlySet<string> = new Set(['XLR', 'combo']);
const isBalanced = (ctx: SoundContext, { device, jack }: End): boolean => {
  const found = jackOf(ctx.device(device), jack);
  return found?.signal === 'audio' && BALANCED.has(found.connector);
};

function unbalanced(ctx: SoundContext, lead: Lead): Remark {
  const { name, kind } = ctx.device(lead.from.device);
  const isFed = kindOf(kind).phantom === true;
  return {
    rule: 'unbalanced-line',
    severity: isFed ? 'fault' : 'caution',
    subjects: [lead.from.device, lead.to.device],
    about: lead.id,
    what: `The lead from ${name} to ${endWords(ctx.rig, lead.to)} is not balanced.`,
    why:
      'Both jacks are balanced, and the lead has one conductor: what it picks up on its ' +
      `${fixed(lead.metres)} m stays in the signal.` +
      (isFed ? ` No phantom power comes back over it, which ${name} lives on.` : ''),
    fix: {
      words: 'Take a balanced lead',
      edits: [{ edit: 'setLead', lead: lead.id, type: 'balanced' }],
    },
  };
}
