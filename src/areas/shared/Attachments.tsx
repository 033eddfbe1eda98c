'use client';

import { useRef, useState } from 'react';
import { LARGEST_ATTACHMENT } from '@/core/documents/attachment';
import { CODES } from '@/core/einvoice/codes';
import { wordRefusals } from '@/core/wording/refusals';
import { attachFile, detachFile, letFileOut } from '@/store/sales/actions/afterIssue';
import { attachmentsOf } from '@/store/sales/queries/family';
import { TextButton } from '@/ui/TextButton';
import { act, useBook } from '../shell/book';
import { base64Of, bytesOf } from '../shell/fileBytes';
import { saveFile } from '../shell/saveFile';

const kilobytes = (size: number): string => `${Math.max(1, Math.round(size / 1000)).toLocaleString('en')} kB`;

/** Files kept in the book with a draft, a document or a customer. They are never run, only handed back. */
export function Attachments({
  ownerId,
  before,
  mayGoOut = false,
}: {
  readonly ownerId: string;
  readonly before?: () => Promise<boolean>;
  /** They belong to a document, and may go out inside its e-invoice. */
  readonly mayGoOut?: boolean;
}) {
  const files = useBook((db) => attachmentsOf(db, ownerId), [ownerId]) ?? [];
  const input = useRef<HTMLInputElement>(null);
  const [fault, setFault] = useState('');
  const add = async (file: File | undefined) => {
    if (file === undefined) return;
    setFault('');
    if (file.size > LARGEST_ATTACHMENT) return setFault(`“${file.name}” is larger than 10 MiB. Choose a smaller one.`);
    if (before !== undefined && !(await before())) return;
    try {
      const result = await act(attachFile, {
        id: crypto.randomUUID(),
        ownerId,
        name: file.name,
        type: file.type,
        size: file.size,
        data: await base64Of(file),
        addedAt: new Date().toISOString(),
        goesOut: false,
      });
      if (!result.ok) setFault(wordRefusals(result.refusals));
    } catch {
      setFault(`“${file.name}” could not be read. Choose it again.`);
    }
  };
  return (
    <section aria-label="Attached files" className="text-sm">
      <ul>
        {files.map((file) => (
          <li key={file.id} className="flex flex-wrap items-baseline gap-x-2">
            <TextButton
              className="max-w-full truncate"
              onClick={() => saveFile(file.name, bytesOf(file), 'application/octet-stream')}
            >
              {file.name}
            </TextButton>
            <span className="mr-auto whitespace-nowrap text-soft">{kilobytes(file.size)}</span>
            {mayGoOut && CODES.mimeTypes.has(file.type) && (
              <label className="cursor-pointer whitespace-nowrap">
                <input
                  type="checkbox"
                  className="accent-rust"
                  aria-label={`${file.name} is embedded in the e-invoice`}
                  checked={file.goesOut}
                  onChange={({ target: { checked } }) => void act(letFileOut, { id: file.id, goesOut: checked })}
                />{' '}
                in the e-invoice
              </label>
            )}
            <TextButton
              aria-label={`Remove ${file.name}`}
              className="text-soft"
              onClick={() => void act(detachFile, { id: file.id })}
            >
              remove
            </TextButton>
          </li>
        ))}
      </ul>
      <input
        ref={input}
        type="file"
        className="sr-only"
        tabIndex={-1}
        aria-label="File to attach"
        onChange={(event) => {
          void add(event.target.files?.[0]);
          event.target.value = '';
        }}
      />
      <TextButton onClick={() => input.current?.click()}>Attach a file…</TextButton>
      {fault !== '' && (
        <p role="alert" className="text-brick">
          ▲ {fault}
        </p>
      )}
    </section>
  );
}
