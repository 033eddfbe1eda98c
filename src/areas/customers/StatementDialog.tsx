'use client';

import { useState } from 'react';
import { isIsoDate } from '@/core/kernel/date';
import type { StatementSpan } from '@/print/account';
import type { PrintedDocument } from '@/print/words';
import { Dialog } from '@/ui/Dialog';
import { ChoiceField } from '@/ui/Field';
import { pagesAsPdf, statementPages } from '../shared/accountPrint';
import { DateField } from '../shared/DateField';
import { MailBatch } from '../shared/delivery/MailBatch';
import { PdfSlip } from '../shared/PdfSlip';
import { typedDay } from '../shared/typedDay';
import { today } from '../shell/book';
import { writeStatement } from './writeStatement';

interface StatementDialogProps {
  readonly customers: readonly { readonly id: string; readonly name: string }[];
  readonly onClose: () => void;
}

/** Statements of account as they print, each in its customer’s language: open items, or all between two days. */
export function StatementDialog({ customers, onClose }: StatementDialogProps) {
  const [how, setHow] = useState<'open' | 'span'>('open');
  const [from, setFrom] = useState(`${today().slice(0, 4)}-01-01`);
  const [until, setUntil] = useState('today');
  const day = (typed: string) => typedDay(typed);
  const [first, last] = [day(from), day(until)];
  const wrong = !isIsoDate(last) || (how === 'span' && (!isIsoDate(first) || first > last));
  const spanNow = (): StatementSpan => {
    if (!isIsoDate(last)) throw new Error('enter the date it is as at');
    return { from: how === 'span' && isIsoDate(first) ? first : null, until: last };
  };
  const make = async () => {
    const span = spanNow();
    const pages: PrintedDocument[] = [];
    for (const { id } of customers) pages.push(...(await statementPages(id, span)));
    return pagesAsPdf(pages);
  };
  const [only, ...more] = customers;
  const name = more.length === 0 ? `statement ${only?.name ?? ''}` : 'statements';
  return (
    <Dialog
      open
      onClose={onClose}
      title={more.length === 0 ? `Statement of ${only?.name ?? ''}` : `Statements of ${customers.length} customers`}
      description="Printed in the customer’s language, one for each currency. Esc closes it."
      wide
    >
      <div className="flex items-start gap-x-4">
        <ChoiceField
          label="Contents"
          className="w-[210px]"
          options={[
            ['open', 'All that is open'],
            ['span', 'Everything between two days'],
          ]}
          value={how}
          onChange={(event) => setHow(event.target.value as 'open' | 'span')}
        />
        {how === 'span' && (
          <DateField label="From" className="w-[140px]" value={from} onChange={(e) => setFrom(e.target.value)} />
        )}
        <DateField
          label={how === 'span' ? 'Until' : 'As at'}
          className="w-[140px]"
          value={until}
          error={wrong ? 'Enter days in their order.' : undefined}
          onChange={(e) => setUntil(e.target.value)}
        />
      </div>
      <PdfSlip
        title={name}
        name={`${name.replaceAll(/[^\p{L}\p{N}]+/gu, '-').toLowerCase()}.pdf`}
        make={wrong ? null : make}
        of={`${how} ${first} ${last}`}
        onClose={onClose}
      />
      <MailBatch
        what="Statement"
        disabled={wrong}
        all={customers.map(({ id, name }) => ({ id, name, write: () => writeStatement(id, spanNow()) }))}
      />
    </Dialog>
  );
}
