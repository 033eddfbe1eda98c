'use client';

import type { Mail } from '@/core/delivery/mail';
import { dayOf, writeDate } from '@/core/kernel/date';
import { filesOfMail } from '@/store/delivery/queries/mail';
import { Button } from '@/ui/Button';
import { Dialog } from '@/ui/Dialog';
import { TextButton } from '@/ui/TextButton';
import { bookDb } from '../../shell/book';
import { bytesOf } from '../../shell/fileBytes';
import { saveFile } from '../../shell/saveFile';
import { MailViewTable } from './MailViewTable';
import { happeningsOf } from './mailMark';

/** A message as it went out, with its files, and what came of it. */
export function MailDialog({ mail, onClose }: { readonly mail: Mail; readonly onClose: () => void }) {
  const { about, from, to, cc, bcc, subject, text, view, files } = mail;
  const saveEml = async () => {
    const { writeEml } = await import('@/print/eml');
    const withBlind = true;
    saveFile(`${about}.eml`, writeEml(mail, await filesOfMail(bookDb(), mail), withBlind), 'message/rfc822');
  };
  const saveOne = async (name: string, sha256: string) => {
    const [data] = (await filesOfMail(bookDb(), mail)).filter((one) => one.sha256 === sha256);
    if (data !== undefined) saveFile(name, bytesOf(data), 'application/octet-stream');
  };
  const heads: readonly (readonly [string, string])[] = [
    ['From', from],
    ['To', to.join(', ')],
    ['Copy', cc.join(', ')],
    ['Blind copy', bcc.join(', ')],
    ['Subject', subject],
  ];
  return (
    <Dialog
      open
      onClose={onClose}
      wide
      title={`Message about ${about}`}
      description="As it went out; it never changes."
    >
      <dl className="mb-3 grid grid-cols-[90px_1fr] gap-y-1">
        {heads
          .filter(([, value]) => value !== '')
          .map(([label, value]) => (
            <div key={label} className="contents">
              <dt className="text-soft">{label}</dt>
              <dd className="break-words">{value}</dd>
            </div>
          ))}
      </dl>
      <p className="mb-3 whitespace-pre-line border-rule border-y py-3">{text}</p>
      {view !== null && <MailViewTable view={view} />}
      {files.length > 0 && (
        <ul aria-label="Files of the message" className="mb-3">
          {files.map(({ name, sha256, size }) => (
            <li key={name}>
              <TextButton onClick={() => void saveOne(name, sha256)}>{name}</TextButton>{' '}
              <span className="text-soft text-sm">{Math.max(1, Math.round(size / 1000)).toLocaleString('en')} kB</span>
            </li>
          ))}
        </ul>
      )}
      <ol className="mb-4 text-sm">
        {happeningsOf(mail).map(({ at, words }) => (
          <li key={`${at}${words}`} className="flex justify-between gap-3">
            <span className="min-w-0 break-words">{words}</span>
            <time dateTime={at} className="shrink-0">
              {writeDate(dayOf(at))}
            </time>
          </li>
        ))}
      </ol>
      <div className="flex gap-2.5">
        <Button weight="main" onClick={() => void saveEml()}>
          Save as .eml
        </Button>
        <Button onClick={onClose}>Close</Button>
      </div>
    </Dialog>
  );
}
