'use client';

import { useRouter } from 'next/navigation';
import { toast } from 'sonner';
import { type Minor, NOTHING, total } from '@/core/kernel/money';
import { readTypedMoney } from '@/core/kernel/typedMoney';
import { isOffered } from '@/core/ledger/account';
import { PAYMENT_METHODS, type PaymentMethod } from '@/core/parties/paymentMethod';
import { chargesNothing, plainName } from '@/core/tax/taxCode';
import { codesUnder } from '@/core/tax/taxSetup';
import { enterTakings } from '@/store/sales/actions/takings';
import { ChoiceField, TextField } from '@/ui/Field';
import { Money } from '@/ui/Money';
import { Sheet, SheetTitle } from '@/ui/Page';
import { DateField } from '../../shared/DateField';
import { FormFoot } from '../../shared/FormFoot';
import { typedDay } from '../../shared/typedDay';
import { useActionForm } from '../../shared/useActionForm';
import { useOpenBook } from '../../shell/BookContext';
import { act } from '../../shell/book';
import { KEY_MAP } from '../../shell/keyMap';
import { routes } from '../../shell/routes';
import { useKey } from '../../shell/useKey';

/** A day's till total by tax code, tax inside. No invoice is made of it. */
export function TakingsForm() {
  const router = useRouter();
  const { records, accounts, registration, registrations, currency } = useOpenBook();
  const income = accounts.filter((account) => account.type === 'income' && account.role === '' && isOffered(account));
  // A till takes the taxes of the territory it stands in.
  const offeredUnder = (id: string) =>
    codesUnder(registrations.find((r) => r.id === id) ?? registration, records).filter(
      (code) => !chargesNothing(code.category) || code.category === 'Z',
    );
  const { form, submit, field, errorAt, general, busy } = useActionForm({
    initial: {
      registrationId: registration.id,
      date: 'today',
      paidBy: 'cash' as PaymentMethod,
      note: '',
      account: income[0]?.code ?? '',
      amounts: {} as Readonly<Record<string, string>>,
    },
    run: ({ registrationId: id, account, amounts: typed, date, ...rest }) =>
      act(enterTakings, {
        ...rest,
        registrationId: id,
        date: typedDay(date),
        rows: offeredUnder(id).map((code) => ({ taxCode: code.id, amount: typed[code.id] ?? '', account })),
      }),
    onDone: (_, { id, number }) => {
      toast(`${number} is entered`);
      router.push(routes.document(id));
    },
  });
  const [registrationId, amounts] = form.watch(['registrationId', 'amounts']);
  const offered = offeredUnder(registrationId);
  const sum = total(offered.map(({ id }): Minor => readTypedMoney(amounts[id] ?? '', currency) ?? NOTHING));
  useKey('main', () => void submit());
  return (
    <Sheet label="Takings">
      <SheetTitle>Takings</SheetTitle>
      <p className="mb-3 text-soft">Sales of one day at the till, tax included. No tax invoice is printed.</p>
      <form className="flex flex-1 flex-col" onSubmit={submit}>
        <div className="grid grid-cols-4 gap-x-4">
          <DateField label="Date" autoFocus {...field('date')} />
          <ChoiceField
            label="Taken"
            options={PAYMENT_METHODS.map((method) => [method, method] as const)}
            {...field('paidBy')}
          />
          <ChoiceField
            label="Income account"
            options={income.map(({ code, name }) => [code, `${code} ${name}`] as const)}
            {...field('account')}
          />
          {registrations.length > 1 && (
            <ChoiceField
              label="Reported under"
              options={registrations.map(({ id, name }) => [id, name] as const)}
              {...field('registrationId')}
            />
          )}
        </div>
        <div className="mt-2 grid grid-cols-3 gap-x-4">
          {offered.map((code, i) => (
            <TextField
              key={code.id}
              label={`${code.id} ${plainName(code)}, ${currency} with tax`}
              inputMode="decimal"
              {...form.register(`amounts.${code.id}`)}
              error={errorAt(`rows[${i}].amount`)}
            />
          ))}
        </div>
        <TextField label="Note" {...field('note')} />
        <p className="sum-rule ml-auto flex w-[260px] justify-between px-1.5 py-1 font-semibold text-lg">
          Taken <Money amount={sum} currency={currency} withCode />
        </p>
        <div className="mt-auto">
          <FormFoot label="Enter the takings" busy={busy} general={general} keys={KEY_MAP.main.shown} />
        </div>
      </form>
    </Sheet>
  );
}
