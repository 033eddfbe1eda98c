'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { toast } from 'sonner';
import { type DocumentAction, possibleActions } from '@/core/decisions/sales/possibleActions';
import { goingOut } from '@/core/documents/attachment';
import type { IssuedDocument, QuoteAnswer } from '@/core/documents/issued';
import { KINDS } from '@/core/documents/kinds';
import { einvoiceOf } from '@/core/einvoice/fromDocument';
import { type Syntax, writeEInvoice } from '@/core/einvoice/syntax';
import { wordRefusal, wordRefusals } from '@/core/wording/refusals';
import { fileName, printName } from '@/print/words';
import { holdReminding } from '@/store/customers/actions/reminders';
import { cancelDocument, sendElsewhere } from '@/store/sales/actions/afterIssue';
import { correctInvoice } from '@/store/sales/actions/creditInvoice';
import { keepAnswer, type Remake, remake } from '@/store/sales/actions/quotes';
import { repeatDraft } from '@/store/sales/actions/recurring';
import type { DocumentFile } from '@/store/sales/queries/family';
import { Button } from '@/ui/Button';
import { Menu, type MenuEntry } from '@/ui/Menu';
import { ComposeDialog } from '../../shared/delivery/ComposeDialog';
import { SendDialog } from '../../shared/delivery/SendDialog';
import { WriteOffDialog } from '../../shared/settlement/WriteOffDialog';
import { WordDayDialog, type WordDayProps } from '../../shared/WordDayDialog';
import { useOpenBook } from '../../shell/BookContext';
import { act, today } from '../../shell/book';
import { writeAboutDocument } from '../../shell/delivery/mailing';
import { hybridPdf, printedPdf } from '../../shell/documentPrint';
import { KEY_MAP } from '../../shell/keyMap';
import { openFile } from '../../shell/openedFile';
import { routes } from '../../shell/routes';
import { saveFile } from '../../shell/saveFile';
import { useKey } from '../../shell/useKey';
import { CreditDialog } from './CreditDialog';
import { StageDialog } from './StageDialog';

type Asking =
  | 'credit'
  | 'stage'
  | 'write-off'
  | 'send'
  | 'mail'
  | 'correct'
  | 'cancel'
  | 'sent'
  | 'accepted'
  | 'declined'
  | 'dispute'
  | 'promise'
  | null;

interface DocumentActionsProps {
  readonly file: DocumentFile;
  readonly onPrint: () => void;
}

/** What an action is called, in the menu and as the main thing. */
const WORDS: Readonly<Record<DocumentAction, string>> = {
  credit: 'Credit…',
  correct: 'Correct it…',
  cancel: 'Cancel it…',
  accept: 'Accepted…',
  decline: 'Declined…',
  bill: 'Invoice it…',
  'write-version': 'New version',
  copy: 'Copy into a new draft',
  'see-e-invoice': 'Show its e-invoice',
  'mark-sent': 'Mark as sent…',
  send: 'Send e-invoice…',
  mail: 'Send by mail…',
  receive: 'Record a receipt',
  'write-off': 'Write off…',
  dispute: 'Disputed…',
  promise: 'Payment promised…',
};

/** Done from buttons of their own, not from the menu. */
const BESIDE_MENU: ReadonlySet<DocumentAction> = new Set(['send', 'mail', 'receive']);

