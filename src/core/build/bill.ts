import { byKey } from '../graph';
import { kindOf } from '../kinds';
import type { Rig } from '../rig/schema';
import { type CutList, cutList, makingOf, plugWords } from './cut-list';
import { sizeOf } from './footprint';
import { gearSums, gramsOf } from './gear';
import { mainsSums } from './mains';
import { packingOf } from './packing';
import { loadsOf } from './power';
import { powerLeadsByPlugs } from './power-leads';
import { howMany } from '../units';

/**
 * One line of the bill: what it is, how many, what it weighs and costs (in the crew's money), and
 * whether it is there.
 */
export interface BillLine {
  what:
    | 'device'
    | 'supply'
    | 'board'
    | 'rack'
    | 'case'
    | 'lead stock'
    | 'ready-made lead'
    | 'plug'
    | 'fixing';
  item: string;
  count: number;
  unit: 'piece' | 'm';
  grams?: number;
  each?: number;
  price: number;
  state: 'owned' | 'to buy' | 'not said';
}

/**
 * Everything the rig is made of: devices, supplies, boards, racks and cases, leads by type, plugs,
 * and what holds it together.
 */
export const billOf = (rig: Rig, list: CutList = cutList(rig)): BillLine[] => [
  ...gearLines(rig),
  ...furnitureLines(rig),
  ...leadLines(rig, list),
  ...powerLines(rig),
  ...plugLines(rig, list),
  ...fixingLines(rig, list),
];

/** A device of a bill that nobody has given a price. */
const isUnpriced = ({ what, each }: BillLine): boolean => what === 'device' && each === undefined;

type Stated = Omit<BillLine, 'price' | 'state'> & { state?: BillLine['state'] };

const priced = (line: Stated): BillLine => ({
  state: 'not said',
  ...line,
  price: (line.each ?? 0) * line.count,
});

/** Something that is counted. */
const pieces = (
  what: BillLine['what'],
  item: string,
  count = 1,
  more: Partial<Stated> = {},
): BillLine => priced({ what, item, count, unit: 'piece', ...more });

/** What stands in the house is the house's. */
const gearLines = (rig: Rig): BillLine[] =>
  rig.devices
    .filter((d) => d.host === undefined && d.place !== 'house')
    .map((d) => {
      const { outlets, mainsOutlets } = kindOf(d.kind);
      const item = [d.name, d.maker, d.model].filter(Boolean).join(', ');
      const owned = d.gear?.owned;
      return pieces(outlets || mainsOutlets ? 'supply' : 'device', item, 1, {
        grams: gramsOf(d) ?? undefined,
        each: d.gear?.value,
        state: owned === undefined ? 'not said' : owned ? 'owned' : 'to buy',
      });
    });

const furnitureLines = (rig: Rig): BillLine[] => [
  ...(rig.boards ?? []).map(({ name, width, depth, grams }) =>
    pieces('board', `${name}, ${width} by ${depth} mm`, 1, { grams }),
  ),
  ...(rig.racks ?? []).map(({ name, units, depth, grams }) =>
    pieces('rack', `${name}, ${howMany(units, 'unit')}, ${depth} mm deep`, 1, { grams }),
  ),
  ...(rig.cases ?? []).map(({ name, grams }) => pieces('case', name, 1, { grams })),
];

/** Leads: stock by the metre for those that are made, and those that are bought as they are. */
function leadLines(rig: Rig, { cuts }: CutList): BillLine[] {
  const made = byKey(
    cuts.filter((c) => c.made),
    (c) => c.lead.type,
  );
  return [
    ...[...made].map(([item, list]) =>
      priced({
        what: 'lead stock',
        item,
        count: Number(list.reduce((s, c) => s + c.cut, 0).toFixed(2)),
        unit: 'm',
        each: makingOf(rig).metrePrice,
      }),
    ),
    ...cuts
      .filter((c) => !c.made)
      .map((c) => pieces('ready-made lead', `${c.lead.type}, ${c.cut.toFixed(2)} m`)),
  ];
}

function powerLines(rig: Rig): BillLine[] {
  const mains = mainsSums(rig, 230).takers.filter((t) => t.device.place !== 'house');
  return [
    ...powerLeadsByPlugs(rig).map(({ plugs, leads }) =>
      pieces('ready-made lead', `power, ${plugs}`, leads.length),
    ),
    ...loadsOf(rig)
      .filter((l) => l.place.outlet.isolated && l.takers.length > 1)
      .map((l) => pieces('ready-made lead', `power splitter, ${l.takers.length} from one outlet`)),
    ...(mains.length ? [pieces('ready-made lead', 'mains', mains.length)] : []),
  ];
}

