import type { WalkView } from '../../../core/draw';
import { foldableHosts } from '../../../core/draw/walk-view';
import { kindOf } from '../../../core/kinds';
import { sure } from '../../../core/outcome';
import { isEngaged, stateIn } from '../../../core/rig/device-state';
import { deviceOf, leadOf, soundOf } from '../../../core/rig/find';
import type { Device, Lead, Rig } from '../../../core/rig/schema';
import { useKeys } from '../../frame/use-keys';
import { useDocument, useRig, useRigStore, useSoundReport } from '../../store/use-rig';
import { freeOutput } from '../moving-edits';
import type { Looking } from '../walk-tools';
import { reachAlong } from './reach-along';
import { type InHand, within } from './use-moving';

export type Side = 'inspect' | 'wiring' | 'none';
/** What is being picked, for what is chosen; into a loop, with the loop. */
export type Picking = 'insert' | 'append' | 'replace' | 'connect' | { loop: string } | null;

/** What the keys of the walk work on. */
export interface SignalKeys {
  device: Device | undefined;
  lead: Lead | undefined;
  view: WalkView | undefined;
  /** The first lead of each step, as the walk goes. */
  order: readonly string[];
  looking: Looking;
  look: (change: Partial<Looking>) => void;
  hand: InHand;
  setSide: (change: (side: Side) => Side) => void;
  setPicking: (picking: Picking) => void;
  remove: () => void;
}

/** The keys of the walk: along it, moving, bypassing, inserting, folding and changing the view. */
export function useSignalKeys(on: SignalKeys): void {
  const { device, lead, looking, look, hand, setSide, setPicking } = on;
  const rig = useDocument();
  const report = useSoundReport();
  const select = useRig((s) => s.select);
  const step = useStep(on);
  const reach = useReach(on);
  const bypass = useBypass();
  const drop = () =>
    hand.moving?.lead && hand.byKeys && hand.drop(hand.moving.device, hand.moving.lead);
  useKeys([
    ['ArrowRight', () => step(1)],
    ['ArrowLeft', () => step(-1)],
    ['shift+ArrowRight', () => reach(1)],
    ['shift+ArrowLeft', () => reach(-1)],
    ['m', hand.start],
    ['Enter', drop, { preventDefault: false }],
    ['Escape', () => (hand.moving ? hand.leave() : select(null))],
    ['b', bypass],
    ['i', () => lead && setPicking('insert')],
    ['a', () => device && freeOutput(rig, device) && setPicking('append')],
    ['c', () => device && setPicking('connect')],
    ['r', () => device && setPicking('replace')],
    ['Delete', on.remove],
    ['l', () => look({ lanes: looking.lanes.length ? [] : otherLanes(on.view, device) })],
    [
      'h',
      () => report && look({ folded: looking.folded.length ? [] : foldableHosts(rig, report) }),
    ],
    ['g', () => look({ pane: looking.pane === 'wiring' ? 'walk' : 'wiring' })],
    ['t', () => look({ pane: looking.pane === 'table' ? 'walk' : 'table' })],
    ['w', () => setSide((side) => (side === 'wiring' ? 'inspect' : 'wiring'))],
    ['p', () => probe(rig, on, (id) => select({ kind: 'lead', id }))],
  ]);
}

/**
 * One step along the walk: of the device in hand, of the probe, or of what is chosen. A key may come
 * before the page has drawn what the last one did, so what is chosen is asked of the store.
 */
function useStep({ hand, view, order }: SignalKeys) {
  const store = useRigStore();
  return (by: 1 | -1) => {
    if (hand.moving && hand.byKeys) return hand.step(by);
    const { selection, select } = store.getState();
    if (selection?.kind === 'lead') {
      const id = within(order, order.indexOf(selection.id) + by);
      return id && select({ kind: 'lead', id });
    }
    const stations = view?.stations ?? [];
    const at = selection
      ? stations.findIndex((s) => s.id === (selection.station ?? selection.id))
      : -1;
    const next = within(stations, at + by);
    if (next) select({ kind: 'device', id: next.device, station: next.id });
  };
}

/** Chooses a device more or less along the walk, from the chosen one on. */
function useReach({ view }: SignalKeys) {
  const store = useRigStore();
  return (by: 1 | -1) => {
    const { chosen, choose, selection } = store.getState();
    const walk = view?.stations.map((s) => s.device) ?? [];
    const one = selection?.kind === 'device' ? [selection.id] : [];
    choose(reachAlong(walk, chosen.length ? chosen : one, by));
  };
}

/**
 * Bypasses the chosen device in the sound, or engages it: as the document says that it is, whose
 * figures may still be on their way.
 */
function useBypass() {
  const store = useRigStore();
  return () => {
    const { selection, report, sound: id, edit, history } = store.getState();
    const device = selection?.kind === 'device' && deviceOf(history.rig, selection.id);
    const isHere = report.sounds.some(
      (r) => r.sound === id && r.stations.some((s) => s.device === selection?.id),
    );
    if (!device || !isHere || kindOf(device.kind).alwaysOn) return;
    const sound = soundOf(history.rig, id);
    edit({
      edit: 'setEngaged',
      device: device.id,
      sound: sound?.id,
      engaged: !isEngaged(kindOf(device.kind), device, stateIn(sound, device.id)),
    });
  };
}

/** The first station of every lane but the one of the chosen device. */
function otherLanes(view: WalkView | undefined, device: Device | undefined): string[] {
  if (!view) return [];
  const lanes = [...new Set(view.stations.map((s) => s.lane))].map(
    (n) => sure(view.stations.find((s) => s.lane === n)).id,
  );
  const mine = view.stations.find((s) => device && s.device === device.id)?.lane ?? 0;
  return lanes.filter((_, n) => n !== mine);
}

/** Probes the lead that the chosen device feeds, or the first of the walk. */
function probe(rig: Rig, { device, order }: SignalKeys, choose: (lead: string) => void) {
  const first = device ? order.find((id) => leadOf(rig, id)?.from.device === device.id) : order[0];
  if (first) choose(first);
}
