'use client';

import { BALANCE_HEADS } from '@/core/files/balancesFile';
import { BOX_HEADS } from '@/core/files/boxesFile';
import { DRAFT_HEADS, DRAFT_OPTIONAL } from '@/core/files/draftsFile';
import { ACCOUNT_HEADS, ENTRY_HEADS } from '@/core/files/entriesFile';
import { OPENING_HEADS } from '@/core/files/openingFile';
import { RECEIPT_HEADS } from '@/core/files/receiptsFile';
import { NOTHING, total } from '@/core/kernel/money';
import { accept } from '@/core/kernel/result';
import type { JournalLine } from '@/core/ledger/entry';
import { importReceipts } from '@/store/payments/actions/importReceipts';
import { importOpenings } from '@/store/sales/actions/takings';
import {
  importAccounts,
  importBalances,
  importBoxes,
  importDrafts,
  importJournals,
} from '@/store/setup/actions/importBook';
import { Money } from '@/ui/Money';
import { useOpenBook } from '../../shell/BookContext';
import { bookDb, moment } from '../../shell/book';
import { byAction, ImportFile } from './ImportFile';

const debitsOf = (lines: readonly JournalLine[]) => total(lines.map(({ amount }) => (amount > 0n ? amount : NOTHING)));

/** Opening invoices and balances, documents, receipts, journals, amounts of returns and accounts from files. */
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
            <Money amount={debitsOf(add?.journalLines ?? [])} currency={currency} /> in debits and credits.
          </>
        ))}
        done="The journals are posted"
      />
      <ImportFile
        title="Opening balances"
        about={`What accounts stood at when this book was begun; all rows with the same date. Columns: ${BALANCE_HEADS.join(', ')} (debit or credit may be missing), amounts in ${currency}.`}
        choose="Choose a file of opening balances"
        from={byAction(importBalances, ({ add }) => (
          <>
            {add?.journalLines?.length ?? 0} sides to post,{' '}
            <Money amount={debitsOf(add?.journalLines ?? [])} currency={currency} /> in debits and credits, with what
            goes to Opening balances.
          </>
        ))}
        done="The opening balances are posted"
      />
      <ImportFile
        title="Amounts of returns from other books"
        about={`Input tax, acquisitions, adjustments, for returns that are not filed. Columns: ${BOX_HEADS.join(', ')} (account may be missing): the registration by its name, the period by any of its days, the box by its number, words on where the amount comes from.`}
        choose="Choose a file of amounts of returns"
        from={byAction(importBoxes, ({ put }) => {
          const returns = put?.returnBoxes ?? [];
          return `${returns.reduce((sum, { typed }) => sum + typed.length, 0)} amounts for ${returns.length} returns, in place of what was entered for these returns before.`;
        })}
        done="The amounts of returns are saved"
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
