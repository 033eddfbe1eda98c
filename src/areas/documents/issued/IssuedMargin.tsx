'use client';

import { useMemo } from 'react';
import { checksOf } from '@/core/decisions/sales/findings';
import { calcInputOf, trailOf } from '@/core/documents/content';
import { explainOpen } from '@/core/documents/explainOpen';
import { KINDS } from '@/core/documents/kinds';
import type { Currency } from '@/core/kernel/currency';
import { isoDate, writeDate } from '@/core/kernel/date';
import { type Minor, negated } from '@/core/kernel/money';
import { spanName, spanOf } from '@/core/returns/calendar';
import { standing } from '@/core/settlement/allocation';
import { explainTotal, type TotalKey } from '@/core/tax/explainTotal';
import { explainLine } from '@/core/tax/workings';
import type { DocumentFile } from '@/store/sales/queries/family';
import Link from '@/ui/Link';
import { Money } from '@/ui/Money';
import { Margin, Note, NoteRow } from '@/ui/Page';
import { ExchangeNote } from '../../shared/delivery/DeliveryNote';
import { Because, ChecksNote, componentNames, Steps } from '../../shared/MarginNotes';
import { CreditActions } from '../../shared/settlement/CreditActions';
import { useOpenBook } from '../../shell/BookContext';
import { EntriesNote } from '../../shell/EntriesNote';
import { routes } from '../../shell/routes';
import { keyOfSide, totalNames, totalTitle } from '../totalNames';
import { FamilyNote } from './FamilyNote';
import { TimelineNote } from './TimelineNote';

const LINK = 'underline decoration-rule underline-offset-2';

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
        ? 'Its tax falls due as it is paid.'
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

function SettlementNote({ file, onTotal }: Pick<IssuedMarginProps, 'file' | 'onTotal'>) {
  const { document, family, allocations } = file;
  const { content, figures } = document;
  const { currency } = content;
  const { owed, creditsOwed } = KINDS[document.kind];
  if (!owed && !creditsOwed) return null;
  const paid = standing(allocations)
    .filter(({ takesBack }) => !takesBack)
    .reverse();
  const against = content.corrects;
  const opened = (key: TotalKey, amount: Minor, of: Currency) => (
    <button
      type="button"
      title="Show how it comes about"
      className="cursor-pointer hover:underline"
      onClick={() => onTotal(key)}
    >
      <Money amount={amount} currency={of} />
    </button>
  );
  return (
    <Note title="Settlement">
      <NoteRow label="Total" figure={opened('payable', figures.totals.payable, currency)} />
      {document.cancelled !== null && (
        <NoteRow label={`cancelled ${writeDate(document.cancelled.on)}: ${document.cancelled.reason}`} figure="" />
      )}
      {paid.map(({ id, date, amount, debtKind, debtId, debtNumber, creditKind, creditId, creditNumber }) => {
        const [number, path] =
          debtId === document.id
            ? [creditNumber, creditKind === 'receipt' ? routes.receipt(creditId) : routes.document(creditId)]
            : [
                debtNumber,
                debtKind === 'refund' ? routes.record('customers', document.customerId) : routes.document(debtId),
              ];
        return (
          <NoteRow
            key={id}
            label={
              <Link href={path} className={LINK}>
                {number}, {writeDate(date)}
              </Link>
            }
            figure={<Money amount={amount} currency={currency} />}
          />
        );
      })}
      {document.creditNotes.map((note) => (
        <NoteRow
          key={note.id}
          label={
            <Link href={routes.document(note.id)} className={LINK}>
              {note.number}
            </Link>
          }
          figure={
            <Money
              amount={family.find((d) => d.id === note.id)?.figures.totals.payable ?? document.credited}
              currency={currency}
            />
          }
        />
      ))}
      {against !== undefined && (
        <NoteRow
          label={
            <Link href={routes.document(against.documentId)} className={LINK}>
              set off against {against.number}
            </Link>
          }
          figure={<Money amount={document.credited} currency={currency} />}
        />
      )}
      <NoteRow label="Open" figure={opened('open', document.open, currency)} strong />
      {creditsOwed && document.open < 0n && (
        <CreditActions
          credit={{
            id: document.id,
            number: document.number,
            customerId: document.customerId,
            currency,
            left: negated(document.open),
          }}
        />
      )}
      {content.home !== undefined && (
        <NoteRow
          label={`Open in ${content.home.currency}`}
          figure={opened('openHome', document.openHome, content.home.currency)}
        />
      )}
    </Note>
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
      <SettlementNote file={file} onTotal={onTotal} />
      <FamilyNote current={document.id} family={file.family} drafts={file.drafts} receipts={file.receipts} />
      <TimelineNote id={document.id} events={file.events} />
    </Margin>
  );
}
