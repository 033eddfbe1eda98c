'use client';

import { useRouter } from 'next/navigation';
import { useEffect, useRef, useState } from 'react';
import { toast } from 'sonner';
import { useStore } from 'zustand';
import { RECEIVED } from '@/core/documents/attachment';
import type { RuleFinding } from '@/core/einvoice/check';
import { groupsIn, type ViewGroup } from '@/core/einvoice/view';
import { type Result, refuse } from '@/core/kernel/result';
import { wordRefusals } from '@/core/wording/refusals';
import { draftFromFile } from '@/store/delivery/actions/receivedFiles';
import { attachFile } from '@/store/sales/actions/afterIssue';
import { Button } from '@/ui/Button';
import { ChooseFile } from '@/ui/ChooseFile';
import { useFolds } from '@/ui/folds';
import { Mark } from '@/ui/Mark';
import { Empty, Margin, Note, Sheet } from '@/ui/Page';
import { TextButton } from '@/ui/TextButton';
import type { CheckedFile } from '@/workers/check.worker';
import { checkInWorker, Stopped } from '@/workers/client';
import { XmlColumn } from '../../shared/XmlColumn';
import { useOpenBook } from '../../shell/BookContext';
import { act } from '../../shell/book';
import { base64Of } from '../../shell/fileBytes';
import { closeFile, type OpenedFile, openedFile, openFile } from '../../shell/openedFile';
import { routes } from '../../shell/routes';
import { EInvoiceSheet } from './EInvoiceSheet';
import { Shelf, useShelf } from './Shelf';

/** The answer to a file, or null while it is read. */
function useChecked(file: OpenedFile | null) {
  const [answer, setAnswer] = useState<{ readonly of: OpenedFile; readonly result: Result<CheckedFile> } | null>(null);
  const control = useRef<AbortController | null>(null);
  useEffect(() => {
    if (file === null) return;
    const mine = new AbortController();
    control.current = mine;
    checkInWorker(file.bytes, mine.signal)
      .catch((error: Error) =>
        refuse(
          error instanceof Stopped ? { code: 'stopped', path: '' } : { code: 'unread', path: '', why: error.message },
        ),
      )
      .then((result) => setAnswer({ of: file, result }));
    return () => mine.abort();
  }, [file]);
  return { result: answer?.of === file ? answer.result : null, stop: () => control.current?.abort() };
}

const CHOOSE = <ChooseFile words="Choose a file" accept=".xml,.pdf" onFile={(file) => void openFile(file)} />;

/** The line of a finding: that of its term, or of the line of the invoice it is about. */
function lineOf(finding: RuleFinding, invoice: ViewGroup): number {
  const from = finding.line === null ? invoice : (groupsIn(invoice, 'BG-25')[finding.line] ?? invoice);
  const groups = [from, ...from.groups, ...from.groups.flatMap(({ groups: inner }) => inner)];
  for (const group of groups) {
    if (group.id === finding.term) return group.line;
    const term = group.terms.find(({ id }) => id === finding.term);
    if (term !== undefined) return term.line;
  }
  return from.line;
}

const PROFILES = { peppol: 'EN 16931, Peppol profile', en16931: 'EN 16931' } as const;
const SYNTAXES = { ubl: 'UBL', cii: 'CII' } as const;

interface FindingsProps {
  readonly checked: CheckedFile;
  readonly onLine: (line: number) => void;
}

function Findings({ checked, onLine }: FindingsProps) {
  const { findings, invoice, asked, profile } = checked;
  const broken = new Set(findings.map(({ rule }) => rule)).size;
  return (
    <Note title="Checks">
      <ul aria-live="polite">
        {findings.map((finding) => (
          <li key={`${finding.rule} ${finding.path} ${finding.message}`} className="mb-2 flex gap-1.5 text-sm">
            <Mark
              kind={finding.severity === 'error' ? 'wrong' : 'warning'}
              label={finding.severity === 'error' ? 'Error' : 'Warning'}
            />
            <span className="min-w-0 break-words">
              {finding.message}{' '}
              <TextButton title={finding.path} onClick={() => onLine(lineOf(finding, invoice))}>
                Show it
              </TextButton>{' '}
              <span className="whitespace-nowrap text-soft text-xs">{finding.rule}</span>
            </span>
          </li>
        ))}
        <li className="flex gap-1.5 text-sm">
          <Mark kind="good" label="Good" />
          <span>
            {asked - broken} {findings.length > 0 ? 'other ' : ''}rules passed: {PROFILES[profile]}.
          </span>
        </li>
      </ul>
    </Note>
  );
}

