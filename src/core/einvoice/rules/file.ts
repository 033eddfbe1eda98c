import { isIsoDate } from '@/core/kernel/date';
import { allGroups } from '../model';
import { scaled } from '../numbers';
import { TERMS, type TermId, termName } from '../terms';
import type { Rule } from './rule';

/* What must hold before any rule of the standards can be asked: kinds of values, and how often they occur. Ids are ours. */

const own = (id: string, body: Omit<Rule, 'id' | 'profile' | 'severity'>): Rule => ({
  ...body,
  id,
  profile: 'en16931',
  severity: 'error',
});

const NUMBERS: ReadonlySet<string> = new Set(['amount', 'price', 'quantity', 'percent']);

export const FILE_RULES: readonly Rule[] = [
  own('FORMAT-NUMBER', {
    term: 'BG-22',
    demands:
      'Amounts, prices, quantities and percentages are plain decimal numbers of up to 24 digits and 18 decimals.',
    test: function* ({ invoice }) {
      for (const group of allGroups(invoice))
        for (const [id, terms] of Object.entries(group.terms) as [TermId, (typeof group.terms)[TermId]][])
          if (NUMBERS.has(TERMS.get(id)?.kind ?? ''))
            for (const { value, at } of terms ?? [])
              if (scaled(value) === null)
                yield {
                  term: id,
                  in: group,
                  at,
                  message: `“${value.slice(0, 40)}” is no number: write the ${termName(id)} as 1234.50.`,
                };
    },
  }),
  own('FORMAT-DATE', {
    term: 'BT-2',
    demands: 'Days are days of the calendar.',
    test: function* ({ invoice }) {
      for (const group of allGroups(invoice))
        for (const [id, terms] of Object.entries(group.terms) as [TermId, (typeof group.terms)[TermId]][])
          if (TERMS.get(id)?.kind === 'date')
            for (const { value, at } of terms ?? [])
              if (!isIsoDate(value))
                yield {
                  term: id,
                  in: group,
                  at,
                  message: `“${value.slice(0, 40)}” is no day: write the ${termName(id)} as 2026-11-23.`,
                };
    },
  }),
  own('FORMAT-ONCE', {
    term: 'BT-1',
    demands: 'A term that occurs once is given once.',
    test: function* ({ invoice }) {
      for (const group of allGroups(invoice))
        for (const [id, terms] of Object.entries(group.terms) as [TermId, (typeof group.terms)[TermId]][])
          if (terms !== undefined && terms.length > 1 && TERMS.get(id)?.many !== true)
            yield {
              term: id,
              in: group,
              at: terms[1]?.at,
              message: `The ${termName(id)} is given ${terms.length} times: leave one.`,
            };
    },
  }),
];