function plugLines(rig: Rig, { cuts, plugs }: CutList): BillLine[] {
  const onReady = new Set(cuts.filter((c) => !c.made).flatMap((c) => c.plugs));
  return plugs
    .filter((p) => !onReady.has(p.plug))
    .map((p) => pieces('plug', plugWords(p), p.count, { each: makingOf(rig).plugPrice }));
}

/** Screws of a rack unit: one in each corner. */
const SCREWS = 4;

function fixingLines(rig: Rig, { ties }: CutList): BillLine[] {
  const fastened = rig.devices.flatMap((d) => (d.at && sizeOf(d)) ?? []);
  const tape = fastened.reduce((sum, { depth }) => sum + (2 * depth) / 1000, 0);
  const racks = new Set(rig.racks?.map((r) => r.id));
  const screwed = rig.devices.filter(
    (d) => d.rack && racks.has(d.rack.rack) && sizeOf(d) && kindOf(d.kind).rackUnits !== undefined,
  );
  return [
    ...(tape > 0
      ? [
          priced({
            what: 'fixing',
            item: 'fastening tape, two strips under each device',
            count: Number(tape.toFixed(2)),
            unit: 'm',
          }),
        ]
      : []),
    ...(ties > 0 ? [pieces('fixing', 'cable ties', ties)] : []),
    ...(screwed.length ? [pieces('fixing', 'rack screws', SCREWS * screwed.length)] : []),
  ];
}

/** One figure of the whole against its limit. `over` says by how much, in the same unit. */
export interface BudgetLine {
  id: 'grams' | 'boardWidth' | 'boardDepth' | 'rackUnits' | 'price' | 'watts' | 'hours';
  label: string;
  unit: string;
  value: number;
  limit?: number;
  over: number;
  note?: string;
}

type Figure = Pick<BudgetLine, 'label' | 'unit' | 'value' | 'note'>;

/** What each figure of the whole comes to. */
const FIGURES: Record<BudgetLine['id'], (rig: Rig, list: CutList) => Figure> = {
  grams: (rig, list) => {
    const { unweighed } = gearSums(rig);
    return {
      label: 'Weight',
      unit: 'g',
      value: packingOf(rig, list).grams,
      note: unweighed
        ? `with leads and spares, without ${howMany(unweighed, 'device')} whose weight is not known`
        : 'with leads and spares, at typical grams a metre',
    };
  },
  boardWidth: ({ boards = [] }) => ({
    label: 'Widest board',
    unit: 'mm',
    value: Math.max(0, ...boards.map((b) => b.width)),
  }),
  boardDepth: ({ boards = [] }) => ({
    label: 'Deepest board',
    unit: 'mm',
    value: Math.max(0, ...boards.map((b) => b.depth)),
  }),
  rackUnits: ({ racks = [] }) => ({
    label: 'Rack units',
    unit: 'U',
    value: racks.reduce((s, r) => s + r.units, 0),
  }),
  price: (rig, list) => {
    const bill = billOf(rig, list);
    const unpriced = bill.filter(isUnpriced).length;
    return {
      label: 'Price of all',
      unit: '',
      value: bill.reduce((s, l) => s + l.price, 0) + list.hours * makingOf(rig).hourPrice,
      note: unpriced ? `no price yet for ${howMany(unpriced, 'device')}` : undefined,
    };
  },
  watts: (rig) => ({ label: 'Mains power', unit: 'W', value: mainsSums(rig, 230).watts }),
  hours: (_, list) => ({ label: 'Work on leads', unit: 'h', value: list.hours }),
};

const ALL = Object.keys(FIGURES) as BudgetLine['id'][];

/** What the rig weighs, measures, costs, draws and takes to build, against the limits that were set. */
export const budgetOf = (rig: Rig, list: CutList = cutList(rig)): BudgetLine[] =>
  ALL.map((id) => budgetLine(rig, list, id));

/** What of that has a limit and is over it; the rest is not worked out. */
export const overLimits = (rig: Rig): BudgetLine[] =>
  ALL.filter((id) => rig.limits?.[id] !== undefined)
    .map((id) => budgetLine(rig, cutList(rig), id))
    .filter((line) => line.over > 0);

function budgetLine(rig: Rig, list: CutList, id: BudgetLine['id']): BudgetLine {
  const figure = FIGURES[id](rig, list);
  const limit = rig.limits?.[id];
  return {
    id,
    ...figure,
    ...(limit !== undefined && { limit }),
    over: limit === undefined ? 0 : Math.max(0, figure.value - limit),
  };
}