/** A received e-invoice, from anybody: read, checked, and shown as a document beside its XML. */
export function EInvoiceScreen() {
  const file = useStore(openedFile, (state) => state.file);
  const { result, stop } = useChecked(file);
  const { fold } = useFolds();
  const [xml, setXml] = useState(false);
  const [line, setLine] = useState(0);
  const router = useRouter();
  const { registration } = useOpenBook();
  const shelf = useShelf();
  const show = (open: boolean) => {
    // The text needs the room that the index takes.
    if (open) fold('index', true);
    setXml(open);
  };
  if (file === null)
    return (
      <Sheet label="Received e-invoice">
        <Empty action={CHOOSE}>
          Drop an e-invoice anywhere, or choose it here: a UBL or CII file, or a PDF with one inside. It is read and
          checked in this browser, and kept only if you say so.
        </Empty>
        {shelf.length > 0 && <Shelf files={shelf} />}
      </Sheet>
    );
  if (result === null)
    return (
      <Sheet label="Received e-invoice">
        <p role="status">
          Reading {file.name}…{' '}
          <Button weight="quiet" onClick={stop}>
            Stop
          </Button>
        </p>
      </Sheet>
    );
  if (!result.ok)
    return (
      <Sheet label="Received e-invoice">
        <p role="alert" className="mb-3 text-brick">
          ▲ {file.name} is not shown: {wordRefusals(result.refusals)}
        </p>
        <div>{CHOOSE}</div>
      </Sheet>
    );
  const checked = result.value;
  const kept = shelf.some(({ name, size }) => name === file.name && size === file.bytes.length);
  const keep = async () => {
    const data = await base64Of(new Blob([file.bytes]));
    const type = checked.insidePdf ? 'application/pdf' : 'application/xml';
    const addedAt = new Date().toISOString();
    const { name, bytes } = file;
    const result = await act(attachFile, {
      ...{ id: crypto.randomUUID(), ownerId: RECEIVED, name, type, data, addedAt },
      size: bytes.length,
      goesOut: false,
    });
    if (result.ok) toast(`${name} is saved in the book`);
    else toast.error(wordRefusals(result.refusals));
  };
  const begin = async () => {
    const { invoice } = checked;
    const result = await act(draftFromFile, { invoice, name: file.name, registrationId: registration.id });
    if (result.ok) {
      // They stand in the remarks as well; who goes on at once would not see them there.
      toast(result.value.remarks, { duration: 12_000 });
      router.push(routes.draft(result.value.draftId));
    } else toast.error(wordRefusals(result.refusals));
  };
  const wrong = checked.findings.some(({ severity }) => severity === 'error');
  return (
    <>
      <Sheet label="Received e-invoice">
        <EInvoiceSheet
          invoice={checked.invoice}
          line={line}
          onPoint={setLine}
          aside={
            <>
              <Mark kind={wrong ? 'wrong' : 'good'} /> {wrong ? 'breaks rules' : 'meets all rules'} ·{' '}
              {SYNTAXES[checked.syntax]}
              {checked.insidePdf && ' inside a PDF'}
            </>
          }
        />
        <div className="mt-auto flex flex-wrap items-center gap-2.5 pt-6">
          <Button aria-pressed={xml} onClick={() => show(!xml)}>
            Show XML
          </Button>
          <Button disabled={kept} onClick={() => void keep()}>
            {kept ? 'Saved in the book' : 'Save it in the book'}
          </Button>
          <Button onClick={() => void begin()}>Create a draft from it</Button>
          {CHOOSE}
          {shelf.length > 0 && (
            <Button weight="quiet" onClick={closeFile}>
              Saved files
            </Button>
          )}
          <span className="ml-auto truncate text-soft">{file.name}</span>
        </div>
      </Sheet>
      {xml ? (
        <XmlColumn xml={checked.xml} line={line} onLine={setLine} onClose={() => setXml(false)} />
      ) : (
        <Margin>
          <Findings
            checked={checked}
            onLine={(at) => {
              setLine(at);
              show(true);
            }}
          />
        </Margin>
      )}
    </>
  );
}
