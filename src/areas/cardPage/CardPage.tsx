'use client';

import { useSearchParams } from 'next/navigation';
import { type FormEvent, useState } from 'react';
import { Button } from '@/ui/Button';
import { TextField } from '@/ui/Field';
import { today } from '../shell/book';

/** What is said while nothing was paid yet, and after. */
type Outcome = '' | 'paid' | 'declined' | 'unreachable';

const WORDS: Readonly<Record<Exclude<Outcome, '' | 'paid'>, string>> = {
  declined: 'The card was declined. Try another card.',
  unreachable: 'The card company does not answer. Nothing was paid; try again later.',
};

/** The simulated page where a customer pays an invoice by card. It knows nothing but what its address says. */
export function CardPage() {
  const asked = useSearchParams();
  const [card, setCard] = useState('');
  const [outcome, setOutcome] = useState<Outcome>('');
  const [busy, setBusy] = useState(false);
  const [number, amount, currency] = ['number', 'amount', 'currency'].map((name) => asked.get(name) ?? '');
  const pay = async (event: FormEvent) => {
    event.preventDefault();
    setBusy(true);
    try {
      const body = JSON.stringify({ number, amount, currency, card, on: today() });
      const answer: { result?: unknown } = await (await fetch('/standins/cards', { method: 'POST', body })).json();
      setOutcome(answer.result === 'paid' ? 'paid' : 'declined');
    } catch {
      setOutcome('unreachable');
    }
    setBusy(false);
  };
  return (
    <main className="mx-auto mt-16 max-w-[420px] border border-rule bg-sheet px-6 py-5">
      <h1 className="font-serif text-2xl">Pay {number}</h1>
      <p className="mb-4 text-soft text-sm">A simulated card page: no money moves, and no real card is asked for.</p>
      <p className="sum-rule mb-4 py-1 font-semibold text-lg tabular-nums">
        {amount} {currency}
      </p>
      {outcome === 'paid' ? (
        <p role="status">Paid. Thank you.</p>
      ) : (
        <form onSubmit={(event) => void pay(event)}>
          <TextField
            label="Card number"
            inputMode="numeric"
            autoComplete="off"
            hint="Any 12 to 19 figures; ending in 02 it is declined, in 09 disputed"
            error={outcome === '' ? undefined : WORDS[outcome]}
            value={card}
            onChange={(event) => setCard(event.target.value)}
          />
          <Button type="submit" weight="main" disabled={busy || card.trim() === ''}>
            Pay {amount} {currency}
          </Button>
        </form>
      )}
    </main>
  );
}
