'use client';

import { useRouter } from 'next/navigation';
import type { IssuedDocument } from '@/core/documents/issued';
import { leftOf, quantityLeft, quotedParts, type StageRequest, stageDraft } from '@/core/documents/stages';
import { decimal, readTypedDecimal } from '@/core/kernel/decimal';
import { type Minor, total } from '@/core/kernel/money';
import { accept, type Result, refuse } from '@/core/kernel/result';
import { showMoney, showNumber, showPrice } from '@/core/kernel/show';
import { typedMoney } from '@/core/kernel/typedMoney';
import { beginStage } from '@/store/sales/actions/quotes';
import { Dialog } from '@/ui/Dialog';
import { ChoiceField, TextField } from '@/ui/Field';
import { Ruled } from '@/ui/Ruled';
import { SlipFoot } from '../../shared/FormFoot';
import { MoneyField } from '../../shared/MoneyField';
import { useActionForm } from '../../shared/useActionForm';
import { act, today } from '../../shell/book';
import { routes } from '../../shell/routes';

interface StageForm {
  readonly how: StageRequest['kind'];
  readonly percent: string;
  readonly amount: string;
  /** By the place of what was quoted. */
  readonly quantities: readonly string[];
}

interface StageDialogProps {
  readonly quote: IssuedDocument;
  readonly family: readonly IssuedDocument[];
  readonly onClose: () => void;
}

/** Bills a quote: all that is left, a share of it, an amount, or quantities of its lines. */
export function StageDialog({ quote, family, onClose }: StageDialogProps) {
  const router = useRouter();
  const { currency, priceMode } = quote.content;
  const parts = quotedParts(quote, family);
  const left = total(parts.map(leftOf));
  const money = (amount: Minor) => showMoney(amount, currency);

  const requestOf = ({ how, percent, amount, quantities }: StageForm): Result<StageRequest> => {
    if (how === 'rest') return accept({ kind: 'rest' });
    if (how === 'percent') {
      const read = readTypedDecimal(percent.replace('%', ''));
      return read === null || read.startsWith('-')
        ? refuse({ code: 'invalid', path: 'percent', wanted: 'percentage-to-100', found: percent })
        : accept({ kind: 'percent', percent: read });
    }
    if (how === 'amount') {
      const read = typedMoney(amount, currency, 'amount');
      return read.ok ? accept({ kind: 'amount', amount: read.value }) : read;
    }
    const read = parts.flatMap(({ id }, i) => {
      const text = quantities[i]?.trim() ?? '';
      return text === '' ? [] : [[id, readTypedDecimal(text)] as const];
    });
    if (read.length === 0 || read.some(([, value]) => value === null))
      return refuse({ code: 'invalid', path: 'quantities', wanted: 'give-quantity' });
    const billed = new Map(read.flatMap(([id, value]) => (value === null ? [] : [[id, value]])));
    return accept({ kind: 'quantities', quantities: billed });
  };
  const linesInvoiced = (typed: StageForm) => {
    const request = typed.how === 'quantities' ? requestOf(typed) : null;
    if (request?.ok !== true) return [];
    return stageDraft(quote, parts, request.value, { id: '', issueDate: today(), due: '' }).lines;
  };
  const { form, submit, field, general, busy, isDirty } = useActionForm<StageForm, { readonly draftId: string }>({
    initial: { how: 'rest', percent: '', amount: '', quantities: parts.map(() => '') },
    run: (value) => {
      const request = requestOf(value);
      if (!request.ok) return Promise.resolve(request);
      return act(beginStage, { documentId: quote.id, request: request.value, issueDate: today() });
    },
    onDone: (_, { draftId }) => router.push(routes.draft(draftId)),
  });
  const how = form.watch('how');
  /** Of the quoted lines that are invoiced by quantity: what is left of one may ask for another price than was quoted. */
  const prices = new Map(linesInvoiced(form.watch()).map(({ of, price }) => [of, decimal(price)]));
  return (
    <Dialog
      unsaved={isDirty}
      open
      wide
      onClose={onClose}
      title={`Invoice ${quote.number}`}
      description={`Makes an invoice draft. Still to invoice: ${money(left)} ${currency} ${priceMode === 'net' ? 'without' : 'with'} tax.`}
    >
      <form onSubmit={submit}>
        <div className="grid grid-cols-2 gap-x-4">
          <ChoiceField
            label="What is invoiced now"
            autoFocus
            options={[
              ['rest', 'All that is left'],
              ['percent', 'A percentage of the quote'],
              ['amount', `An amount ${priceMode === 'net' ? 'without' : 'with'} tax`],
              ['quantities', 'Quantities of its lines'],
            ]}
            {...field('how')}
          />
          {how === 'percent' && <TextField label="Percent" inputMode="decimal" {...field('percent')} />}
          {how === 'amount' && <MoneyField label="Amount" currency={currency} {...field('amount')} />}
        </div>
        <Ruled
          caption="Quoted and invoiced"
          rows={parts}
          keyOf={(part) => part.id}
          columns={[
            { head: 'Quoted', cell: (part) => part.words },
            { head: 'Amount', align: 'right', cell: (part) => money(part.value) },
            { head: 'Invoiced', align: 'right', cell: (part) => money(part.billed) },
            { head: 'Remaining', align: 'right', cell: (part) => money(leftOf(part)) },
            ...(how === 'quantities'
              ? [
                  {
                    head: 'Quantity now',
                    align: 'right' as const,
                    width: '130px',
                    cell: (part: (typeof parts)[number]) => {
                      const most = part.quantity.n === 0n ? null : quantityLeft(part);
                      return most === null ? (
                        ''
                      ) : (
                        <input
                          aria-label={`Quantity now of ${part.words}`}
                          inputMode="decimal"
                          placeholder={`of ${showNumber(most)}`}
                          className="cell -my-1 border-soft border-b text-right tabular-nums"
                          {...form.register(`quantities.${parts.indexOf(part)}`)}
                        />
                      );
                    },
                  },
                  {
                    head: 'Price',
                    align: 'right' as const,
                    width: '150px',
                    cell: ({ id }: (typeof parts)[number]) => {
                      const price = prices.get(id);
                      const quoted = quote.content.lines.find((line) => line.id === id)?.unitPrice;
                      if (price === undefined || quoted === undefined) return '';
                      const shown = showPrice(price, currency);
                      return price === quoted ? shown : `${shown} instead of ${showPrice(quoted, currency)}`;
                    },
                  },
                ]
              : []),
          ]}
        />
        <div className="pt-2" />
        <SlipFoot label="Create the invoice" busy={busy} general={general} leave="Not now" onClose={onClose} />
      </form>
    </Dialog>
  );
}
