import { billOf, cutList } from '../build';
import { endWords } from '../rig/find';
import type { Rig } from '../rig/schema';
import { toCsv } from './csv';

/** The cut list: a row for each lead, with plugs, lengths, joints and the labels for both ends. */
export const cutListCsv = (rig: Rig): string =>
  toCsv(
    [
      'code',
      'from',
      'to',
      'type',
      'plug from',
      'plug to',
      'shape from',
      'shape to',
      'has m',
      'routed m',
      'short m',
      'cut m',
      'capacitance pF',
      'joints',
      'minutes',
      'made or bought',
      'label from',
      'label to',
    ],
    cutList(rig).cuts.map((c) => [
      c.code,
      endWords(rig, c.lead.from),
      endWords(rig, c.lead.to),
      c.lead.type,
      ...c.plugs,
      ...c.shapes,
      c.metres,
      c.routed === null ? '' : Number(c.routed.toFixed(3)),
      Number(c.short.toFixed(3)),
      Number(c.cut.toFixed(3)),
      c.pF === null ? '' : Math.round(c.pF),
      c.joints,
      c.minutes,
      c.made ? 'made' : 'bought',
      ...c.labels,
    ]),
  );

/** The bill of materials: everything that the rig is made of; owned or to buy. */
export const billCsv = (rig: Rig): string =>
  toCsv(
    ['what', 'item', 'count', 'unit', 'weight g', 'each', 'price', 'state'],
    billOf(rig).map((l) => [
      l.what,
      l.item,
      l.count,
      l.unit,
      l.grams,
      l.each,
      l.price || '',
      l.state === 'not said' ? '' : l.state,
    ]),
  );
