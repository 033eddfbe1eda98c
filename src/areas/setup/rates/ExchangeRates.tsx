'use client';

import { useState } from 'react';
import { type ExchangeRate, exchangeRateId, exchangeRateSchema } from '@/core/documents/exchangeRate';
import { currency } from '@/core/kernel/currency';
import { writeDate } from '@/core/kernel/date';
import { decimal } from '@/core/kernel/decimal';
import { keepExchangeRate } from '@/store/actions/taxSetup';
import { ChoiceField, TextField } from '@/ui/Field';
import { Empty, SheetTitle } from '@/ui/Page';
import { Ruled } from '@/ui/Ruled';
import { useOpenBook } from '../../shell/BookContext';
import { act, today, useBook } from '../../shell/book';
import { CURRENCY_CHOICES } from '../choices';
import { FormFoot } from '../FormFoot';
import { useRecordForm } from '../useRecordForm';

const MOST_SHOWN = 100;

/** Exchange rates by day, newest first, and a form for one more. */
export function ExchangeRates() {
  const { currency: home } = useOpenBook();
  const [round, setRound] = useState(0);
  const rates = useBook((db) => db.exchangeRates.orderBy('[currency+date]').reverse().limit(MOST_SHOWN).toArray());
  return (
    <>
      <SheetTitle aside={`for one ${home}`}>Exchange rates</SheetTitle>
      <RateForm key={round} onSaved={() => setRound(round + 1)} />
      {rates?.length === 0 && (
        <Empty>
          No rates yet: a registration that is filed in another currency needs one on or before each tax point.
        </Empty>
      )}
      {rates !== undefined && rates.length > 0 && (
        <Ruled
          caption="Exchange rates"
          rows={rates}
          keyOf={(rate) => rate.id}
          columns={[
            { head: 'Currency', width: '110px', cell: (rate) => rate.currency },
            { head: 'Day', width: '160px', cell: (rate) => writeDate(rate.date) },
            { head: `For one ${home}`, align: 'right', width: '140px', cell: (rate) => rate.perHome },
            { head: 'Source', cell: (rate) => rate.source },
          ]}
        />
      )}
    </>
  );
}

function RateForm({ onSaved }: { readonly onSaved: () => void }) {
  const { currency: home } = useOpenBook();
  const { form, submit, field, general } = useRecordForm<ExchangeRate>(
    exchangeRateSchema,
    { id: 'new', currency: currency('USD'), date: today(), perHome: '' as ExchangeRate['perHome'], source: '' },
    (value) => {
      const perHome = decimal(value.perHome);
      const kept = { ...value, perHome, id: exchangeRateId(value.currency, value.date) };
      return act(keepExchangeRate, { value: kept, isNew: false });
    },
    onSaved,
  );
  return (
    <form onSubmit={submit} noValidate className="mb-4 border-rule border-b pb-2">
      <div className="grid grid-cols-4 gap-x-4">
        <ChoiceField label="Currency" options={CURRENCY_CHOICES} {...field('currency')} />
        <TextField label="Day of the rate" {...field('date')} />
        <TextField label={`Units for one ${home}`} inputMode="decimal" {...field('perHome')} />
        <TextField label="Source of the rate" {...field('source')} />
      </div>
      <FormFoot label="Keep the exchange rate" busy={form.formState.isSubmitting} general={general} />
    </form>
  );
}
