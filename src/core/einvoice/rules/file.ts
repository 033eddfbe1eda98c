import { isIsoDate } from '@/core/kernel/date';
import type { Group, Term } from '../model';
import { scaled } from '../numbers';
import { type GroupId, groupName, TERMS, type TermId, termName } from '../terms';
import type { Rule } from './rule';

/* What must hold before any rule of the standards can be asked: kinds of values, and how often they occur. Ids are ours. */

const own = (id: string, body: Omit<Rule, 'id' | 'profile' | 'severity'> & Partial<Pick<Rule, 'severity'>>): Rule => ({
  severity: 'error',
  ...body,
  id,
  profile: 'en16931',
});

const NUMBERS: ReadonlySet<string> = new Set(['amount', 'price', 'quantity', 'percent']);

/** Values of terms of a kind for which something is wrong, one by one. */
function* wrongOnes(
  groups: readonly Group[],
  wanted: ReadonlySet<TermId>,
  isWrong: (one: Term, all: readonly Term[]) => boolean,
) {
  for (const group of groups)
    for (const key in group.terms) {
      const id = key as TermId;
      const all = group.terms[id];
      if (all === undefined || !wanted.has(id)) continue;
      for (const one of all) if (isWrong(one, all)) yield { id, group, one, all };
    }
}

const idsOf = (holds: (kind: string, many: boolean) => boolean): ReadonlySet<TermId> =>
  new Set([...TERMS].filter(([, { kind, many }]) => holds(kind, many)).map(([id]) => id));
const NUMBER_TERMS = idsOf((kind) => NUMBERS.has(kind));
const DATE_TERMS = idsOf((kind) => kind === 'date');
const SINGLE_TERMS = idsOf((_, many) => !many);

/** Groups that the document, or the group they stand in, has once (EN 16931-1, cardinality 1..1 and 0..1). */
const SINGLE_GROUPS: readonly GroupId[] = [
  'BG-4',
  'BG-5',
  'BG-7',
  'BG-8',
  'BG-10',
  'BG-11',
  'BG-12',
  'BG-14',
  'BG-15',
  'BG-18',
  'BG-26',
];

export const FILE_RULES: readonly Rule[] = [
  own('FORMAT-NUMBER', {
    term: 'BG-22',
    demands:
      'Amounts, prices, quantities and percentages are plain decimal numbers of up to 24 digits and 18 decimals.',
    test: function* ({ groups }) {
      for (const { id, group, one } of wrongOnes(groups, NUMBER_TERMS, ({ value }) => scaled(value) === null)) {
        const message = `“${one.value.slice(0, 40)}” is no number: write the ${termName(id)} as 1234.50.`;
        yield { term: id, in: group, at: one.at, message };
      }
    },
  }),
  own('FORMAT-DATE', {
    term: 'BT-2',
    demands: 'Days are days of the calendar.',
    test: function* ({ groups }) {
      for (const { id, group, one } of wrongOnes(groups, DATE_TERMS, ({ value }) => !isIsoDate(value))) {
        const message = `“${one.value.slice(0, 40)}” is no day: write the ${termName(id)} as 2026-11-23.`;
        yield { term: id, in: group, at: one.at, message };
      }
    },
  }),
  own('FORMAT-ONCE', {
    term: 'BT-1',
    demands: 'A term or group that occurs once is given once.',
    test: function* ({ groups }) {
      for (const { id, group, one, all } of wrongOnes(groups, SINGLE_TERMS, (each, given) => each === given[1])) {
        const message = `The ${termName(id)} is given ${all.length} times: leave one.`;
        yield { term: id, in: group, at: one.at, message };
      }
      for (const group of groups)
        for (const id of SINGLE_GROUPS) {
          const all = group.groups[id] ?? [];
          const second = all[1];
          if (second !== undefined)
            yield { term: id, in: second, message: `The ${groupName(id)} is given ${all.length} times: leave one.` };
        }
    },
  }),
];
