import type { AccessPoint, Delivery } from '@/core/delivery/accessPoint';
import type { Answer } from '@/core/delivery/answer';
import { askedOf, type Transmission } from '@/core/delivery/transmission';
import { keepReceivedAnswers, keepSendingTry } from '@/store/delivery/actions/sending';
import { dueTransmissions } from '@/store/delivery/queries/sent';
import { perform } from '@/store/perform';
import { deliveryJob } from './deliveryJob';
import type { Job } from './runJobs';

/** One try: the receiver is looked up first, as it may have gone since the address was written down. */
async function deliver(accessPoint: AccessPoint, transmission: Transmission, at: string): Promise<Delivery> {
  const { id, sender, receiver, file, failures } = transmission;
  const found = await accessPoint.lookUp(receiver);
  if (found.kind === 'unreachable' || found.kind === 'refused') return found;
  if (found.kind === 'unknown')
    return { kind: 'refused', words: `Nobody is registered at ${receiver.scheme}:${receiver.id}.` };
  return accessPoint.send({ id, sender, receiver, at, tries: failures, file });
}

/** Sending e-invoices and asking for answers, as a job. */
export const eInvoiceJob = (accessPoint: AccessPoint): Job =>
  deliveryJob<Transmission, Answer>({
    what: 'E-invoices',
    due: dueTransmissions,
    bring: (_, transmission, now) => deliver(accessPoint, transmission, now),
    keepTry: (db, id, delivery, moment) => perform(db, keepSendingTry, { id, delivery }, moment),
    ask: (waiting, now) => accessPoint.answers(waiting.map(askedOf), now),
    keepNews: (db, id, answers, moment) => perform(db, keepReceivedAnswers, { id, answers }, moment),
  });
