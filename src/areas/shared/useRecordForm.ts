'use client';

import { type FormEvent, useEffect, useState } from 'react';
import {
  type DefaultValues,
  type FieldErrors,
  type FieldValues,
  get,
  type Path,
  type Resolver,
  set,
  type UseFormRegisterReturn,
  useForm,
} from 'react-hook-form';
import type { Schema } from 'yup';
import type { Result } from '@/core/kernel/result';
import { validated } from '@/core/kernel/validate';
import { wordRefusal, wordRefusals } from '@/core/wording/refusals';

/** What a field of a form needs: its registration with the form, and what is wrong with it. */
export interface Registered extends UseFormRegisterReturn {
  readonly error: string | undefined;
}

/** Checks what the form holds by the schema of the record it stands for. */
function resolverOf<T extends FieldValues>(schema: Schema, recordOf: (value: T) => unknown): Resolver<T> {
  return (values) => {
    const result = validated(schema, recordOf(values));
    if (result.ok) return { values, errors: {} };
    const errors: FieldErrors<T> = {};
    for (const refusal of [...result.refusals].reverse())
      set(errors, refusal.path === '' ? 'root' : refusal.path, { type: refusal.code, message: wordRefusal(refusal) });
    return { values: {}, errors };
  };
}

/**
 * A form over one record: checked by the record's own schema when a field is left, kept by an action
 * whose refusals land at their fields. Who leaves the page with something typed is asked first.
 */
export function useRecordForm<T extends FieldValues>(
  schema: Schema,
  initial: T,
  keep: (value: T) => Promise<Result<unknown>>,
  onKept: (value: T) => void,
  /** The record behind what the form edits, where the two differ. */
  recordOf: (value: T) => unknown = (value) => value,
) {
  const [general, setGeneral] = useState('');
  const form = useForm<T>({
    resolver: resolverOf(schema, recordOf),
    defaultValues: initial as DefaultValues<T>,
    mode: 'onTouched',
  });
  const { isDirty } = form.formState;
  useEffect(() => {
    if (!isDirty) return;
    const ask = (event: BeforeUnloadEvent) => event.preventDefault();
    addEventListener('beforeunload', ask);
    return () => removeEventListener('beforeunload', ask);
  }, [isDirty]);
  const check = form.handleSubmit(async (value) => {
    setGeneral('');
    const result = await keep(value);
    if (result.ok) {
      form.reset(value, { keepValues: true });
      return onKept(value);
    }
    const placed = result.refusals.filter((refusal) => refusal.path !== '');
    for (const refusal of placed) form.setError(refusal.path as Path<T>, { message: wordRefusal(refusal) });
    setGeneral(wordRefusals(result.refusals.filter((refusal) => refusal.path === '')));
  });
  const submit = (event: FormEvent) => {
    // A slip over a document lies inside the document's own form, which must not hear of it.
    event.stopPropagation();
    return check(event);
  };
  const errorAt = (path: string): string | undefined => {
    const error: { message?: string; root?: { message?: string } } | undefined = get(form.formState.errors, path);
    return error?.message ?? error?.root?.message;
  };
  const field = (path: Path<T>): Registered => ({ ...form.register(path), error: errorAt(path) });
  return { form, submit, field, errorAt, general };
}
