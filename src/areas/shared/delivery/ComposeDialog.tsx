'use client';

import { useEffect, useState } from 'react';
import { toast } from 'sonner';
import { type MailToQueue, readAddresses } from '@/core/decisions/delivery/mailing';
import type { Mail } from '@/core/delivery/mail';
import type { Result } from '@/core/kernel/result';
import { mailAddresses } from '@/core/parties/business';
import { sendMails } from '@/store/delivery/actions/mail';
import { Dialog } from '@/ui/Dialog';
import { AreaField, TextField } from '@/ui/Field';
import { useOpenBook } from '../../shell/BookContext';
import { act } from '../../shell/book';
import { toQueue, usualChoice, type WrittenMail } from '../../shell/delivery/writtenMail';
import { SlipFoot } from '../FormFoot';
import { useActionForm } from '../useActionForm';
import { MailViewTable } from './MailViewTable';

/** What becomes of the message where it is not sent at once. */
interface KeepMessage {
  /** `Save the message`. */
  readonly label: string;
  readonly keep: (mail: MailToQueue) => Promise<Result<unknown>>;
  /** It goes by post: nobody is asked for addresses and files. */
  readonly onPaper: boolean;
}

interface ComposeDialogProps {
  /** What it is about, in words: `INV-2026-0007`. */
  readonly about: string;
  /** Writes the message, or says why there is none. */
  readonly write: () => Promise<WrittenMail | string>;
  /** A message that did not arrive, in whose place this one goes. */
  readonly replaces?: Mail;
  readonly instead?: KeepMessage;
  readonly onClose: () => void;
}

/** A message: proposed by its template, changed by the person, and put into the queue. */
export function ComposeDialog(props: ComposeDialogProps) {
  const { about, write, onClose } = props;
  const [writing] = useState(write);
  const [written, setWritten] = useState<WrittenMail | string | null>(null);
  useEffect(() => {
    let here = true;
    void writing.then((made) => here && setWritten(made));
    return () => {
      here = false;
    };
  }, [writing]);
  if (written === null || typeof written === 'string')
    return (
      <Dialog
        open
        onClose={onClose}
        title={`Message about ${about}`}
        description={written === null ? 'Writing the message…' : `There is nothing to send: ${written}`}
        wide
      />
    );
  return <Compose {...props} written={written} />;
}

interface ComposeForm {
  readonly to: string;
  readonly cc: string;
  readonly bcc: string;
  readonly subject: string;
  readonly text: string;
  readonly copy: boolean;
  readonly view: boolean;
}

function Compose({
  about,
  replaces,
  instead,
  written,
  onClose,
}: ComposeDialogProps & { readonly written: WrittenMail }) {
  const { business } = useOpenBook();
  const { copyTo, from } = mailAddresses(business);
  const { missing, offered } = written;
  const onPaper = instead?.onPaper === true;
  const [files, setFiles] = useState(() => usualChoice(written).files);
  const toggle = (key: string, on: boolean) =>
    setFiles((before) => new Set(on ? [...before, key] : [...before].filter((one) => one !== key)));
  const { submit, field, form, general, busy, isDirty } = useActionForm<ComposeForm, unknown>({
    initial: {
      to: written.to.join(', '),
      cc: written.cc.join(', '),
      bcc: written.bcc.join(', '),
      subject: written.subject,
      text: written.text,
      copy: copyTo !== '',
      view: replaces !== undefined && replaces.view !== null,
    },
    run: async ({ to, cc, bcc, copy, view, ...words }) => {
      const changed = {
        ...written,
        ...words,
        to: readAddresses(to),
        cc: readAddresses(cc),
        bcc: readAddresses(bcc),
      };
      const mail = await toQueue(changed, { files, view, copy, replaces: replaces?.id ?? '' });
      return instead === undefined ? act(sendMails, { mails: [mail] }) : instead.keep(mail);
    },
    onDone: () => {
      if (instead === undefined) toast(`${about} is on its way`);
      onClose();
    },
  });
  const inBody = form.watch('view');
  return (
    <Dialog
      unsaved={isDirty}
      open
      onClose={onClose}
      wide
      title={onPaper ? `Letter about ${about}` : instead ? `Message about ${about}` : `Send ${about} by mail`}
      description={
        onPaper
          ? 'It goes by post: what it says stands on the printed letter.'
          : `From ${from === '' ? 'an address that is not known yet' : from}. What goes out is kept, to the letter.`
      }
    >
      <form onSubmit={submit} noValidate>
        {missing.length > 0 && (
          <p role="status" className="mb-3 text-brick">
            ▲ Nothing is known for {missing.join(', ')}: look at the words before you send them.
          </p>
        )}
        {!onPaper && (
          <>
            <TextField label="To" autoFocus={written.to.length === 0} {...field('to')} />
            <div className="grid grid-cols-2 gap-x-4">
              <TextField label="Copy (cc)" {...field('cc')} />
              <TextField label="Blind copy (bcc)" {...field('bcc')} />
            </div>
          </>
        )}
        <TextField label="Subject" {...field('subject')} />
        <AreaField label="Message" rows={6} {...field('text')} />
        {!onPaper && offered.length > 0 && (
          <fieldset className="mb-3">
            <legend className="text-soft text-sm">Files that go along</legend>
            <div className="flex flex-wrap gap-x-5 gap-y-1">
              {offered.map(({ key, label }) => (
                <label key={key} className="cursor-pointer">
                  <input
                    type="checkbox"
                    className="accent-rust"
                    checked={files.has(key)}
                    onChange={({ target: { checked } }) => toggle(key, checked)}
                  />{' '}
                  {label}
                </label>
              ))}
            </div>
          </fieldset>
        )}
        {!onPaper && (
          <p className="mb-3 flex flex-wrap gap-x-5 gap-y-1">
            {written.view !== null && (
              <label className="cursor-pointer">
                <input type="checkbox" className="accent-rust" {...form.register('view')} /> The document in the message
              </label>
            )}
            {copyTo !== '' && (
              <label className="cursor-pointer">
                <input type="checkbox" className="accent-rust" {...form.register('copy')} /> Copy to ourselves, {copyTo}
              </label>
            )}
          </p>
        )}
        {inBody && written.view !== null && <MailViewTable view={written.view} />}
        <SlipFoot
          label={instead?.label ?? `Send ${about}`}
          busy={busy}
          general={general}
          leave="Not now"
          onClose={onClose}
        />
      </form>
    </Dialog>
  );
}
