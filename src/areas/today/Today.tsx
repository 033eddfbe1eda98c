'use client';

import type { ReactNode } from 'react';
import { dayOf, daysBetween, isIsoDate, writeDate, writeDay } from '@/core/kernel/date';
import { minus } from '@/core/kernel/money';
import { spanName } from '@/core/returns/calendar';
import { remindersDue } from '@/core/settlement/reminder';
import { bankStandings } from '@/store/bank/queries/lines';
import { reminderMaterial } from '@/store/customers/queries/reminders';
import { mailsIn } from '@/store/delivery/queries/mail';
import { askingTransmissions } from '@/store/delivery/queries/sent';
import { missingCertificates } from '@/store/payments/queries/withholding';
import { countEvents } from '@/store/records';
import { draftsFound, overdueInvoices } from '@/store/sales/queries/documents';
import { waitingRecurring } from '@/store/sales/queries/recurring';
import { lapsingCertificates } from '@/store/setup/queries/certificates';
import { firstSteps } from '@/store/setup/queries/firstSteps';
import { returnsToFile } from '@/store/tax/queries/periods';
import Link from '@/ui/Link';
import { Mark, type MarkKind } from '@/ui/Mark';
import { Money } from '@/ui/Money';
import { Empty, Sheet, SheetTitle } from '@/ui/Page';
import { mailMark, mailNeed } from '../shared/delivery/mailMark';
import { transmissionMark, transmissionNeed } from '../shared/delivery/transmissionMark';
import { useOpenBook } from '../shell/BookContext';
import { moment, today, useBook } from '../shell/book';
import { lastSaved, saveReminder } from '../shell/lastSaved';
import { usePicked } from '../shell/period';
import { routes } from '../shell/routes';
import { FirstStepsList } from './FirstStepsList';
import { GlanceStrip } from './GlanceStrip';

const ROWS_SHOWN = 30;

interface TaskProps {
  readonly mark: MarkKind;
  readonly path: string;
  readonly words: string;
  readonly detail: string;
  readonly figure: ReactNode;
  readonly onOpen?: () => void;
}

function Task({ mark, path, words, detail, figure, onOpen }: TaskProps) {
  return (
    <li className="flex items-baseline gap-2 border-rule border-b py-1">
      <Mark kind={mark} />
      <Link href={path} onClick={() => onOpen?.()} className="underline decoration-rule underline-offset-4">
        {words}
      </Link>
      <span className="flex-1 text-soft">{detail}</span>
      {figure}
    </li>
  );
}

