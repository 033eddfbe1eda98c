import { writeDate } from '@/core/kernel/date';
import { writeMoney } from '@/core/kernel/money';
import type { Refusal, RefusalCode, RefusalFacts, Unsendable, Unusual } from '@/core/kernel/result';
import { wordWanted } from './wanted';

function wordUnusual(why: Unusual): string {
  if ('discount' in why) return DISCOUNT[why.discount](why.number);
  if ('ahead' in why) return `It lies ${why.ahead} ${why.ahead === 1 ? 'day' : 'days'} ahead.`;
  return 'back' in why
    ? `It lies ${why.back} days back.`
    : `${why.before} was issued later, on ${writeDate(why.issued)}.`;
}

const UNSENDABLE: Readonly<Record<Extract<Unsendable, string>, (number: string) => string>> = {
  kind: () => 'Only invoices and credit notes are sent as e-invoices.',
  cancelled: (number) => `${number} is cancelled.`,
  waits: (number) => `${number} waits to be sent.`,
  failed: (number) => `${number} could not be sent: correct why, then try again.`,
  rejected: (number) => `${number} was rejected: correct it, and send the new invoice.`,
  'put-aside': (number) => `${number} does not wait to be sent any more; look at it again.`,
};

function wordUnsendable({ number, why }: RefusalFacts['unsendable']): string {
  if (typeof why === 'string') return UNSENDABLE[why](number);
  if ('addressless' in why) return `${why.addressless} had no e-invoice address when ${number} was issued.`;
  if ('sent' in why) return `${number} was sent on ${writeDate(why.sent)}.`;
  return `${why.unsound} (${why.rule}). Correct ${number}, and send the new one.`;
}

const TAKES: Readonly<Record<RefusalFacts['wrong-kind']['takes'], (number: string) => string>> = {
  invoice: (number) => `${number} is no invoice: only invoices are credited.`,
  quote: (number) => `${number} is no quote: only quotes are accepted or declined.`,
  posted: (number) => `${number} posts nothing, so there is nothing to reverse.`,
  cancellable: (number) => `${number} is of a kind that is not cancelled.`,
};

const OVER_CLAIMED: Readonly<Record<RefusalFacts['over-claimed']['of'], string>> = {
  withheld: 'withheld and not certified yet',
  certified: 'certified and not claimed yet',
  payable: 'payable by this registration',
};

const DISCOUNT: Readonly<Record<Extract<Unusual, { discount: string }>['discount'], (number: string) => string>> = {
  late: (number) => `The discount on ${number} was offered until an earlier date.`,
  'too-high': (number) => `The discount on ${number} is more than was offered.`,
  'not-offered': (number) => `No discount was offered on ${number}.`,
};

type Words = { readonly [Code in RefusalCode]: (refusal: RefusalFacts[Code] & { readonly path: string }) => string };

