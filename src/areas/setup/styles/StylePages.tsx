'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useWatch } from 'react-hook-form';
import { toast } from 'sonner';
import {
  type DocumentStyle,
  LAWFUL_COLUMNS,
  PLAIN_STYLE,
  STYLE_COLUMNS,
  STYLE_PARTS,
  styleSchema,
} from '@/core/documents/style';
import { bankAccountFor } from '@/core/parties/bankAccount';
import { LANGUAGES } from '@/core/tax/taxCode';
import { wordRefusals } from '@/core/wording/refusals';
import { WORDINGS } from '@/print/wording';
import { allOf, recordOf } from '@/store/records';
import { changeBusiness } from '@/store/setup/actions/setup';
import { keepStyle } from '@/store/setup/actions/taxSetup';
import { unchanged } from '@/store/setup/actions/unchanged';
import { Button } from '@/ui/Button';
import { AreaField, ChoiceField, TextField } from '@/ui/Field';
import { Mark } from '@/ui/Mark';
import { inPrinter } from '@/workers/client';
import { FormFoot } from '../../shared/FormFoot';
import { PdfFrame } from '../../shared/PdfFrame';
import { PickSome } from '../../shared/PickSome';
import { RecordEnd } from '../../shared/RecordEnd';
import { RecordLink, RecordList, RecordPage } from '../../shared/RecordList';
import { RowsField } from '../../shared/RowsField';
import { useRecordForm } from '../../shared/useActionForm';
import { useOpenBook } from '../../shell/BookContext';
import { act, today, useBook } from '../../shell/book';
import { routes } from '../../shell/routes';
import { LogoField } from './LogoField';
import { sampleJob } from './sample';

const COLUMN_WORDS: Readonly<Record<(typeof STYLE_COLUMNS)[number], string>> = {
  quantity: 'quantity',
  price: 'price',
  discount: 'discount',
  tax: 'tax',
  supplied: 'date of supply',
};

const PART_WORDS: Readonly<Record<(typeof STYLE_PARTS)[number], string>> = {
  phone: 'our phone',
  email: 'our e-mail',
  companyNumber: 'company number',
  salesperson: 'salesperson',
  subject: 'subject',
  delivery: 'delivery address',
  seal: 'code of the seal',
};

/** How documents look, by name. */
export function StyleList() {
  const rows = useBook((db) => allOf(db, 'styles'));
  const bankAccounts = useBook((db) => allOf(db, 'bankAccounts')) ?? [];
  const { business, registration } = useOpenBook();
  const { homeCurrency } = business;
  const paidInto = bankAccountFor(bankAccounts, homeCurrency, homeCurrency);
  const [wrong, setWrong] = useState('');
  const makeDefault = async (styleId: string) => {
    const result = await act(changeBusiness, { value: { ...business, styleId }, before: business });
    setWrong(result.ok ? '' : wordRefusals(result.refusals));
  };
  return (
    <>
      <RecordList
        title="Document styles"
        path={routes.section('styles')}
        addLabel="New style"
        rows={rows}
        keyOf={(row) => row.id}
        empty="No styles yet: documents print plainly, with the account to pay into."
        columns={[
          {
            head: 'Name',
            value: (row) => row.name,
            cell: (row) => (
              <>
                <RecordLink path={routes.record('styles', row.id)}>{row.name}</RecordLink>
                {row.id === business.styleId && <span className="text-soft text-sm"> default</span>}
              </>
            ),
          },
          { head: 'Logo', cell: (row) => (row.logo === '' ? 'none' : 'yes') },
          { head: 'Colour', cell: (row) => row.accent },
          { head: 'Payment', cell: (row) => row.payment },
        ]}
      />
      {rows?.length === 0 && (
        <PdfFrame
          title="Sample of the plain style"
          of={JSON.stringify(paidInto ?? null)}
          make={() => inPrinter((face) => face.pdf(sampleJob(business, registration, today(), paidInto)))}
          className="h-[60vh] w-full max-w-[560px] border border-rule"
        />
      )}
      {rows !== undefined && rows.length > 0 && (
        <ChoiceField
          label="Default style"
          hint="For documents and customers without one of their own; issued documents keep the look they were issued with"
          className="mt-6 max-w-[420px]"
          error={wrong === '' ? undefined : wrong}
          options={[['', 'Plain'], ...rows.map(({ id, name }) => [id, name] as const)]}
          value={business.styleId}
          onChange={(event) => void makeDefault(event.target.value)}
        />
      )}
    </>
  );
}

