'use client';

import { useState } from 'react';
import { type ExchangeRate, exchangeRateId, exchangeRateSchema } from '@/core/currency/exchangeRate';
import { currency } from '@/core/kernel/currency';
import { writeDate } from '@/core/kernel/date';
import { decimal, ratioOf } from '@/core/kernel/decimal';
import { readTextFile } from '@/core/kernel/textFile';
import { wordRefusals } from '@/core/wording/refusals';
import { importRates } from '@/store/setup/actions/rates';
import { keepExchangeRate } from '@/store/setup/actions/taxSetup';
import { latestRates } from '@/store/setup/queries/exchangeRates';
import { Button } from '@/ui/Button';
import { ChoiceField, TextField } from '@/ui/Field';
import Link from '@/ui/Link';
import { Empty, SheetTitle } from '@/ui/Page';
import { CURRENCY_CHOICES } from '../../shared/choices';
import { DateField } from '../../shared/DateField';
import { FormFoot } from '../../shared/FormFoot';
import { ListTable } from '../../shared/ListTable';
import { useRecordForm } from '../../shared/useActionForm';
import { useMore } from '../../shared/useMore';
import { useOpenBook } from '../../shell/BookContext';
import { act, today, useBook } from '../../shell/book';
import { routes } from '../../shell/routes';

/** Exchange rates by day, newest first, and a form for one more. */
export function ExchangeRates() {
  const { currency: home } = useOpenBook();
  const [round, setRound] = useState(0);
  const more = useMore();
  const { rows: rates, onMore } = more.of(useBook((db) => latestRates(db, more.ask), [], [more.ask]));
  return (
    <>
      <SheetTitle aside={`for one ${home}`}>Exchange rates</SheetTitle>
      <RateForm key={round} onSaved={() => setRound(round + 1)} />
      <RateSources />
      {rates?.length === 0 && (
        <Empty>
          No rates yet: documents in foreign currency, and returns in one, need a rate on or before their tax point.
        </Empty>
      )}
      {rates !== undefined && rates.length > 0 && (
        <ListTable
          caption="Exchange rates"
          rows={rates}
          onMore={onMore}
          keyOf={(rate) => rate.id}
          columns={[
            { head: 'Currency', width: '110px', cell: (rate) => rate.currency },
            { head: 'Date', width: '160px', value: (rate) => rate.date, cell: (rate) => writeDate(rate.date) },
            {
              head: `For one ${home}`,
              align: 'right',
              width: '140px',
              value: (rate) => ratioOf(rate.perHome),
              text: (rate) => rate.perHome,
              cell: (rate) => rate.perHome,
            },
            { head: 'Source', cell: (rate) => rate.source },
          ]}
        />
      )}
    </>
  );
}

/** Rates from a file in the daily XML form, or from the feed; CSV goes through Tables as CSV. */
function RateSources() {
  const [said, setSaid] = useState('');
  const take = async (text: string, source: string) => {
    const result = await act(importRates, { text, source });
    setSaid(
      result.ok
        ? `${result.value.added} rates added, ${result.value.changed} changed.`
        : `▲ ${wordRefusals(result.refusals)} Nothing was changed.`,
    );
  };
  const ask = async () => {
    try {
      const answer = await fetch(`/standins/rates?day=${today()}`);
      if (!answer.ok) throw new Error(String(answer.status));
      await take(await answer.text(), 'rate feed (sample)');
    } catch {
      setSaid('▲ The rate feed did not answer. Try again later, or import a file.');
    }
  };
  return (
    <div className="mb-4 flex flex-wrap items-end gap-4">
      <Button onClick={() => void ask()}>Get today’s rates</Button>
      <label className="text-soft text-sm">
        A file of daily rates, XML
        <input
          type="file"
          accept=".xml,text/xml,application/xml"
          className="block text-ink"
          onChange={async (event) => {
            const file = event.target.files?.[0];
            if (file !== undefined)
              await take(readTextFile(new Uint8Array(await file.arrayBuffer())).text, file.name.slice(0, 60));
          }}
        />
      </label>
      <Link href={routes.section('csv')} className="underline underline-offset-4">
        Rates as CSV
      </Link>
      <p role="status" className="min-h-[20px] w-full">
        {said}
      </p>
    </div>
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
        <DateField label="Day of the rate" {...field('date')} />
        <TextField label={`Units per ${home}`} inputMode="decimal" {...field('perHome')} />
        <TextField label="Source of the rate" {...field('source')} />
      </div>
      <FormFoot label="Save the exchange rate" busy={form.formState.isSubmitting} general={general} />
    </form>
  );
}
