'use client';

import { useState } from 'react';
import { toast } from 'sonner';
import type { MailToQueue } from '@/core/decisions/delivery/mailing';
import { writeDate } from '@/core/kernel/date';
import { accept } from '@/core/kernel/result';
import { type LeftOut, type ReminderPlan, remindersDue } from '@/core/settlement/reminder';
import { wordRefusals } from '@/core/wording/refusals';
import type { PrintedDocument } from '@/print/words';
import { goOnReminding, sendReminder } from '@/store/customers/actions/reminders';
import { reminderMaterial } from '@/store/customers/queries/reminders';
import { Button } from '@/ui/Button';
import { CheckField } from '@/ui/CheckField';
import Link from '@/ui/Link';
import { Empty, Margin, Note, Sheet, SheetTitle } from '@/ui/Page';
import { Progress } from '@/ui/Progress';
import { pagesAsPdf } from '../shared/accountPrint';
import { ComposeDialog } from '../shared/delivery/ComposeDialog';
import { useRun } from '../shared/useRun';
import { act, today, useBook } from '../shell/book';
import { routes } from '../shell/routes';
import { saveFile } from '../shell/saveFile';
import { keyOf, RemindersDue } from './RemindersDue';
import { letterOf, mailOf, pagesOf, type ReminderLetter } from './reminderLetters';

const LINK = 'underline decoration-rule underline-offset-4';
/** What a message was written for: with other items or another level it is written anew. */
const stateOf = (plan: ReminderPlan): string => `${keyOf(plan)}|${plan.level}|${plan.amountDue}`;

const WHY: Readonly<Record<LeftOut['why'], string>> = {
  disputed: 'disputed',
  promised: 'payment promised',
  'on account': 'what is on account covers it',
  'not reminded': 'this customer is not reminded',
};