export function StylePage({ id }: { readonly id: string }) {
  const router = useRouter();
  const style = useBook((db) => recordOf(db, 'styles', id), [id]);
  const duplicate = async (from: DocumentStyle) => {
    const value = { ...from, id: crypto.randomUUID(), name: `${from.name}, copy` };
    const result = await act(keepStyle, { value, isNew: true });
    if (result.ok) router.push(routes.record('styles', value.id));
    else toast(wordRefusals(result.refusals));
  };
  return (
    <RecordPage id={id} record={style} what="style" nameOf={(s) => s.name}>
      {(known) => (
        <>
          <StyleForm {...(known && { style: known })} onSaved={() => router.push(routes.section('styles'))} />
          {known !== undefined && (
            <>
              <Button weight="quiet" onClick={() => void duplicate(known)}>
                Duplicate
              </Button>
              <RecordEnd table="styles" record={known} onDeleted={() => router.push(routes.section('styles'))} />
            </>
          )}
        </>
      )}
    </RecordPage>
  );
}

function StyleForm({ style, onSaved }: { readonly style?: DocumentStyle; readonly onSaved: () => void }) {
  const { business, registration } = useOpenBook();
  const isNew = style === undefined;
  const [blank] = useState<DocumentStyle>(() => ({
    ...PLAIN_STYLE,
    id: crypto.randomUUID(),
    name: '',
    accent: '#9A4320',
  }));
  const bankAccounts = useBook((db) => allOf(db, 'bankAccounts')) ?? [];
  const [began] = useState(style);
  const { form, submit, field, errorAt, general } = useRecordForm<DocumentStyle>(
    styleSchema,
    style ?? blank,
    (value) => act(unchanged(keepStyle, 'styles', began), { value, isNew }),
    onSaved,
  );
  const shown = useWatch({ control: form.control }) as DocumentStyle;
  const { homeCurrency } = business;
  const paidInto = bankAccountFor(bankAccounts, homeCurrency, homeCurrency, shown.bankAccountId);
  const hidden = LAWFUL_COLUMNS.filter((column) => shown.leaveOutColumns?.includes(column));
  const whole = styleSchema.isValidSync({ ...shown, name: shown.name || 'x' }, { strict: true });
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)] gap-x-6">
      <form onSubmit={submit} noValidate>
        <TextField label="Name" autoFocus {...field('name')} />
        <div className="grid grid-cols-2 gap-x-4">
          <TextField label="Colour of titles and rules" placeholder="#9A4320" {...field('accent')} />
          <ChoiceField
            label="Payment details"
            options={[
              ['account', 'account lines'],
              ['code', 'account lines and a code for banking apps'],
              ['slip', 'a payment slip with the code'],
            ]}
            {...field('payment')}
          />
          <ChoiceField
            label="Window of the envelope"
            options={[
              ['', 'none: the address follows the title'],
              ['left', 'on the left'],
              ['right', 'on the right'],
            ]}
            {...field('window')}
          />
        </div>
        {bankAccounts.length > 1 && (
          <ChoiceField
            label="Paid into"
            options={[
              ['', 'the account in the document’s currency'],
              ...bankAccounts.map(({ id, name, currency }) => [id, `${name}, ${currency}`] as const),
            ]}
            {...field('bankAccountId')}
          />
        )}
        <LogoField form={form} error={errorAt('logo')} />
        <PickSome
          form={form}
          name="leaveOutColumns"
          legend="Columns left out"
          none="those nobody used never print"
          options={STYLE_COLUMNS.map((column) => [column, COLUMN_WORDS[column]] as const)}
        />
        {hidden.length > 0 && (
          <p className="mb-2 text-sm">
            <Mark kind="warning" /> The law asks for {hidden.map((column) => COLUMN_WORDS[column]).join(', ')} on
            invoices that charge tax: leave a column out only where it stays empty.
          </p>
        )}
        <PickSome
          form={form}
          name="leaveOut"
          legend="Left out"
          options={STYLE_PARTS.map((part) => [part, PART_WORDS[part]] as const)}
        />
        <AreaField
          label="Footer of every page"
          hint="Such as register court, directors and bank"
          {...field('footer')}
        />
        <h2 className="mt-1 font-semibold font-serif">Own words, by language</h2>
        <RowsField
          form={form}
          name="words"
          what="language"
          columns={[
            {
              field: 'language',
              label: 'Language',
              width: '110px',
              options: WORDINGS.map((w) => [w.language, LANGUAGES[w.language] ?? w.language] as const),
            },
            { field: 'title', label: 'Title of an invoice', width: '1fr' },
            { field: 'foot', label: 'Closing line', width: '1.4fr' },
          ]}
          blank={{ language: 'en', title: '', foot: '' }}
          errorAt={errorAt}
        />
        <FormFoot label="Save the style" busy={form.formState.isSubmitting} general={general} />
      </form>
      <div>
        <p className="text-soft text-sm">A sample in this style</p>
        {whole && (
          <PdfFrame
            title="Sample"
            of={JSON.stringify([shown, paidInto])}
            make={() =>
              inPrinter((face) => face.pdf({ ...sampleJob(business, registration, today(), paidInto), style: shown }))
            }
            className="h-[70vh] w-full border border-rule"
          />
        )}
      </div>
    </div>
  );
}
