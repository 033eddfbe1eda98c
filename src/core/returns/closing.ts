import type { Content } from '@/core/documents/content';
import type { Draft } from '@/core/documents/draft';
import type { IssuedDocument } from '@/core/documents/issued';
import type { Currency } from '@/core/kernel/currency';
import { writeDate } from '@/core/kernel/date';
import { type Minor, minus } from '@/core/kernel/money';
import type { Certificate } from '@/core/parties/certificate';
import type { Customer } from '@/core/parties/customer';
import type { Receipt } from '@/core/settlement/receipt';
import type { Withheld } from '@/core/settlement/withholding';
import type { Registration } from '@/core/tax/registration';
import type { Span } from './calendar';
import type { TaxEntry } from './taxEntry';

/** What is looked at before a period is closed, in the order in which it is gone through. */
export type ClosingStep =
  | 'drafts'
  | 'numbers'
  | 'exemptions'
  | 'withholding'
  | 'e-invoices'
  | 'on-account'
  | 'evidence'
  | 'late';

/** Something that should be looked at. */
export interface ClosingItem {
  readonly kind: 'draft' | 'document' | 'customer' | 'receipt';
  readonly id: string;
  readonly name: string;
  /** What is with it, in words. */
  readonly detail: string;
  readonly amount: { readonly amount: Minor; readonly currency: Currency } | null;
}

export interface ClosingCheck {
  readonly step: ClosingStep;
  readonly items: readonly ClosingItem[];
}

export interface ClosingMaterial extends Span {
  readonly registration: Registration;
  readonly home: Currency;
  /** Drafts whose tax point lies in the period, with their customers' names. */
  readonly drafts: readonly { readonly draft: Draft; readonly customer: string }[];
  /** Documents that the return reports. */
  readonly documents: readonly IssuedDocument[];
  readonly entries: readonly TaxEntry[];
  readonly customers: ReadonlyMap<string, Pick<Customer, 'taxNumbers'>>;
  readonly certificates: readonly Certificate[];
  /** Kept back in the period, and standing. */
  readonly withheld: readonly Withheld[];
  /** What e-invoices of the period still wait for, in words, by the id of their document. */
  readonly unanswered: ReadonlyMap<string, string>;
  /** Money on account that came in until the end of the period. */
  readonly onAccount: readonly Receipt[];
  /** Documents of the period that have files kept with them. */
  readonly withFiles: ReadonlySet<string>;
}

/** Without tax because of who the customer is, or where the goods went (UNCL 5305: AE, K, G): papers must show it. */
export function restsOnEvidence({ taxes }: Pick<Content, 'taxes'>): boolean {
  return taxes.some(({ category }) => category === 'AE' || category === 'K' || category === 'G');
}

const ofDocument = (
  { id, number, customerName }: Pick<IssuedDocument, 'id' | 'number' | 'customerName'>,
  detail: string,
): ClosingItem => ({ kind: 'document', id, name: number, detail: `${customerName}, ${detail}`, amount: null });

/** Documents that charge no tax because of the customer's number, where the registry never said that it is valid. */
function unverified({ documents, customers }: ClosingMaterial): readonly ClosingItem[] {
  return documents.flatMap((document) => {
    const { content, customerId, cancelled } = document;
    if (cancelled !== null || !content.taxes.some(({ category }) => category === 'AE' || category === 'K')) return [];
    const number = content.buyer.taxNumber;
    if (number === '') return [ofDocument(document, 'no tax number')];
    const check = customers.get(customerId)?.taxNumbers.find((one) => one.number === number)?.check ?? null;
    if (check?.result === 'valid') return [];
    return [ofDocument(document, `${number} ${check?.result === 'invalid' ? 'is not valid' : 'is not verified'}`)];
  });
}

/** Exempt sales without a certificate that was valid on their tax point. */
function unexempt({ entries, certificates }: ClosingMaterial): readonly ClosingItem[] {
  const known = new Map(certificates.map((one) => [one.number, one]));
  const found = new Map<string, ClosingItem>();
  for (const { kind, certificate, taxPoint, documentId, documentNumber, customerName } of entries) {
    if (kind !== 'exempt' || certificate === '') continue;
    const paper = known.get(certificate);
    if (paper !== undefined && (paper.until === '' || paper.until >= taxPoint)) continue;
    const detail =
      paper === undefined ? `certificate ${certificate} is not on file` : `certificate ${certificate} lapsed`;
    found.set(documentId, ofDocument({ id: documentId, number: documentNumber, customerName }, detail));
  }
  return [...found.values()];
}

function uncertified({ withheld, home }: ClosingMaterial): readonly ClosingItem[] {
  return withheld.flatMap((one): readonly ClosingItem[] => {
    const missing = minus(one.home, one.certified);
    if (!one.needsCertificate || missing <= 0n) return [];
    const { documentId, documentNumber, customerName, typeName, date } = one;
    return [
      {
        ...ofDocument(
          { id: documentId, number: documentNumber, customerName },
          `${typeName} withheld ${writeDate(date)}`,
        ),
        amount: { amount: missing, currency: home },
      },
    ];
  });
}

/** Goods that went abroad without tax, and no paper of their transport kept with the invoice. */
function withoutEvidence({ documents, withFiles }: ClosingMaterial): readonly ClosingItem[] {
  return documents.flatMap((document) => {
    const { id, kind, content, cancelled } = document;
    const moved = content.lines.some(
      ({ supply, tax }) =>
        supply === 'goods' &&
        content.taxes.some(({ code, category }) => code === tax && (category === 'K' || category === 'G')),
    );
    if (!moved || kind === 'credit-note' || cancelled !== null || withFiles.has(id)) return [];
    return [ofDocument(document, 'no evidence of transport')];
  });
}

function lateOnes({ entries }: ClosingMaterial): readonly ClosingItem[] {
  const late = new Map<string, ClosingItem>();
  for (const entry of entries)
    if (entry.late)
      late.set(
        entry.documentId,
        ofDocument(
          { id: entry.documentId, number: entry.documentNumber, customerName: entry.customerName },
          `tax point ${writeDate(entry.taxPoint)}, whose own return was filed`,
        ),
      );
  return [...late.values()];
}

/** What should be looked at before a period is filed; a step without items is done. */
export function closingChecks(material: ClosingMaterial): readonly ClosingCheck[] {
  const { drafts, documents, unanswered, onAccount, registration } = material;
  const steps: Readonly<Record<ClosingStep, readonly ClosingItem[]>> = {
    drafts: drafts.map(({ draft, customer }) => ({
      kind: 'draft',
      id: draft.id,
      name: `Draft for ${customer || 'no customer yet'}`,
      detail: `dated ${writeDate(draft.issueDate as Span['start'])}`,
      amount: null,
    })),
    numbers: unverified(material),
    exemptions: unexempt(material),
    withholding: uncertified(material),
    'e-invoices': documents.flatMap((document) => {
      const waits = unanswered.get(document.id);
      return waits === undefined ? [] : [ofDocument(document, waits)];
    }),
    'on-account':
      registration.basis === 'on-payment'
        ? onAccount.map(({ id, number, valueDate, open, currency }) => ({
            kind: 'receipt',
            id,
            name: number,
            detail: `received ${writeDate(valueDate)}, settles nothing yet: no tax of it falls due`,
            amount: { amount: open, currency },
          }))
        : [],
    evidence: withoutEvidence(material),
    late: lateOnes(material),
  };
  return (Object.keys(steps) as ClosingStep[]).map((step) => ({ step, items: steps[step] }));
}
