import type { IssuedDocument } from '@/core/documents/issued';
import { digest } from '@/core/kernel/digest';
import type { Endpoint } from '@/core/parties/endpoint';
import type { Asked, Delivery } from './accessPoint';
import { ANSWERS, type Answer, type HeardAnswer, standingAnswer } from './answer';
import { afterTry, askedNext, DAY, later, type OnItsWay, queuedAt } from './queue';

/**
 * Where a transmission stands, kept for its index: `queued` waits to be sent, `unanswered` is with the receiver, `asks`
 * needs the bookkeeper, `answered` may hear more, `closed` hears nothing that matters.
 */
export type Phase = 'queued' | 'unanswered' | 'asks' | 'answered' | 'closed';

/** An e-invoice on its way to its receiver, with everything that came of it. Its file never changes. */
export interface Transmission extends OnItsWay {
  /** Also the id of the message, on every try. */
  readonly id: string;
  readonly documentId: string;
  readonly number: string;
  readonly customerId: string;
  readonly customerName: string;
  readonly sender: Endpoint;
  readonly receiver: Endpoint;
  /** What is sent, to the letter: UBL. */
  readonly file: string;
  /** SHA-256 of the file, in hexadecimal. */
  readonly sha256: string;
  readonly queuedAt: string;
  readonly answers: readonly HeardAnswer[];
  readonly phase: Phase;
  /** Instant since when it stands there. */
  readonly since: string;
}

/** Answers are asked for this long after sending: 60 days. */
const ASK_FOR = 60 * DAY;
/** A receiver that says nothing for this long is named on the Today list: 3 days. */
export const SILENCE = 3 * DAY;

function phaseOf({ handled, receipt, answers, dueAt }: Transmission): Phase {
  if (receipt === null) return handled !== null ? 'closed' : dueAt === '' ? 'asks' : 'queued';
  const standing = standingAnswer(answers);
  if (standing === null) return handled === null ? 'unanswered' : 'answered';
  if (ANSWERS[standing.code].asks && handled === null) return 'asks';
  return standing.code === 'PD' || standing.code === 'RE' ? 'closed' : 'answered';
}

/** The transmission with its phase brought up to date. */
function placed(transmission: Transmission, now: string): Transmission {
  const phase = phaseOf(transmission);
  return phase === transmission.phase ? transmission : { ...transmission, phase, since: now };
}

/** A new transmission of a document, due at once. `file` is the UBL that goes out. */
export function newTransmission(document: IssuedDocument, file: string, id: string, now: string): Transmission {
  const { seller, buyer } = document.content;
  return {
    id,
    documentId: document.id,
    number: document.number,
    customerId: document.customerId,
    customerName: document.customerName,
    sender: seller.endpoint,
    receiver: buyer.endpoint,
    file,
    sha256: digest(file),
    queuedAt: now,
    ...queuedAt(now),
    answers: [],
    phase: 'queued',
    since: now,
  };
}

/** What a try brought. */
export function tried(before: Transmission, delivery: Delivery, now: string): Transmission {
  return placed(afterTry(before, delivery, now), now);
}

/** What asking for answers brought; answers that are there already are passed over, late ones find their place. */
export function heard(before: Transmission, answers: readonly Answer[], now: string): Transmission {
  const known = new Set(before.answers.map(({ id }) => id));
  const fresh = answers.filter(({ id }) => !known.has(id) && known.add(id));
  const asked = fresh.length > 0 ? 0 : before.asked + 1;
  const over = before.receipt === null || later(before.receipt.at, ASK_FOR) <= now;
  const standing = standingAnswer(before.answers);
  const all = [...before.answers, ...fresh.map((answer) => ({ ...answer, heardAt: now }))];
  // What was done about an earlier answer does not settle one that changes where it stands.
  const moved = standingAnswer(all)?.id !== standing?.id;
  const next = placed({ ...before, answers: all, asked, handled: moved ? null : before.handled }, now);
  return { ...next, dueAt: over || next.phase === 'closed' ? '' : askedNext(asked, now) };
}

/** Takes up again what was stopped, with the same id. */
export function takenUp(before: Transmission, now: string): Transmission {
  return placed({ ...before, failures: 0, handled: null, dueAt: now }, now);
}

/** What it asked for is done, or it leaves the queue. Answers that come all the same are still kept. */
export function handledBy(before: Transmission, words: string, now: string): Transmission {
  const dueAt = before.receipt === null ? '' : before.dueAt;
  return placed({ ...before, dueAt, handled: { on: now, words } }, now);
}

/** As the access point is asked about it. @throws RangeError without a receipt. */
export function askedOf({ id, receiver, receipt }: Transmission): Asked {
  if (receipt === null) throw new RangeError(`${id} has no receipt`);
  return { id, receiver, reference: receipt.reference, takenAt: receipt.at };
}
