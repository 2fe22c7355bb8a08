import { Client } from 'pg';
import { CHANNEL, type News, readNews } from './telling';

/** What a page on the live line gets: news of its rig, or that news may have been missed. */
export type Heard = News | { is: 'missed' };
type Listener = (heard: Heard) => void;

const AGAIN_MS = 1000;

/**
 * One connection of this process on which the database tells of every rig, for all pages that
 * listen. It is opened with the first page; when it breaks it is opened again, and every page is
 * told that it may have missed something.
 */
export class Listening {
  private readonly pages = new Map<string, Set<Listener>>();
  private client: Client | undefined;
  private again: ReturnType<typeof setTimeout> | undefined;

  constructor(private readonly url: string) {}

  /** Listens to a rig until the function that it gives is called. */
  on(rig: string, listener: Listener): () => void {
    const pages = this.pages.get(rig) ?? new Set();
    this.pages.set(rig, pages.add(listener));
    if (!this.client && !this.again) this.open(false);
    return () => {
      pages.delete(listener);
      if (!pages.size) this.pages.delete(rig);
    };
  }

  private open(missed: boolean): void {
    this.again = undefined;
    const client = new Client({ connectionString: this.url, application_name: 'yantrel' });
    this.client = client;
    client.on('error', () => this.broken(client));
    client.on('end', () => this.broken(client));
    client.on('notification', ({ payload }) => {
      const news = readNews(payload);
      if (news) this.pages.get(news.rig)?.forEach((listener) => listener(news));
    });
    client
      .connect()
      .then(() => client.query(`listen ${CHANNEL}`))
      .then(
        () => {
          if (missed)
            for (const pages of this.pages.values()) pages.forEach((l) => l({ is: 'missed' }));
        },
        () => this.broken(client),
      );
  }

  private broken(client: Client): void {
    if (this.client !== client) return;
    this.client = undefined;
    client.end().catch(() => undefined);
    this.again = setTimeout(() => this.open(true), AGAIN_MS);
    this.again.unref();
  }

  /** Ends the connection; pages hear nothing any more. */
  close(): void {
    clearTimeout(this.again);
    const { client } = this;
    this.client = undefined;
    client?.end().catch(() => undefined);
  }
}

const shared = globalThis as { yantrelListening?: Listening };

/** The listening of this process, at DATABASE_URL. */
export const listening = (): Listening =>
  (shared.yantrelListening ??= new Listening(process.env.DATABASE_URL ?? ''));
