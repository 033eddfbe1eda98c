'use client';

import type { Result } from '@/core/kernel/result';
import {
  CUSTOMER_KINDS,
  type DecisionRow,
  decisionRowSchema,
  NUMBER_STATES,
  RELATIONS,
  SUPPLY_KINDS,
} from '@/core/tax/decisionTable';
import { plainName } from '@/core/tax/taxCode';
import { knownClasses } from '@/core/tax/taxSetup';
import { Button } from '@/ui/Button';
import { ChoiceField, TextField } from '@/ui/Field';
import { DateField } from '../../shared/DateField';
import { FormFoot } from '../../shared/FormFoot';
import { PickSome } from '../../shared/PickSome';
import { useRecordForm } from '../../shared/useActionForm';
import { useOpenBook } from '../../shell/BookContext';
import { NUMBER_WORDS, RELATION_WORDS } from './rowWords';

interface RowFormProps {
  readonly row: DecisionRow;
  readonly onKeep: (row: DecisionRow) => Promise<Result<unknown>>;
  readonly onDrop: (() => void) | undefined;
  readonly onDone: () => void;
}

/** A row as the form edits it: the result's parts side by side. */
interface Edited extends Omit<DecisionRow, 'result'> {
  readonly result: { readonly kind: DecisionRow['result']['kind']; readonly code: string; readonly message: string };
}

const rowOf = ({ result, ...rest }: Edited): DecisionRow => ({
  ...rest,
  result:
    result.kind === 'code'
      ? { kind: 'code', code: result.code }
      : result.kind === 'refuse'
        ? { kind: 'refuse', message: result.message }
        : { kind: 'stack' },
});

/** One row of the decision table. */
export function RowForm({ row, onKeep, onDrop, onDone }: RowFormProps) {
  const { records } = useOpenBook();
  const { form, submit, field, general } = useRecordForm<Edited>(
    decisionRowSchema,
    { ...row, result: { code: '', message: '', ...row.result } },
    (value) => onKeep(rowOf(value)),
    onDone,
    rowOf,
  );
  const kind = form.watch('result.kind');
  const territories = records.jurisdictions.filter(
    (j) => row.registeredIn.includes(j.id) || records.registrations.some((r) => r.jurisdictionId === j.id),
  );
  return (
    <form onSubmit={submit} noValidate>
      <TextField label="Name of the row" autoFocus {...field('name')} />
      <PickSome
        form={form}
        name="registeredIn"
        legend="Registered in"
        none="nothing ticked: any registration"
        options={territories.map((j) => [j.id, j.name] as const)}
      />
      <PickSome form={form} name="supply" legend="Supply" options={SUPPLY_KINDS.map((v) => [v, v] as const)} />
      <PickSome
        form={form}
        name="taxClass"
        legend="Tax class"
        options={[...new Set([...knownClasses(records), ...row.taxClass])].map((v) => [v, v] as const)}
      />
      <PickSome form={form} name="customer" legend="Customer" options={CUSTOMER_KINDS.map((v) => [v, v] as const)} />
      <PickSome
        form={form}
        name="number"
        legend="Tax number"
        options={NUMBER_STATES.map((v) => [v, NUMBER_WORDS[v]] as const)}
      />
      <PickSome
        form={form}
        name="shipFrom"
        legend="Shipped from, relative to the registration"
        options={RELATIONS.map((v) => [v, RELATION_WORDS[v]] as const)}
      />
      <PickSome
        form={form}
        name="shipTo"
        legend="Shipped to"
        options={RELATIONS.map((v) => [v, RELATION_WORDS[v]] as const)}
      />
      <div className="grid grid-cols-2 gap-x-4">
        <DateField label="Tax point from" hint="Empty: always" {...field('from')} />
        <DateField label="Tax point until" {...field('until')} />
        <ChoiceField
          label="Then"
          options={[
            ['code', 'use a tax code'],
            ['stack', 'use the rates of the destination'],
            ['refuse', 'ask the bookkeeper'],
          ]}
          {...field('result.kind')}
        />
        {kind === 'code' && (
          <ChoiceField
            label="The code"
            options={[['', 'choose…'], ...records.codes.map((c) => [c.id, `${c.id} ${plainName(c)}`] as const)]}
            {...field('result.code')}
          />
        )}
        {kind === 'refuse' && <TextField label="What the bookkeeper is told" {...field('result.message')} />}
      </div>
      <TextField label="Legal source, in a few words" {...field('source')} />
      <div className="flex items-end gap-3">
        <FormFoot label="Save the row" busy={form.formState.isSubmitting} general={general} />
        {onDrop !== undefined && (
          <Button weight="quiet" onClick={onDrop}>
            Remove it
          </Button>
        )}
      </div>
    </form>
  );
}
