'use client';

import { useRef, useState } from 'react';
import { toast } from 'sonner';
import { MAIL_PURPOSES, type MailPurpose } from '@/core/delivery/mail';
import {
  firstTemplate,
  type MessageTemplate,
  messageTemplateSchema,
  PLACEHOLDERS,
  templateFor,
  templateId,
} from '@/core/delivery/messageTemplate';
import { keepMessageTemplate } from '@/store/delivery/actions/mail';
import { allOf } from '@/store/records';
import { Button } from '@/ui/Button';
import { AreaField, ChoiceField, TextField } from '@/ui/Field';
import { Empty, SheetTitle } from '@/ui/Page';
import { FormFoot } from '../../shared/FormFoot';
import { ListTable } from '../../shared/ListTable';
import { RecordLink } from '../../shared/RecordList';
import { useRecordForm } from '../../shared/useActionForm';
import { act, useBook } from '../../shell/book';
import { routes } from '../../shell/routes';
import { TemplatePreview } from './TemplatePreview';

const PURPOSE_WORDS: Readonly<Record<MailPurpose, string>> = {
  quote: 'Quote',
  invoice: 'Invoice',
  'credit-note': 'Credit note',
  receipt: 'Receipt',
  statement: 'Statement of account',
  'reminder-1': 'First reminder',
  'reminder-2': 'Second reminder',
  'reminder-3': 'Final reminder',
  recurring: 'Recurring invoice',
  certificate: 'Missing withholding certificate',
};

/** Languages that documents are printed in, and messages written. */
const MAIL_LANGUAGES = [
  ['en', 'English'],
  ['ga', 'Irish'],
  ['de', 'German'],
  ['fr', 'French'],
  ['es', 'Spanish'],
] as const;

/** The words of messages by what they are for, in one language. */
export function TemplateList() {
  const [language, setLanguage] = useState('en');
  const own = useBook((db) => allOf(db, 'messageTemplates'));
  if (own === undefined) return null;
  const rows = MAIL_PURPOSES.map((purpose) => ({
    template: templateFor(own, purpose, language),
    changed: own.some(({ id }) => id === templateId(purpose, language)),
  }));
  return (
    <>
      <SheetTitle aside="written to customers in their language">Messages</SheetTitle>
      <ChoiceField
        label="Language"
        className="w-[180px]"
        options={MAIL_LANGUAGES}
        value={language}
        onChange={({ target: { value } }) => setLanguage(value)}
      />
      <ListTable
        caption="Messages"
        rows={rows}
        keyOf={({ template }) => template.id}
        ordered
        columns={[
          {
            head: 'For',
            value: ({ template }) => PURPOSE_WORDS[template.purpose],
            cell: ({ template }) => (
              <RecordLink path={routes.record('messages', template.id)}>{PURPOSE_WORDS[template.purpose]}</RecordLink>
            ),
          },
          { head: 'Subject', cell: ({ template }) => template.subject },
          { head: 'Words', cell: ({ changed }) => (changed ? 'our own' : 'as they come') },
        ]}
      />
    </>
  );
}

/** The words of one kind of message in one language. */
export function TemplatePage({ id }: { readonly id: string }) {
  const own = useBook((db) => allOf(db, 'messageTemplates'));
  const [purpose, language] = id.split('|');
  if (own === undefined) return null;
  const known = MAIL_PURPOSES.find((one) => one === purpose);
  if (known === undefined || language === undefined) return <Empty>There is no such message.</Empty>;
  return <TemplateForm key={id} template={templateFor(own, known, language)} />;
}

function TemplateForm({ template }: { readonly template: MessageTemplate }) {
  const { purpose, language } = template;
  const area = useRef<HTMLTextAreaElement | null>(null);
  const { form, submit, field, general } = useRecordForm<MessageTemplate>(
    messageTemplateSchema,
    template,
    (value) => act(keepMessageTemplate, value),
    () => void toast('The message is saved'),
  );
  const insert = (name: string) => {
    const { current } = area;
    const text = form.getValues('text');
    const at = current?.selectionStart ?? text.length;
    form.setValue('text', `${text.slice(0, at)}{${name}}${text.slice(current?.selectionEnd ?? at)}`, {
      shouldDirty: true,
    });
    current?.focus();
  };
  const first = () => {
    const { subject, text } = firstTemplate(purpose, language);
    form.setValue('subject', subject, { shouldDirty: true });
    form.setValue('text', text, { shouldDirty: true });
  };
  const text = field('text');
  return (
    <form onSubmit={submit} noValidate>
      <SheetTitle aside={MAIL_LANGUAGES.find(([code]) => code === language)?.[1] ?? language}>
        {PURPOSE_WORDS[purpose]}
      </SheetTitle>
      <TextField label="Subject" {...field('subject')} />
      <AreaField
        label="Message"
        rows={10}
        {...text}
        ref={(element) => {
          text.ref(element);
          area.current = element;
        }}
      />
      <ChoiceField
        label="Insert a placeholder"
        className="max-w-[420px]"
        options={[
          ['', 'choose…'] as const,
          ...Object.entries(PLACEHOLDERS).map(([name, words]) => [name, `{${name}}: ${words}`] as const),
        ]}
        value=""
        onChange={({ target: { value } }) => value !== '' && insert(value)}
      />
      <TemplatePreview template={{ ...template, subject: form.watch('subject'), text: form.watch('text') }} />
      <div className="flex items-end gap-2.5">
        <FormFoot label="Save the message" busy={form.formState.isSubmitting} general={general} />
        <Button weight="quiet" onClick={first}>
          Restore the words it came with
        </Button>
      </div>
    </form>
  );
}
