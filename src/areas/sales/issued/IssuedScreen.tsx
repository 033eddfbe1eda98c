'use client';

import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { toast } from 'sonner';
import { CHECK_COUNT, findingsOn } from '@/core/decisions/findings';
import { calcInputOf, trailOf } from '@/core/documents/content';
import type { IssuedDocument } from '@/core/documents/issued';
import { einvoiceOf } from '@/core/einvoice/fromDocument';
import { writeUbl } from '@/core/einvoice/writeUbl';
import { isoDate, writeDate } from '@/core/kernel/date';
import { spanName, spanOf } from '@/core/periods/calendar';
import { explainLine } from '@/core/tax/workings';
import { fileName, printed } from '@/print/words';
import { receiptsOf } from '@/store/queries/documents';
import { Button } from '@/ui/Button';
import { Mark } from '@/ui/Mark';
import { Money } from '@/ui/Money';
import { Empty, Margin, Note, NoteRow, Sheet, SheetTitle } from '@/ui/Page';
import { Ruled } from '@/ui/Ruled';
import { useOpenBook } from '../../shell/BookContext';
import { today, useBook } from '../../shell/book';
import { EntriesNote } from '../../shell/EntriesNote';
import { saveFile } from '../../shell/saveFile';
import { useKey } from '../../shell/useKey';
import { documentMark } from '../documentMark';
import { Because, ChecksNote, componentNames, Steps } from '../MarginNotes';
import { Totals } from '../Totals';
import { CreditDialog } from './CreditDialog';
import { PrintDialog, printedPdf } from './PrintDialog';

/** An issued document: as it was frozen, with what came of it. */
export function IssuedScreen({ id }: { readonly id: string }) {
  const router = useRouter();
  const document = useBook(async (db) => (await db.documents.get(id)) ?? null, [id]);
  if (document === undefined) return <Sheet label="Document">{null}</Sheet>;
  if (document === null)
    return (
      <Sheet label="Document">
        <Empty action={<Button onClick={() => router.push('/sales')}>Back to Sales</Button>}>
          This book holds no such document.
        </Empty>
      </Sheet>
    );
  return <Issued document={document} />;
}

