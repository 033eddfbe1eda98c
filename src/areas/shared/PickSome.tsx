'use client';

import type { FieldValues, Path, UseFormReturn } from 'react-hook-form';
import { CheckField } from '@/ui/CheckField';

interface PickSomeProps<T extends FieldValues> {
  readonly form: UseFormReturn<T>;
  /** Path of the list of values. */
  readonly name: string;
  readonly legend: string;
  /** What nothing ticked means. */
  readonly none?: string;
  readonly options: readonly (readonly [string, string])[];
}

/** Ticks some of several values; the record holds those that are ticked. */
export function PickSome<T extends FieldValues>({ form, name, legend, none, options }: PickSomeProps<T>) {
  const field = form.register(name as Path<T>);
  return (
    <fieldset className="mb-2">
      <legend className="text-soft text-sm">
        {legend}
        {none !== undefined && <span> · {none}</span>}
      </legend>
      <div className="flex flex-wrap gap-x-4">
        {options.map(([value, words]) => (
          <CheckField key={value} label={words} value={value} {...field} />
        ))}
      </div>
    </fieldset>
  );
}
