import type { Decision, Moment } from '@/core/book/changes';
import { addDays, endOfMonth, type IsoDate, isIsoDate, laterOf, writeDate } from '@/core/kernel/date';
import { type Minor, negated } from '@/core/kernel/money';
import { accept, type Refusal, refuse } from '@/core/kernel/result';
import type { Account } from '@/core/ledger/account';
import { entryOf, isBalanced, type PostedEntry } from '@/core/ledger/entry';
import { type JournalRepeat, type JournalTemplate, nextJournal, takenBackOn } from '@/core/ledger/journalTemplate';
import { outputAccountOf } from '@/core/ledger/posting/taxAccounts';
import type { Registration } from '@/core/tax/registration';

export interface JournalInput {
  /** ISO date. */
  readonly date: string;
  readonly text: string;
  readonly sides: readonly { readonly account: string; readonly amount: Minor }[];
  /** It is taken back on the first day of the month after it; missing for not. */
  readonly takenBack?: boolean;
  /** It is kept as a template; missing for not. */
  readonly keep?: KeptAs;
}

/** How a journal is kept as a template. */
export interface KeptAs {
  readonly name: string;
  /** It is posted again by itself every so many months; 0 for by hand alone. */
  readonly months: number;
  /** ISO date of the last day on which it may be; empty for no end. */
  readonly until: string;
}

/** What journals are written against. */
export interface JournalMaterial {
  readonly chart: readonly Account[];
  readonly registrations: readonly Registration[];
}

function inputFaults({ text, sides }: JournalInput, chart: readonly Account[]): Refusal[] {
  const refusals: Refusal[] = [];
  if (text.trim() === '') refusals.push({ code: 'missing', path: 'text', wanted: 'say-what-journal-is-for' });
  if (sides.length < 2) refusals.push({ code: 'missing', path: 'sides', wanted: 'two-lines' });
  sides.forEach((side, i) => {
    if (!chart.some((account) => account.code === side.account))
      refusals.push({ code: 'unknown', path: `sides[${i}].account`, wanted: 'choose-account', found: side.account });
    if (side.amount === 0n)
      refusals.push({ code: 'missing', path: `sides[${i}].amount`, wanted: 'give-debit-or-credit' });
  });
  if (!isBalanced(sides)) refusals.push({ code: 'unbalanced', path: 'sides' });
  return refusals;
}

/** The last day on which a tax account of a journal can not be touched any more, as its period is filed; empty for none. */
function filedUntilOf(sides: JournalInput['sides'], { chart, registrations }: JournalMaterial): IsoDate | '' {
  const touched = new Set(sides.map(({ account }) => account));
  return registrations
    .filter((one) => touched.has(outputAccountOf(one, chart)))
    .reduce<IsoDate | ''>((last, { filedUntil }) => (filedUntil > last ? filedUntil : last), '');
}

/** A journal may not touch a tax account in a period that is filed. */
function closedFault(date: IsoDate, sides: JournalInput['sides'], material: JournalMaterial): readonly Refusal[] {
  const filedUntil = filedUntilOf(sides, material);
  return filedUntil === '' || date > filedUntil ? [] : [{ code: 'closed-period', path: 'date', day: date, filedUntil }];
}

type Journal = Pick<JournalInput, 'text' | 'sides' | 'takenBack'>;

/** A journal and, where it is taken back, the one that does. */
function entriesOf(date: IsoDate, { text, sides, takenBack = false }: Journal, moment: Moment): readonly PostedEntry[] {
  const entry = (on: IsoDate, words: string, own: JournalInput['sides']) =>
    entryOf({ id: moment.newId(), date: on, kind: 'journal', text: words, sourceId: '', at: moment.now }, own);
  const posted = entry(date, text, sides);
  return takenBack ? [posted, entry(takenBackOn(date), `${text}, taken back`, mirrored(sides))] : [posted];
}

const mirrored = (sides: JournalInput['sides']): JournalInput['sides'] =>
  sides.map(({ account, amount }) => ({ account, amount: negated(amount) }));

const added = (posted: readonly PostedEntry[]) => ({
  journal: posted.map(({ entry }) => entry),
  journalLines: posted.flatMap(({ lines }) => lines),
});

/** A template out of a journal that was just posted: the next is as many months later, at a month's end where this one was. */
function templateOf({ name, months, until }: KeptAs, date: IsoDate, journal: Journal, id: string): JournalTemplate {
  const repeat: JournalRepeat | null =
    months === 0
      ? null
      : {
          rhythm: { unit: 'month', every: months, lastDay: date === endOfMonth(date) },
          first: date,
          until: isIsoDate(until) ? until : '',
        };
  return {
    id,
    name: name.trim(),
    text: journal.text,
    sides: journal.sides,
    takenBack: journal.takenBack ?? false,
    repeat,
    madeUntil: repeat === null ? '' : date,
    nextDue: repeat === null ? '' : nextJournal(repeat, date),
  };
}

