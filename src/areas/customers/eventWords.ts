import type { AccountEvent } from '@/core/settlement/account';

/** What happened on an account, in words. */
export const EVENT_WORDS: Readonly<Record<AccountEvent, string>> = {
  invoice: 'Invoice',
  opening: 'Opening item',
  'credit-note': 'Credit note',
  receipt: 'Receipt',
  dishonoured: 'Receipt came back unpaid',
  refund: 'Refund',
  'refund-undone': 'Refund taken back',
  'write-off': 'Written off',
  'write-off-undone': 'Write-off undone',
  difference: 'Difference closed',
  'difference-undone': 'Difference open again',
};
