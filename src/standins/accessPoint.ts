import type { AccessPoint, Asked, Delivery, LookUp, Message } from '@/core/delivery/accessPoint';
import type { Answer, AnswerCode } from '@/core/delivery/answer';
import { later } from '@/core/delivery/queue';
import { checkFile } from '@/core/einvoice/check';
import { groupsOf, termsOf, textOf } from '@/core/einvoice/model';
import { type ReadInvoice, readEInvoiceText } from '@/core/einvoice/syntax';
import { digest } from '@/core/kernel/digest';
import type { Result } from '@/core/kernel/result';
import type { Endpoint } from '@/core/parties/endpoint';
import { wordRefusals } from '@/core/wording/refusals';

/** What a receiver does, by the last two digits of its id. All others take an invoice and accept it. */
const SCRIPTS = {
  '90': 'silent',
  '91': 'orders',
  '92': 'queries',
  '93': 'late',
  '94': 'twice',
  '95': 'comes-back',
  '96': 'refuses',
  '97': 'unknown',
  '98': 'pays',
  '99': 'down',
} as const;

type Script = (typeof SCRIPTS)[keyof typeof SCRIPTS] | 'accepts';

function scriptOf({ id }: Endpoint): Script {
  const ending = id.replace(/\D/g, '').slice(-2);
  return SCRIPTS[ending as keyof typeof SCRIPTS] ?? 'accepts';
}

const ORDERS_BEGIN = 'PO-';
const HOUR = 3600;
const DAY = 24 * HOUR;

interface Planned {
  /** Seconds after it was taken. */
  readonly after: number;
  /** Seconds after it was taken at which it is given out, where that is later. */
  readonly heard?: number;
  readonly code: AnswerCode;
  readonly reasons?: Answer['reasons'];
  readonly actions?: readonly string[];
  /** Given out a second time with the same id. */
  readonly twice?: true;
}

const accepted: Planned = { after: 1, code: 'AP' };

/** What each script answers, to a message that the receiver likes or not. */
const PLANS: Readonly<Record<Script, (likes: boolean) => readonly Planned[]>> = {
  accepts: () => [{ after: 0, code: 'AB' }, accepted],
  silent: () => [],
  orders: (likes) =>
    likes
      ? [{ after: 0, code: 'AB' }, accepted]
      : [
          { after: 0, code: 'AB' },
          {
            after: 1,
            code: 'RE',
            reasons: [{ code: 'REF', words: `Our order numbers begin with ${ORDERS_BEGIN}.` }],
            actions: ['NIN'],
          },
        ],
  queries: () => [
    { after: 0, code: 'AB' },
    { after: 1, code: 'UQ', reasons: [{ code: 'DEL', words: 'Where was it delivered?' }], actions: ['PIN'] },
    { after: 2 * DAY, code: 'CA', reasons: [{ code: 'PAY', words: 'We pay after 60 days.' }], actions: ['NOA'] },
  ],
  late: () => [
    { after: 3 * DAY, heard: 3 * DAY, code: 'AP' },
    { after: 0, heard: 4 * DAY, code: 'AB' },
  ],
  twice: () => [
    { after: 0, code: 'AB', twice: true },
    { after: 1, code: 'AP', twice: true },
  ],
  'comes-back': () => [accepted],
  refuses: () => [],
  unknown: () => [],
  pays: () => [{ after: 0, code: 'AB' }, accepted, { after: DAY, code: 'PD' }],
  down: () => [],
};

function lookUp(receiver: Endpoint): LookUp {
  const script = scriptOf(receiver);
  if (script === 'down') return { kind: 'unreachable', words: 'The directory of receivers does not answer.' };
  if (script === 'unknown') return { kind: 'unknown' };
  return { kind: 'takes' };
}

/** Messages taken, by id. */
type Memory = Map<string, { readonly sha256: string; readonly reference: string }>;
const MOST_REMEMBERED = 10_000;

const refused = (words: string): Delivery => ({ kind: 'refused', words });

/** What is wrong with the file itself, as any access point would look before it passes it on. */
function fileFault(read: Result<ReadInvoice>, receiver: Endpoint): string | null {
  if (!read.ok) return `The file cannot be read: ${wordRefusals(read.refusals)}`;
  const [error] = checkFile(read.value).findings.filter(({ severity }) => severity === 'error');
  if (error !== undefined) return `The file breaks ${error.rule}: ${error.message}`;
  const buyer = groupsOf(read.value.invoice, 'BG-7')[0];
  const endpoint = buyer === undefined ? undefined : termsOf(buyer, 'BT-49')[0];
  return endpoint?.value === receiver.id ? null : 'The file names another receiver.';
}

/** True where a receiver who looks at order numbers has nothing against them; a credit note needs none. */
function likes({ invoice }: ReadInvoice): boolean {
  return textOf(invoice, 'BT-13').startsWith(ORDERS_BEGIN) || groupsOf(invoice, 'BG-3').length > 0;
}

function take(message: Message, taken: Memory): Delivery {
  const script = scriptOf(message.receiver);
  const sha256 = digest(message.file);
  const before = taken.get(message.id);
  if (before !== undefined)
    return before.sha256 === sha256
      ? { kind: 'taken', reference: before.reference, again: true }
      : refused('A message with this id and other content was taken before.');
  if (script === 'down' || (script === 'comes-back' && message.tries < 2))
    return { kind: 'unreachable', words: 'The access point of the receiver does not answer.' };
  if (script === 'refuses') return refused('The receiver’s access point takes no messages of this sender.');
  const read = readEInvoiceText(message.file);
  const fault = fileFault(read, message.receiver);
  if (!read.ok || fault !== null) return refused(fault ?? '');
  const reference = `SIM-${message.id.slice(-8)}-${likes(read.value) ? 'L' : 'N'}`;
  if (taken.size >= MOST_REMEMBERED) taken.delete(taken.keys().next().value as string);
  taken.set(message.id, { sha256, reference });
  // The receipt of this script is lost on its way: the sender has to ask again with the same id.
  if (script === 'twice' && message.tries === 0)
    return { kind: 'unreachable', words: 'The line broke before the receipt came.' };
  return { kind: 'taken', reference, again: false };
}

/** What the receiver of a message has answered until `now`, an instant. */
function answersTo({ id, receiver, reference, takenAt }: Asked, now: string): readonly Answer[] {
  const plan = PLANS[scriptOf(receiver)](reference.endsWith('L'));
  return plan.flatMap(({ after, heard = after, code, reasons = [], actions = [], twice }, i): Answer[] => {
    if (later(takenAt, heard) > now) return [];
    const answer = { id: `${id}-${i + 1}`, code, on: later(takenAt, after), reasons, actions };
    return twice ? [answer, answer] : [answer];
  });
}

/**
 * A simulated access point, scripted by the receiver's id. It has no clock: instants come with the messages, so that
 * demos and tests are repeatable. The same message is never taken twice, as far as one of these remembers.
 */
export function simulatedAccessPoint(): AccessPoint {
  const taken: Memory = new Map();
  return {
    lookUp: async (receiver) => lookUp(receiver),
    send: async (message) => take(message, taken),
    answers: async (asked, now) => Object.fromEntries(asked.map((one) => [one.id, answersTo(one, now)])),
  };
}