/** Whom to remind today: one letter a customer with all that is overdue, looked at and sent in one go. */
export function RemindersScreen() {
  const day = today();
  const material = useBook((db) => reminderMaterial(db, day), [day]);
  const [unticked, setUnticked] = useState<ReadonlySet<string>>(new Set());
  const [picked, setPicked] = useState('');
  const [withStatement, setWithStatement] = useState(true);
  const [withCharge, setWithCharge] = useState(true);
  /** Messages that were changed, by what they were written for. */
  const [changed, setChanged] = useState<ReadonlyMap<string, MailToQueue>>(new Map());
  const [changing, setChanging] = useState<ReminderLetter | null>(null);
  const run = useRun();
  const { plans, leftOut } = material === undefined ? { plans: [], leftOut: [] } : remindersDue(material);
  const chosen = plans.filter((plan) => !unticked.has(keyOf(plan)));
  const shown = plans.find((plan) => keyOf(plan) === picked) ?? plans[0];
  const written = useBook(async () => (shown === undefined ? null : await letterOf(shown)), [shown && stateOf(shown)]);
  const letter = written ? asChanged(written) : null;
  const costs = plans.some(({ fee, interest }) => fee > 0n || interest > 0n);

  /** A letter with the words that a person gave it. */
  function asChanged(one: ReminderLetter): ReminderLetter {
    const mail = changed.get(stateOf(one.plan));
    return mail === undefined
      ? one
      : { ...one, to: mail.to, cc: mail.cc, bcc: mail.bcc, subject: mail.subject, text: mail.text, missing: [] };
  }
  const send = () =>
    run.start(
      async ({ signal, tell }) => {
        const printed: PrintedDocument[] = [];
        let mailed = 0;
        const faults: string[] = [];
        for (const [i, plan] of chosen.entries()) {
          if (signal.aborted) break;
          tell({ done: i, of: chosen.length });
          const found = await letterOf(plan);
          if (found === null) continue;
          const one = asChanged(found);
          const result = await act(sendReminder, {
            customerId: plan.customerId,
            currency: plan.currency,
            level: plan.level,
            documentIds: plan.items.map(({ document }) => document.id),
            mail: one.way === 'print' ? null : (changed.get(stateOf(plan)) ?? (await mailOf(one, withStatement))),
            charge:
              withCharge && costs
                ? { fee: 'Reminder fee', interest: `Interest on overdue invoices until ${writeDate(day)}` }
                : null,
          });
          if (!result.ok) faults.push(`${plan.customerName}: ${wordRefusals(result.refusals)}`);
          else if (one.way === 'mail') mailed++;
          else printed.push(...(await pagesOf(one, withStatement)));
        }
        if (printed.length > 0) saveFile(`reminders-${day}.pdf`, await pagesAsPdf(printed), 'application/pdf');
        const said = [
          mailed > 0 ? `${mailed} on their way by mail` : '',
          printed.length > 0 ? 'those for the post are saved as one PDF' : '',
          ...faults,
        ].filter(Boolean);
        return said.length === 0 ? 'Nothing was sent.' : `${said.join('; ')}.`;
      },
      (fault) => (fault === null ? 'Stopped: what was sent is sent.' : `It could not go on: ${fault.message}`),
    );
  const goOn = async (documentId: string) => {
    const result = await act(goOnReminding, { documentId });
    if (!result.ok) toast.error(wordRefusals(result.refusals));
  };

  return (
    <>
      <Sheet label="Reminders">
        <SheetTitle aside={writeDate(day)}>Reminders</SheetTitle>
        {material !== undefined && plans.length === 0 && (
          <Empty>
            Nobody is to be reminded today. Days, fees and interest are set in{' '}
            <Link href={routes.section('reminders')} className={LINK}>
              Setup
            </Link>
            .
          </Empty>
        )}
        {plans.length > 0 && (
          <>
            <RemindersDue
              plans={plans}
              costs={costs}
              picked={shown === undefined ? '' : keyOf(shown)}
              onPick={setPicked}
              unticked={unticked}
              onTick={(key, on) =>
                setUnticked((before) => new Set(on ? [...before].filter((one) => one !== key) : [...before, key]))
              }
            />
            <div className="mt-4">
              <CheckField
                label="Attach the statement of account"
                checked={withStatement}
                onChange={({ target: { checked } }) => setWithStatement(checked)}
              />
              {costs && (
                <CheckField
                  label="Begin a draft invoice for fee and interest"
                  checked={withCharge}
                  onChange={({ target: { checked } }) => setWithCharge(checked)}
                />
              )}
            </div>
            {run.doing === null ? (
              <Button
                weight="main"
                className="mt-3 self-start"
                disabled={chosen.length === 0}
                onClick={() => void send()}
              >
                Send {chosen.length} {chosen.length === 1 ? 'reminder' : 'reminders'}
              </Button>
            ) : (
              <div className="mt-3">
                <Progress label="Sent so far" {...run.doing} />
                <Button onClick={run.stop}>Stop</Button>
              </div>
            )}
          </>
        )}
        <p role="status" className="min-h-[22px] pt-2">
          {run.said}
        </p>
        {leftOut.length > 0 && (
          <section aria-label="Left out" className="mt-6">
            <h2 className="mb-1 font-semibold font-serif">Overdue, but left out</h2>
            <ul>
              {leftOut.map(({ document, why, hold }) => (
                <li key={document.id} className="flex flex-wrap items-baseline gap-x-3 border-rule border-b py-1">
                  <Link href={routes.document(document.id)} className={LINK}>
                    {document.number}
                  </Link>
                  <span className="flex-1 text-soft">
                    {document.customerName}, {WHY[why]}
                    {hold !== null && `: ${hold.words}`}
                    {hold !== null && hold.until !== '' && `, until ${writeDate(hold.until)}`}
                  </span>
                  {hold !== null && (
                    <Button weight="quiet" onClick={() => void goOn(document.id)}>
                      Remind again<span className="sr-only"> of {document.number}</span>
                    </Button>
                  )}
                </li>
              ))}
            </ul>
          </section>
        )}
      </Sheet>
      <Margin>
        {letter !== null && (
          <Note title={`Reminder to ${letter.customer.name}`}>
            <p className="text-soft text-sm">
              {letter.way === 'mail' ? `by mail to ${letter.to.join(', ')}` : 'on paper: saved as a PDF for the post'}
            </p>
            <p className="my-2 font-semibold">{letter.subject}</p>
            <p className="whitespace-pre-line text-sm">{letter.text}</p>
            {letter.missing.length > 0 && (
              <p className="mt-2 text-brick">▲ Nothing is known for {letter.missing.join(', ')}.</p>
            )}
            <Button weight="quiet" onClick={() => setChanging(letter)}>
              Change the message…
            </Button>
          </Note>
        )}
        {changing !== null && (
          <ComposeDialog
            about={changing.about}
            write={async () => changing}
            instead={{
              label: 'Save the message',
              onPaper: changing.way === 'print',
              keep: async (mail) => {
                setChanged((before) => new Map(before).set(stateOf(changing.plan), mail));
                return accept(null);
              },
            }}
            onClose={() => setChanging(null)}
          />
        )}
      </Margin>
    </>
  );
}
