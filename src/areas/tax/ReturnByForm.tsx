'use client';

import { useState } from 'react';
import { filledForm } from '@/core/decisions/tax/fileReturn';
import type { Span } from '@/core/returns/calendar';
import { rowsInto } from '@/core/returns/form';
import type { Filing, TaxReturn } from '@/core/returns/return';
import type { TypedBox } from '@/core/returns/statedForm';
import { Button } from '@/ui/Button';
import Link from '@/ui/Link';
import { Mark } from '@/ui/Mark';
import { Money } from '@/ui/Money';
import { ListTable } from '../shared/ListTable';
import { useOpenBook } from '../shell/BookContext';
import { routes } from '../shell/routes';
import { boxId } from './Behind';
import { OpenFigure } from './OpenFigure';
import { TypeBoxesDialog } from './TypeBoxesDialog';

interface ReturnByFormProps {
  readonly span: Span;
  readonly figures: TaxReturn;
  /** Null while it is open. */
  readonly filed: Filing | null;
  readonly typed: readonly TypedBox[];
  readonly opened: string;
  readonly onOpen: (id: string) => void;
}

/** The return as its form prints it: each box with its words, opening what went into it, and what was typed. */
export function ReturnByForm({ span, figures, filed, typed, opened, onOpen }: ReturnByFormProps) {
  const { registration } = useOpenBook();
  const [typing, setTyping] = useState(false);
  const filled = filledForm(registration, figures, typed);
  if (filled === null) return null;
  const { form, faults } = filled;
  const { filingCurrency } = registration;
  const stated = filed?.form ?? filled.stated;
  const boxOf = (id: string) => form.boxes.find((box) => box.id === id);
  const opens = (id: string) => {
    const box = boxOf(id);
    return box !== undefined && rowsInto(box, figures.rows).length > 0;
  };
  return (
    <>
      <ListTable
        caption={`${stated.title}, boxes`}
        rows={stated.boxes}
        keyOf={({ box }) => box}
        columns={[
          { head: 'Box', value: ({ box }) => box, cell: ({ box }) => <span className="font-semibold">{box}</span> },
          {
            head: 'As the form says',
            text: ({ words }) => words,
            cell: ({ box, words }) => (
              <>
                {words}
                {typed
                  .filter((one) => one.box === box)
                  .map((one, i) => (
                    <span key={`${i}-${one.words}`} className="block text-soft text-sm">
                      typed <Money amount={one.amount} currency={filingCurrency} />: {one.words}
                      {one.account !== '' && `, against ${one.account}`}
                    </span>
                  ))}
              </>
            ),
          },
          {
            head: filingCurrency,
            align: 'right',
            value: ({ amount }) => amount,
            cell: ({ box, amount }) =>
              opens(box) ? (
                <OpenFigure
                  id={boxId(box)}
                  label={`Box ${box}`}
                  amount={amount}
                  currency={filingCurrency}
                  opened={opened}
                  onOpen={onOpen}
                />
              ) : (
                <Money amount={amount} currency={filingCurrency} />
              ),
          },
        ]}
        sums={[
          '',
          stated.due < 0n ? `${registration.authority} owes` : `Due to ${registration.authority}`,
          <Money key="due" amount={stated.due} currency={filingCurrency} withCode />,
        ]}
      />
      {faults.map(({ codeName, what, boxes }) => (
        <p key={`${codeName}${what}`} className="mt-2 text-brick">
          <Mark kind="wrong" /> {what === 'tax' ? 'The tax' : 'The taxable amount'} of {codeName} stands in{' '}
          {boxes.length === 0 ? 'no box' : `${boxes.join(' and ')} at once`}.{' '}
          <Link href={routes.section('tax-codes')} className="underline underline-offset-4">
            Give its boxes in Setup
          </Link>
        </p>
      ))}
      {filed === null && (
        <p className="mt-3">
          <Button onClick={() => setTyping(true)}>Amounts from other books…</Button>
        </p>
      )}
      {typing && <TypeBoxesDialog span={span} form={form} typed={typed} onClose={() => setTyping(false)} />}
    </>
  );
}
