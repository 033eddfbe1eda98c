import { isIsoDate } from '@/core/kernel/date';
import { allGroups, type EInvoice } from '../model';
import { scaled } from '../numbers';
import { TERMS, type TermId, termName } from '../terms';
import type { Rule } from './rule';

/* What must hold before any rule of the standards can be asked: kinds of values, and how often they occur. Ids are ours. */

const own = (id: string, body: Omit<Rule, 'id' | 'profile' | 'severity'> & Partial<Pick<Rule, 'severity'>>): Rule => ({
  severity: 'error',
  ...body,
  id,
  profile: 'en16931',
});

const NUMBERS: ReadonlySet<string> = new Set(['amount', 'price', 'quantity', 'percent']);

/** Every term of a kind with its values, group by group. */
function* termsOfKind(invoice: EInvoice, wanted: ReadonlySet<TermId>) {
  for (const group of allGroups(invoice))
    for (const key in group.terms) {
      const id = key as TermId;
      const terms = group.terms[id];
      if (terms !== undefined && wanted.has(id)) yield { id, group, terms };
    }
}

const idsOf = (holds: (kind: string, many: boolean) => boolean): ReadonlySet<TermId> =>
  new Set([...TERMS].filter(([, { kind, many }]) => holds(kind, many)).map(([id]) => id));
const NUMBER_TERMS = idsOf((kind) => NUMBERS.has(kind));
const DATE_TERMS = idsOf((kind) => kind === 'date');
const SINGLE_TERMS = idsOf((_, many) => !many);

export const FILE_RULES: readonly Rule[] = [
  own('FORMAT-NUMBER', {
    term: 'BG-22',
    demands:
      'Amounts, prices, quantities and percentages are plain decimal numbers of up to 24 digits and 18 decimals.',
    test: function* ({ invoice }) {
      for (const { id, group, terms } of termsOfKind(invoice, NUMBER_TERMS))
        for (const { value, at } of terms)
          if (scaled(value) === null) {
            const message = `“${value.slice(0, 40)}” is no number: write the ${termName(id)} as 1234.50.`;
            yield { term: id, in: group, at, message };
          }
    },
  }),
  own('FORMAT-DATE', {
    term: 'BT-2',
    demands: 'Days are days of the calendar.',
    test: function* ({ invoice }) {
      for (const { id, group, terms } of termsOfKind(invoice, DATE_TERMS))
        for (const { value, at } of terms)
          if (!isIsoDate(value)) {
            const message = `“${value.slice(0, 40)}” is no day: write the ${termName(id)} as 2026-11-23.`;
            yield { term: id, in: group, at, message };
          }
    },
  }),
  own('FORMAT-ONCE', {
    term: 'BT-1',
    severity: 'warning',
    demands: 'A term that occurs once is given once.',
    test: function* ({ invoice }) {
      for (const { id, group, terms } of termsOfKind(invoice, SINGLE_TERMS))
        if (terms.length > 1) {
          const message = `The ${termName(id)} is given ${terms.length} times: the first one is read.`;
          yield { term: id, in: group, at: terms[1]?.at, message };
        }
    },
  }),
];
