'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { type BankAccount, bankAccountSchema, blankBankAccount } from '@/core/parties/bankAccount';
import { writeIban } from '@/core/parties/iban';
import { LOCAL_FORMS } from '@/core/parties/localAccount';
import { allOf, recordOf } from '@/store/records';
import { keepBankAccount } from '@/store/setup/actions/setup';
import { unchanged } from '@/store/setup/actions/unchanged';
import { ChoiceField, TextField } from '@/ui/Field';
import { CURRENCY_CHOICES, countryName } from '../../shared/choices';
import { FormFoot } from '../../shared/FormFoot';
import { RecordEnd } from '../../shared/RecordEnd';
import { RecordLink, RecordList, RecordPage } from '../../shared/RecordList';
import { useRecordForm } from '../../shared/useActionForm';
import { useOpenBook } from '../../shell/BookContext';
import { act, useBook } from '../../shell/book';
import { routes } from '../../shell/routes';
import { OpeningBalance } from './OpeningBalance';

const LOCAL_CHOICES = Object.entries(LOCAL_FORMS).map(
  ([kind, { called, countries }]) => [kind, `${called} (${countries.map(countryName).join(', ')})`] as const,
);

/** How an account is told to customers: its IBAN, or its branch code and number. */
function numberOf({ iban, local }: BankAccount): string {
  return iban === '' ? [local.code, local.number].filter(Boolean).join(' ') : writeIban(iban);
}

/** Our accounts with banks. */
export function BankAccountList() {
  const rows = useBook((db) => allOf(db, 'bankAccounts'));
  return (
    <RecordList
      title="Bank accounts"
      path={routes.section('bank-accounts')}
      addLabel="New bank account"
      rows={rows}
      keyOf={(row) => row.id}
      empty="No bank accounts yet: invoices say which one to pay into, and statements are reconciled with them."
      columns={[
        {
          head: 'Name',
          value: (row) => row.name,
          cell: (row) => (
            <>
              <RecordLink path={routes.record('bank-accounts', row.id)}>{row.name}</RecordLink>
              {row.archived === true && <span className="text-soft text-sm"> archived</span>}
            </>
          ),
        },
        { head: 'Currency', cell: (row) => row.currency },
        { head: 'IBAN or number', cell: (row) => numberOf(row) || 'not known yet' },
        { head: 'Ledger account', cell: (row) => row.account },
      ]}
    />
  );
}

/** One bank account, or a new one. */
export function BankAccountPage({ id }: { readonly id: string }) {
  const router = useRouter();
  const account = useBook((db) => recordOf(db, 'bankAccounts', id), [id]);
  const back = () => router.push(routes.section('bank-accounts'));
  return (
    <RecordPage id={id} record={account} what="bank account" nameOf={(a) => a.name}>
      {(known) => (
        <>
          <BankAccountForm {...(known && { account: known })} onSaved={back} />
          {known !== undefined && <OpeningBalance account={known} />}
          {known !== undefined && <RecordEnd archivable table="bankAccounts" record={known} onDeleted={back} />}
        </>
      )}
    </RecordPage>
  );
}

interface BankAccountFormProps {
  readonly account?: BankAccount;
  readonly onSaved: () => void;
}

function BankAccountForm({ account, onSaved }: BankAccountFormProps) {
  const { accounts, currency } = useOpenBook();
  const others = useBook((db) => allOf(db, 'bankAccounts')) ?? [];
  const isNew = account === undefined;
  const [blank] = useState(() => blankBankAccount(crypto.randomUUID(), '', currency, ''));
  const [began] = useState(account);
  const { form, submit, field, general } = useRecordForm<BankAccount>(
    bankAccountSchema,
    account ?? blank,
    (value) => act(unchanged(keepBankAccount, 'bankAccounts', began), { value, isNew }),
    onSaved,
  );
  const taken = new Set(others.filter(({ id }) => id !== account?.id).map((other) => other.account));
  const free = accounts.filter(({ code, role }) => role === 'bank' && !taken.has(code));
  return (
    <form onSubmit={submit} noValidate>
      <div className="grid grid-cols-[2fr_1fr_1.4fr] gap-x-4">
        <TextField label="Name" autoFocus {...field('name')} />
        <ChoiceField label="Currency" options={CURRENCY_CHOICES} {...field('currency')} />
        <ChoiceField
          label="Ledger account"
          options={[
            ...(isNew ? [['', 'a new one'] as const] : []),
            ...free.map(({ code, name }) => [code, `${code} ${name}`] as const),
          ]}
          {...field('account')}
        />
      </div>
      <div className="grid grid-cols-[2fr_1fr] gap-x-4">
        <TextField label="IBAN" hint="Prints on invoices and goes into e-invoices" {...field('iban')} />
        <TextField label="BIC" {...field('bic')} />
      </div>
      <div className="grid grid-cols-3 gap-x-4">
        <ChoiceField
          label="Local account"
          options={[['', 'none'] as const, ...LOCAL_CHOICES]}
          {...field('local.kind')}
        />
        <TextField label="Branch code" hint="Sort code, BSB, routing number, IFSC…" {...field('local.code')} />
        <TextField label="Account number" {...field('local.number')} />
      </div>
      <FormFoot label="Save the bank account" busy={form.formState.isSubmitting} general={general} />
    </form>
  );
}
