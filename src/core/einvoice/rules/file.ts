import { isIsoDate } from '@/core/kernel/date';
import type { Group, Term } from '../model';
import { scaled } from '../numbers';
import { type GroupId, groupName, TERMS, type TermId, termName } from '../terms';
import type { Rule, Seen } from './rule';

/* What must hold before any rule of the standards can be asked: kinds of values, and how often they occur. Ids are ours. */

const own = (id: string, body: Omit<Rule, 'id' | 'profile' | 'severity'> & Partial<Pick<Rule, 'severity'>>): Rule => ({
  severity: 'error',
  ...body,
  id,
  profile: 'en16931',
});

const NUMBERS: ReadonlySet<string> = new Set(['amount', 'price', 'quantity', 'percent']);

/** What a value is read as, and whether its term has one only. */
const KINDS: ReadonlyMap<TermId, { readonly is: 'number' | 'day' | 'text'; readonly single: boolean }> = new Map(
  [...TERMS].map(([id, { kind, many }]) => [
    id,
    { is: NUMBERS.has(kind) ? 'number' : kind === 'date' ? 'day' : 'text', single: !many },
  ]),
);

/** A value with which something is wrong, with all that its term has in this group. */
interface Wrong {
  readonly id: TermId;
  readonly group: Group;
  readonly one: Term;
  readonly all: readonly Term[];
}

interface WrongValues {
  readonly numbers: readonly Wrong[];
  readonly days: readonly Wrong[];
  /** Second values of what is given once. */
  readonly seconds: readonly Wrong[];
}

const looked = new WeakMap<Seen, WrongValues>();

/** Found in one look at every value, for the three rules that ask. */
function wrongValues(seen: Seen): WrongValues {
  const known = looked.get(seen);
  if (known !== undefined) return known;
  const numbers: Wrong[] = [];
  const days: Wrong[] = [];
  const seconds: Wrong[] = [];
  for (const group of seen.groups)
    for (const key in group.terms) {
      const id = key as TermId;
      const all = group.terms[id] ?? [];
      const kind = KINDS.get(id);
      if (kind === undefined) continue;
      const { is, single } = kind;
      for (const one of all) {
        if (is === 'number' && scaled(one.value) === null) numbers.push({ id, group, one, all });
        if (is === 'day' && !isIsoDate(one.value)) days.push({ id, group, one, all });
      }
      const second = all[1];
      if (single && second !== undefined) seconds.push({ id, group, one: second, all });
    }
  const made = { numbers, days, seconds };
  looked.set(seen, made);
  return made;
}

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
    test: function* (seen) {
      for (const { id, group, one } of wrongValues(seen).numbers) {
        const message = `“${one.value.slice(0, 40)}” is no number: write the ${termName(id)} as 1234.50.`;
        yield { term: id, in: group, at: one.at, message };
      }
    },
  }),
  own('FORMAT-DATE', {
    term: 'BT-2',
    demands: 'Days are days of the calendar.',
    test: function* (seen) {
      for (const { id, group, one } of wrongValues(seen).days) {
        const message = `“${one.value.slice(0, 40)}” is no day: write the ${termName(id)} as 2026-11-23.`;
        yield { term: id, in: group, at: one.at, message };
      }
    },
  }),
  own('FORMAT-ONCE', {
    term: 'BT-1',
    demands: 'A term or group that occurs once is given once.',
    test: function* (seen) {
      for (const { id, group, one, all } of wrongValues(seen).seconds) {
        const message = `The ${termName(id)} is given ${all.length} times: leave one.`;
        yield { term: id, in: group, at: one.at, message };
      }
      for (const group of seen.groups)
        for (const id of SINGLE_GROUPS) {
          const all = group.groups[id] ?? [];
          const second = all[1];
          if (second !== undefined)
            yield { term: id, in: second, message: `The ${groupName(id)} is given ${all.length} times: leave one.` };
        }
    },
  }),
];
