import { at } from '../core/outcome';
import {
  boardModel,
  budgetOf,
  checkCountries,
  cutList,
  judge,
  type LayoutChoice,
  mainsSums,
  mountedIn,
  packingOf,
  placesNow,
  pressedDevices,
  proposeLayout,
  rackClashes,
  rackSums,
} from '../core/build';
import { exactSolver } from './exact-solver';
import { walkOrder } from '../core/walk';
import { type Rig } from '../core/rig';
import { round } from './round';

/**
 * What the build comes to: leads, boards, racks, mains, cases, figures against limits; lengths in
 * metres unless the name says mm.
 */
export function buildJson(rig: Rig) {
  const list = cutList(rig);
  const packing = packingOf(rig, list);
  return {
    leads: leadsJson(list.cuts),
    joints: list.joints,
    ties: list.ties,
    hours: round(list.hours, 2),
    plugs: list.plugs,
    stock: list.stock.map((s) => ({ ...s, metres: round(s.metres, 3) })),
    boards: boardsJson(rig),
    racks: racksJson(rig),
    mains: mainsJson(rig),
    cases: packing.pieces.map((p) => ({
      id: p.id,
      name: p.name,
      order: p.order,
      grams: Math.round(p.grams),
      lift: p.lift,
      devices: p.devices.map((d) => d.id),
      leads: p.leads.map((c) => c.lead.id),
    })),
    coiled: packing.coiled,
    grams: Math.round(packing.grams),
    limits: budgetOf(rig, list).map((b) => ({
      id: b.id,
      value: round(b.value, 2),
      limit: b.limit ?? null,
      over: round(b.over, 2),
    })),
  };
}

/** Leads as they are cut. */
const leadsJson = (cuts: ReturnType<typeof cutList>['cuts']) =>
  cuts.map((c) => ({
    id: c.lead.id,
    code: c.code,
    type: c.lead.type,
    plugs: c.plugs,
    shapes: c.shapes,
    hasM: round(c.metres, 3),
    routedM: round(c.routed, 3),
    how: c.how,
    shortM: round(c.short, 3),
    cutM: round(c.cut, 3),
    joints: c.joints,
    ties: c.ties,
    pF: round(c.pFNow, 1),
    minutes: round(c.minutes, 1),
  }));

/** Boards with what lies across what. */
const boardsJson = (rig: Rig) =>
  (rig.boards ?? []).map((b) => {
    const model = boardModel(rig, b, pressedDevices(rig));
    const j = judge(model, placesNow(model));
    return {
      id: b.id,
      name: b.name,
      devices: model.items.length,
      leadM: round(j.mm / 1000, 3),
      crossings: j.crossings,
      cost: round(j.cost, 1),
      clashes: j.clashes.map((c) => ({
        what: c.what,
        a: at(model.items, c.a).device.id,
        b: c.b < 0 ? null : at(model.items, c.b).device.id,
        mm: round(c.mm, 1),
      })),
    };
  });

/** Racks, unit by unit. */
const racksJson = (rig: Rig) =>
  (rig.racks ?? []).map((r) => ({
    id: r.id,
    name: r.name,
    ...rackSums(rig, r),
    mounted: mountedIn(rig, r).map((m) => ({
      device: m.device.id,
      from: m.from,
      to: m.to,
      rear: m.rear,
      insideMm: m.inside,
    })),
    clashes: rackClashes(rig, r).map((c) => ({
      what: c.what,
      a: c.a.device.id,
      b: c.b?.device.id ?? null,
      mm: round(c.mm, 1),
    })),
  }));

/** Strips, and what holds in which country. */
const mainsJson = (rig: Rig) => ({
  watts: mainsSums(rig, 230).watts,
  strips: mainsSums(rig, 230).strips.map((s) => ({
    device: s.device.id,
    sockets: s.outlets,
    feeds: s.feeds.map((d) => d.id),
    watts: s.watts,
    inrushAmps: s.inrushAmps,
  })),
  countries: checkCountries(rig).map((c) => ({
    country: c.country.code,
    volts: c.country.volts,
    also: c.country.also,
    plugs: c.country.plugs,
    hz: c.country.hz,
    amps: round(c.amps, 2),
    wrong: c.wrong.map((w) => ({ device: w.device.id, what: w.what })),
  })),
});

/** A layout of one board as the optimiser finds it, with the edits that make it. */
export const layoutOf = async (
  rig: Rig,
  board: string,
  add: readonly string[],
  choice: Pick<LayoutChoice, 'mayTurn' | 'effort'>,
) => {
  const solver = await exactSolver();
  const silent = () => Promise.resolve();
  return proposeLayout(rig, board, add, pressedDevices(rig), walkOrder(rig), silent, {
    ...choice,
    solver,
  });
};
