'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { writeDate } from '@/core/kernel/date';
import type { TotalKey } from '@/core/tax/explainTotal';
import { printed } from '@/print/words';
import { type DocumentFile, documentFile } from '@/store/sales/queries/family';
import { Button } from '@/ui/Button';
import Link from '@/ui/Link';
import { Mark } from '@/ui/Mark';
import { Empty, Sheet, SheetTitle } from '@/ui/Page';
import { Ruled } from '@/ui/Ruled';
import { documentMark } from '../../shared/documentMark';
import { today, useBook } from '../../shell/book';
import { routes } from '../../shell/routes';
import { Totals } from '../Totals';
import { BesideFields } from './BesideFields';
import { DocumentActions } from './DocumentActions';
import { IssuedMargin } from './IssuedMargin';
import { PrintDialog } from './PrintDialog';

/** An issued document: as it was frozen, with what came of it. */
export function IssuedScreen({ id }: { readonly id: string }) {
  const router = useRouter();
  const file = useBook((db) => documentFile(db, id), [id]);
  if (file === undefined) return <Sheet label="Document">{null}</Sheet>;
  if (file === null)
    return (
      <Sheet label="Document">
        <Empty action={<Button onClick={() => router.push(routes.sales)}>Back to Sales</Button>}>
          There is no such document.
        </Empty>
      </Sheet>
    );
  return <Issued key={id} file={file} />;
}

function Issued({ file }: { readonly file: DocumentFile }) {
  const { document } = file;
  const { content, figures } = document;
  const [lineId, setLineId] = useState(content.lines[0]?.id ?? '');
  const [total, setTotal] = useState<TotalKey>('payable');
  const [printing, setPrinting] = useState(false);
  const page = printed(content, figures, { language: 'en' });
  const mark = documentMark(document, today());
  const openTotal = (key: TotalKey) => {
    setLineId('');
    setTotal(key);
  };
  return (
    <>
      <Sheet label={`${page.title} ${page.number}`}>
        <SheetTitle
          aside={
            <>
              <Mark kind={mark.kind} /> {mark.word} ·{' '}
              {content.priceMode === 'net' ? 'prices exclude tax' : 'prices include tax'}
            </>
          }
        >
          {page.title} {page.number}
        </SheetTitle>
        <Standing file={file} />
        <div className="mb-5 grid grid-cols-[1.3fr_2fr] gap-x-5">
          <address className="whitespace-pre-line not-italic">
            {document.customerId === '' ? (
              <span className="font-semibold">{page.buyer[0]}</span>
            ) : (
              <Link
                href={routes.customer(document.customerId)}
                className="font-semibold underline decoration-rule underline-offset-4"
              >
                {page.buyer[0]}
              </Link>
            )}
            <span className="block text-soft">{page.buyer.slice(1).join('\n')}</span>
          </address>
          <dl className="grid grid-cols-2 content-start gap-x-5 gap-y-1">
            {page.facts.slice(1).map(([label, value]) => (
              <div key={label} className="border-rule border-b">
                <dt className="text-soft text-sm">{label}</dt>
                <dd>{value}</dd>
              </div>
            ))}
          </dl>
        </div>
        <Ruled
          caption="Lines"
          keyOf={({ line }) => line.id}
          rows={content.lines.map((line, i) => ({ line, page: page.lines[i], value: figures.lines[i]?.value }))}
          columns={[
            {
              head: 'Item',
              cell: ({ line, page: words }) => (
                <button
                  type="button"
                  aria-pressed={line.id === lineId}
                  onClick={() => setLineId(line.id)}
                  onFocus={() => setLineId(line.id)}
                  className={`w-full cursor-pointer text-left ${line.id === lineId ? 'shadow-[inset_3px_0_0_var(--rust)] pl-2' : ''}`}
                >
                  {words?.title}
                  {words?.detail !== '' && (
                    <span className="block whitespace-pre-line text-soft text-sm ">{words?.detail}</span>
                  )}
                </button>
              ),
            },
            { head: 'Quantity', align: 'right', width: '80px', cell: ({ page: words }) => words?.quantity },
            { head: 'Price', align: 'right', width: '78px', cell: ({ page: words }) => words?.price },
            { head: 'Discount', align: 'right', width: '54px', cell: ({ page: words }) => words?.less },
            { head: 'Tax', width: '106px', cell: ({ page: words }) => words?.tax },
            { head: page.valueHead, align: 'right', width: '84px', cell: ({ page: words }) => words?.value },
          ]}
        />
        <Totals
          figures={figures}
          currency={content.currency}
          withholding={content.withholding ?? []}
          taxes={content.taxes}
          adjustmentName={(id) => content.adjustments?.find((a) => a.id === id)?.text ?? id}
          home={content.home}
          focus={lineId === '' ? total : ''}
          onFocus={openTotal}
        />
        {[...page.legends, ...page.terms, page.note, page.conditions].filter(Boolean).map((text) => (
          <p key={text} className="mt-3 whitespace-pre-line">
            {text}
          </p>
        ))}
        <dl className="mt-4 grid grid-cols-[90px_1fr]">
          {page.payment.map(([label, value]) => (
            <div key={label} className="contents">
              <dt className="text-soft">{label}</dt>
              <dd>{value}</dd>
            </div>
          ))}
        </dl>
        <BesideFields file={file} />
        <DocumentActions file={file} onPrint={() => setPrinting(true)} />
      </Sheet>
      <IssuedMargin file={file} lineId={lineId} total={total} onTotal={openTotal} />
      {printing && (
        <PrintDialog
          document={document}
          receipts={file.receipts}
          allocations={file.allocations}
          onClose={() => setPrinting(false)}
        />
      )}
    </>
  );
}

/** What became of it, in a line under the title, where there is something to say. */
function Standing({ file }: { readonly file: DocumentFile }) {
  const { cancelled, quote, sentOn } = file.document;
  const words =
    cancelled !== null
      ? `Cancelled on ${writeDate(cancelled.on)}: ${cancelled.reason}`
      : quote?.answer
        ? `${quote.answer.kind === 'accepted' ? 'Accepted' : 'Declined'} on ${writeDate(quote.answer.on)}: ${quote.answer.words}`
        : sentOn !== '' && quote === null
          ? `Sent on ${writeDate(sentOn)}`
          : '';
  if (words === '') return null;
  return <p className="-mt-3 mb-3 text-soft">{words}</p>;
}
