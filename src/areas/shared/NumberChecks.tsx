'use client';

import { useState } from 'react';
import { toast } from 'sonner';
import { writeDate } from '@/core/kernel/date';
import type { Customer, NumberCheck, TaxNumber } from '@/core/parties/customer';
import { wordRefusals } from '@/core/wording/refusals';
import { keepNumberCheck } from '@/store/setup/actions/taxSetup';
import { Button } from '@/ui/Button';
import { Mark, type MarkKind } from '@/ui/Mark';
import { Note } from '@/ui/Page';
import { act, today } from '../shell/book';

const RESULTS: Readonly<Record<NumberCheck['result'], readonly [MarkKind, string]>> = {
  valid: ['good', 'valid'],
  invalid: ['wrong', 'invalid: ask the customer for the right one'],
  unreachable: ['warning', 'not verified: the registry did not answer; try again later'],
};

/** Asks the registry of tax numbers; no answer is an answer too, and is kept. */
async function ask({ country, number }: TaxNumber): Promise<NumberCheck> {
  const on = today();
  try {
    const response = await fetch(`/standins/tax-number?${new URLSearchParams({ country, number })}`);
    const answer: { result?: unknown; reference?: unknown } = await response.json();
    if (answer.result === 'valid' || answer.result === 'invalid')
      return { result: answer.result, on, reference: typeof answer.reference === 'string' ? answer.reference : '' };
  } catch {
    // Falls through: a registry that can't be reached is recorded as such.
  }
  return { result: 'unreachable', on, reference: '' };
}

/** Asks about a number of a customer and keeps the answer; what is asked about now, and what went wrong. */
function useVerify(customerId: string) {
  const [busy, setBusy] = useState('');
  const [wrong, setWrong] = useState('');
  const verify = async (number: TaxNumber) => {
    setBusy(number.number);
    const check = await ask(number);
    const result = await act(keepNumberCheck, { customerId, number: number.number, check });
    setWrong(result.ok ? '' : wordRefusals(result.refusals));
    if (result.ok) toast(`${number.number} is ${RESULTS[check.result][1]}`);
    setBusy('');
  };
  return { busy, wrong, verify };
}

interface NumbersProps {
  readonly customerId: string;
  readonly numbers: readonly TaxNumber[];
}

/** Tax numbers with the last enquiry about each, and the button that asks again. */
function Numbers({ customerId, numbers }: NumbersProps) {
  const { busy, wrong, verify } = useVerify(customerId);
  return (
    <>
      <ul>
        {numbers.map((number) => {
          const { check } = number;
          const [mark, word] = check === null ? (['open', 'not verified yet'] as const) : RESULTS[check.result];
          return (
            <li key={number.number} className="flex flex-wrap items-baseline gap-x-2 border-rule border-b py-1">
              <Mark kind={mark} />
              <span>
                {number.country} {number.number}
              </span>
              <span className="flex-1 text-soft">
                {word}
                {check !== null && `, ${writeDate(check.on)}${check.reference === '' ? '' : `, ${check.reference}`}`}
              </span>
              <Button disabled={busy !== ''} onClick={() => void verify(number)}>
                Verify {number.number}
              </Button>
            </li>
          );
        })}
      </ul>
      {wrong !== '' && (
        <p role="alert" className="text-brick">
          ▲ {wrong}
        </p>
      )}
    </>
  );
}

/** The customer's tax numbers with the last enquiry at the registry, kept as evidence. */
export function NumberChecks({ customer }: { readonly customer: Customer }) {
  if (customer.taxNumbers.length === 0) return null;
  return (
    <section aria-label="Verification of tax numbers" className="mt-6 border-rule border-t pt-4">
      <h2 className="mb-2 font-semibold font-serif">Verification of tax numbers</h2>
      <p className="mb-2 text-soft text-sm">The registry is simulated here; its answer and day are kept as evidence.</p>
      <Numbers customerId={customer.id} numbers={customer.taxNumbers} />
    </section>
  );
}

/** Numbers abroad that nobody has verified, beside what is written to the customer; nothing where there is none. */
export function UnverifiedNumbers({ customer, home }: { readonly customer: Customer; readonly home: string }) {
  const open = customer.taxNumbers.filter(({ country, check }) => country !== home && check?.result !== 'valid');
  if (open.length === 0) return null;
  return (
    <Note title="Tax number">
      <Numbers customerId={customer.id} numbers={open} />
    </Note>
  );
}