function Issued({ document }: { readonly document: IssuedDocument }) {
  const router = useRouter();
  const { currency } = useOpenBook();
  const [lineId, setLineId] = useState(document.content.lines[0]?.id ?? '');
  const [crediting, setCrediting] = useState(false);
  const [printing, setPrinting] = useState(false);
  const { content, figures } = document;
  const page = printed(content, figures);
  const mark = documentMark(document, today());
  const canReceive = document.kind === 'invoice' && document.open > 0n;
  const receive = () => router.push(`/receipts/new?document=${document.id}`);
  useKey('ctrl+enter', () => canReceive && receive());

  const savePdf = async () => {
    try {
      saveFile(fileName(content, 'pdf'), await printedPdf(document), 'application/pdf');
    } catch (error) {
      toast.error(`The PDF could not be made: ${(error as Error).message}`);
    }
  };
  const saveUbl = () => saveFile(fileName(content, 'xml'), writeUbl(einvoiceOf(content, figures)), 'application/xml');
  return (
    <>
      <Sheet label={`${page.title} ${page.number}`}>
        <SheetTitle
          aside={
            <>
              <Mark kind={mark.kind} /> {mark.word} ·{' '}
              {content.priceMode === 'net' ? 'prices hold no tax' : 'prices hold the tax'}
            </>
          }
        >
          {page.title} {page.number}
        </SheetTitle>
        <div className="mb-5 grid grid-cols-[1.3fr_2fr] gap-x-5">
          <address className="whitespace-pre-line not-italic">
            <Link
              href={`/setup/customers/${document.customerId}`}
              className="font-semibold underline decoration-rule underline-offset-4"
            >
              {page.buyer[0]}
            </Link>
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
            { head: 'Less', align: 'right', width: '54px', cell: ({ page: words }) => words?.less },
            { head: 'Tax', width: '106px', cell: ({ page: words }) => words?.tax },
            { head: page.valueHead, align: 'right', width: '84px', cell: ({ page: words }) => words?.value },
          ]}
        />
        <Totals
          figures={figures}
          currency={currency}
          withholding={content.withholding ?? []}
          nameOf={(code) => content.taxes.find((tax) => tax.code === code)?.name ?? code}
        />
        {[...page.legends, page.note].filter(Boolean).map((text) => (
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
        <div className="mt-auto flex flex-wrap items-center gap-2.5 pt-6">
          {canReceive && (
            <Button weight="main" title="Ctrl+Enter" onClick={receive}>
              Record a receipt
            </Button>
          )}
          <Button onClick={() => setPrinting(true)}>See it printed</Button>
          <Button onClick={savePdf}>Save PDF</Button>
          <Button onClick={saveUbl}>Save UBL file</Button>
          {document.kind === 'invoice' && document.creditNote === null && (
            <Button weight="quiet" onClick={() => setCrediting(true)}>
              Credit it whole…
            </Button>
          )}
        </div>
      </Sheet>
      <IssuedMargin document={document} lineId={lineId} />
      <CreditDialog document={document} open={crediting} onClose={() => setCrediting(false)} />
      {printing && <PrintDialog document={document} onClose={() => setPrinting(false)} />}
    </>
  );
}

function IssuedMargin({ document, lineId }: { readonly document: IssuedDocument; readonly lineId: string }) {
  const { currency, registrations } = useOpenBook();
  const { content, figures } = document;
  const behind = useBook(
    async (db) => ({
      lines: await db.journalLines.where('entryId').equals(document.entryId).toArray(),
      receipts: await receiptsOf(db, document),
    }),
    [document],
  );
  const at = content.lines.findIndex((line) => line.id === lineId);
  const line = content.lines[at];
  const tax = content.taxes.find((t) => t.code === line?.tax);
  const findings = findingsOn(content);
  const frequency = registrations.find((r) => r.id === content.registrationId)?.frequency ?? 'monthly';
  const span = spanOf(frequency, isoDate(document.periodId.split('|')[1] ?? content.taxPoint));
  return (
    <Margin>
      <Note title={`Workings — line ${at + 1}`}>
        <Steps
          steps={explainLine(calcInputOf(content), figures, lineId, componentNames(content.taxes))}
          currency={currency}
        />
        {line !== undefined && tax !== undefined && (
          <Because tax={tax} trail={trailOf(content, line)} byHand={line.taxByHand} />
        )}
      </Note>
      <EntriesNote sides={behind?.lines ?? []}>
        <p className="mt-1 text-soft text-sm">
          {document.periodId === ''
            ? 'Its tax falls due as it is paid.'
            : `Reported in ${spanName(span)}${document.late ? ', late: its own period was filed already' : ''}.`}{' '}
          <Link href={`/ledger?entry=${document.entryId}`} className="underline underline-offset-2">
            Journal
          </Link>
        </p>
      </EntriesNote>
      <ChecksNote
        findings={findings}
        holding={CHECK_COUNT - new Set(findings.map((f) => f.rule)).size}
        wayTo={() => null}
      />
      <Note title="Settlement">
        <NoteRow label="Total" figure={<Money amount={figures.totals.payable} currency={currency} />} />
        {behind?.receipts.map((receipt) => (
          <NoteRow
            key={receipt.id}
            label={
              <Link href={`/receipts/${receipt.id}`} className="underline decoration-rule underline-offset-2">
                {receipt.number}, {writeDate(receipt.date)}
              </Link>
            }
            figure={
              <Money
                amount={receipt.allocations.find((a) => a.documentId === document.id)?.amount ?? receipt.amount}
                currency={currency}
              />
            }
          />
        ))}
        {document.creditNote !== null && (
          <NoteRow
            label={
              <Link
                href={`/sales/doc/${document.creditNote.id}`}
                className="underline decoration-rule underline-offset-2"
              >
                {document.creditNote.number}
              </Link>
            }
            figure={<Money amount={document.credited} currency={currency} />}
          />
        )}
        {content.corrects !== undefined && (
          <NoteRow
            label={
              <Link
                href={`/sales/doc/${content.corrects.documentId}`}
                className="underline decoration-rule underline-offset-2"
              >
                set off against {content.corrects.number}
              </Link>
            }
            figure={<Money amount={document.credited} currency={currency} />}
          />
        )}
        <NoteRow label="Open" figure={<Money amount={document.open} currency={currency} />} strong />
      </Note>
    </Margin>
  );
}
