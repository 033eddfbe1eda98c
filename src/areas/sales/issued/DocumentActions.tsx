'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { toast } from 'sonner';
import { cancelFault } from '@/core/decisions/cancel';
import { notesOn } from '@/core/decisions/credit';
import { sendFault } from '@/core/decisions/exchange';
import { goingOut } from '@/core/documents/attachment';
import { leftToCredit } from '@/core/documents/creditLeft';
import type { IssuedDocument, QuoteAnswer } from '@/core/documents/issued';
import { einvoiceOf } from '@/core/einvoice/fromDocument';
import { type Syntax, writeEInvoice } from '@/core/einvoice/syntax';
import { standingAnswer } from '@/core/exchange/answer';
import { type IsoDate, writeDate } from '@/core/kernel/date';
import { fileName } from '@/print/words';
import { cancelDocument, sendElsewhere } from '@/store/actions/afterIssue';
import { correctInvoice } from '@/store/actions/creditInvoice';
import { keepAnswer, type Remake, remake } from '@/store/actions/quotes';
import type { DocumentFile } from '@/store/queries/family';
import { Button } from '@/ui/Button';
import { Menu, type MenuEntry } from '@/ui/Menu';
import { useOpenBook } from '../../shell/BookContext';
import { act, today } from '../../shell/book';
import { openFile } from '../../shell/openedFile';
import { saveFile } from '../../shell/saveFile';
import { useKey } from '../../shell/useKey';
import { wordRefusal, wordRefusals } from '../../shell/wording';
import { SendDialog } from '../exchange/SendDialog';
import { hybridPdf, printedPdf } from '../print';
import { CreditDialog } from './CreditDialog';
import { StageDialog } from './StageDialog';
import { WordDayDialog, type WordDayProps } from './WordDayDialog';

type Asking = 'credit' | 'stage' | 'send' | 'correct' | 'cancel' | 'sent' | 'accepted' | 'declined' | null;

interface DocumentActionsProps {
  readonly file: DocumentFile;
  readonly onPrint: () => void;
}

type MainThing = readonly [whether: boolean, words: string, onDo: () => void];

/** The first thing that is due. */
function mainOf(things: readonly MainThing[]): { readonly words: string; readonly onDo: () => void } | null {
  const due = things.find(([whether]) => whether);
  return due === undefined ? null : { words: due[1], onDo: due[2] };
}

