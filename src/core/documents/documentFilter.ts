import * as yup from 'yup';
import type { IsoDate } from '@/core/kernel/date';
import { neededText, optionalText } from '@/core/kernel/validate';
import { wordsHold } from '@/core/kernel/words';
import { amountKeyOf, DOCUMENT_STATES, type DocumentState, type IssuedDocument, isLapsed, isOverdue } from './issued';
import { DOCUMENT_KINDS, type DocumentKind } from './kinds';

/** What a list of documents is narrowed to. Empty texts and lists narrow nothing. */
export interface DocumentFilter {
  readonly kinds: readonly DocumentKind[];
  /** `overdue` and `lapsed` follow from the day. */
  readonly state: DocumentState | 'overdue' | 'lapsed' | 'open' | '';
  readonly customerId: string;
  /** ISO dates of issue, both included. */
  readonly from: string;
  readonly until: string;
  /** Currency units; amounts are compared without sign, whatever the currency. */
  readonly least: string;
  readonly most: string;
  readonly tag: string;
}

export const NO_FILTER: DocumentFilter = {
  kinds: [],
  state: '',
  customerId: '',
  from: '',
  until: '',
  least: '',
  most: '',
  tag: '',
};

/** States that can be asked for, with those that depend on the day. */
export const FILTER_STATES = ['open', 'overdue', 'lapsed', ...DOCUMENT_STATES] as const;

/** True when a document is within the filter on a day. `parts` are those of a search; see `searchParts`. */
export function fits(
  document: IssuedDocument,
  filter: DocumentFilter,
  parts: readonly string[],
  today: IsoDate,
): boolean {
  const { kinds, state, customerId, from, until, least, most, tag } = filter;
  if (kinds.length > 0 && !kinds.includes(document.kind)) return false;
  if (customerId !== '' && document.customerId !== customerId) return false;
  if (from !== '' && document.issueDate < from) return false;
  if (until !== '' && document.issueDate > until) return false;
  if (least !== '' && document.amountKey < amountKeyOf(least)) return false;
  if (most !== '' && document.amountKey > amountKeyOf(most)) return false;
  if (tag !== '' && !document.tags.includes(tag)) return false;
  if (state === 'overdue' && !isOverdue(document, today)) return false;
  if (state === 'lapsed' && !isLapsed(document, today)) return false;
  if (state === 'open' && document.isOpen === 0) return false;
  if (state !== '' && !['overdue', 'lapsed', 'open'].includes(state) && document.state !== state) return false;
  return wordsHold(document.words, parts);
}

/** Columns of the index that may be shown or left out; number and amount always stand. */
export const INDEX_COLUMNS = ['customer', 'issued', 'due', 'state', 'open', 'reference', 'tags', 'period'] as const;
export type IndexColumnName = (typeof INDEX_COLUMNS)[number];

/** A filter with a name, and the columns it is looked at with. */
export interface SavedView {
  readonly id: string;
  readonly name: string;
  readonly query: string;
  readonly filter: DocumentFilter;
  readonly columns: readonly IndexColumnName[];
}

export const savedViewSchema = yup.object({
  id: neededText('give-id'),
  name: neededText('give-name-of-view', 60),
  query: optionalText(200),
  filter: yup.object({
    kinds: yup
      .array()
      .of(
        yup
          .string()
          .oneOf([...DOCUMENT_KINDS])
          .defined(),
      )
      .defined(),
    state: yup
      .string()
      .oneOf(['', ...FILTER_STATES])
      .defined(),
    customerId: optionalText(80),
    from: optionalText(10),
    until: optionalText(10),
    least: optionalText(24),
    most: optionalText(24),
    tag: optionalText(60),
  }),
  columns: yup
    .array()
    .of(
      yup
        .string()
        .oneOf([...INDEX_COLUMNS])
        .defined(),
    )
    .defined(),
});
