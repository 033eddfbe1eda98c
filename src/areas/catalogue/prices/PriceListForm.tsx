'use client';

import { useState } from 'react';
import { type PriceList, priceListSchema } from '@/core/catalogue/priceList';
import { findItems } from '@/store/sales/queries/documents';
import { keepPriceList } from '@/store/setup/actions/taxSetup';
import { unchanged } from '@/store/setup/actions/unchanged';
import { ChoiceField, TextField } from '@/ui/Field';
import { FormFoot } from '../../shared/FormFoot';
import { RowsField } from '../../shared/RowsField';
import { useRecordForm } from '../../shared/useActionForm';
import { act, useBook } from '../../shell/book';

interface PriceListFormProps {
  readonly list?: PriceList;
  readonly onSaved: () => void;
}

const MOST_ITEMS = 1000;

/** Prices of some items for customers that take the list, holding the tax or not. */
export function PriceListForm({ list, onSaved }: PriceListFormProps) {
  const isNew = list === undefined;
  const items = useBook((db) => findItems(db, '', MOST_ITEMS)) ?? [];
  const [blank] = useState<PriceList>(() => ({ id: crypto.randomUUID(), name: '', priceMode: 'gross', prices: [] }));
  const [began] = useState(list);
  const { form, submit, field, errorAt, general } = useRecordForm<PriceList>(
    priceListSchema,
    list ?? blank,
    (value) => act(unchanged(keepPriceList, 'priceLists', began), { value, isNew }),
    onSaved,
  );
  return (
    <form onSubmit={submit} noValidate>
      <div className="grid grid-cols-2 gap-x-4">
        <TextField label="Name of the list" {...field('name')} />
        <ChoiceField
          label="Its prices"
          options={[
            ['gross', 'include tax'],
            ['net', 'exclude tax'],
          ]}
          {...field('priceMode')}
        />
      </div>
      <RowsField
        form={form}
        name="prices"
        what="price"
        columns={[
          {
            field: 'itemId',
            label: 'Item',
            width: '1fr',
            options: [['', 'choose…'], ...items.map((item) => [item.id, item.name] as const)],
          },
          { field: 'price', label: 'Price', width: '120px' },
        ]}
        blank={{ itemId: '', price: '' }}
        errorAt={errorAt}
      />
      <FormFoot label={`Save ${list?.name ?? 'the list'}`} busy={form.formState.isSubmitting} general={general} />
    </form>
  );
}
