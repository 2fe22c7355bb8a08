import type { RigStore } from '../store/rig-store';
import { askServer } from './ask-server';
import type { Keeper } from './keeper';
import { personName } from './person';

/** What comes over the live line of a rig. */
type Heard =
  | { is: 'missed' }
  | { is: 'saved'; revision: number; identity: string }
  | { is: 'archived'; archived: boolean }
  | { is: 'here'; presence: Here };

interface Here {
  tab: string;
  name: string;
  device: string | null;
  gone?: boolean;
}

const HERE_MS = 10_000;
const GONE_MS = 25_000;

/**
 * The live line: what others save comes in within a moment, and who else is there is shown. All
 * pages of one browser that have the rig open share one connection, since a browser has few: the one
 * that holds the lock listens, and passes on what it hears.
 */
export class LiveLine {
  private readonly seen = new Map<string, Here & { at: number }>();
  private readonly channel: BroadcastChannel | undefined;
  private source: EventSource | undefined;
  private readonly beat: ReturnType<typeof setInterval>;
  private readonly stopWatching: () => void;
  private readonly end = new AbortController();

  constructor(
    private readonly id: string,
    private readonly store: RigStore,
    private readonly keeper: Keeper,
  ) {
    if (typeof BroadcastChannel !== 'undefined') {
      this.channel = new BroadcastChannel(`yantrel line ${id}`);
      this.channel.onmessage = ({ data }: MessageEvent<Heard>) => this.hear(data);
    }
    void this.listen();
    this.tellHere();
    this.beat = setInterval(() => this.beats(), HERE_MS);
    this.stopWatching = store.subscribe((now, before) => {
      if (now.selection !== before.selection) this.tellHere();
    });
    window.addEventListener('pagehide', this.leave);
  }

  private async listen(): Promise<void> {
    if (typeof EventSource === 'undefined') return;
    const open = () => {
      this.source = new EventSource(`/api/rigs/${encodeURIComponent(this.id)}/live`);
      this.source.onopen = () => this.passOn({ is: 'missed' });
      this.source.onmessage = ({ data }: MessageEvent<string>) =>
        this.passOn(JSON.parse(data) as Heard);
    };
    const { locks } = navigator;
    if (!locks) return open();
    await locks
      .request(`yantrel line ${this.id}`, { signal: this.end.signal }, () => {
        // The lock may be given at the very moment at which the page goes.
        if (this.end.signal.aborted) return undefined;
        open();
        return new Promise<void>((done) => this.end.signal.addEventListener('abort', () => done()));
      })
      .catch(() => undefined);
  }

  private passOn(heard: Heard): void {
    this.channel?.postMessage(heard);
    this.hear(heard);
  }

  private hear(heard: Heard): void {
    switch (heard.is) {
      case 'missed':
        return void this.keeper.refresh();
      case 'saved':
        if (heard.revision > this.keeper.base.revision) void this.keeper.refresh();
        return;
      case 'archived':
        return this.store
          .getState()
          .setNotice(
            heard.archived
              ? 'This rig was put away. What you change is saved all the same; bring it back in the list of rigs.'
              : 'This rig was brought back into the list.',
          );
      case 'here':
        return this.meet(heard.presence);
    }
  }

  private meet(presence: Here): void {
    if (presence.tab === this.keeper.tab) return;
    if (presence.gone) this.seen.delete(presence.tab);
    else {
      if (!this.seen.has(presence.tab)) this.tellHere();
      this.seen.set(presence.tab, { ...presence, at: Date.now() });
    }
    this.showOthers();
  }

  private showOthers(): void {
    const others = [...this.seen.values()].map(({ tab, name, device }) => ({ tab, name, device }));
    if (JSON.stringify(others) !== JSON.stringify(this.store.getState().others))
      this.store.setState({ others });
  }

  private beats(): void {
    this.tellHere();
    for (const [tab, { at }] of this.seen) if (Date.now() - at > GONE_MS) this.seen.delete(tab);
    this.showOthers();
  }

  private here(): Here {
    const { selection } = this.store.getState();
    return {
      tab: this.keeper.tab,
      name: personName() ?? '',
      device: selection?.kind === 'device' ? selection.id : null,
    };
  }

  private tellHere(): void {
    void askServer(`/api/rigs/${encodeURIComponent(this.id)}/here`, 'POST', this.here());
  }

  /** The page goes: told in passing, since it does not wait for an answer. */
  private readonly leave = (): void => {
    void fetch(`/api/rigs/${encodeURIComponent(this.id)}/here`, {
      method: 'POST',
      keepalive: true,
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ ...this.here(), gone: true }),
    }).catch(() => undefined);
  };

  close(): void {
    this.leave();
    this.end.abort();
    this.source?.close();
    this.channel?.close();
    clearInterval(this.beat);
    this.stopWatching();
    window.removeEventListener('pagehide', this.leave);
  }
}
