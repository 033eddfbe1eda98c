'use client';

import { proxy } from 'comlink';
import { useState } from 'react';
import { writeDate } from '@/core/kernel/date';
import type { Refusal } from '@/core/kernel/result';
import { showMoney } from '@/core/kernel/show';
import { wordFault } from '@/core/wording/refusals';
import { type ChainCheck, checkPaper, type PaperCheck } from '@/store/sales/queries/seals';
import { Button } from '@/ui/Button';
import { TextField } from '@/ui/Field';
import Link from '@/ui/Link';
import { Mark } from '@/ui/Mark';
import { Sheet, SheetTitle } from '@/ui/Page';
import { Progress } from '@/ui/Progress';
import { Ruled } from '@/ui/Ruled';
import { onBook } from '@/workers/client';
import { KIND_WORDS } from '../shared/documentMark';
import { useRun } from '../shared/useRun';
import { bookDb } from '../shell/book';
import { routes } from '../shell/routes';

const LINK = 'underline decoration-rule underline-offset-4';

/** Recomputes the chains of seals, and holds a paper copy against the book. */
export function SealScreen() {
  return (
    <Sheet label="Seals">
      <SheetTitle>Seals</SheetTitle>
      <p className="mb-4 text-soft">
        Each document is sealed over its content and the seal of the one before it in its series. A changed, missing or
        inserted document breaks the chain, and is named here.
      </p>
      <Chains />
      <WholeBook />
      <Paper />
    </Sheet>
  );
}

function resultOf({ broken, cut, documents }: ChainCheck) {
  if (broken !== null)
    return (
      <>
        <Mark kind="wrong" />{' '}
        <Link href={routes.document(broken.id)} className={LINK}>
          {broken.number}
        </Link>{' '}
        does not fit its seal
      </>
    );
  if (cut)
    return (
      <>
        <Mark kind="wrong" /> documents at the end are missing
      </>
    );
  return (
    <>
      <Mark kind="good" /> {documents === 0 ? 'nothing sealed yet' : 'whole'}
    </>
  );
}

/** What is said of a check that did not come to its end. */
const ended = (fault: Error | null) => (fault === null ? 'Stopped.' : `It could not be checked: ${fault.message}`);

function Chains() {
  const [checks, setChecks] = useState<readonly ChainCheck[] | null>(null);
  const run = useRun();
  const verify = () =>
    run.start(async ({ signal, tell }) => {
      const onDone = proxy((done: number, of: number) => tell({ done, of }));
      setChecks(await onBook((face) => face.checkSeals(onDone), signal));
      return '';
    }, ended);
  return (
    <section aria-label="Chains" className="mb-8">
      {checks !== null && (
        <Ruled
          caption="Chains of seals"
          rows={checks}
          keyOf={(check) => check.seriesId}
          columns={[
            {
              head: 'Series',
              cell: ({ seriesId, kind }) =>
                kind === 'receipt' || kind === 'refund'
                  ? seriesId
                  : `${KIND_WORDS[kind]}s`.replace('takingss', 'takings'),
            },
            { head: 'Documents', align: 'right', width: '110px', cell: (check) => check.documents },
            { head: 'Chain', width: '320px', cell: resultOf },
          ]}
        />
      )}
      <div className="mt-3 flex items-center gap-3">
        {run.doing === null ? (
          <Button weight="main" onClick={() => void verify()}>
            Verify all seals
          </Button>
        ) : (
          <>
            <div className="w-[260px]">
              <Progress label="Checked so far" {...run.doing} />
            </div>
            <Button onClick={run.stop}>Stop</Button>
          </>
        )}
        <span role="status">{run.said}</span>
      </div>
    </section>
  );
}

/** Faults of the book beyond these are counted, not listed. */
const MOST_FAULTS = 20;

/** Holds every row of the book against what is sealed, and against the rows it speaks of. */
function WholeBook() {
  const [faults, setFaults] = useState<readonly Refusal[] | null>(null);
  const run = useRun();
  const check = () =>
    run.start(async ({ signal }) => {
      const found = await onBook((face) => face.checkBook(), signal);
      setFaults(found);
      return found.length === 0
        ? 'Documents, figures, entries, open amounts, receivables and numbers agree with what is sealed.'
        : `${found.length} ${found.length === 1 ? 'thing does' : 'things do'} not agree. Compare with a saved book file.`;
    }, ended);
  return (
    <section aria-label="The whole book" className="mb-8">
      <h2 className="mb-1 font-semibold font-serif">The whole book</h2>
      <p className="mb-2 max-w-[64ch] text-soft">
        Rows are compared with sealed content, customers with receivables, counters with numbers.
      </p>
      {run.doing !== null ? (
        <Button onClick={run.stop}>Stop</Button>
      ) : (
        <Button onClick={() => void check()}>Check the whole book</Button>
      )}
      <p role="status" className="mt-2">
        {run.doing !== null ? 'Checking the whole book…' : run.said}
      </p>
      {faults !== null && faults.length > 0 && (
        <ul className="text-sm">
          {faults.slice(0, MOST_FAULTS).map((fault) => (
            <li key={`${fault.path}-${wordFault(fault)}`}>
              <Mark kind="wrong" /> {fault.path}: {wordFault(fault)}
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

const ANSWERS: Readonly<Record<PaperCheck['found'], string>> = {
  unaltered: 'This is the document as it was issued, unaltered.',
  altered: 'The code is right, but the document in the book was changed since. Compare with a saved book file.',
  'other-code': 'The document of this number has another code: the paper is not its copy.',
  unknown: 'There is no document of this number.',
};

function Paper() {
  const [number, setNumber] = useState('');
  const [code, setCode] = useState('');
  const [answer, setAnswer] = useState<PaperCheck | null>(null);
  return (
    <section aria-label="Paper copy">
      <h2 className="mb-1 font-semibold font-serif">Verify a paper copy</h2>
      <form
        className="flex items-start gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          void checkPaper(bookDb(), number, code).then(setAnswer);
        }}
      >
        <TextField label="Document number" value={number} onChange={(e) => setNumber(e.target.value)} />
        <TextField
          label="Seal at its foot"
          placeholder="7KQ2-M0XR-94TD"
          value={code}
          onChange={(e) => setCode(e.target.value)}
        />
        <Button type="submit" className="mt-[18px]">
          Compare
        </Button>
      </form>
      <div role="status">
        {answer !== null && (
          <p>
            <Mark kind={answer.found === 'unaltered' ? 'good' : 'wrong'} /> {ANSWERS[answer.found]}
          </p>
        )}
        {answer !== null && answer.found === 'unaltered' && (
          <p className="pl-5">
            <Link href={routes.document(answer.document.id)} className={LINK}>
              {answer.document.number}
            </Link>{' '}
            of {writeDate(answer.document.issueDate)} to {answer.document.customerName}, total{' '}
            {showMoney(answer.document.figures.totals.payable, answer.document.content.currency)}{' '}
            {answer.document.content.currency}. Compare these with the paper.
          </p>
        )}
        {answer !== null && answer.found === 'unaltered' && answer.document.cancelled !== null && (
          <p className="pl-5">
            <Mark kind="cancelled" /> It was cancelled on {writeDate(answer.document.cancelled.on)} (
            {answer.document.cancelled.reason}): the paper is no longer valid.
          </p>
        )}
      </div>
    </section>
  );
}
