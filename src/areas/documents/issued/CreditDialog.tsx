'use client';

import { useRouter } from 'next/navigation';
import { toast } from 'sonner';
import { notesOn } from '@/core/decisions/sales/credit';
import { type CreditRequest, quantityToCredit } from '@/core/documents/creditContent';
import { leftToCredit } from '@/core/documents/creditLeft';
import type { DocumentLink, IssuedDocument } from '@/core/documents/issued';
import { writeDate } from '@/core/kernel/date';
import { type Decimal, decimalOf, readTypedDecimal } from '@/core/kernel/decimal';
import { accept, type Refusal, type Result, refuse } from '@/core/kernel/result';
import { showMoney, showNumber } from '@/core/kernel/show';
import { typedMoney } from '@/core/kernel/typedMoney';
import { unitWord } from '@/core/kernel/unit';
import { creditInvoice } from '@/store/sales/actions/creditInvoice';
import { Dialog } from '@/ui/Dialog';
import { ChoiceField, TextField } from '@/ui/Field';
import { DateField } from '../../shared/DateField';
import { SlipFoot } from '../../shared/FormFoot';
import { MoneyField } from '../../shared/MoneyField';
import { WouldPost } from '../../shared/settlement/WouldPost';
import { typedDay } from '../../shared/typedDay';
import { useActionForm } from '../../shared/useActionForm';
import { act, today } from '../../shell/book';
import { routes } from '../../shell/routes';

interface CreditForm {
  readonly reason: string;
  readonly date: string;
  readonly how: CreditRequest['kind'];
  readonly amount: string;
  /** By the place of the line. */
  readonly quantities: readonly string[];
}

interface CreditDialogProps {
  readonly invoice: IssuedDocument;
  readonly family: readonly IssuedDocument[];
  readonly onClose: () => void;
}

/** Takes an invoice back: all that is left, some of its lines, or an amount. */
export function CreditDialog({ invoice, family, onClose }: CreditDialogProps) {
  const router = useRouter();
  const { content } = invoice;
  const { currency, lines } = content;
  const notes = notesOn(invoice, family);
  const left = leftToCredit(invoice, notes);

  const requestOf = ({ how, amount, quantities }: CreditForm): Result<CreditRequest> => {
    if (how === 'rest') return accept({ kind: 'rest' });
    if (how === 'amount') {
      const read = typedMoney(amount, currency, 'amount');
      return read.ok ? accept({ kind: 'amount', amount: read.value }) : read;
    }
    const refusals: Refusal[] = [];
    const taken = new Map<string, Decimal>();
    for (const [i, { id }] of lines.entries()) {
      const text = quantities[i]?.trim() ?? '';
      const value = text === '' ? null : readTypedDecimal(text);
      if (value !== null) taken.set(id, value);
      else if (text !== '')
        refusals.push({ code: 'invalid', path: `quantities[${i}]`, wanted: 'give-quantity', found: text });
    }
    return refusals.length > 0 ? refuse(...refusals) : accept({ kind: 'lines', quantities: taken });
  };
  const inputOf = (value: CreditForm, request: CreditRequest) => ({
    documentId: invoice.id,
    date: value.date.trim() === '' ? today() : typedDay(value.date),
    reason: value.reason,
    request,
  });
  /** Quantities are fields by the places of their lines. */
  const atField = (refusal: Refusal): Refusal => {
    const at = lines.findIndex(({ id }) => refusal.path === `quantities.${id}`);
    return at < 0 ? refusal : { ...refusal, path: `quantities[${at}]` };
  };
  const { form, submit, field, general, busy, isDirty } = useActionForm<CreditForm, DocumentLink>({
    initial: { reason: '', date: '', how: 'rest', amount: '', quantities: lines.map(() => '') },
    run: async (value) => {
      const request = requestOf(value);
      if (!request.ok) return request;
      const result = await act(creditInvoice, inputOf(value, request.value));
      return result.ok ? result : refuse(...result.refusals.map(atField));
    },
    onDone: (_, note) => {
      toast(`${note.number} credits ${invoice.number}`);
      onClose();
      router.push(routes.document(note.id));
    },
  });
  const value = form.watch();
  const request = requestOf(value);
  return (
    <Dialog
      unsaved={isDirty}
      open
      onClose={onClose}
      title={`Credit ${invoice.number}`}
      description={`A credit note at the invoice’s own rates reverses it. The invoice stays in the book. Left to credit: ${showMoney(left, currency)} ${currency}.`}
    >
      <form onSubmit={submit}>
        <TextField label="Reason, printed on the credit note" autoFocus {...field('reason')} />
        <DateField label="Date" placeholder={writeDate(today())} hint="Empty for today" {...field('date')} />
        <ChoiceField
          label="What is credited"
          options={[
            ['rest', notes.length === 0 ? 'All of it' : 'All that is left of it'],
            ['lines', 'Quantities of its lines'],
            ['amount', 'An amount, with tax, over all lines'],
          ]}
          {...field('how')}
        />
        {value.how === 'amount' && <MoneyField label="Amount with tax" currency={currency} {...field('amount')} />}
        {value.how === 'lines' &&
          lines.map((line, i) => {
            const open = quantityToCredit(line, notes);
            return (
              <TextField
                key={line.id}
                label={`${line.description.split('\n')[0]}: of ${showNumber(decimalOf(open))} ${unitWord(line.unit)} left`}
                inputMode="decimal"
                {...field(`quantities.${i}`)}
              />
            );
          })}
        <WouldPost
          action={creditInvoice}
          input={request.ok ? inputOf({ ...value, reason: value.reason || '·' }, request.value) : null}
        />
        <SlipFoot
          label={`Credit ${invoice.number}`}
          busy={busy}
          general={general}
          leave="Leave it as it is"
          onClose={onClose}
        />
      </form>
    </Dialog>
  );
}
