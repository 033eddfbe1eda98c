'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { toast } from 'sonner';
import { unitWord } from '@/core/catalogue/item';
import { notesOn } from '@/core/decisions/sales/credit';
import { type CreditRequest, quantityToCredit } from '@/core/documents/creditContent';
import { leftToCredit } from '@/core/documents/creditLeft';
import type { IssuedDocument } from '@/core/documents/issued';
import { decimalOf, readTypedDecimal } from '@/core/kernel/decimal';
import { refuse } from '@/core/kernel/result';
import { showMoney, showNumber } from '@/core/kernel/show';
import { moneySample, readTypedMoney } from '@/core/kernel/typedMoney';
import { wordWanted } from '@/core/wording/wanted';
import { creditInvoice } from '@/store/sales/actions/creditInvoice';
import { ChoiceField, TextField } from '@/ui/Field';
import { WordDayDialog } from '../../shared/WordDayDialog';
import { act } from '../../shell/book';
import { routes } from '../../shell/routes';

type How = CreditRequest['kind'];

interface CreditDialogProps {
  readonly invoice: IssuedDocument;
  readonly family: readonly IssuedDocument[];
  readonly onClose: () => void;
}

/** Takes an invoice back: all that is left, some of its lines, or an amount. */
export function CreditDialog({ invoice, family, onClose }: CreditDialogProps) {
  const router = useRouter();
  const { content } = invoice;
  const { currency } = content;
  const notes = notesOn(invoice, family);
  const left = leftToCredit(invoice, notes);
  const [how, setHow] = useState<How>('rest');
  const [amount, setAmount] = useState('');
  const [quantities, setQuantities] = useState<Readonly<Record<string, string>>>({});
  const [wrong, setWrong] = useState<Readonly<Record<string, string>>>({});

  const requestOf = (): CreditRequest | null => {
    if (how === 'rest') return { kind: 'rest' };
    if (how === 'amount') {
      const read = readTypedMoney(amount, currency);
      if (read !== null) return { kind: 'amount', amount: read };
      setWrong({ amount: wordWanted({ what: 'money-such-as', sample: moneySample(currency) }) });
      return null;
    }
    const typed = Object.entries(quantities).filter(([, text]) => text.trim() !== '');
    const read = typed.map(([id, text]) => [id, readTypedDecimal(text)] as const);
    const bad = read.filter(([, value]) => value === null);
    setWrong(Object.fromEntries(bad.map(([id]) => [id, wordWanted('give-quantity')])));
    if (bad.length > 0) return null;
    return { kind: 'lines', quantities: new Map(read.flatMap(([id, value]) => (value === null ? [] : [[id, value]]))) };
  };
  const credit = async (reason: string, date: string) => {
    const request = requestOf();
    if (request === null) return refuse();
    const result = await act(creditInvoice, { documentId: invoice.id, date, reason, request });
    if (!result.ok) {
      const at = result.refusals.filter(({ path }) => path.startsWith('quantities.') || path === 'amount');
      setWrong(
        Object.fromEntries(at.map(({ path }) => [path.replace('quantities.', ''), 'This is more than is left of it.'])),
      );
      return refuse(...result.refusals.filter((refusal) => !at.includes(refusal)));
    }
    toast(`${result.value.number} credits ${invoice.number}`);
    onClose();
    router.push(routes.document(result.value.id));
    return result;
  };
  return (
    <WordDayDialog
      title={`Credit ${invoice.number}`}
      description={`A credit note with the invoice’s own rates takes it back. The invoice stays in the book. Left to credit: ${showMoney(left, currency)} ${currency}.`}
      words="Reason, printed on the credit note"
      day="Date"
      action={`Credit ${invoice.number}`}
      onDo={credit}
      onClose={onClose}
    >
      <ChoiceField
        label="What is taken back"
        options={[
          ['rest', notes.length === 0 ? 'All of it' : 'All that is left of it'],
          ['lines', 'Quantities of its lines'],
          ['amount', 'An amount, with tax, over all lines'],
        ]}
        value={how}
        onChange={(event) => setHow(event.target.value as How)}
      />
      {how === 'amount' && (
        <TextField
          label={`Amount with tax, ${currency}`}
          inputMode="decimal"
          value={amount}
          error={wrong.amount}
          onChange={(event) => setAmount(event.target.value)}
        />
      )}
      {how === 'lines' &&
        content.lines.map((line) => {
          const open = quantityToCredit(line, notes);
          return (
            <TextField
              key={line.id}
              label={`${line.description.split('\n')[0]}: of ${showNumber(decimalOf(open))} ${unitWord(line.unit)} left`}
              inputMode="decimal"
              value={quantities[line.id] ?? ''}
              error={wrong[line.id]}
              onChange={(event) => setQuantities({ ...quantities, [line.id]: event.target.value })}
            />
          );
        })}
    </WordDayDialog>
  );
}
