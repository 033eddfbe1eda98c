import type { Moment } from '@/core/book/changes';
import type { AccessPoint, Delivery } from '@/core/delivery/accessPoint';
import { askedOf, type Transmission } from '@/core/delivery/transmission';
import { accept, type Result } from '@/core/kernel/result';
import { keepReceivedAnswers, keepSendingTry } from '@/store/delivery/actions/sending';
import { dueTransmissions } from '@/store/delivery/queries/sent';
import { perform } from '@/store/perform';
import type { BookDb } from '@/store/schema';
import type { Job } from './runJobs';

/** Transmissions that one round takes up; what is left waits for the next one. */
const AT_ONCE = 50;

/** One try: the receiver is looked up first, as it may have gone since the address was written down. */
async function deliver(accessPoint: AccessPoint, transmission: Transmission, at: string): Promise<Delivery> {
  const { id, sender, receiver, file, failures } = transmission;
  const found = await accessPoint.lookUp(receiver);
  if (found.kind === 'unreachable' || found.kind === 'refused') return found;
  if (found.kind === 'unknown')
    return { kind: 'refused', words: `Nobody is registered at ${receiver.scheme}:${receiver.id}.` };
  return accessPoint.send({ id, sender, receiver, at, tries: failures, file });
}

/**
 * One round of delivery: sends what is due and asks for answers. Every outcome is written before the next message
 * goes out, and a message keeps its id, so that a round that ends midway, or runs in two tabs, sends nothing twice.
 * Gives how many transmissions it took up; refused where the book could not be written, as on a full disk.
 */
export async function eInvoiceRound(
  db: BookDb,
  accessPoint: AccessPoint,
  moment: () => Moment,
): Promise<Result<number>> {
  const due = await dueTransmissions(db, moment().now, AT_ONCE);
  for (const transmission of due.filter(({ receipt }) => receipt === null)) {
    const delivery = await deliver(accessPoint, transmission, moment().now);
    const kept = await perform(db, keepSendingTry, { id: transmission.id, delivery }, moment());
    if (!kept.ok) return kept;
  }
  const waiting = due.filter(({ receipt }) => receipt !== null);
  const answers = waiting.length === 0 ? null : await accessPoint.answers(waiting.map(askedOf), moment().now);
  for (const { id } of waiting) {
    const kept = await perform(db, keepReceivedAnswers, { id, answers: answers?.[id] ?? [] }, moment());
    if (!kept.ok) return kept;
  }
  return accept(due.length);
}

/** Sending e-invoices and asking for answers, as a job. */
export const eInvoiceJob = (accessPoint: AccessPoint): Job => ({
  what: 'E-invoices',
  isDue: async (db, now) => (await dueTransmissions(db, now, 1)).length > 0,
  round: (db, moment) => eInvoiceRound(db, accessPoint, moment),
});
