'use client';

import { useEffect, useState } from 'react';
import { toast } from 'sonner';
import { readAddresses } from '@/core/decisions/delivery/mailing';
import type { Mail, MailPurpose } from '@/core/delivery/mail';
import type { IssuedDocument } from '@/core/documents/issued';
import { KINDS } from '@/core/documents/kinds';
import { mailAddresses } from '@/core/parties/business';
import { SENT_FILES } from '@/core/parties/customer';
import { sendMails } from '@/store/delivery/actions/mail';
import { Dialog } from '@/ui/Dialog';
import { AreaField, TextField } from '@/ui/Field';
import { useOpenBook } from '../../shell/BookContext';
import { act } from '../../shell/book';
import { mailAbout, type ProposedMail, proposeMail, viewOfDocument } from '../../shell/delivery/mailing';
import { FILE_WORDS } from '../choices';
import { SlipFoot } from '../FormFoot';
import { useActionForm } from '../useActionForm';
import { MailViewTable } from './MailViewTable';

interface ComposeDialogProps {
  readonly document: IssuedDocument;
  /** Another one than that of the document. */
  readonly purpose?: MailPurpose;
  /** A message that did not arrive, in whose place this one goes. */
  readonly replaces?: Mail;
  readonly onClose: () => void;
}

/** A message about a document: proposed by its template, changed by the person, and put into the queue. */
export function ComposeDialog(props: ComposeDialogProps) {
  const { document, purpose, onClose } = props;
  const [proposal, setProposal] = useState<ProposedMail | null>(null);
  useEffect(() => {
    let here = true;
    void proposeMail(document, purpose).then((made) => here && setProposal(made));
    return () => {
      here = false;
    };
  }, [document, purpose]);
  if (proposal === null)
    return (
      <Dialog
        open
        onClose={onClose}
        title={`Send ${document.number} by mail`}
        description="Writing the message…"
        wide
      />
    );
  return <Compose {...props} proposal={proposal} />;
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

function Compose({ document, replaces, proposal, onClose }: ComposeDialogProps & { readonly proposal: ProposedMail }) {
  const { business } = useOpenBook();
  const { copyTo, from } = mailAddresses(business);
  const { number, kind } = document;
  const { language, missing, attachments } = proposal;
  const [files, setFiles] = useState<ReadonlySet<string>>(
    () => new Set([...proposal.files, ...attachments.filter(({ goesOut }) => goesOut).map(({ id }) => id)]),
  );
  const toggle = (key: string, on: boolean) =>
    setFiles((before) => new Set(on ? [...before, key] : [...before].filter((one) => one !== key)));
  const { submit, field, form, general, busy, isDirty } = useActionForm<ComposeForm, readonly Mail[]>({
    initial: {
      to: (replaces?.to ?? proposal.to).join(', '),
      cc: (replaces?.cc ?? []).join(', '),
      bcc: '',
      subject: replaces?.subject ?? proposal.subject,
      text: replaces?.text ?? proposal.text,
      copy: copyTo !== '',
      view: replaces === undefined ? false : replaces.view !== null,
    },
    run: async ({ to, cc, bcc, copy, view, ...words }) => {
      const written = {
        ...proposal,
        ...words,
        to: readAddresses(to),
        cc: readAddresses(cc),
        bcc: readAddresses(bcc),
      };
      const mail = await mailAbout(document, written, {
        files: SENT_FILES.filter((one) => files.has(one)),
        attachments: attachments.filter(({ id }) => files.has(id)),
        view,
        copy,
        ...(replaces && { replaces: replaces.id }),
      });
      return act(sendMails, { mails: [mail] });
    },
    onDone: () => {
      toast(`${number} is on its way`);
      onClose();
    },
  });
  const kinds = KINDS[kind].eInvoice ? SENT_FILES : (['pdf'] as const);
  const inBody = form.watch('view');
  return (
    <Dialog
      unsaved={isDirty}
      open
      onClose={onClose}
      wide
      title={`Send ${number} by mail`}
      description={`From ${from === '' ? 'an address that is not known yet' : from}. What goes out is kept with the document, to the letter.`}
    >
      <form onSubmit={submit} noValidate>
        {missing.length > 0 && replaces === undefined && (
          <p role="status" className="mb-3 text-brick">
            ▲ Nothing is known for {missing.join(', ')}: look at the words before you send them.
          </p>
        )}
        <TextField label="To" autoFocus={proposal.to.length === 0} {...field('to')} />
        <div className="grid grid-cols-2 gap-x-4">
          <TextField label="Copy (cc)" {...field('cc')} />
          <TextField label="Blind copy (bcc)" {...field('bcc')} />
        </div>
        <TextField label="Subject" {...field('subject')} />
        <AreaField label="Message" rows={6} {...field('text')} />
        <fieldset className="mb-3">
          <legend className="text-soft text-sm">Files that go along</legend>
          <div className="flex flex-wrap gap-x-5 gap-y-1">
            {kinds.map((one) => (
              <label key={one} className="cursor-pointer">
                <input
                  type="checkbox"
                  className="accent-rust"
                  checked={files.has(one)}
                  onChange={({ target: { checked } }) => toggle(one, checked)}
                />{' '}
                {FILE_WORDS[one]}
              </label>
            ))}
            {attachments.map(({ id, name }) => (
              <label key={id} className="cursor-pointer">
                <input
                  type="checkbox"
                  className="accent-rust"
                  checked={files.has(id)}
                  onChange={({ target: { checked } }) => toggle(id, checked)}
                />{' '}
                {name}
              </label>
            ))}
          </div>
        </fieldset>
        <p className="mb-3 flex flex-wrap gap-x-5 gap-y-1">
          <label className="cursor-pointer">
            <input type="checkbox" className="accent-rust" {...form.register('view')} /> The document in the message
          </label>
          {copyTo !== '' && (
            <label className="cursor-pointer">
              <input type="checkbox" className="accent-rust" {...form.register('copy')} /> Copy to ourselves, {copyTo}
            </label>
          )}
        </p>
        {inBody && <MailViewTable view={viewOfDocument(document, language)} />}
        <SlipFoot label={`Send ${number}`} busy={busy} general={general} leave="Not now" onClose={onClose} />
      </form>
    </Dialog>
  );
}
