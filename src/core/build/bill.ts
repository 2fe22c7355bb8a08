import { sure } from '../outcome';
import { kindOf } from '../kinds';
import type { Device, Rig } from '../rig/schema';
import { type CutList, cutList, makingOf } from './cut-list';
import { sizeOf } from './footprint';
import { gearSums, gramsOf } from './gear';
import { mainsSums } from './mains';
import { loadsOf } from './power';
import { powerLeadsByPlugs } from './power-leads';
import { mountedIn } from './rack';

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
export function billOf(rig: Rig, list: CutList = cutList(rig)): BillLine[] {
  const making = makingOf(rig);
  const stateOf = (d: Device): BillLine['state'] =>
    d.gear?.owned === undefined ? 'not said' : d.gear.owned ? 'owned' : 'to buy';
  const ready = list.cuts.filter((c) => !c.made);
  const types = [...new Set(list.cuts.filter((c) => c.made).map((c) => c.lead.type))];
  const onBoards = rig.devices.filter((d) => d.at && sizeOf(d));
  const shared = loadsOf(rig).filter((l) => l.place.outlet.isolated && l.takers.length > 1);
  const mains = mainsSums(rig, 230).takers.filter((t) => t.device.place !== 'house');
  const screws =
    (rig.racks ?? [])
      .flatMap((r) => mountedIn(rig, r))
      .filter((m) => kindOf(m.device.kind).rackUnits !== undefined).length * 4;
  const tape = onBoards.reduce((s, d) => s + (2 * sure(sizeOf(d) ?? undefined).depth) / 1000, 0);
  const line = (
    l: Omit<BillLine, 'price' | 'state'> & { state?: BillLine['state'] },
  ): BillLine => ({ state: 'not said', ...l, price: (l.each ?? 0) * l.count });
  return [
    // What stands in the house is the house's.
    ...rig.devices
      .filter((d) => d.host === undefined && d.place !== 'house')
      .map((d) =>
        line({
          what: kindOf(d.kind).outlets || kindOf(d.kind).mainsOutlets ? 'supply' : 'device',
          item: [d.name, d.maker, d.model].filter(Boolean).join(', '),
          count: 1,
          unit: 'piece',
          grams: gramsOf(d) ?? undefined,
          each: d.gear?.value,
          state: stateOf(d),
        }),
      ),
    ...(rig.boards ?? []).map((b) =>
      line({
        what: 'board',
        item: `${b.name}, ${b.width} by ${b.depth} mm`,
        count: 1,
        unit: 'piece',
        grams: b.grams,
      }),
    ),
    ...(rig.racks ?? []).map((r) =>
      line({
        what: 'rack',
        item: `${r.name}, ${r.units} units, ${r.depth} mm deep`,
        count: 1,
        unit: 'piece',
        grams: r.grams,
      }),
    ),
    ...(rig.cases ?? []).map((c) =>
      line({ what: 'case', item: c.name, count: 1, unit: 'piece', grams: c.grams }),
    ),
    ...types.map((type) =>
      line({
        what: 'lead stock',
        item: type,
        count: Number(
          list.cuts
            .filter((c) => c.made && c.lead.type === type)
            .reduce((s, c) => s + c.cut, 0)
            .toFixed(2),
        ),
        unit: 'm',
        each: making.metrePrice,
      }),
    ),
    ...ready.map((c) =>
      line({
        what: 'ready-made lead',
        item: `${c.lead.type}, ${c.cut.toFixed(2)} m`,
        count: 1,
        unit: 'piece',
      }),
    ),
    ...powerLeadsByPlugs(rig).map(({ plugs, leads }) =>
      line({
        what: 'ready-made lead',
        item: `power, ${plugs}`,
        count: leads.length,
        unit: 'piece',
      }),
    ),
    ...shared.map((l) =>
      line({
        what: 'ready-made lead',
        item: `power splitter, ${l.takers.length} from one outlet`,
        count: 1,
        unit: 'piece',
      }),
    ),
    ...(mains.length
      ? [line({ what: 'ready-made lead', item: 'mains', count: mains.length, unit: 'piece' })]
      : []),
    ...list.plugs
      .filter((p) => !ready.some((c) => c.plugs.includes(p.plug)))
      .map((p) =>
        line({ what: 'plug', item: p.plug, count: p.count, unit: 'piece', each: making.plugPrice }),
      ),
    ...(tape > 0
      ? [
          line({
            what: 'fixing',
            item: 'fastening tape, two strips under each device',
            count: Number(tape.toFixed(2)),
            unit: 'm',
          }),
        ]
      : []),
    ...(list.ties > 0
      ? [line({ what: 'fixing', item: 'cable ties', count: list.ties, unit: 'piece' })]
      : []),
    ...(screws > 0
      ? [line({ what: 'fixing', item: 'rack screws', count: screws, unit: 'piece' })]
      : []),
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

/** What the rig weighs, measures, costs, draws and takes to build, against the limits that were set. */
export function budgetOf(rig: Rig, list: CutList = cutList(rig)): BudgetLine[] {
  const sums = gearSums(rig);
  const bill = billOf(rig, list);
  const { watts } = mainsSums(rig, 230);
  const carriers = bill
    .filter((l) => l.what === 'board' || l.what === 'rack' || l.what === 'case')
    .reduce((s, l) => s + (l.grams ?? 0), 0);
  const values: Record<
    BudgetLine['id'],
    { label: string; unit: string; value: number; note?: string }
  > = {
    grams: {
      label: 'Weight',
      unit: 'g',
      value: sums.grams + carriers,
      note: sums.unweighed
        ? `${sums.unweighed} devices whose weight is not known are left out`
        : undefined,
    },
    boardWidth: {
      label: 'Widest board',
      unit: 'mm',
      value: Math.max(0, ...(rig.boards ?? []).map((b) => b.width)),
    },
    boardDepth: {
      label: 'Deepest board',
      unit: 'mm',
      value: Math.max(0, ...(rig.boards ?? []).map((b) => b.depth)),
    },
    rackUnits: {
      label: 'Rack units',
      unit: 'U',
      value: (rig.racks ?? []).reduce((s, r) => s + r.units, 0),
    },
    price: {
      label: 'Price of all',
      unit: '',
      value: bill.reduce((s, l) => s + l.price, 0) + list.hours * makingOf(rig).hourPrice,
      note: bill.some((l) => l.what === 'device' && l.each === undefined)
        ? `${bill.filter((l) => l.what === 'device' && l.each === undefined).length} devices have no price yet`
        : undefined,
    },
    watts: { label: 'Mains power', unit: 'W', value: watts },
    hours: { label: 'Work on leads', unit: 'h', value: list.hours },
  };
  return (Object.keys(values) as BudgetLine['id'][]).map((id) => {
    const limit = rig.limits?.[id];
    return {
      id,
      ...values[id],
      ...(limit !== undefined && { limit }),
      over: limit === undefined ? 0 : Math.max(0, values[id].value - limit),
    };
  });
}