/** What a refusal says to the person at the screen: what is wrong and what to do. */
const WORDS: Words = {
  invalid: ({ wanted, found }) =>
    found === undefined ? wordWanted(wanted) : `${wordWanted(wanted)} (“${found}” is not that)`,
  missing: ({ wanted }) => wordWanted(wanted),
  unknown: ({ wanted }) => wordWanted(wanted),
  undecided: ({ why }) => why,
  malformed: ({ must, found }) => `This ${must}${found === undefined ? '' : `, found ${found}`}.`,
  'not-found': ({ what }) =>
    what === undefined
      ? 'It is gone: another tab has deleted or issued it.'
      : `This is not ${what === 'registration' ? 'a registration' : 'an invoice of this customer'} any more; look at the list again.`,
  duplicate: ({ found }) => `“${found}” is there already; choose another or change that one.`,
  stale: () => 'Another tab has changed this in the meantime. Reload it; what you see here was not saved.',
  'already-issued': () => 'This draft was issued or deleted in another tab.',
  'already-credited': ({ by }) => `It was credited already by ${by.join(', ')}.`,
  'already-filed': () => 'This period is filed already.',
  'not-ended': ({ period, until }) => `${period} runs until ${writeDate(until)}; it can be filed after that day.`,
  'not-filed': ({ period }) => `The return ${period} is not filed: file it first.`,
  'locked-day': ({ day, until }) =>
    `Nothing is posted up to ${writeDate(until)} any more, and this would be on ${writeDate(day)}: take a later date, or change the lock in Ledger, Years and lock.`,
  'locked-by-year': ({ until }) => `A year is closed until ${writeDate(until)}: open it again first.`,
  'period-filed': ({ until }) => `Its tax period is filed, until ${writeDate(until)}.`,
  'later-filed': ({ until }) =>
    `Returns are filed until ${writeDate(until)}: only the newest one is opened again. Enter what changed as a late document, or open the later ones first.`,
  'over-paid': ({ left, currency, period }) =>
    left === 0n
      ? `Nothing of the return ${period} is left to pay.`
      : `Of the return ${period} ${writeMoney(left, currency)} ${currency} is left. Enter that or less.`,
  'earlier-open': ({ period }) => `File ${period} first: periods are filed in order.`,
  'closed-period': ({ day, filedUntil }) =>
    `${writeDate(day)} lies in a filed period. Choose a day after ${writeDate(filedUntil)}.`,
  'closed-document': ({ day }) => `${writeDate(day)} lies in a filed period: credit it instead.`,
  'before-registration': ({ day, from }) =>
    `${writeDate(day)} is before this book's first tax period. Enter a date from ${writeDate(from)} on.`,
  'not-in-force': ({ registration, day }) =>
    `${registration} is not in force on ${writeDate(day)}: choose another day or registration.`,
  'check-failed': ({ finding }) => finding,
  'over-allocated': ({ number }) => `This is more than is open on ${number}. Enter no more than the open amount.`,
  dishonoured: ({ number }) => `${number} was returned unpaid: nothing can be settled with it.`,
  'nothing-new': () => 'All lines of this file are in the book already. Nothing was changed.',
  matched: () => 'This line is matched already: undo that first.',
  'not-matched': () => 'This line is not matched.',
  'over-matched': () => 'This is more than is left of the line, or goes the other way. Choose what makes its sum.',
  'over-taken': ({ number, left, currency }) =>
    `Of the advance ${number} ${writeMoney(left, currency)} ${currency} is left to deduct at this tax. Deduct that or less.`,
  'used-since': ({ by }) => `Part of it was ${by} since. Undo that first.`,
  'over-claimed': ({ left, currency, of }) =>
    `This is more than is ${OVER_CLAIMED[of]}: ${writeMoney(left, currency)}. Enter no more than that.`,
  'no-relief': ({ why }) =>
    why === 'not-yet-due'
      ? 'Its tax is deferred, so there is none to reclaim. Write it off without relief.'
      : 'Its registration has no bad debt relief: write it off without, or change the registration in Setup.',
  'over-credited': ({ left, currency }) =>
    left === undefined || currency === undefined
      ? 'This is more than is left of the line.'
      : `This is more than is left to credit: ${writeMoney(left, currency)}.`,
  overrun: ({ quote, lines }) =>
    `This invoices more than ${quote} quoted for: ${lines.join(', ')}. Change it, or agree to invoice more.`,
  'wrong-kind': ({ number, takes }) => TAKES[takes](number),
  settled: ({ by }) =>
    by === 'cancelled'
      ? 'It is cancelled already.'
      : `It is ${by.replace('-', ' ')} in part or whole: credit it instead.`,
  'sent-before': ({ on }) => `It was sent on ${writeDate(on)}.`,
  sent: ({ on }) => `It was sent on ${writeDate(on)}: credit it instead of cancelling it.`,
  'on-its-way': () =>
    'Its e-invoice is on its way, or may have arrived: remove it from the queue while it waits, or credit it instead.',
  unsendable: wordUnsendable,
  replaced: ({ by }) => `A newer version of ${by} took its place: work with that one.`,
  billed: () => 'Stages of this quote are invoiced already: it stays as it is.',
  unbalanced: () => 'Debits and credits must be equal.',
  unexplained: () => 'Enter why the differences are accepted.',
  'in-use': ({ keep }) => `This can't change any more, as documents use it. Keep ${keep}.`,
  used: ({ by }) =>
    `It is used by ${by}, so it can't be deleted. Customers and items can be archived: they stay, but are no longer offered.`,
  'rate-changed': ({ tax, held, now }) =>
    `${tax}, ${held} when this draft was saved; Setup now says ${now}. Take the new rate, or correct Setup.`,
  unusual: ({ day, why }) =>
    `${'discount' in why ? '' : `Is ${writeDate(day)} right? `}${wordUnusual(why)} Change it, or record it anyway.`,
  'before-book': ({ day, began }) =>
    `${writeDate(day)} is before this book begins. Enter a date from ${writeDate(began)} on.`,
  'number-order': ({ day, last }) =>
    `${writeDate(day)} is before ${writeDate(last)}, the day of the last number: numbers and dates go forward together. Enter that day or a later one; if today is later, set the clock of this computer right.`,
  begun: ({ from, rate }) =>
    `Documents use the rate of ${writeDate(from)}: it stays ${rate}. End it on a date, or add a rate from a later date.`,
  circle: () => 'It would be part of itself. Choose another jurisdiction.',
  'book-exists': () => 'This browser holds a book already. Save it to a file first, then open the other one in Setup.',
  'no-book': () => 'No book has begun in this browser.',
  damaged: ({ path, expected, found }) =>
    `The file is damaged${path ? ` at ${path}` : ''}: ${expected} was expected${found ? `, ${found} found` : ''}. Nothing was changed. Use another copy.`,
  foreign: () =>
    'This is not a book archive of Able Ledger. Nothing was changed. Choose a file that was saved in Setup, Book file.',
  'too-new': ({ version, reads }) =>
    `The archive is of version ${version}; this program reads up to ${reads}. Nothing was changed. Use a newer program.`,
  overlap: ({ ours, theirs }) =>
    `${ours} of the book and ${theirs} of the pack would both charge one supply. Choose which of them does.`,
  'too-large': ({ wanted }) => wordWanted(wanted),
  unreadable: ({ file }) => `${file} cannot be read: check its name and place.`,
  unread: ({ why }) => `It could not be read: ${why}`,
  'storage-full': () => 'The disk space of this browser is used up. Nothing was written. Make room, then try again.',
  'storage-failed': ({ found }) =>
    `The browser could not write (${found}). Nothing was written. Try again; if it stays, load the page again.`,
  'newer-book': () =>
    'Another window has opened this book with a newer version of the program. Nothing was written here. Load the page again.',
  stopped: () => 'It was stopped.',
  fault: ({ found }) => `Something went wrong (${found}). Nothing was written. Try again, or load the page again.`,
};

export function wordRefusal(refusal: Refusal): string {
  return WORDS[refusal.code](refusal as never);
}

/** What does not hold in the book that is open, where nothing is taken in. */
export function wordFault(fault: Refusal): string {
  return fault.code === 'damaged' ? `expected ${fault.expected}` : wordRefusal(fault);
}

/** All refusals as one text, for a place that has no fields. */
export function wordRefusals(refusals: readonly Refusal[]): string {
  return [...new Set(refusals.map(wordRefusal))].join(' ');
}
