'use client';

import { useRef, useState } from 'react';
import type { Draft } from '@/core/documents/draft';
import { datesOf } from '@/core/documents/lineTax';
import type { Setting } from '@/core/documents/setting';
import { hasPrices, type KeepPrices, type LeftCurrency, switchCurrency } from '@/core/documents/switchCurrency';
import { CURRENCIES } from '@/core/kernel/currency';
import { decimal, readTypedDecimal } from '@/core/kernel/decimal';
import { ratesOn } from '@/store/load';
import { Button } from '@/ui/Button';
import { Dialog } from '@/ui/Dialog';
import { bookDb, today } from '../../shell/book';
import type { DraftStore } from './draftStore';
import { ChoiceSlot } from './slots';

interface CurrencySlotProps {
  readonly store: DraftStore;
  readonly draft: Draft;
  readonly setting: Setting;
}

/** The currency of a draft; changing it asks what becomes of the prices. */
export function CurrencySlot({ store, draft, setting }: CurrencySlotProps) {
  const { homeCurrency } = setting.business;
  const [asked, setAsked] = useState<string | null>(null);
  const [problem, setProblem] = useState('');
  const left = useRef<LeftCurrency | null>(null);
  const nameOf = (currency: string) => currency || homeCurrency;

  const perHome = async (currency: string, typed: string) => {
    if (currency === '') return decimal('1');
    const own = typed === '' ? null : readTypedDecimal(typed);
    const day = datesOf(draft).taxPoint ?? today();
    return own ?? (await ratesOn(bookDb(), [currency], day)).get(currency)?.perHome ?? null;
  };
  const change = async (to: string, keep: KeepPrices) => {
    const [from, into] = [await perHome(draft.currency, draft.perHome), await perHome(to, '')];
    if (keep === 'converted' && (from === null || into === null)) {
      const missing = nameOf(from === null ? draft.currency : to);
      setProblem(`No exchange rate of ${missing} is known on the tax point: add it in Setup, or keep the prices.`);
      return;
    }
    const rates = { from: from ?? decimal('1'), to: into ?? decimal('1') };
    store.rework((before) => {
      const after = switchCurrency(before, to, keep, rates, homeCurrency, left.current);
      if (keep === 'converted') left.current = { currency: before.currency, before, after };
      return after;
    });
    close();
  };
  const close = () => {
    setAsked(null);
    setProblem('');
  };
  return (
    <>
      <ChoiceSlot
        label="Currency"
        field="currency"
        value={draft.currency}
        options={[
          ['', `${homeCurrency}, home`],
          ...CURRENCIES.filter((code) => code !== homeCurrency).map((code) => [code, code] as const),
        ]}
        onPick={(currency) => {
          if (hasPrices(draft)) setAsked(currency);
          else void change(currency, 'as-typed');
        }}
      />
      <Dialog
        open={asked !== null}
        onClose={close}
        title={`The document will be in ${nameOf(asked ?? '')}`}
        description={`Its prices are in ${nameOf(draft.currency)}: convert them by the rate of the tax point, or keep the figures as they are.`}
      >
        {problem !== '' && (
          <p role="alert" className="mb-3 text-brick">
            ▲ {problem}
          </p>
        )}
        <div className="flex gap-2.5">
          <Button weight="main" onClick={() => void change(asked ?? '', 'converted')}>
            Convert the prices
          </Button>
          <Button onClick={() => void change(asked ?? '', 'as-typed')}>Keep the figures</Button>
          <Button weight="quiet" onClick={close}>
            Leave it in {nameOf(draft.currency)}
          </Button>
        </div>
      </Dialog>
    </>
  );
}
