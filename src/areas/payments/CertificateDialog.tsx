'use client';

import { useRef, useState } from 'react';
import { toast } from 'sonner';
import { LARGEST_ATTACHMENT } from '@/core/documents/attachment';
import { writeDate } from '@/core/kernel/date';
import { total } from '@/core/kernel/money';
import { accept, refuse } from '@/core/kernel/result';
import { showMoney } from '@/core/kernel/show';
import { typedMoney } from '@/core/kernel/typedMoney';
import { roomIn, type Withheld, type WithholdingCertificate } from '@/core/settlement/withholding';
import { wordRefusals } from '@/core/wording/refusals';
import { enterCertificate } from '@/store/payments/actions/withholding';
import { attachFile } from '@/store/sales/actions/afterIssue';
import { Dialog } from '@/ui/Dialog';
import { ChoiceField, TextField } from '@/ui/Field';
import { DateField } from '../shared/DateField';
import { SlipFoot } from '../shared/FormFoot';
import { MoneyField } from '../shared/MoneyField';
import { typedDay } from '../shared/typedDay';
import { useActionForm } from '../shared/useActionForm';
import { useOpenBook } from '../shell/BookContext';
import { act, moment } from '../shell/book';
import { base64Of } from '../shell/fileBytes';

interface CertificateDialogProps {
  /** Everything withheld. */
  readonly withheld: readonly Withheld[];
  readonly onClose: () => void;
}

/** Enters a customer’s certificate, with its file, over what it kept back: all that is not certified, or what is ticked. */
export function CertificateDialog({ withheld, onClose }: CertificateDialogProps) {
  const { currency: home } = useOpenBook();
  const rooms = roomIn(withheld, 'certified');
  const pairs = [
    ...new Map(
      rooms.map(({ withheld: one }) => [`${one.customerId}|${one.typeId}`, `${one.customerName}: ${one.typeName}`]),
    ),
  ].sort((a, b) => (a[1] < b[1] ? -1 : 1));
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const file = useRef<HTMLInputElement>(null);
  const roomsOf = (pair: string) =>
    rooms.filter(({ withheld: one }) => `${one.customerId}|${one.typeId}` === (pair || pairs[0]?.[0]));
  const chosenOf = (pair: string) => roomsOf(pair).filter(({ withheld: { id } }) => !left.has(id));
  const { form, submit, field, general, busy, isDirty } = useActionForm({
    initial: { pair: pairs[0]?.[0] ?? '', number: '', date: 'today', amount: '' },
    run: async ({ pair, number, date, amount }) => {
      const chosen = chosenOf(pair);
      const read = typedMoney(amount, home, 'amount', total(chosen.map(({ free }) => free)));
      if (!read.ok) return read;
      const scan = file.current?.files?.[0];
      if (scan !== undefined && scan.size > LARGEST_ATTACHMENT)
        return refuse({ code: 'too-large', path: '', wanted: 'file-of-10-mib' });
      const [customerId = '', typeId = ''] = (pair || (pairs[0]?.[0] ?? '')).split('|');
      const made = await act(enterCertificate, {
        customerId,
        typeId,
        number,
        date: typedDay(date),
        amount: read.value,
        withheldIds: chosen.map(({ withheld: { id } }) => id),
      });
      if (made.ok && scan !== undefined) await keepScan(made.value, scan);
      return made.ok ? accept(made.value) : made;
    },
    onDone: (_, { number }) => {
      toast(`Certificate ${number} is entered`);
      onClose();
    },
  });
  const pair = form.watch('pair');
  const free = total(chosenOf(pair).map((room) => room.free));
  return (
    <Dialog
      unsaved={isDirty}
      open
      onClose={onClose}
      title="Certificate of withheld tax"
      description={
        pairs.length === 0
          ? 'All that is withheld is certified.'
          : 'What the customer’s certificate covers; the oldest first where it is less than all.'
      }
    >
      <form onSubmit={submit}>
        {pairs.length > 0 && (
          <>
            <ChoiceField label="Customer and type" autoFocus options={pairs} {...field('pair')} />
            <div className="grid grid-cols-3 gap-x-4">
              <TextField label="Number" {...field('number')} />
              <DateField label="Date" {...field('date')} />
              <MoneyField label="Amount" currency={home} whenEmpty={free} {...field('amount')} />
            </div>
            <fieldset className="mb-3 max-h-[180px] overflow-auto">
              <legend className="text-soft text-sm">It covers</legend>
              {roomsOf(pair).map(({ withheld: one, free: room }) => (
                <label key={one.id} className="flex items-center gap-2 py-0.5">
                  <input
                    type="checkbox"
                    className="accent-rust"
                    checked={!left.has(one.id)}
                    onChange={(event) => {
                      const next = new Set(left);
                      if (event.target.checked) next.delete(one.id);
                      else next.add(one.id);
                      setLeft(next);
                    }}
                  />
                  <span className="flex-1">
                    {one.receiptNumber || one.documentNumber}, {writeDate(one.date)}
                  </span>
                  <span className="tabular-nums">{showMoney(room, home)}</span>
                </label>
              ))}
            </fieldset>
            <label className="mb-3 block text-soft text-sm">
              Its file
              <input ref={file} type="file" className="mt-0.5 block text-ink" />
            </label>
          </>
        )}
        <SlipFoot
          label="Save the certificate"
          busy={busy || pairs.length === 0}
          general={general}
          leave="Not now"
          onClose={onClose}
        />
      </form>
    </Dialog>
  );
}

/** Keeps the scan of a certificate with it. That it could not be kept is told; the certificate stands. */
async function keepScan({ id, number }: WithholdingCertificate, scan: File): Promise<void> {
  try {
    const { name, type, size } = scan;
    const kept = await act(attachFile, {
      id: moment().newId(),
      ownerId: id,
      name,
      type,
      size,
      data: await base64Of(scan),
      addedAt: moment().now,
      goesOut: false,
    });
    if (!kept.ok) toast.error(`The file of ${number} was not saved: ${wordRefusals(kept.refusals)}`);
  } catch {
    toast.error(`“${scan.name}” could not be read, so that ${number} has no file.`);
  }
}
