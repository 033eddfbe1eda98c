import type { Moment } from '@/core/book/changes';
import type { Delivery } from '@/core/delivery/accessPoint';
import type { OnItsWay } from '@/core/delivery/queue';
import { accept, type Result } from '@/core/kernel/result';
import type { BookDb } from '@/store/schema';
import type { Job } from './runJobs';

/** A way by which messages go out, and what is heard of them. */
export interface Channel<Message extends OnItsWay & { readonly id: string }, News> {
  /** What waits, in words: `E-invoices`. */
  readonly what: string;
  readonly due: (db: BookDb, now: string, limit: number) => Promise<readonly Message[]>;
  readonly bring: (db: BookDb, message: Message, now: string) => Promise<Delivery>;
  readonly keepTry: (db: BookDb, id: string, delivery: Delivery, moment: Moment) => Promise<Result<unknown>>;
  /** What was heard, by the id of the message; null where nobody could be asked. */
  readonly ask: (
    messages: readonly Message[],
    now: string,
  ) => Promise<Readonly<Record<string, readonly News[]>> | null>;
  readonly keepNews: (db: BookDb, id: string, news: readonly News[], moment: Moment) => Promise<Result<unknown>>;
}

/** Messages that one round takes up; what is left waits for the next one. */
const AT_ONCE = 50;

/**
 * Sends what is due by a channel and asks for news. Every outcome is written before the next message goes out, and a message
 * keeps its id, so that a round that ends midway, or runs in two tabs, sends nothing twice. A round gives how many messages
 * it took up; refused where the book could not be written, as on a full disk.
 */
export function deliveryJob<Message extends OnItsWay & { readonly id: string }, News>(
  channel: Channel<Message, News>,
): Job {
  return {
    what: channel.what,
    isDue: async (db, now) => (await channel.due(db, now, 1)).length > 0,
    async round(db, moment) {
      const due = await channel.due(db, moment().now, AT_ONCE);
      for (const message of due.filter(({ receipt }) => receipt === null)) {
        const delivery = await channel.bring(db, message, moment().now);
        const kept = await channel.keepTry(db, message.id, delivery, moment());
        if (!kept.ok) return kept;
      }
      const waiting = due.filter(({ receipt }) => receipt !== null);
      const news = waiting.length === 0 ? null : await channel.ask(waiting, moment().now);
      for (const { id } of waiting) {
        const kept = await channel.keepNews(db, id, news?.[id] ?? [], moment());
        if (!kept.ok) return kept;
      }
      return accept(due.length);
    },
  };
}
