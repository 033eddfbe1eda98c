'use client';

import { useEffect, useState } from 'react';
import { toast } from 'sonner';
import { writeDate } from '@/core/kernel/date';
import { type LeftOut, type ReminderPlan, remindersDue } from '@/core/settlement/reminder';
import { wordRefusals } from '@/core/wording/refusals';
import type { PrintedDocument } from '@/print/words';
import { goOnReminding, sendReminder } from '@/store/customers/actions/reminders';
import { reminderMaterial } from '@/store/customers/queries/reminders';
import { Button } from '@/ui/Button';
import { CheckField } from '@/ui/CheckField';
import Link from '@/ui/Link';
import { Money } from '@/ui/Money';
import { Empty, Margin, Note, Sheet, SheetTitle } from '@/ui/Page';
import { Progress } from '@/ui/Progress';
import { Ruled } from '@/ui/Ruled';
import { pagesAsPdf } from '../shared/accountPrint';
import { useRun } from '../shared/useRun';
import { useOpenBook } from '../shell/BookContext';
import { act, today, useBook } from '../shell/book';
import { routes } from '../shell/routes';
import { saveFile } from '../shell/saveFile';
import { letterOf, mailOf, pagesOf, type ReminderLetter } from './reminderLetters';

const LEVELS = ['', 'First', 'Second', 'Final'] as const;
const LINK = 'underline decoration-rule underline-offset-4';
const keyOf = ({ customerId, currency }: ReminderPlan): string => `${customerId}|${currency}`;

const WHY: Readonly<Record<LeftOut['why'], string>> = {
  disputed: 'disputed',
  promised: 'payment promised',
  'on account': 'what is on account covers it',
  'not reminded': 'this customer is not reminded',
};

/** Whom to remind today: one letter a customer with all that is overdue, looked at and sent in one go. */
export function RemindersScreen() {
  const { currency: home } = useOpenBook();
  const day = today();
  const material = useBook((db) => reminderMaterial(db, day), [day]);
  const [unticked, setUnticked] = useState<ReadonlySet<string>>(new Set());
  const [picked, setPicked] = useState('');
  const [withStatement, setWithStatement] = useState(true);
  const [withCharge, setWithCharge] = useState(true);
  const run = useRun();
  const { plans, leftOut } = material === undefined ? { plans: [], leftOut: [] } : remindersDue(material);
  const chosen = plans.filter((plan) => !unticked.has(keyOf(plan)));
  const shown = plans.find((plan) => keyOf(plan) === picked) ?? plans[0];
  const letter = useLetter(shown);
  const costs = plans.some(({ fee, interest }) => fee > 0n || interest > 0n);

  const send = () =>
    run.start(
      async ({ signal, tell }) => {
        const printed: PrintedDocument[] = [];
        let mailed = 0;
        const faults: string[] = [];
        for (const [i, plan] of chosen.entries()) {
          if (signal.aborted) break;
          tell({ done: i, of: chosen.length });
          const one = await letterOf(plan);
          if (one === null) continue;
          const result = await act(sendReminder, {
            customerId: plan.customerId,
            currency: plan.currency,
            level: plan.level,
            documentIds: plan.items.map(({ document }) => document.id),
            mail: one.way === 'mail' ? await mailOf(one, withStatement) : null,
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
            <Ruled
              caption="Reminders due"
              rows={plans}
              keyOf={keyOf}
              columns={[
                {
                  head: 'Send',
                  width: '44px',
                  cell: (plan) => (
                    <input
                      type="checkbox"
                      className="accent-rust"
                      aria-label={`Remind ${plan.customerName}, ${plan.currency}`}
                      checked={!unticked.has(keyOf(plan))}
                      onChange={({ target: { checked } }) =>
                        setUnticked((before) => {
                          const next = new Set(before);
                          if (checked) next.delete(keyOf(plan));
                          else next.add(keyOf(plan));
                          return next;
                        })
                      }
                    />
                  ),
                },
                {
                  head: 'Customer',
                  cell: (plan) => (
                    <button
                      type="button"
                      aria-pressed={plan === shown}
                      className={`cursor-pointer text-left ${LINK} ${plan === shown ? 'font-semibold' : ''}`}
                      onClick={() => setPicked(keyOf(plan))}
                    >
                      {plan.customerName}
                    </button>
                  ),
                },
                { head: 'Reminder', cell: ({ level }) => LEVELS[level] },
                {
                  head: 'Oldest',
                  align: 'right',
                  cell: ({ items }) => `${Math.max(...items.map(({ daysLate }) => daysLate))} days`,
                },
                {
                  head: 'Overdue',
                  align: 'right',
                  cell: (plan) => (
                    <Money amount={plan.amountDue} currency={plan.currency} withCode={plan.currency !== home} />
                  ),
                },
                ...(costs
                  ? [
                      {
                        head: 'Fee',
                        align: 'right' as const,
                        cell: (plan: ReminderPlan) => <Money amount={plan.fee} currency={home} />,
                      },
                      {
                        head: 'Interest',
                        align: 'right' as const,
                        cell: (plan: ReminderPlan) => <Money amount={plan.interest} currency={plan.currency} />,
                      },
                    ]
                  : []),
              ]}
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
          </Note>
        )}
      </Margin>
    </>
  );
}

/** The words of the letter that is looked at. */
function useLetter(plan: ReminderPlan | undefined): ReminderLetter | null {
  const [letter, setLetter] = useState<ReminderLetter | null>(null);
  const of = plan === undefined ? '' : `${keyOf(plan)} ${plan.level} ${plan.amountDue}`;
  // biome-ignore lint/correctness/useExhaustiveDependencies: what the letter says decides, not the object it is in
  useEffect(() => {
    let here = true;
    if (plan === undefined) setLetter(null);
    else void letterOf(plan).then((made) => here && setLetter(made));
    return () => {
      here = false;
    };
  }, [of]);
  return letter;
}
