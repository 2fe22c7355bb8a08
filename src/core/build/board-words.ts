import type { Remark } from '../findings/finding';
import { at as entryAt } from '../outcome';
import type { Model } from './board-model';
import { type Clash, RADIO_GAP, RAIL_HOLD, SWITCH_GAP } from './board-rules';

/** The words of a clash: what, why, and how bad. */
export function clashWords(
  model: Model,
  c: Clash,
): { severity: Remark['severity']; what: string; why: string } {
  const a = entryAt(model.items, c.a);
  const b = c.b >= 0 ? entryAt(model.items, c.b) : undefined;
  const [one, two] = [a.device.name, b?.device.name ?? model.board.name];
  const mm = `${Math.ceil(c.mm)} mm`;
  switch (c.what) {
    case 'overlap':
      return {
        severity: 'fault',
        what: `${one} and ${two} stand on the same place.`,
        why: `They overlap by ${mm}.`,
      };
    case 'outside':
      return {
        severity: 'fault',
        what: `${one} stands over the edge of ${two}.`,
        why: `It sticks out by ${mm}.`,
      };
    case 'edge':
      return {
        severity: 'advice',
        what: `A plug of ${one} stands over the edge of ${two}.`,
        why: `It sticks out by ${mm}, where the lid or the next case bends it.`,
      };
    case 'rail':
      return {
        severity: 'caution',
        what: `${one} lies on no rail that holds it.`,
        why: `${RAIL_HOLD} mm of it have to lie on rails; ${mm} are missing.`,
      };
    case 'plug':
      return {
        severity: 'fault',
        what: `The plug in ${one} has no room.`,
        why:
          `It needs ${mm} more before ${two} begins. A flat plug stands out 16 mm, a ` +
          'right-angle one 25, a straight one 45.',
      };
    case 'plugs':
      return {
        severity: 'fault',
        what: `The plugs of ${one} and ${two} hit each other.`,
        why: `They overlap by ${mm}.`,
      };
    case 'too-high':
      return {
        severity: 'fault',
        what: `${one} does not fit under ${model.board.name}.`,
        why: `It is ${a.height} mm high, and there are ${model.board.under ?? 0} mm.`,
      };
    case 'half':
      return {
        severity: 'fault',
        what: `${one} stands half on the raised strip.`,
        why: 'One edge is in the air.',
      };
    case 'reach':
      return {
        severity: 'caution',
        what: !b
          ? `${one} is stepped on and lies under the deck.`
          : a === b
            ? `${one} is turned with its switch away from the foot.`
            : `${one} is reached over ${two}.`,
        why: 'Its switch is used between sounds, and it is neither in the front row nor raised.',
      };
    case 'switches':
      return {
        severity: 'caution',
        what: `The switches of ${one} and ${two} are close.`,
        why: `A foot wants ${SWITCH_GAP} mm between centres; ${mm} are missing.`,
      };
    case 'radio':
      return {
        severity: 'advice',
        what: `${one} stands close to ${two}.`,
        why:
          `Wireless and supplies radiate and ${two} lifts what it picks up: ${RADIO_GAP} mm ` +
          `apart is better, ${mm} are missing.`,
      };
  }
}
