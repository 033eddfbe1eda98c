import type { GroupId, TermId } from '@/core/einvoice/terms';

/** Fields in which a term is written and mended; a term of a line is mended in the line. */
const FIELDS: Readonly<Partial<Record<TermId | GroupId, string>>> = {
  'BT-2': 'issueDate',
  'BT-5': 'currency',
  'BT-7': 'taxPoint',
  'BT-9': 'due',
  'BT-10': 'buyerReference',
  'BT-13': 'orderNumber',
  'BT-20': 'conditions',
  'BT-22': 'note',
  'BT-29': 'business.legalId',
  'BT-31': 'registration.number',
  'BT-34': 'business.endpoint',
  'BT-40': 'business.address',
  'BT-41': 'salesperson',
  'BT-44': 'customerId',
  'BT-48': 'customer.taxNumber',
  'BT-49': 'customer.endpoint',
  'BT-55': 'customer.address',
  'BT-56': 'contact',
  'BT-72': 'taxPoint',
  'BT-73': 'supplyFrom',
  'BT-80': 'delivery',
  'BT-84': 'bankAccount',
  'BG-5': 'business.address',
  'BG-8': 'customer.address',
  'BG-25': 'lines',
};

const LINE_FIELDS: Readonly<Partial<Record<TermId | GroupId, string>>> = {
  'BT-129': 'quantity',
  'BT-130': 'unit',
  'BT-134': 'supplied',
  'BT-136': 'discount',
  'BT-146': 'price',
  'BT-151': 'taxCode',
  'BT-152': 'taxCode',
  'BT-153': 'description',
  'BT-154': 'description',
};

/** The field of a draft, or of Setup, in which a term of the document is mended; undefined where it follows from others. */
export function fieldOf(term: TermId | GroupId): string | undefined {
  return FIELDS[term];
}

/** The field of a line, counted from 0, in which a term of it is mended; undefined where it follows from others. */
export function lineFieldOf(term: TermId | GroupId, line: number): string | undefined {
  const field = LINE_FIELDS[term];
  return field === undefined ? undefined : `lines[${line}].${field}`;
}
