'use client';

import { toast } from 'sonner';
import { total } from '@/core/kernel/money';
import { showMoney } from '@/core/kernel/show';
import { typedMoney } from '@/core/kernel/typedMoney';
import { roomIn, type Withheld, type WithholdingClaim } from '@/core/settlement/withholding';
import { claimWithheld } from '@/store/payments/actions/withholding';
import { Dialog } from '@/ui/Dialog';
import { ChoiceField } from '@/ui/Field';
import { DateField } from '../shared/DateField';
import { SlipFoot } from '../shared/FormFoot';
import { MoneyField } from '../shared/MoneyField';
import { WouldPost } from '../shared/settlement/WouldPost';
import { typedDay } from '../shared/typedDay';
import { useActionForm } from '../shared/useActionForm';
import { useOpenBook } from '../shell/BookContext';
import { act } from '../shell/book';

interface ClaimForm {
  readonly typeId: string;
  readonly registrationId: string;
  readonly by: WithholdingClaim['by'];
  readonly date: string;
  readonly amount: string;
}

interface ClaimDialogProps {
  /** Everything withheld. */
  readonly withheld: readonly Withheld[];
  readonly onClose: () => void;
}

/** Claims withheld tax: set against what returns are owed, or asked back. */
export function ClaimDialog({ withheld, onClose }: ClaimDialogProps) {
  const { currency: home, registrations, registration } = useOpenBook();
  const rooms = roomIn(withheld, 'claimed');
  const types = [...new Map(rooms.map(({ withheld: one }) => [one.typeId, one.typeName]))];
  const freeOf = (typeId: string) =>
    total(rooms.filter(({ withheld: one }) => one.typeId === (typeId || types[0]?.[0])).map((room) => room.free));
  const inputOf = ({ amount, date, typeId, ...rest }: ClaimForm) => ({
    amount: typedMoney(amount, home, 'amount', freeOf(typeId)),
    rest: { ...rest, typeId: typeId || (types[0]?.[0] ?? ''), date: typedDay(date) },
  });
  const { form, submit, field, general, busy, isDirty } = useActionForm<ClaimForm, WithholdingClaim>({
    initial: { typeId: types[0]?.[0] ?? '', registrationId: registration.id, by: 'set-off', date: 'today', amount: '' },
    run: (value) => {
      const { amount, rest } = inputOf(value);
      return amount.ok ? act(claimWithheld, { ...rest, amount: amount.value }) : Promise.resolve(amount);
    },
    onDone: (_, { amount, by }) => {
      toast(`${showMoney(amount, home)} ${home} is ${by === 'set-off' ? 'set against the return' : 'asked back'}`);
      onClose();
    },
  });
  const value = form.watch();
  const { amount, rest } = inputOf(value);
  return (
    <Dialog
      unsaved={isDirty}
      open
      onClose={onClose}
      title="Claim withheld tax"
      description={
        types.length === 0
          ? 'Nothing can be claimed yet: enter the certificates first.'
          : `${showMoney(freeOf(value.typeId), home)} ${home} can be claimed of this type.`
      }
    >
      <form onSubmit={submit}>
        {types.length > 0 && (
          <>
            <div className="grid grid-cols-2 gap-x-4">
              <ChoiceField label="Type" autoFocus options={types} {...field('typeId')} />
              <ChoiceField
                label="Claimed by"
                options={[
                  ['set-off', 'set against a return'],
                  ['refund', 'asked back'],
                ]}
                {...field('by')}
              />
            </div>
            <div className="grid grid-cols-[1.4fr_1fr_1fr] gap-x-4">
              <ChoiceField
                label="Registration"
                options={registrations.map(({ id, name }) => [id, name] as const)}
                {...field('registrationId')}
              />
              <DateField label="Date" {...field('date')} />
              <MoneyField label="Amount" currency={home} whenEmpty={freeOf(value.typeId)} {...field('amount')} />
            </div>
            <WouldPost action={claimWithheld} input={amount.ok ? { ...rest, amount: amount.value } : null} />
          </>
        )}
        <SlipFoot label="Claim" busy={busy || types.length === 0} general={general} leave="Not now" onClose={onClose} />
      </form>
    </Dialog>
  );
}
