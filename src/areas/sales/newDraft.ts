import type { Draft } from '@/core/documents/draft';
import type { IsoDate } from '@/core/kernel/date';

/** A draft that holds nothing yet. */
export function newDraft(id: string, registrationId: string, today: IsoDate): Draft {
  return {
    id,
    revision: 0,
    registrationId,
    registrationByHand: false,
    delivery: null,
    customerId: '',
    issueDate: today,
    taxPoint: '',
    due: '30d',
    priceMode: 'net',
    buyerReference: '',
    orderNumber: '',
    note: '',
    lines: [],
    held: null,
    savedAt: '',
    keys: [],
  };
}

/** The address of a draft that is yet to be written. */
export function newDraftPath(): string {
  return `/sales/draft/${crypto.randomUUID()}?new`;
}
