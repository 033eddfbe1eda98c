'use client';

import { useState } from 'react';
import { toast } from 'sonner';
import type { Account } from '@/core/ledger/account';
import { keepChartAccount } from '@/store/ledger/actions/accounts';
import { Button } from '@/ui/Button';
import { CheckField } from '@/ui/CheckField';
import { Dialog } from '@/ui/Dialog';
import { ChoiceField, TextField } from '@/ui/Field';
import Link from '@/ui/Link';
import { Sheet, SheetTitle } from '@/ui/Page';
import { SlipFoot } from '../shared/FormFoot';
import { ListTable } from '../shared/ListTable';
import { useActionForm } from '../shared/useActionForm';
import { useOpenBook } from '../shell/BookContext';
import { act } from '../shell/book';
import { routes } from '../shell/routes';

const TYPES: readonly (readonly [Account['type'], string])[] = [
  ['asset', 'asset'],
  ['liability', 'liability'],
  ['equity', 'equity'],
  ['income', 'income'],
  ['expense', 'expense'],
];

const BLANK: Account = { code: '', name: '', type: 'income', role: '' };

/** The chart of accounts: each with its kind, those that end kept with what was posted to them. */
export function ChartScreen() {
  const { accounts } = useOpenBook();
  const [editing, setEditing] = useState<Account | null>(null);
  return (
    <Sheet label="Chart of accounts">
      <SheetTitle>Chart of accounts</SheetTitle>
      <ListTable
        caption="Chart of accounts"
        rows={accounts}
        keyOf={({ code }) => code}
        columns={[
          {
            head: 'Code',
            value: ({ code }) => code,
            cell: ({ code }) => (
              <Link href={routes.account(code)} className="underline decoration-rule underline-offset-4">
                {code}
              </Link>
            ),
          },
          { head: 'Name', value: ({ name }) => name, cell: ({ name }) => name },
          { head: 'Type', value: ({ type }) => type, cell: ({ type }) => type },
          {
            head: 'Used for',
            text: ({ role }) => role.replaceAll('-', ' '),
            cell: ({ role, ended }) => (
              <span className="text-soft">{ended === true ? 'ended' : role.replaceAll('-', ' ')}</span>
            ),
          },
          {
            head: 'Edit',
            text: () => '',
            cell: (account) => (
              <Button weight="quiet" className="-my-1" onClick={() => setEditing(account)}>
                Edit…<span className="sr-only"> {account.code}</span>
              </Button>
            ),
          },
        ]}
      />
      <p className="mt-4">
        <Button weight="main" onClick={() => setEditing(BLANK)}>
          Add an account
        </Button>
      </p>
      {editing !== null && <AccountDialog account={editing} onClose={() => setEditing(null)} />}
    </Sheet>
  );
}

function AccountDialog({ account, onClose }: { readonly account: Account; readonly onClose: () => void }) {
  const isNew = account.code === '';
  const { submit, field, form, general, busy, isDirty } = useActionForm<
    { code: string; name: string; type: Account['type']; ended: boolean },
    Account
  >({
    initial: { code: account.code, name: account.name, type: account.type, ended: account.ended === true },
    run: ({ code, name, type, ended }) =>
      act(keepChartAccount, { account: { code: code.trim(), name, type, role: account.role, ended }, isNew }),
    onDone: (_, { code, name }) => {
      toast(`${code} ${name} is saved`);
      onClose();
    },
  });
  return (
    <Dialog
      unsaved={isDirty}
      open
      onClose={onClose}
      title={isNew ? 'Add an account' : `Edit ${account.code} ${account.name}`}
      description={
        account.role === ''
          ? 'What was posted to keeps its type; an account that ends is offered for nothing new.'
          : 'The program posts to it by itself: it keeps its type and does not end.'
      }
    >
      <form onSubmit={submit} noValidate>
        <TextField label="Code" readOnly={!isNew} autoFocus={isNew} {...field('code')} />
        <TextField label="Name" autoFocus={!isNew} {...field('name')} />
        <ChoiceField label="Type" options={TYPES} {...field('type')} />
        {!isNew && account.role === '' && (
          <CheckField label="Ended: offered for nothing new" {...form.register('ended')} />
        )}
        <SlipFoot label="Save the account" busy={busy} general={general} leave="Not now" onClose={onClose} />
      </form>
    </Dialog>
  );
}