function keepFaults({ name, months, until }: KeptAs): readonly Refusal[] {
  return [
    ...(name.trim() === '' ? [{ code: 'missing', path: 'keep.name', wanted: 'give-a-name' } as const] : []),
    ...(!Number.isInteger(months) || months < 0 || months > 120
      ? [{ code: 'invalid', path: 'keep.months', wanted: 'choose-rhythm' } as const]
      : []),
    ...(until !== '' && !isIsoDate(until)
      ? [{ code: 'invalid', path: 'keep.until', wanted: 'give-a-day', found: until } as const]
      : []),
  ];
}

/**
 * Writes a manual journal, and keeps it as a template where that is asked for. It must balance, and may not touch the tax
 * account in a filed period.
 */
export function postJournal(
  input: JournalInput,
  material: JournalMaterial,
  moment: Moment,
): Decision<{ readonly id: string }> {
  const { date, keep } = input;
  const refusals = [...inputFaults(input, material.chart), ...(keep === undefined ? [] : keepFaults(keep))];
  if (!isIsoDate(date))
    return refuse({ code: 'invalid', path: 'date', wanted: 'give-day-of-journal', found: date }, ...refusals);
  refusals.push(...closedFault(date, input.sides, material));
  if (refusals.length > 0) return refuse(...refusals);
  const journal = { text: input.text.trim(), sides: input.sides, takenBack: input.takenBack ?? false };
  const posted = entriesOf(date, journal, moment);
  const template = keep === undefined ? null : templateOf(keep, date, journal, moment.newId());
  return accept({
    value: { id: posted[0]?.entry.id ?? '' },
    changes: {
      add: added(posted),
      ...(template !== null && { put: { journalTemplates: [template] } }),
      audit: {
        subject: journal.text,
        after: posted.flatMap(({ lines }) => lines.map(({ account, amount }) => ({ account, amount }))),
      },
    },
  });
}

/** Takes a manual journal back on a day of one's choice, not before its own. */
export function reverseJournal(
  { entry, lines }: PostedEntry,
  on: string,
  material: JournalMaterial,
  moment: Moment,
): Decision<{ readonly id: string }> {
  if (entry.kind !== 'journal') return refuse({ code: 'not-found', path: 'entry' });
  if (!isIsoDate(on)) return refuse({ code: 'invalid', path: 'date', wanted: 'give-a-day', found: on });
  if (on < entry.date) return refuse({ code: 'invalid', path: 'date', wanted: 'day-not-before-journal', found: on });
  return postJournal({ date: on, text: `${entry.text}, taken back`, sides: mirrored(lines) }, material, moment);
}

/**
 * Posts a journal that repeats for its next day. Where that day is locked by now, or its tax period is filed, it is dated the
 * first day that is open, and says which one it is for.
 */
export function postRepeat(
  template: JournalTemplate | undefined,
  material: JournalMaterial & { readonly lockedUntil: IsoDate | '' },
  moment: Moment,
): Decision<JournalTemplate> {
  const due = template?.nextDue ?? '';
  if (template === undefined || template.repeat === null || due === '' || due > moment.today)
    return refuse({ code: 'not-found', path: 'template' });
  const { lockedUntil, chart } = material;
  const gone = template.sides.find(({ account }) => !chart.some(({ code }) => code === account));
  if (gone !== undefined)
    return refuse({ code: 'unknown', path: 'account', wanted: 'choose-account', found: gone.account });
  const date = [lockedUntil, filedUntilOf(template.sides, material)].reduce<IsoDate>(
    (open, until) => (until === '' ? open : laterOf(open, addDays(until, 1))),
    due,
  );
  const text = date === due ? template.text : `${template.text}, of ${writeDate(due)}`;
  const posted = entriesOf(date, { ...template, text }, moment);
  const value = { ...template, madeUntil: due, nextDue: nextJournal(template.repeat, due) };
  return accept({
    value,
    changes: {
      add: added(posted),
      put: { journalTemplates: [value] },
      audit: { subject: template.name, about: [template.id], after: { date, due } },
    },
  });
}

/** Ends the repeating of a template; it can still be posted by hand. */
export function endRepeat(template: JournalTemplate | undefined): Decision<JournalTemplate> {
  if (template === undefined) return refuse({ code: 'not-found', path: 'template' });
  const value: JournalTemplate = { ...template, repeat: null, nextDue: '' };
  return accept({
    value,
    changes: {
      put: { journalTemplates: [value] },
      audit: { subject: template.name, about: [template.id], before: { nextDue: template.nextDue } },
    },
  });
}