/** What can be done with an issued document: the main thing, its files, and everything else in a menu. */
export function DocumentActions({ file, onPrint }: DocumentActionsProps) {
  const router = useRouter();
  const { registrations } = useOpenBook();
  const [asking, setAsking] = useState<Asking>(null);
  const { document, family, lines, transmissions } = file;
  const { id, kind, content, figures, number, state } = document;
  const files = goingOut(file.attachments);
  const close = () => setAsking(null);

  const receivable = (kind === 'invoice' || kind === 'opening') && document.open > 0n;
  const billable = kind === 'quote' && !['replaced', 'declined', 'invoiced'].includes(state);
  const receive = () => router.push(`/receipts/new?document=${id}`);
  const sendable = sendFault({ document, before: transmissions }) === null;
  const [last] = transmissions;
  const rejected = last?.phase === 'asks' && standingAnswer(last.answers)?.code === 'RE' && kind === 'invoice';
  const main = mainOf([
    [rejected, 'Correct it…', () => setAsking('correct')],
    [sendable, 'Send e-invoice…', () => setAsking('send')],
    [receivable, 'Record a receipt', receive],
    [billable && state === 'sent', 'Accepted…', () => setAsking('accepted')],
    [billable, 'Bill it…', () => setAsking('stage')],
  ]);
  useKey('ctrl+enter', () => main?.onDo());

  const begin = async (as: Remake) => {
    const result = await act(remake, { documentId: id, as, issueDate: today() });
    if (result.ok) router.push(`/sales/draft/${result.value.draftId}`);
    else toast.error(wordRefusals(result.refusals));
  };
  const savePdf = async (make: (document: IssuedDocument) => Promise<Uint8Array> = printedPdf) => {
    try {
      saveFile(fileName(content, 'pdf'), await make(document), 'application/pdf');
    } catch (error) {
      toast.error(`The PDF could not be made: ${(error as Error).message}`);
    }
  };
  const saveXml = (syntax: Syntax) => {
    const name = fileName(content, 'xml');
    const xml = writeEInvoice(einvoiceOf(content, figures, files), syntax);
    saveFile(syntax === 'ubl' ? name : name.replace('.xml', '-cii.xml'), xml, 'application/xml');
  };

  const seeXml = async () => {
    const xml = writeEInvoice(einvoiceOf(content, figures, files), 'ubl');
    await openFile(new File([xml], fileName(content, 'xml')));
    router.push('/sales/einvoice');
  };

  const registration = registrations.find((r) => r.id === content.registrationId);
  const fault =
    registration === undefined ? null : cancelFault(document, registration, lines[0]?.date ?? '', transmissions);
  const noCancel =
    fault === null
      ? undefined
      : wordRefusal({ code: fault.code, path: '', found: fault.found, expected: 'an open day: credit it instead' });
  const credited = kind === 'invoice' && leftToCredit(document, notesOn(document, family)) === 0n;
  const noCredit = document.cancelled !== null ? 'It is cancelled.' : credited ? 'It is credited whole.' : undefined;
  const answered = state === 'replaced' ? 'A newer version took its place.' : undefined;
  const billed = document.quote !== null && document.quote.billed !== 0n ? 'Stages of it are invoiced.' : answered;

  const entries: readonly MenuEntry[] = [
    ...(kind === 'invoice'
      ? [
          { words: 'Credit…', onSelect: () => setAsking('credit'), not: noCredit },
          { words: 'Correct it…', onSelect: () => setAsking('correct'), not: noCredit },
        ]
      : []),
    ...(kind === 'invoice' || kind === 'takings'
      ? [{ words: 'Cancel it…', onSelect: () => setAsking('cancel'), not: noCancel }]
      : []),
    ...(kind === 'quote'
      ? [
          { words: 'Accepted…', onSelect: () => setAsking('accepted'), not: billed },
          { words: 'Declined…', onSelect: () => setAsking('declined'), not: billed },
          { words: 'Bill it…', onSelect: () => setAsking('stage'), not: answered },
          { words: 'Write a new version', onSelect: () => void begin('version'), not: billed },
        ]
      : []),
    ...(kind === 'invoice' || kind === 'quote'
      ? [
          {
            words: kind === 'quote' ? 'Copy into a new quote' : 'Copy into a new draft',
            onSelect: () => void begin('copy'),
          },
        ]
      : []),
    ...(kind === 'invoice' || kind === 'credit-note'
      ? [
          { words: 'See its e-invoice', onSelect: () => void seeXml() },
          { words: 'Save CII file', onSelect: () => saveXml('cii') },
          { words: 'Save PDF with e-invoice', onSelect: () => void savePdf((one) => hybridPdf(one, files)) },
        ]
      : []),
    ...(kind === 'takings' || kind === 'opening'
      ? []
      : [
          {
            words: 'Mark as sent…',
            onSelect: () => setAsking('sent'),
            not: document.sentOn === '' ? undefined : `It went out on ${writeDate(document.sentOn as IsoDate)}.`,
          },
        ]),
  ];

  const answer = (what: QuoteAnswer['kind']) => async (words: string, on: string) => {
    const result = await act(keepAnswer, {
      documentId: id,
      answer: { kind: what, words, on: on as QuoteAnswer['on'] },
    });
    if (result.ok) close();
    return result;
  };
  const dialogs: Readonly<
    Record<'correct' | 'cancel' | 'sent' | 'accepted' | 'declined', Omit<WordDayProps, 'onClose'>>
  > = {
    correct: {
      title: `Correct ${number}`,
      description:
        'A credit note takes the invoice back and a new draft holds what it said, for you to put right and issue.',
      words: 'Reason, printed on the credit note',
      day: 'Date of the credit note',
      action: 'Credit it and write it anew',
      onDo: async (reason, date) => {
        const result = await act(correctInvoice, { documentId: id, date, reason });
        if (result.ok) {
          toast(`${result.value.note} credits ${number}`);
          router.push(`/sales/draft/${result.value.draftId}`);
        }
        return result;
      },
    },
    cancel: {
      title: `Cancel ${number}`,
      description:
        'Its entry is reversed in the same period; number and reason stay in the book. This can not be undone. Only for what has not gone out.',
      words: 'Reason',
      action: `Cancel ${number}`,
      grave: true,
      onDo: async (reason) => {
        const result = await act(cancelDocument, { documentId: id, reason });
        if (result.ok) close();
        return result;
      },
    },
    sent: {
      title: `${number} went out`,
      description:
        'Writes down that it was sent by other ways than this program. From then on it is credited, not cancelled.',
      words: 'How, such as by post',
      day: 'Day',
      action: 'Mark as sent',
      onDo: async (how, on) => {
        const result = await act(sendElsewhere, { documentId: id, on, how });
        if (result.ok) close();
        return result;
      },
    },
    accepted: {
      title: `${number} is accepted`,
      description: 'Keeps who accepted it and when; then it can be billed, whole or in stages.',
      words: 'Who accepted it',
      day: 'Day',
      action: 'Keep the acceptance',
      onDo: answer('accepted'),
    },
    declined: {
      title: `${number} is declined`,
      description: 'Keeps the reason. It can still be accepted later.',
      words: 'Why',
      day: 'Day',
      action: 'Keep the answer',
      onDo: answer('declined'),
    },
  };
  return (
    <div className="mt-auto flex flex-wrap items-center gap-2.5 pt-6">
      {main !== null && (
        <Button weight="main" title="Ctrl+Enter" onClick={main.onDo}>
          {main.words}
        </Button>
      )}
      {receivable && main?.onDo !== receive && <Button onClick={receive}>Record a receipt</Button>}
      {kind !== 'takings' && kind !== 'opening' && (
        <>
          <Button onClick={onPrint}>See it printed</Button>
          <Button onClick={() => void savePdf()}>Save PDF</Button>
        </>
      )}
      {(kind === 'invoice' || kind === 'credit-note') && <Button onClick={() => saveXml('ubl')}>Save UBL file</Button>}
      {entries.length > 0 && <Menu label="More" entries={entries} />}
      {asking === 'credit' && <CreditDialog invoice={document} family={family} onClose={close} />}
      {asking === 'send' && <SendDialog document={document} onClose={close} />}
      {asking === 'stage' && <StageDialog quote={document} family={family} onClose={close} />}
      {asking !== null && asking !== 'credit' && asking !== 'stage' && asking !== 'send' && (
        <WordDayDialog {...dialogs[asking]} onClose={close} />
      )}
    </div>
  );
}
