'use client';

import { useState } from 'react';
import { isIsoDate, writeDate } from '@/core/kernel/date';
import { type Certificate, certificateSchema, certificateState } from '@/core/parties/certificate';
import { keepCertificate } from '@/store/setup/actions/taxSetup';
import { unchanged } from '@/store/setup/actions/unchanged';
import { certificatesOf } from '@/store/setup/queries/customers';
import { Button } from '@/ui/Button';
import { Dialog } from '@/ui/Dialog';
import { ChoiceField, TextField } from '@/ui/Field';
import { Mark, type MarkKind } from '@/ui/Mark';
import { TextButton } from '@/ui/TextButton';
import { jurisdictionChoices } from '../../shared/choices';
import { DateField } from '../../shared/DateField';
import { FormFoot } from '../../shared/FormFoot';
import { useRecordForm } from '../../shared/useActionForm';
import { useOpenBook } from '../../shell/BookContext';
import { act, today, useBook } from '../../shell/book';
import { bytesOf } from '../../shell/fileBytes';
import { saveFile } from '../../shell/saveFile';

const STATES: Readonly<Record<ReturnType<typeof certificateState>, readonly [MarkKind, string]>> = {
  valid: ['good', 'in force'],
  'lapses-soon': ['warning', 'lapses soon'],
  lapsed: ['wrong', 'lapsed'],
  upcoming: ['open', 'begins later'],
};

/** Exemption certificates of a customer, with how each stands today. */
export function Certificates({ customerId }: { readonly customerId: string }) {
  const { records } = useOpenBook();
  const [open, setOpen] = useState<Certificate | 'new' | null>(null);
  const certificates = useBook((db) => certificatesOf(db, customerId), [customerId]);
  const nameOf = (id: string) => records.jurisdictions.find((j) => j.id === id)?.name ?? id;
  return (
    <section aria-label="Exemption certificates" className="mt-6 border-rule border-t pt-4">
      <h2 className="mb-2 font-semibold font-serif">Exemption certificates</h2>
      <ul>
        {certificates?.map((certificate) => {
          const [mark, word] = STATES[certificateState(certificate, today())];
          return (
            <li key={certificate.id} className="flex items-baseline gap-2 border-rule border-b py-1">
              <Mark kind={mark} />
              <TextButton onClick={() => setOpen(certificate)}>{certificate.number}</TextButton>
              <span className="flex-1 text-soft">
                {nameOf(certificate.jurisdictionId)}, {certificate.reason}, {word}
                {isIsoDate(certificate.until) && `, until ${writeDate(certificate.until)}`}
              </span>
              {certificate.file !== null && (
                <Button weight="quiet" onClick={() => saveAttached(certificate)}>
                  {certificate.file.name}
                </Button>
              )}
            </li>
          );
        })}
      </ul>
      <p className="mt-2">
        <Button onClick={() => setOpen('new')}>New certificate</Button>
      </p>
      <Dialog
        open={open !== null}
        onClose={() => setOpen(null)}
        title={open === null || open === 'new' ? 'New certificate' : `Certificate ${open.number}`}
        description="While it is in force the customer is charged no tax in the jurisdiction and all its parts; the sale is reported as exempt with its number."
        wide
      >
        {open !== null && (
          <CertificateForm
            {...(open !== 'new' && { certificate: open })}
            customerId={customerId}
            onSaved={() => setOpen(null)}
          />
        )}
      </Dialog>
    </section>
  );
}

function saveAttached({ file }: Certificate): void {
  if (file === null) return;
  saveFile(file.name, bytesOf({ data: file.base64 }), file.type);
}

interface CertificateFormProps {
  readonly certificate?: Certificate;
  readonly customerId: string;
  readonly onSaved: () => void;
}

/** A file as it is kept in the book. */
function readAttached(file: File): Promise<Certificate['file']> {
  return new Promise((resolve, reject) => {
    const reader = new FileReader();
    reader.onerror = () => reject(new Error(`${file.name} could not be read`));
    reader.onload = () => {
      const [, base64 = ''] = String(reader.result).split(',');
      resolve({ name: file.name, type: file.type || 'application/octet-stream', base64 });
    };
    reader.readAsDataURL(file);
  });
}

function CertificateForm({ certificate, customerId, onSaved }: CertificateFormProps) {
  const { records } = useOpenBook();
  const isNew = certificate === undefined;
  const blank: Certificate = {
    id: crypto.randomUUID(),
    customerId,
    jurisdictionId: '',
    number: '',
    reason: '',
    from: today(),
    until: '',
    file: null,
  };
  const [initial] = useState(certificate ?? blank);
  const [began] = useState(certificate);
  const { form, submit, field, errorAt, general } = useRecordForm<Certificate>(
    certificateSchema,
    initial,
    (value) => act(unchanged(keepCertificate, 'certificates', began), { value, isNew }),
    onSaved,
  );
  const file = form.watch('file');
  return (
    <form onSubmit={submit} noValidate>
      <div className="grid grid-cols-2 gap-x-4">
        <TextField label="Number of the certificate" autoFocus {...field('number')} />
        <ChoiceField
          label="Jurisdiction that gave it"
          options={jurisdictionChoices(records.jurisdictions)}
          {...field('jurisdictionId')}
        />
        <TextField label="Reason" hint="Such as research institution; it prints" {...field('reason')} />
        <span />
        <DateField label="Valid from" {...field('from')} />
        <DateField label="Valid until" hint="Empty when it does not lapse" {...field('until')} />
      </div>
      <label className="block text-soft text-sm">
        A scan or PDF of it, at most 2 MiB
        <input
          type="file"
          className="block text-ink"
          onChange={(event) => {
            const chosen = event.target.files?.[0];
            if (chosen !== undefined)
              void readAttached(chosen).then((read) => form.setValue('file', read as never, { shouldValidate: true }));
          }}
        />
      </label>
      <p className="min-h-5 text-sm">
        {errorAt('file.base64') ?? (file === null ? '' : `${file.name} goes into the book.`)}
      </p>
      <FormFoot
        label={isNew ? 'Save the certificate' : `Save ${certificate.number}`}
        busy={form.formState.isSubmitting}
        general={general}
      />
    </form>
  );
}
