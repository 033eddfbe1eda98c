import { isTerms, termsSaying } from '@/core/parties/terms';
import type { ContentAdjustment, ContentLine } from './content';
import { blankDraft, type Draft, type DraftAdjustment, type DraftLine, type DraftOrigin, TYPED_CLASS } from './draft';
import type { IssuedDocument } from './issued';

/** A discount or an allowance as it is typed. */
function figureText(figure: ContentLine['discount'] | Pick<ContentAdjustment, 'percent' | 'amount'>): string {
  if (figure === undefined) return '';
  if ('percent' in figure && figure.percent !== undefined) return `${figure.percent}%`;
  return 'amount' in figure ? (figure.amount ?? '') : '';
}

/** A frozen line as it was typed. A line of version 2 does not say its class and keeps its code. */
export function draftLineOf(line: ContentLine): DraftLine {
  return {
    id: line.id,
    itemId: line.itemId ?? '',
    ...(line.itemCode && { itemCode: line.itemCode }),
    ...(line.deferral && { deferral: line.deferral }),
    description: line.description,
    quantity: line.quantity,
    unit: line.unit,
    price: line.unitPrice,
    discount: figureText(line.discount),
    taxClass: line.taxClass ?? TYPED_CLASS,
    supply: line.supply ?? 'goods',
    taxCode: line.tax,
    taxByHand: line.taxByHand || line.taxClass === undefined,
    priceFrom: line.priceFrom ?? '',
    account: line.account,
    supplied: line.supplied ?? '',
    of: '',
  };
}

function draftAdjustmentOf(adjustment: ContentAdjustment): DraftAdjustment {
  return {
    id: adjustment.id,
    kind: adjustment.kind,
    text: adjustment.text,
    amount: figureText(adjustment),
    spread: adjustment.tax === undefined,
    taxClass: TYPED_CLASS,
    supply: 'goods',
    taxCode: adjustment.tax ?? '',
    taxByHand: adjustment.tax !== undefined,
    account: adjustment.account,
  };
}

interface Becoming {
  /** Id of the new draft. */
  readonly id: string;
  readonly kind: Draft['kind'];
  readonly origin: DraftOrigin;
  readonly issueDate: string;
  /** Usual terms of the customer, or how long a quote holds. */
  readonly due: string;
}

/** Whether a draft stands in place of its document and keeps its terms, remarks and files, or is one of its own. */
function replacesIt({ how }: Pick<DraftOrigin, 'how'>): boolean {
  return how === 'version' || how === 'correction';
}

/**
 * A draft that says what an issued document says, dated anew: for a copy, a correction, a new version
 * of a quote. A copy begins a family of its own; all else stays with what it came from. The rate of
 * the day and today's taxes apply, as the supply is another one.
 */
export function draftFrom(document: IssuedDocument, becoming: Becoming): Draft {
  const { content, tags, styleId } = document;
  const { id, kind, origin, issueDate } = becoming;
  const { dueDate, instalments = [], settlement = null } = content;
  const kept = replacesIt(origin);
  const due = kept ? termsSaying({ dueDate, instalments, settlement }, content.issueDate, becoming.due) : becoming.due;
  return {
    ...blankDraft(id, kind, content.registrationId, issueDate),
    origin,
    familyId: origin.how === 'copy' ? id : document.familyId,
    customerId: document.customerId,
    delivery: content.delivery ?? null,
    due: isTerms(due) ? due : '30d',
    currency: content.home === undefined ? '' : content.currency,
    priceMode: content.priceMode,
    contact: content.buyer.contact ?? '',
    buyerReference: content.buyerReference,
    orderNumber: content.orderNumber,
    subject: content.subject ?? '',
    salesperson: content.salesperson ?? '',
    tags,
    note: content.note,
    conditions: content.conditions ?? '',
    styleId,
    remarks: kept ? document.remarks : '',
    ...(content.advance === true && { advance: true }),
    // What another invoice takes off an advance, a copy of it can't take off again.
    lines: content.lines.filter(({ takesOff }) => takesOff === undefined).map(draftLineOf),
    adjustments: (content.adjustments ?? []).map(draftAdjustmentOf),
  };
}

/** The tax point of a correction stays that of what it corrects; a copy has its own. */
export function correctionOf(document: IssuedDocument, id: string, issueDate: string, due: string): Draft {
  const { content } = document;
  const origin: DraftOrigin = {
    how: 'correction',
    documentId: document.id,
    number: document.number,
    words: '',
    by: 'sum',
  };
  return {
    ...draftFrom(document, {
      id,
      kind: content.paidBy === undefined ? 'invoice' : 'cash-sale',
      origin,
      issueDate,
      due,
    }),
    taxPoint: content.taxPoint,
    supplyFrom: content.supplyFrom ?? '',
    perHome: content.home?.perHome ?? '',
    paidBy: content.paidBy ?? 'cash',
    carrier: content.carrier ?? '',
    tracking: content.tracking ?? '',
    lines: content.lines.map((line) => ({
      ...draftLineOf(line),
      of: line.of ?? '',
      ...(line.takesOff && { takesOff: line.takesOff }),
    })),
    overrides: (content.overrides ?? []).map(({ tax, family, amount, reason }) => ({ tax, family, amount, reason })),
  };
}
