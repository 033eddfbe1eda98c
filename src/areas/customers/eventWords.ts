import type { AccountEvent } from '@/core/settlement/account';

/** What happened on an account, in words. */
export const EVENT_WORDS: Readonly<Record<AccountEvent, string>> = {
  invoice: 'Invoice',
  opening: 'Opening invoice',
  'credit-note': 'Credit note',
  receipt: 'Receipt',
  dishonoured: 'Payment returned unpaid',
  refund: 'Refund',
  'refund-undone': 'Refund cancelled',
  'write-off': 'Written off',
  'write-off-undone': 'Write-off cancelled',
  difference: 'Difference closed',
  'difference-undone': 'Difference cancelled',
};
