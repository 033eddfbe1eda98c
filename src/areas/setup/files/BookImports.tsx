'use client';

import { DRAFT_HEADS, DRAFT_OPTIONAL } from '@/core/files/draftsFile';
import { ACCOUNT_HEADS, ENTRY_HEADS } from '@/core/files/entriesFile';
import { OPENING_HEADS } from '@/core/files/openingFile';
import { RECEIPT_HEADS } from '@/core/files/receiptsFile';
import { NOTHING, total } from '@/core/kernel/money';
import { accept } from '@/core/kernel/result';
import { importReceipts } from '@/store/payments/actions/importReceipts';
import { importOpenings } from '@/store/sales/actions/takings';
import { importAccounts, importDrafts, importJournals } from '@/store/setup/actions/importBook';
import { Money } from '@/ui/Money';
import { useOpenBook } from '../../shell/BookContext';
import { bookDb, moment } from '../../shell/book';
import { byAction, ImportFile } from './ImportFile';

/** Opening invoices, documents, journals and accounts from files. */
export function BookImports() {
  const { currency } = useOpenBook();
  return (
    <>
      <ImportFile
        title="Opening invoices"
        about={`What customers owed before this book began. Columns: ${OPENING_HEADS.join(', ')} (due may be missing); customers by id, tax number or name, amounts with tax in ${currency}.`}
        choose="Choose a file of opening invoices"
        from={byAction(importOpenings, ({ add }) => {
          const documents = add?.documents ?? [];
          return (
            <>
              {documents.length} to add, <Money amount={total(documents.map(({ open }) => open))} currency={currency} />{' '}
              in all.
            </>
          );
        })}
        done="The opening invoices are saved"
      />
      <ImportFile
        title="Invoices and quotes, as drafts"
        about={`A row for each line; rows of one document say the same in its column. Columns: ${DRAFT_HEADS.join(', ')} (may be missing: ${DRAFT_OPTIONAL.join(', ')}). A draft is issued when you have looked at it.`}
        choose="Choose a file of documents"
        from={byAction(importDrafts, ({ put }) => {
          const drafts = put?.drafts ?? [];
          return `${drafts.length} drafts with ${drafts.reduce((sum, { lines }) => sum + lines.length, 0)} lines to add.`;
        })}
        done="The documents are drafts now"
      />
      <ImportFile
        title="Receipts"
        about={`Money that reached the bank. A row for each document that it settles; rows of one receipt say the same in its column, and one that names no document stays on account. Columns: ${RECEIPT_HEADS.join(', ')} (reference, currency and settles may be missing).`}
        choose="Choose a file of receipts"
        from={{
          look: async (text) => {
            const looked = await importReceipts(bookDb(), text, moment(), false);
            return looked.ok ? accept(`${looked.value} to record.`) : looked;
          },
          take: (text) => importReceipts(bookDb(), text, moment(), true),
        }}
        done="The receipts are recorded"
      />
      <ImportFile
        title="Journals"
        about={`A row for each side; rows of one entry say the same in its column. Columns: ${ENTRY_HEADS.join(', ')} (debit or credit may be missing), amounts in ${currency}.`}
        choose="Choose a file of journals"
        from={byAction(importJournals, ({ add }) => (
          <>
            {add?.journal?.length ?? 0} to post,{' '}
            <Money
              amount={total((add?.journalLines ?? []).map(({ amount }) => (amount > 0n ? amount : NOTHING)))}
              currency={currency}
            />{' '}
            in debits and credits.
          </>
        ))}
        done="The journals are posted"
      />
      <ImportFile
        title="Chart of accounts"
        about={`Accounts to add, and other names of those that are there. Columns: ${ACCOUNT_HEADS.join(', ')} (asset, liability, equity, income or expense).`}
        choose="Choose a file of accounts"
        from={byAction(importAccounts, ({ put }) => `${put?.accounts?.length ?? 0} to add or change.`)}
        done="The accounts are saved"
      />
    </>
  );
}
