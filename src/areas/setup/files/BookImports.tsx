'use client';

import { DRAFT_HEADS, DRAFT_OPTIONAL } from '@/core/files/draftsFile';
import { ACCOUNT_HEADS, ENTRY_HEADS } from '@/core/files/entriesFile';
import { OPENING_HEADS } from '@/core/files/openingFile';
import { NOTHING, total } from '@/core/kernel/money';
import { importOpenings } from '@/store/sales/actions/takings';
import { importAccounts, importDrafts, importJournals } from '@/store/setup/actions/importBook';
import { Money } from '@/ui/Money';
import { useOpenBook } from '../../shell/BookContext';
import { ImportFile } from './ImportFile';

/** Opening invoices, documents, journals and accounts from files. */
export function BookImports() {
  const { currency } = useOpenBook();
  return (
    <>
      <ImportFile
        title="Opening invoices"
        about={`What customers owed before this book began. Columns: ${OPENING_HEADS.join(', ')} (due may be missing); customers by id, tax number or name, amounts with tax in ${currency}.`}
        choose="Choose a file of opening invoices"
        action={importOpenings}
        would={({ add }) => {
          const documents = add?.documents ?? [];
          return (
            <>
              {documents.length} to add, <Money amount={total(documents.map(({ open }) => open))} currency={currency} />{' '}
              in all.
            </>
          );
        }}
        done="The opening invoices are saved"
      />
      <ImportFile
        title="Invoices and quotes, as drafts"
        about={`A row for each line; rows of one document say the same in its column. Columns: ${DRAFT_HEADS.join(', ')} (may be missing: ${DRAFT_OPTIONAL.join(', ')}). A draft is issued when you have looked at it.`}
        choose="Choose a file of documents"
        action={importDrafts}
        would={({ put }) => {
          const drafts = put?.drafts ?? [];
          return `${drafts.length} drafts with ${drafts.reduce((sum, { lines }) => sum + lines.length, 0)} lines to add.`;
        }}
        done="The documents are drafts now"
      />
      <ImportFile
        title="Journals"
        about={`A row for each side; rows of one entry say the same in its column. Columns: ${ENTRY_HEADS.join(', ')} (debit or credit may be missing), amounts in ${currency}.`}
        choose="Choose a file of journals"
        action={importJournals}
        would={({ add }) => (
          <>
            {add?.journal?.length ?? 0} to post,{' '}
            <Money
              amount={total((add?.journalLines ?? []).map(({ amount }) => (amount > 0n ? amount : NOTHING)))}
              currency={currency}
            />{' '}
            in debits and credits.
          </>
        )}
        done="The journals are posted"
      />
      <ImportFile
        title="Chart of accounts"
        about={`Accounts to add, and other names of those that are there. Columns: ${ACCOUNT_HEADS.join(', ')} (asset, liability, equity, income or expense).`}
        choose="Choose a file of accounts"
        action={importAccounts}
        would={({ put }) => `${put?.accounts?.length ?? 0} to add or change.`}
        done="The accounts are saved"
      />
    </>
  );
}
