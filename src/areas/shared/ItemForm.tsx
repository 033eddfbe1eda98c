'use client';

import { useState } from 'react';
import { type Item, itemSchema } from '@/core/catalogue/item';
import { decimal } from '@/core/kernel/decimal';
import { unitsOf } from '@/core/kernel/unit';
import { isOffered } from '@/core/ledger/account';
import { SUPPLY_KINDS } from '@/core/tax/decisionTable';
import { plainName } from '@/core/tax/taxCode';
import { knownClasses } from '@/core/tax/taxSetup';
import { changeItem } from '@/store/setup/actions/setup';
import { unchanged } from '@/store/setup/actions/unchanged';
import { AreaField, ChoiceField, TextField } from '@/ui/Field';
import { Fold } from '@/ui/Fold';
import { useOpenBook } from '../shell/BookContext';
import { act } from '../shell/book';
import { FormFoot } from './FormFoot';
import { useRecordForm } from './useActionForm';

interface ItemFormProps {
  /** The item to change; a new one when left out. */
  readonly item?: Item;
  /** Name to begin a new item with. */
  readonly name?: string;
  readonly onSaved: (id: string) => void;
}

/** One item, in Setup and in a slip over a document. */
export function ItemForm({ item, name = '', onSaved }: ItemFormProps) {
  const { accounts, business, records, codes, currency } = useOpenBook();
  const income = accounts.filter((account) => account.type === 'income' && isOffered(account));
  const classes = knownClasses(records);
  const [began] = useState(item);
  const { form, submit, field, general } = useRecordForm<Item>(
    itemSchema,
    item ?? {
      id: crypto.randomUUID(),
      name,
      description: '',
      unit: 'C62',
      price: decimal('0'),
      priceMode: 'net',
      account: income[0]?.code ?? '',
      taxClass: 'standard',
      supply: 'goods',
    },
    (value) => act(unchanged(changeItem, 'items', began), value),
    ({ id }) => onSaved(id),
  );
  return (
    <form onSubmit={submit} noValidate>
      <TextField label="Name" autoFocus {...field('name')} />
      <AreaField label="Description, printed below the name" {...field('description')} />
      <div className="grid grid-cols-2 gap-x-4">
        <TextField label={`Price, ${currency}`} inputMode="decimal" {...field('price')} />
        <ChoiceField
          label="The price"
          options={[
            ['net', 'excludes tax'],
            ['gross', 'includes tax'],
          ]}
          {...field('priceMode')}
        />
        <ChoiceField
          label="What is supplied"
          options={SUPPLY_KINDS.map((kind) => [kind, kind === 'digital' ? 'digital service' : kind] as const)}
          {...field('supply')}
        />
        <ChoiceField label="Unit" options={unitsOf(business.units)} {...field('unit')} />
        <ChoiceField
          label="Income account"
          options={income.map((account) => [account.code, `${account.code} ${account.name}`] as const)}
          {...field('account')}
        />
        <ChoiceField
          label="Tax class"
          hint="Which rate it takes: the decision table goes by it"
          options={[...new Set([form.watch('taxClass'), ...classes])].map((known) => [known, known] as const)}
          {...field('taxClass')}
        />
      </div>
      <Fold words="More: item code, tax code of its own" open={item !== undefined}>
        <div className="grid grid-cols-2 gap-x-4">
          <TextField label="Item code" hint="Customs or service code, such as HS, HSN or SAC" {...field('itemCode')} />
          <ChoiceField
            label="Tax code"
            hint="Goes before the decision table"
            options={[
              ['', 'by the decision table'],
              ...codes.map((code) => [code.id, `${code.id} ${plainName(code)}`] as const),
            ]}
            {...field('taxCode')}
          />
        </div>
      </Fold>
      <FormFoot label={`Save ${item?.name ?? 'the item'}`} busy={form.formState.isSubmitting} general={general} />
    </form>
  );
}
