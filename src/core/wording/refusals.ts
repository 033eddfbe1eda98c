import { isIsoDate, writeDate } from '@/core/kernel/date';
import type { Refusal, RefusalCode } from '@/core/kernel/result';

const day = (text: string | undefined): string => (isIsoDate(text) ? writeDate(text) : (text ?? ''));

/** What a refusal says to the person at the screen: what is wrong and what to do. */
const WORDS: Readonly<Record<RefusalCode, (refusal: Refusal) => string>> = {
  invalid: ({ expected, found }) => (found === undefined ? `${expected}` : `${expected} (“${found}” is not that)`),
  missing: ({ expected }) => expected ?? 'Fill this in.',
  unknown: ({ expected }) => expected ?? 'This is not known here.',
  'not-found': ({ expected }) =>
    expected
      ? `This is not ${expected} any more; look at the list again.`
      : 'It is gone: another tab has deleted or issued it.',
  duplicate: ({ found }) => `“${found}” is there already; choose another or change that one.`,
  stale: () => 'Another tab has changed this in the meantime. Load it again; what you see here was not kept.',
  'already-issued': () => 'This draft was issued or deleted in another tab.',
  'already-credited': ({ found }) => `It was credited already by ${found}.`,
  'already-filed': () => 'This period is filed already.',
  'not-ended': ({ expected, found }) => `${found} runs until ${expected}; it can be filed after that day.`,
  'earlier-open': ({ expected }) => `File ${expected} first: periods are filed in order.`,
  'closed-period': ({ expected, found }) => `${day(found)} lies in a filed period. Choose ${expected}.`,
  'before-registration': ({ expected, found }) =>
    `${day(found)} is before this book's first tax period. Give ${expected}.`,
  'check-failed': ({ expected }) => expected ?? 'A check does not hold.',
  'over-allocated': ({ found }) => `This is more than is open on ${found}. Give no more than the open amount.`,
  'over-credited': ({ expected }) =>
    expected ? `This is more than is left to credit: ${expected}.` : 'This is more than is left of the line.',
  overrun: ({ expected, found }) =>
    `This bills more than ${expected} quoted for: ${found}. Change it, or agree to bill more.`,
  settled: ({ found }) =>
    found === 'cancelled' ? 'It is cancelled already.' : `It is ${found} in part or whole: credit it instead.`,
  'sent-before': ({ found }) => `It went out on ${found}.`,
  sent: ({ found }) => `It went out on ${found}: credit it instead of cancelling it.`,
  'on-its-way': () =>
    'Its e-invoice is on its way, or may have arrived: take it out of the queue while it waits, or credit it instead.',
  replaced: ({ found }) => `A newer version of ${found} took its place: work with that one.`,
  billed: () => 'Stages of this quote are invoiced already: it stays as it is.',
  unbalanced: () => 'Debits and credits must be equal.',
  unexplained: ({ expected }) => expected ?? 'Say why.',
  'in-use': ({ expected }) => `This can't change any more, as documents rest on it. Keep ${day(expected)}.`,
  'rate-changed': ({ expected, found }) =>
    `${found} when this draft was kept; the set-up now says ${expected}. Take the new rate, or mend the set-up.`,
  unusual: ({ expected, found }) => `Is ${day(found)} right? ${expected} Change it, or record it all the same.`,
  'before-book': ({ expected, found }) => `${day(found)} is before this book begins. Give ${expected}.`,
  'number-order': ({ expected, found }) =>
    `${day(found)} is before ${day(expected)}, the day of the last number: numbers and days go forward together. Give that day or a later one; if today is later, set the clock of this computer right.`,
  begun: ({ expected, found }) =>
    `Documents rest on the rate of ${day(found)}: it stays ${expected}. End it with a last day, or add a rate from a later day.`,
  circle: () => 'It would lie in itself. Choose another territory.',
  'book-exists': () => 'This browser holds a book already. Save it to a file first, then open the other one in Setup.',
  'no-book': () => 'No book has begun in this browser.',
  damaged: ({ path, expected, found }) =>
    `The file is damaged${path ? ` at ${path}` : ''}: ${expected} was expected${found ? `, ${found} found` : ''}. Nothing was changed. Use another copy.`,
  foreign: () =>
    'This is not a book archive of Able Ledger. Nothing was changed. Choose a file that was saved in Setup, Book file.',
  'too-new': ({ expected, found }) =>
    `The archive is of version ${found}; this program reads up to ${expected}. Nothing was changed. Use a newer program.`,
  overlap: ({ expected, found }) =>
    `${found} of the book and ${expected} of the pack would both charge one supply. Choose which of them does.`,
  'too-large': ({ expected }) => expected ?? 'The file is larger than is read. Nothing was changed.',
  'storage-full': () => 'The disk space of this browser is used up. Nothing was written. Make room, then try again.',
  'storage-failed': ({ found }) =>
    `The browser could not write${found ? ` (${found})` : ''}. Nothing was written. Try again; if it stays, load the page again.`,
  'newer-book': () =>
    'Another window has opened this book with a newer version of the program. Nothing was written here. Load the page again.',
  fault: ({ found }) => `The program met a fault (${found}). Nothing was written. Try again, or load the page again.`,
};

export function wordRefusal(refusal: Refusal): string {
  return WORDS[refusal.code](refusal);
}

/** All refusals as one text, for a place that has no fields. */
export function wordRefusals(refusals: readonly Refusal[]): string {
  return [...new Set(refusals.map(wordRefusal))].join(' ');
}
