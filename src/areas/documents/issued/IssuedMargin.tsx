'use client';

import { useMemo } from 'react';
import { checksOf } from '@/core/decisions/sales/findings';
import { calcInputOf, trailOf } from '@/core/documents/content';
import { explainOpen } from '@/core/documents/explainOpen';
import { KINDS } from '@/core/documents/kinds';
import { isoDate } from '@/core/kernel/date';
import { spanName, spanOf } from '@/core/returns/calendar';
import { explainTotal, type TotalKey } from '@/core/tax/explainTotal';
import { explainLine } from '@/core/tax/workings';
import type { DocumentFile } from '@/store/sales/queries/family';
import Link from '@/ui/Link';
import { Margin, Note } from '@/ui/Page';
import { ExchangeNote } from '../../shared/delivery/DeliveryNote';
import { MailNote } from '../../shared/delivery/MailNote';
import { Because, ChecksNote, componentNames, Steps } from '../../shared/MarginNotes';
import { TimelineNote } from '../../shared/TimelineNote';
import { useOpenBook } from '../../shell/BookContext';
import { EntriesNote } from '../../shell/EntriesNote';
import { routes } from '../../shell/routes';
import { keyOfSide, totalNames, totalTitle } from '../totalNames';
import { FamilyNote } from './FamilyNote';
import { RemindersNote } from './RemindersNote';
import { SettlementNote } from './SettlementNote';

interface IssuedMarginProps {
  readonly file: DocumentFile;
  /** The line or the total whose workings are shown; the line where both are given. */
  readonly lineId: string;
  readonly total: TotalKey;
  readonly onTotal: (key: TotalKey) => void;
}

function WorkingsNote({ file, lineId, total }: Omit<IssuedMarginProps, 'onTotal'>) {
  const { content, figures } = file.document;
  const names = totalNames({
    taxes: content.taxes,
    lines: content.lines,
    adjustments: content.adjustments ?? [],
    withholding: content.withholding ?? [],
  });
  if (lineId === '') {
    const inHome = total === 'home' || total === 'openHome';
    const currency = inHome && content.home !== undefined ? content.home.currency : content.currency;
    const steps =
      total === 'open' || total === 'openHome'
        ? explainOpen(file.document, total)
        : explainTotal(calcInputOf(content), figures, total, names);
    return (
      <Note title={`Workings — ${totalTitle(total, names)}`}>
        <Steps steps={steps} currency={currency} />
        {content.overrides?.map(
          (override) =>
            total === `group:${override.tax}` && (
              <p key={override.family} className="my-2 text-sm">
                Typed, not computed: {override.reason}.
              </p>
            ),
        )}
      </Note>
    );
  }
  const at = content.lines.findIndex((line) => line.id === lineId);
  const line = content.lines[at];
  const tax = content.taxes.find((t) => t.code === line?.tax);
  return (
    <Note title={`Workings — line ${at + 1}`}>
      <Steps
        steps={explainLine(calcInputOf(content), figures, lineId, componentNames(content.taxes))}
        currency={content.currency}
      />
      {line !== undefined && tax !== undefined && (
        <Because tax={tax} trail={trailOf(content, line)} byHand={line.taxByHand} />
      )}
    </Note>
  );
}

function ReportedIn({ file }: Pick<IssuedMarginProps, 'file'>) {
  const { registrations } = useOpenBook();
  const { document } = file;
  const { content, kind } = document;
  if (!KINDS[kind].posts) return <p className="text-soft text-sm">A quote posts nothing.</p>;
  const frequency = registrations.find((r) => r.id === content.registrationId)?.frequency ?? 'monthly';
  const span = spanOf(frequency, isoDate(document.periodId.split('|')[1] ?? content.taxPoint));
  const words =
    kind === 'opening'
      ? 'Its tax was reported before this book.'
      : document.periodId === ''
        ? 'Cash basis: its tax is due when it is paid.'
        : `Reported in ${spanName(span)}${document.late ? ', late: its own period was filed already' : ''}.`;
  return (
    <p className="mt-1 text-soft text-sm">
      {words}{' '}
      <Link href={routes.entry(document.entryId)} className="underline underline-offset-2">
        Journal
      </Link>
    </p>
  );
}

/** How figures came about, what was posted, what holds, how it is settled, what belongs to it, what happened. */
export function IssuedMargin({ file, lineId, total, onTotal }: IssuedMarginProps) {
  const { document } = file;
  const { content } = document;
  const checks = useMemo(() => checksOf(content), [content]);
  const checked = KINDS[document.kind].goesOut;
  const names = totalNames({
    taxes: content.taxes,
    lines: content.lines,
    adjustments: content.adjustments ?? [],
    withholding: content.withholding ?? [],
  });
  const ids = [...content.lines, ...(content.adjustments ?? [])].map(({ id }) => id);
  return (
    <Margin>
      <WorkingsNote file={file} lineId={lineId} total={total} />
      <EntriesNote sides={file.lines} onOpen={(side) => onTotal(keyOfSide(side, names, ids))}>
        <ReportedIn file={file} />
      </EntriesNote>
      {checked && <ChecksNote {...checks} wayTo={() => null} />}
      <ExchangeNote transmissions={file.transmissions} />
      <MailNote mails={file.mails} />
      <SettlementNote file={file} onTotal={onTotal} />
      <RemindersNote documentId={document.id} />
      <FamilyNote current={document.id} family={file.family} drafts={file.drafts} receipts={file.receipts} />
      <TimelineNote id={document.id} events={file.events} mails={file.mails} />
    </Margin>
  );
}
