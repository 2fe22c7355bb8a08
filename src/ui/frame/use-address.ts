import { usePathname, useSearchParams } from 'next/navigation';
import { useEffect, useRef } from 'react';
import { SEVERITIES } from '../../core/findings/finding';
import { PANES, type RigState } from '../store/rig-store';
import { useRigStore } from '../store/use-rig';

/** The address is written a moment after a press, so that it does not stand in the way of what was pressed. */
const WRITE_MS = 250;

/** What of an address says what is looked at, beside the place and its part. */
const KEYS = ['sound', 'device', 'lead', 'pane', 'follow', 'against', 'inside', 'findings'];

/** What a person is looking at, as words of an address. */
function written({
  sound,
  selection,
  findingsOpen,
  findingsFilter,
  signalAsked: { pane, follow, compare, inside },
}: RigState): [string, string | undefined][] {
  const { severity, sound: only, text } = findingsFilter;
  return [
    ['sound', sound],
    ['device', selection?.kind === 'device' ? selection.id : undefined],
    ['lead', selection?.kind === 'lead' ? selection.id : undefined],
    ['pane', pane === 'walk' ? undefined : pane],
    ['follow', follow ?? undefined],
    ['against', compare ?? undefined],
    ['inside', inside ?? undefined],
    ['findings', findingsOpen ? 'open' : undefined],
    ['severity', severity],
    ['only', only],
    ['words', text],
  ];
}

/** Takes from the page's address what is in it and in the rig; what is not there stays as it is. */
export function takeAddress(state: RigState): void {
  const params = new URLSearchParams(window.location.search);
  const { rig } = state.history;
  const [sound, device, lead] = ['sound', 'device', 'lead'].map((k) => params.get(k));
  if (sound && rig.sounds.some((s) => s.id === sound)) state.setSound(sound);
  if (device && rig.devices.some((d) => d.id === device))
    state.select({ kind: 'device', id: device });
  else if (lead && rig.leads.some((l) => l.id === lead)) state.select({ kind: 'lead', id: lead });
  const [follow, compare, inside] = ['follow', 'against', 'inside'].map((k) => params.get(k) ?? '');
  const known = (id: string | undefined) => (rig.devices.some((d) => d.id === id) ? id : undefined);
  state.askSignal({
    pane: PANES.find((p) => p === params.get('pane')) ?? 'walk',
    follow: known(follow) ?? null,
    compare: rig.sounds.find((s) => s.id === compare)?.id ?? null,
    inside: known(inside) ?? null,
  });
  const only = params.get('only');
  state.filterFindings({
    severity: SEVERITIES.find((s) => s === params.get('severity')),
    sound: rig.sounds.some((s) => s.id === only) ? (only ?? undefined) : undefined,
    text: params.get('words') ?? undefined,
  });
  if (params.get('findings') === 'open') state.openFindings(true);
}

/**
 * Keeps what is looked at in the address: sound, what is chosen, how the signal is drawn and whose ways, the
 * findings and their filter, beside the place and its part. Back, forward, reload and a link sent to somebody
 * else land there.
 */
export function useAddress(): void {
  const store = useRigStore();
  const path = usePathname();
  const params = useSearchParams();
  const part = params.get('part');
  // What the router was sent to; what is written below it does not hear of.
  const sent = KEYS.some((key) => params.has(key)) ? params.toString() : '';
  const taken = useRef(sent);
  useEffect(() => {
    const read = () => takeAddress(store.getState());
    window.addEventListener('popstate', read);
    return () => window.removeEventListener('popstate', read);
  }, [store]);
  useEffect(() => {
    // A link within the page; what the page was opened with was taken before anything could be pressed.
    if (sent && sent !== taken.current) takeAddress(store.getState());
    taken.current = sent;
  }, [store, sent]);
  useEffect(() => {
    let soon: ReturnType<typeof setTimeout> | undefined;
    const write = () => {
      const params = new URLSearchParams(window.location.search);
      for (const [key, value] of written(store.getState()))
        if (value === undefined) params.delete(key);
        else params.set(key, value);
      const search = params.toString();
      if (search === window.location.search.slice(1)) return;
      // The browser's own: told to the router, it would go back from the page that it is on the way to.
      const { history, location } = window;
      History.prototype.replaceState.call(
        history,
        history.state,
        '',
        `${location.pathname}?${search}`,
      );
    };
    const later = () => {
      clearTimeout(soon);
      soon = setTimeout(write, WRITE_MS);
    };
    later();
    const stop = store.subscribe((now, before) => {
      if (written(now).some(([, v], i) => v !== written(before)[i]?.[1])) later();
    });
    return () => {
      stop();
      clearTimeout(soon);
    };
  }, [store, path, part]);
}

/** Keeps the address; apart, since what reads it waits for it on the first view. */
export function Address(): null {
  useAddress();
  return null;
}
