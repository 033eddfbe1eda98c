/** What events are called where they are told; those that are not here are told by their own names. */
const WORDS: Readonly<Record<string, string>> = {
  'begin draft': 'begun',
  'begin draft from e-invoice': 'begun from an e-invoice',
  'issue invoice': 'issued',
  'send quote': 'sent',
  'answer quote': 'answered',
  'credit invoice': 'credited',
  'correct invoice': 'corrected',
  'cancel document': 'cancelled',
  'record receipt': 'money received',
  allocate: 'credit allocated',
  'undo allocation': 'allocation undone',
  'write off': 'written off',
  'undo write-off': 'write-off cancelled',
  refund: 'refund paid',
  'undo refund': 'refund cancelled',
  'dishonour receipt': 'returned unpaid',
  'enter withholding certificate': 'withholding certificate entered',
  'withdraw withholding certificate': 'withholding certificate withdrawn',
  'claim withheld tax': 'withheld tax claimed',
  'mark as sent': 'marked as sent',
  'annotate document': 'remarks or tags changed',
  'attach file': 'file attached',
  'let file out': 'file marked to go out, or not',
  'take out file': 'file removed',
  'enter takings': 'entered',
  'enter opening item': 'opening invoice entered',
  'bill stage': 'stage invoiced',
  'queue e-invoices': 'e-invoice put into the queue',
  'try e-invoice': 'e-invoice tried',
  'hear of e-invoice': 'e-invoice answered',
  'send e-invoice again': 'e-invoice to be tried again',
  'put e-invoice aside': 'e-invoice set aside',
  remind: 'reminded',
  'hold reminders': 'reminders on hold',
  'go on with reminders': 'reminders go on',
  'queue mail': 'message put into the queue',
  'try mail': 'message tried',
  'hear of mail': 'heard of the message',
  'send mail again': 'message to be tried again',
  'put mail aside': 'message set aside',
};

export function eventWord(action: string): string {
  return WORDS[action] ?? action;
}

/**
 * Where something changed, in words: `lines[0].unitPrice` is `lines 1, unit price`. Names of fields are words of the trade
 * written together, so that they only need to be taken apart.
 */
export function fieldWords(path: string): string {
  return path
    .split('.')
    .map((part) =>
      part
        .replace(/\[(\d+)\]/g, (_, at: string) => ` ${Number(at) + 1}`)
        .replace(/([a-z])([A-Z])/g, (_, before: string, after: string) => `${before} ${after.toLowerCase()}`),
    )
    .join(', ');
}
