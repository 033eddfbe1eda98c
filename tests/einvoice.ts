import { type Content, figuresOf } from '@/core/documents/content';
import { checkEInvoice, checkFile } from '@/core/einvoice/check';
import { einvoiceOf } from '@/core/einvoice/fromDocument';
import { type EInvoice, type Group, group, groupsOf, plainModel, type TermInput, textOf } from '@/core/einvoice/model';
import { SPECIFICATION } from '@/core/einvoice/rules/peppol';
import type { Profile } from '@/core/einvoice/rules/rule';
import { type ReadInvoice, readEInvoiceText, type Syntax, writeEInvoice } from '@/core/einvoice/syntax';
import type { GroupId, TermId } from '@/core/einvoice/terms';
import type { XmlNode } from '@/core/einvoice/xml/node';
import { writeMoney } from '@/core/kernel/money';

/* A small valid e-invoice and single changes to it, by which rules are shown to hold and to fail. */

type Terms = Partial<Record<TermId, TermInput>>;

/** Terms by which one line in category S of 23 % becomes another case. */
export interface Case {
  readonly category: string;
  readonly rate: string;
  readonly tax: string;
  readonly reason: Terms;
}

export const STANDARD: Case = { category: 'S', rate: '23', tax: '23.00', reason: {} };

/** An invoice of one line of 100.00 that every rule of both profiles holds for. */
export function baseInvoice(how: Case = STANDARD): EInvoice {
  const { category, rate, tax, reason } = how;
  const gross = (100 + Number(tax)).toFixed(2);
  const outside = category === 'O';
  return group(
    'ROOT',
    {
      'BT-1': 'INV-1',
      'BT-2': '2026-01-15',
      'BT-3': '380',
      'BT-5': 'EUR',
      'BT-9': '2026-02-14',
      'BT-10': 'R-7',
      'BT-23': 'urn:fdc:peppol.eu:2017:poacc:billing:01:1.0',
      'BT-24': SPECIFICATION,
      'BT-72': '2026-01-15',
      'BT-106': '100.00',
      'BT-109': '100.00',
      'BT-110': tax,
      'BT-112': gross,
      'BT-115': gross,
    },
    [
      group(
        'BG-4',
        {
          'BT-27': 'Corran Point Instruments Ltd (sample)',
          'BT-30': '000000',
          'BT-31': outside ? '' : 'IE7654321G',
          'BT-34': { value: 'IE7654321G', scheme: '9935' },
        },
        [group('BG-5', { 'BT-37': 'Galway', 'BT-40': 'IE' })],
      ),
      group(
        'BG-7',
        {
          'BT-44': 'Reederei Nordlicht Forschung GmbH',
          'BT-48': outside ? '' : 'DE812345673',
          'BT-49': { value: 'DE812345673', scheme: '9930' },
        },
        [group('BG-8', { 'BT-52': 'Bremerhaven', 'BT-55': 'DE' })],
      ),
      group('BG-15', { 'BT-77': 'Bremerhaven', 'BT-80': 'DE' }),
      group('BG-16', { 'BT-81': '58' }, [group('BG-17', { 'BT-84': 'IE31CPTB99000012345678' })]),
      group('BG-23', {
        'BT-116': '100.00',
        'BT-117': tax,
        'BT-118': category,
        'BT-119': outside ? '' : rate,
        ...reason,
      }),
      group('BG-25', {
        'BT-126': '1',
        'BT-129': '2',
        'BT-130': 'C62',
        'BT-131': '100.00',
        'BT-146': '50',
        'BT-151': category,
        'BT-152': outside ? '' : rate,
        'BT-153': 'Tide gauge',
      }),
    ],
  );
}

export type Change = (invoice: EInvoice) => EInvoice;

/** Sets terms of a group; '' takes one out. */
export function withTerms(of: Group, terms: Terms): Group {
  const kept = { ...of.terms };
  for (const [id, input] of Object.entries(terms) as [TermId, TermInput][]) {
    delete kept[id];
    Object.assign(kept, group(of.id, { [id]: input }).terms);
  }
  return { ...of, terms: kept };
}

const withGroups = (of: Group, id: GroupId, groups: readonly Group[]): Group => ({
  ...of,
  groups: { ...of.groups, [id]: [...groups] },
});

/** Changes terms of the document. */
export const set =
  (terms: Terms): Change =>
  (invoice) =>
    withTerms(invoice, terms);

/** Changes terms of every group at the end of a way of groups, such as `['BG-4', 'BG-5']`. */
export const setIn =
  (way: readonly GroupId[], terms: Terms): Change =>
  (invoice) => {
    const [id, ...rest] = way;
    if (id === undefined) return withTerms(invoice, terms);
    return withGroups(invoice, id, groupsOf(invoice, id).map(setIn(rest, terms)));
  };

/** Takes all groups of an id out of those at the end of a way. */
export const dropIn =
  (way: readonly GroupId[], id: GroupId): Change =>
  (invoice) => {
    const [first, ...rest] = way;
    if (first === undefined) return withGroups(invoice, id, []);
    return withGroups(invoice, first, groupsOf(invoice, first).map(dropIn(rest, id)));
  };

/** Adds a group to those at the end of a way. */
export const addIn =
  (way: readonly GroupId[], child: Group): Change =>
  (invoice) => {
    const [first, ...rest] = way;
    if (first === undefined) return withGroups(invoice, child.id, [...groupsOf(invoice, child.id), child]);
    return withGroups(invoice, first, groupsOf(invoice, first).map(addIn(rest, child)));
  };

export const all =
  (...changes: readonly Change[]): Change =>
  (invoice) =>
    changes.reduce((now, change) => change(now), invoice);

/** Ids of the rules that a model breaks. */
export const broken = (invoice: EInvoice, profile: Profile = 'peppol'): string[] => [
  ...new Set(checkEInvoice(invoice, profile).map(({ rule }) => rule)),
];

/** A text read back, which must be possible. */
export function readBack(text: string): ReadInvoice {
  const read = readEInvoiceText(text);
  if (!read.ok) throw new Error(JSON.stringify(read.refusals));
  return read.value;
}

/** Ids of the rules that the file of a model breaks, its text changed by hand where the model can't say it. */
export function brokenInFile(
  invoice: EInvoice,
  syntax: Syntax = 'ubl',
  change: (xml: string) => string = (xml) => xml,
): string[] {
  return [
    ...new Set(checkFile(readBack(change(writeEInvoice(invoice, syntax))), 'peppol').findings.map(({ rule }) => rule)),
  ];
}

/**
 * The e-invoice of a document, after looking that it keeps every rule, that both syntaxes read back to the same model,
 * and that its totals are the document's.
 */
export function soundInvoiceOf(content: Content): EInvoice {
  const figures = figuresOf(content);
  const invoice = einvoiceOf(content, figures);
  expect(checkEInvoice(invoice, 'peppol')).toEqual([]);
  for (const syntax of ['ubl', 'cii'] as const) {
    const read = readBack(writeEInvoice(invoice, syntax));
    expect(checkFile(read).findings).toEqual([]);
    expect(plainModel(read.invoice)).toEqual(plainModel(invoice));
  }
  const { totals, currency } = figures;
  const stated = (['BT-112', 'BT-110', 'BT-109'] as const).map((id) => textOf(invoice, id));
  expect(stated).toEqual([totals.gross, totals.taxAmount, totals.net].map((amount) => writeMoney(amount, currency)));
  return invoice;
}

/** Every element of a tree, in the order of the file. */
export const elementsOf = (root: XmlNode): readonly XmlNode[] => [root, ...root.children.flatMap(elementsOf)];
