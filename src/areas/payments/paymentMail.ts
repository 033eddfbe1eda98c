import { proposed, valuesOfAccount, valuesOfReceipt } from '@/core/delivery/compose';
import { minor } from '@/core/kernel/money';
import { standing } from '@/core/settlement/allocation';
import type { Withheld } from '@/core/settlement/withholding';
import { printedLetter, printedReceipt } from '@/print/account';
import { fileName } from '@/print/words';
import type { ReceiptFile } from '@/store/payments/queries/receiptFile';
import { accountHead, pagesAsPdf } from '../shared/accountPrint';
import { today } from '../shell/book';
import { mailWriter } from '../shell/delivery/sampleValues';
import { writingTo } from '../shell/delivery/writingTo';
import { fileToSend, type WrittenMail } from '../shell/delivery/writtenMail';

const NO_CUSTOMER = 'the customer is not in the book.';

/** What of a receipt stands for documents, newest last. */
function settled({ allocations }: ReceiptFile) {
  return standing(allocations)
    .filter(({ closing }) => closing === undefined)
    .reverse();
}

/** A receipt as it prints. @throws Error where its customer is gone */
export async function receiptPdf(file: ReceiptFile): Promise<Uint8Array> {
  const head = await accountHead(file.receipt.customerId);
  if (head === null) throw new Error(NO_CUSTOMER);
  return pagesAsPdf([printedReceipt(head, file.receipt, settled(file), file.withheld)]);
}

/** Writes the message with a receipt, in the language of its customer; or says why there is none. */
export async function writeReceipt(file: ReceiptFile): Promise<WrittenMail | string> {
  const { receipt } = file;
  const whom = await writingTo(receipt.customerId, 'receipt');
  if (whom === null) return NO_CUSTOMER;
  const { customer, to, names, template } = whom;
  const { language } = customer;
  const settles = settled(file);
  const values = valuesOfReceipt(receipt, settles, names, mailWriter(language, receipt.currency));
  return {
    ...proposed(template, values, to),
    purpose: 'receipt',
    language,
    customerId: customer.id,
    documentIds: [...new Set(settles.filter(({ debtKind }) => debtKind !== 'refund').map(({ debtId }) => debtId))],
    about: receipt.number,
    offered: [{ key: 'receipt', label: 'PDF', on: true }],
    make: async (keys) =>
      keys.has('receipt') ? [fileToSend(fileName(receipt, 'pdf'), 'application/pdf', await receiptPdf(file))] : [],
    view: null,
  };
}

/** Letters about missing certificates, one for each customer; a customer that is gone gets none. */
export async function letterPages(byCustomer: ReadonlyMap<string, readonly Withheld[]>) {
  const letters = await Promise.all(
    [...byCustomer].map(async ([customerId, missing]) => {
      const head = await accountHead(customerId);
      return head === null ? [] : [printedLetter(head, missing, head.business.homeCurrency, today())];
    }),
  );
  return letters.flat();
}

/** Writes the message that asks a customer for its missing certificates; or says why there is none. */
export async function writeCertificateRequest(
  customerId: string,
  missing: readonly Withheld[],
): Promise<WrittenMail | string> {
  const whom = await writingTo(customerId, 'certificate');
  if (whom === null) return NO_CUSTOMER;
  const { customer, to, names, template, homeCurrency } = whom;
  const { language } = customer;
  const items = missing.map((one) => ({
    number: one.documentNumber || one.receiptNumber,
    due: one.date,
    open: minor(one.home - one.certified),
    currency: homeCurrency,
  }));
  const values = valuesOfAccount(items, today(), names, mailWriter(language, homeCurrency));
  return {
    ...proposed(template, values, to),
    purpose: 'certificate',
    language,
    customerId,
    documentIds: [...new Set(missing.map(({ documentId }) => documentId).filter(Boolean))],
    about: `Withholding certificates, ${customer.name}`,
    offered: [{ key: 'letter', label: 'The letter as PDF', on: true }],
    make: async (keys) =>
      keys.has('letter')
        ? [
            fileToSend(
              'withholding-certificates.pdf',
              'application/pdf',
              await pagesAsPdf(await letterPages(new Map([[customerId, missing]]))),
            ),
          ]
        : [],
    view: null,
  };
}