/** What needs the bookkeeper today: returns to file, certificates that lapse, invoices overdue, drafts not issued. */
export function Today() {
  const { registrations, currency } = useOpenBook();
  const { pick, pickRegistration } = usePicked();
  const day = today();
  const found = useBook(
    async (db) => {
      return {
        drafts: await draftsFound(db, '', ROWS_SHOWN),
        overdue: await overdueInvoices(db, day, ROWS_SHOWN),
        returns: await returnsToFile(db, registrations, day),
        certificates: await lapsingCertificates(db, day, ROWS_SHOWN),
        missing: await missingCertificates(db, day, ROWS_SHOWN),
        reminders: remindersDue(await reminderMaterial(db, day)).plans.length,
        recurring: await waitingRecurring(db, ROWS_SHOWN),
        mails: await mailsIn(db, 'asks', ROWS_SHOWN),
        transmissions: await askingTransmissions(db, moment().now, ROWS_SHOWN),
        bank: (await bankStandings(db)).filter(({ open }) => open > 0),
        steps: await firstSteps(db),
        reminder: saveReminder(lastSaved(), await countEvents(db), day),
      };
    },
    [],
    [registrations, day],
  );
  if (found === undefined) return <Sheet label="Today">{null}</Sheet>;
  const {
    overdue,
    drafts,
    returns,
    certificates,
    missing,
    transmissions,
    mails,
    recurring,
    reminders,
    bank,
    steps,
    reminder,
  } = found;
  const nothing = [returns, certificates, missing, transmissions, mails, recurring, bank, overdue, drafts].every(
    (list) => list.length === 0,
  );
  return (
    <Sheet label="Today">
      <SheetTitle aside={writeDate(day)}>Today</SheetTitle>
      {reminder !== '' && (
        <p className="mb-5">
          <Mark kind="warning" /> {reminder}{' '}
          <Link href={routes.section('book')} className="underline underline-offset-4">
            Save the book to a file
          </Link>
        </p>
      )}
      {steps === null && <GlanceStrip day={day} />}
      {steps !== null && <FirstStepsList steps={steps} />}
      {nothing && steps === null && <Empty>Nothing needs action. Alt+2, then Alt+N begins a new invoice.</Empty>}
      {returns.length > 0 && (
        <section className="mb-6">
          <h2 className="mb-1 font-semibold font-serif">Returns</h2>
          <ul>
            {returns.map(({ registration, span, figures }) => (
              <Task
                key={registration.id}
                mark="closing"
                path={routes.closing}
                words={`Reconcile and file ${spanName(span)}`}
                detail={`${registration.name}, ended ${writeDate(span.end)}`}
                figure={<Money amount={figures.tax} currency={currency} withCode />}
                onOpen={() => {
                  pickRegistration(registration.id);
                  pick(span.start);
                }}
              />
            ))}
          </ul>
        </section>
      )}
      {certificates.length > 0 && (
        <section className="mb-6">
          <h2 className="mb-1 font-semibold font-serif">Exemption certificates</h2>
          <ul>
            {certificates.map(({ certificate, customer }) => (
              <Task
                key={certificate.id}
                mark={certificate.until < day ? 'wrong' : 'warning'}
                path={routes.record('customers', certificate.customerId)}
                words={`Certificate ${certificate.number}`}
                detail={`${customer}, ${certificate.until < day ? 'lapsed' : 'lapses'} ${isIsoDate(certificate.until) ? writeDate(certificate.until) : ''}`}
                figure={null}
              />
            ))}
          </ul>
        </section>
      )}
      {missing.length > 0 && (
        <section className="mb-6">
          <h2 className="mb-1 font-semibold font-serif">Withholding certificates missing</h2>
          <ul>
            {missing.map((one) => (
              <Task
                key={one.id}
                mark="warning"
                path={routes.withholding}
                words={`${one.typeName}, ${one.receiptNumber || one.documentNumber}`}
                detail={`${one.customerName}, withheld ${writeDate(one.date)}`}
                figure={<Money amount={minus(one.home, one.certified)} currency={currency} />}
              />
            ))}
          </ul>
        </section>
      )}
      {bank.length > 0 && (
        <section className="mb-6">
          <h2 className="mb-1 font-semibold font-serif">Bank</h2>
          <ul>
            {bank.map(({ account, open }) => (
              <Task
                key={account.id}
                mark="open"
                path={routes.bank}
                words={`${open} bank ${open === 1 ? 'line' : 'lines'} to match`}
                detail={`${account.name}, ${account.currency}`}
                figure={null}
              />
            ))}
          </ul>
        </section>
      )}
      {transmissions.length > 0 && (
        <section className="mb-6">
          <h2 className="mb-1 font-semibold font-serif">E-invoices</h2>
          <ul>
            {transmissions.map((transmission) => (
              <Task
                key={transmission.id}
                mark={transmission.phase === 'unanswered' ? 'warning' : transmissionMark(transmission).kind}
                path={routes.document(transmission.documentId)}
                words={transmission.number}
                detail={`${transmission.customerName}, ${transmissionNeed(transmission)}`}
                figure={null}
              />
            ))}
          </ul>
        </section>
      )}
      {overdue.length > 0 && (
        <section className="mb-6">
          <h2 className="mb-1 font-semibold font-serif">Overdue</h2>
          <ul>
            {overdue.map((document) => (
              <Task
                key={document.id}
                mark="overdue"
                path={routes.document(document.id)}
                words={document.number}
                detail={`${document.customerName}, due ${writeDay(document.dueDate)}, ${daysBetween(document.dueDate, day)} days ago`}
                figure={<Money amount={document.open} currency={document.content.currency} withCode />}
              />
            ))}
          </ul>
          {reminders > 0 && (
            <p className="mt-1">
              <Link href={routes.reminders} className="underline decoration-rule underline-offset-4">
                {reminders === 1 ? 'Remind one customer' : `Remind ${reminders} customers`}
              </Link>
            </p>
          )}
        </section>
      )}
      {recurring.length > 0 && (
        <section className="mb-6">
          <h2 className="mb-1 font-semibold font-serif">Recurring documents that wait</h2>
          <ul>
            {recurring.map(({ made, name, isRun }) => (
              <Task
                key={made.id}
                mark="warning"
                path={isRun ? routes.run(made.documentId) : routes.draft(made.documentId)}
                words={`${name}, ${writeDate(made.date)}`}
                detail={made.why}
                figure={null}
              />
            ))}
          </ul>
        </section>
      )}
      {mails.length > 0 && (
        <section className="mb-6">
          <h2 className="mb-1 font-semibold font-serif">Messages that did not arrive</h2>
          <ul>
            {mails.map((mail) => (
              <Task
                key={mail.id}
                mark={mailMark(mail).kind}
                path={routes.outbox}
                words={`${mail.about} ${mailMark(mail).word}`}
                detail={`${mail.customerName}, ${mailNeed(mail)}`}
                figure={null}
              />
            ))}
          </ul>
        </section>
      )}
      {drafts.length > 0 && (
        <section>
          <h2 className="mb-1 font-semibold font-serif">Drafts</h2>
          <ul>
            {drafts.map(({ draft, customer }) => (
              <Task
                key={draft.id}
                mark="draft"
                path={routes.draft(draft.id)}
                words={`Draft for ${customer || 'no customer yet'}`}
                detail={[draft.buyerReference, draft.orderNumber].filter(Boolean).join(', ')}
                figure={<span className="text-soft">saved {writeDay(dayOf(draft.savedAt))}</span>}
              />
            ))}
          </ul>
        </section>
      )}
    </Sheet>
  );
}