/** What can be done with an issued document: the main thing, its files, and everything else in a menu. */
export function DocumentActions({ file, onPrint }: DocumentActionsProps) {
  const router = useRouter();
  const { registrations } = useOpenBook();
  const [asking, setAsking] = useState<Asking>(null);
  const { document, family, lines, transmissions, mails } = file;
  const { id, kind, content, figures, number } = document;
  const files = goingOut(file.attachments);
  const close = () => setAsking(null);

  const registration = registrations.find((r) => r.id === content.registrationId);
  const { actions, main } = possibleActions({
    document,
    family,
    transmissions,
    mails,
    registration,
    postedOn: lines[0]?.date ?? '',
  });
  useKey('main', () => {
    if (main !== null) perform[main]();
  });

  const begin = async (as: Remake) => {
    const result = await act(remake, { documentId: id, as, issueDate: today() });
    if (result.ok) router.push(routes.draft(result.value.draftId));
    else toast.error(wordRefusals(result.refusals));
  };
  const savePdf = async (make: (document: IssuedDocument) => Promise<Uint8Array> = printedPdf) => {
    try {
      saveFile(printName(content), await make(document), 'application/pdf');
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
    router.push(routes.eInvoice);
  };

  const perform: Readonly<Record<DocumentAction, () => void>> = {
    credit: () => setAsking('credit'),
    correct: () => setAsking('correct'),
    cancel: () => setAsking('cancel'),
    accept: () => setAsking('accepted'),
    decline: () => setAsking('declined'),
    bill: () => setAsking('stage'),
    'write-version': () => void begin('version'),
    copy: () => void begin('copy'),
    'see-e-invoice': () => void seeXml(),
    'mark-sent': () => setAsking('sent'),
    send: () => setAsking('send'),
    mail: () => setAsking('mail'),
    receive: () => router.push(routes.receiptFor(id)),
    'write-off': () => setAsking('write-off'),
    dispute: () => setAsking('dispute'),
    promise: () => setAsking('promise'),
  };
  const { goesOut, eInvoice, posts } = KINDS[kind];
  const wordsOf = (action: DocumentAction) => (action === 'copy' && !posts ? 'Copy into a new quote' : WORDS[action]);
  const entries: readonly MenuEntry[] = [...actions].flatMap(([action, fault]): readonly MenuEntry[] => {
    if (BESIDE_MENU.has(action)) return [];
    const not = fault === null ? undefined : wordRefusal(fault);
    const entry = { words: wordsOf(action), onSelect: perform[action], not };
    return action === 'see-e-invoice'
      ? [
          entry,
          { words: 'Save CII file', onSelect: () => saveXml('cii') },
          { words: 'Save PDF with e-invoice', onSelect: () => void savePdf((one) => hybridPdf(one, files)) },
        ]
      : [entry];
  });

  const hold = (what: 'dispute' | 'promise') => async (words: string, until: string) => {
    const result = await act(holdReminding, { documentId: id, kind: what, until, words });
    if (result.ok) {
      toast(`${number} is left out of reminders`);
      close();
    }
    return result;
  };
  const answer = (what: QuoteAnswer['kind']) => async (words: string, on: string) => {
    const result = await act(keepAnswer, {
      documentId: id,
      answer: { kind: what, words, on: on as QuoteAnswer['on'] },
    });
    if (result.ok) close();
    return result;
  };
  const dialogs: Readonly<
    Record<
      'correct' | 'cancel' | 'sent' | 'accepted' | 'declined' | 'dispute' | 'promise',
      Omit<WordDayProps, 'onClose'>
    >
  > = {
    correct: {
      title: `Correct ${number}`,
      description:
        'A credit note reverses the invoice, and a new draft with its content is made for you to correct and issue.',
      words: 'Reason, printed on the credit note',
      day: 'Date of the credit note',
      action: 'Credit and reissue',
      onDo: async (reason, date) => {
        const result = await act(correctInvoice, { documentId: id, date, reason });
        if (result.ok) {
          toast(`${result.value.note} credits ${number}`);
          router.push(routes.draft(result.value.draftId));
        }
        return result;
      },
    },
    cancel: {
      title: `Cancel ${number}`,
      description:
        'Its entry is reversed in the same period; number and reason stay in the book. This cannot be undone. Only for what was not sent.',
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
      description: 'Records that it was sent outside this program. From then on it is credited, not cancelled.',
      words: 'Sent by, such as post',
      day: 'Date',
      action: 'Mark as sent',
      onDo: async (how, on) => {
        const result = await act(sendElsewhere, { documentId: id, on, how });
        if (result.ok) close();
        return result;
      },
    },
    dispute: {
      title: `${number} is disputed`,
      description: 'It is left out of reminders until the date you look at it again.',
      words: 'What the customer said',
      day: 'Look at it again on',
      action: 'Hold reminders',
      onDo: hold('dispute'),
    },
    promise: {
      title: `Payment of ${number} is promised`,
      description: 'It is left out of reminders until the day after the date that was promised.',
      words: 'Who promised it, and how',
      day: 'Promised for',
      action: 'Hold reminders',
      onDo: hold('promise'),
    },
    accepted: {
      title: `${number} is accepted`,
      description: 'Records who accepted it and when; then it can be invoiced, whole or in stages.',
      words: 'Accepted by',
      day: 'Date',
      action: 'Mark as accepted',
      onDo: answer('accepted'),
    },
    declined: {
      title: `${number} is declined`,
      description: 'Records the reason. It can still be accepted later.',
      words: 'Why',
      day: 'Date',
      action: 'Mark as declined',
      onDo: answer('declined'),
    },
  };
  const repeat = async () => {
    const copy = await act(remake, { documentId: id, as: 'copy', issueDate: today() });
    if (!copy.ok) return toast.error(wordRefusals(copy.refusals));
    const { draftId } = copy.value;
    const result = await act(repeatDraft, { draftId, name: `${document.customerName}, as ${number}` });
    if (result.ok) router.push(routes.recurring(draftId));
    else toast.error(wordRefusals(result.refusals));
  };
  const more: readonly MenuEntry[] =
    kind === 'invoice' ? [...entries, { words: 'Repeat…', onSelect: () => void repeat(), not: undefined }] : entries;
  return (
    <div className="mt-auto flex flex-wrap items-center gap-2.5 pt-6">
      {main !== null && (
        <Button weight="main" title={KEY_MAP.main.shown} onClick={perform[main]}>
          {wordsOf(main)}
        </Button>
      )}
      {actions.has('receive') && main !== 'receive' && <Button onClick={perform.receive}>{WORDS.receive}</Button>}
      {goesOut && (
        <>
          <Button disabled={actions.get('mail') !== null} onClick={perform.mail}>
            {WORDS.mail}
          </Button>
          <Button onClick={onPrint}>Print preview</Button>
          <Button onClick={() => void savePdf()}>Save PDF</Button>
        </>
      )}
      {eInvoice && <Button onClick={() => saveXml('ubl')}>Save UBL file</Button>}
      {more.length > 0 && <Menu label="More" entries={more} />}
      {asking === 'credit' && <CreditDialog invoice={document} family={family} onClose={close} />}
      {asking === 'send' && <SendDialog document={document} onClose={close} />}
      {asking === 'mail' && (
        <ComposeDialog about={document.number} write={() => writeAboutDocument(document)} onClose={close} />
      )}
      {asking === 'write-off' && <WriteOffDialog document={document} onClose={close} />}
      {asking === 'stage' && <StageDialog quote={document} family={family} onClose={close} />}
      {asking !== null &&
        asking !== 'credit' &&
        asking !== 'stage' &&
        asking !== 'send' &&
        asking !== 'mail' &&
        asking !== 'write-off' && <WordDayDialog {...dialogs[asking]} onClose={close} />}
    </div>
  );
}
