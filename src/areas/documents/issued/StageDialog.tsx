'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { IssuedDocument } from '@/core/documents/issued';
import { leftOf, quantityLeft, quotedParts, type StageRequest } from '@/core/documents/stages';
import { readTypedDecimal } from '@/core/kernel/decimal';
import { type Minor, total } from '@/core/kernel/money';
import type { Refusal } from '@/core/kernel/result';
import { showMoney, showNumber } from '@/core/kernel/show';
import { moneySample, readTypedMoney } from '@/core/kernel/typedMoney';
import { wordRefusals } from '@/core/wording/refusals';
import { wordWanted } from '@/core/wording/wanted';
import { beginStage } from '@/store/sales/actions/quotes';
import { Button } from '@/ui/Button';
import { Dialog } from '@/ui/Dialog';
import { ChoiceField, TextField } from '@/ui/Field';
import { Ruled } from '@/ui/Ruled';
import { act, today } from '../../shell/book';
import { routes } from '../../shell/routes';

type How = StageRequest['kind'];

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
  const [how, setHow] = useState<How>('rest');
  const [typed, setTyped] = useState('');
  const [quantities, setQuantities] = useState<Readonly<Record<string, string>>>({});
  const [fault, setFault] = useState('');
  const money = (amount: Minor) => showMoney(amount, currency);

  const requestOf = (): StageRequest | string => {
    if (how === 'rest') return { kind: 'rest' };
    if (how === 'percent') {
      const percent = readTypedDecimal(typed.replace('%', ''));
      return percent === null || percent.startsWith('-')
        ? 'Give a percentage such as 30.'
        : { kind: 'percent', percent };
    }
    if (how === 'amount') {
      const amount = readTypedMoney(typed, currency);
      return amount === null || amount <= 0n
        ? wordWanted({ what: 'money-such-as', sample: moneySample(currency) })
        : { kind: 'amount', amount };
    }
    const read = Object.entries(quantities)
      .filter(([, text]) => text.trim() !== '')
      .map(([id, text]) => [id, readTypedDecimal(text)] as const);
    if (read.length === 0 || read.some(([, value]) => value === null)) return wordWanted('give-quantity');
    return {
      kind: 'quantities',
      quantities: new Map(read.flatMap(([id, value]) => (value === null ? [] : [[id, value]]))),
    };
  };
  const begin = async () => {
    const request = requestOf();
    if (typeof request === 'string') return setFault(request);
    const result = await act(beginStage, { documentId: quote.id, request, issueDate: today() });
    if (!result.ok) return setFault(wordRefusals(result.refusals as readonly Refusal[]));
    router.push(routes.draft(result.value.draftId));
  };
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title={`Bill ${quote.number}`}
      description={`Makes an invoice draft. Still to bill: ${money(left)} ${currency} ${priceMode === 'net' ? 'without' : 'with'} tax.`}
    >
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void begin();
        }}
      >
        <div className="grid grid-cols-2 gap-x-4">
          <ChoiceField
            label="What is billed now"
            autoFocus
            options={[
              ['rest', 'All that is left'],
              ['percent', 'A percentage of the quote'],
              ['amount', `An amount ${priceMode === 'net' ? 'without' : 'with'} tax`],
              ['quantities', 'Quantities of its lines'],
            ]}
            value={how}
            onChange={(event) => {
              setHow(event.target.value as How);
              setFault('');
            }}
          />
          {(how === 'percent' || how === 'amount') && (
            <TextField
              label={how === 'percent' ? 'Percent' : `Amount, ${currency}`}
              inputMode="decimal"
              value={typed}
              onChange={(event) => setTyped(event.target.value)}
            />
          )}
        </div>
        <Ruled
          caption="What was quoted and billed"
          rows={parts}
          keyOf={(part) => part.id}
          columns={[
            { head: 'Quoted', cell: (part) => part.words },
            { head: 'Value', align: 'right', cell: (part) => money(part.value) },
            { head: 'Billed', align: 'right', cell: (part) => money(part.billed) },
            { head: 'Left', align: 'right', cell: (part) => money(leftOf(part)) },
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
                          value={quantities[part.id] ?? ''}
                          onChange={(event) => setQuantities({ ...quantities, [part.id]: event.target.value })}
                        />
                      );
                    },
                  },
                ]
              : []),
          ]}
        />
        <p role="alert" className="min-h-[22px] pt-1 text-brick">
          {fault !== '' && `▲ ${fault}`}
        </p>
        <div className="flex gap-2.5">
          <Button weight="main" type="submit">
            Write the invoice
          </Button>
          <Button onClick={onClose}>Not now</Button>
        </div>
      </form>
    </Dialog>
  );
}
