'use client';

import { type FormEvent, useRef, useState } from 'react';
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
import { useUnsaved } from '@/ui/unsaved';

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

interface ActionForm<T, Done> {
  readonly initial: T;
  /** What the form does when it is sent. */
  readonly run: (value: T) => Promise<Result<Done>>;
  readonly onDone: (value: T, done: Done) => void;
  /** Schema of the record that the form keeps, checked as fields are left. */
  readonly schema?: Schema;
  /** The record behind what the form edits, where the two differ. */
  readonly recordOf?: (value: T) => unknown;
}

/** `a[0].b` and `a.0.b` are one path. */
const plain = (path: string): string => path.replaceAll(/\[(\d+)\]/g, '.$1');

/**
 * A form over one action: what the action refuses lands at its fields, and below them what has no field here. It is sent
 * once at a time. Who leaves the page with something typed is asked first.
 */
export function useActionForm<T extends FieldValues, Done>(of: ActionForm<T, Done>) {
  const { initial, run, onDone, schema, recordOf = (value) => value } = of;
  const [general, setGeneral] = useState('');
  const form = useForm<T>({
    ...(schema && { resolver: resolverOf(schema, recordOf) }),
    defaultValues: initial as DefaultValues<T>,
    mode: 'onTouched',
  });
  /** Paths that a field or a note of this form shows. */
  const shown = useRef(new Set<string>());
  const { isDirty, isSubmitting: busy } = form.formState;
  useUnsaved(isDirty);
  const check = form.handleSubmit(async (value) => {
    setGeneral('');
    const result = await run(value);
    if (result.ok) {
      form.reset(value, { keepValues: true });
      return onDone(value, result.value);
    }
    const placed = result.refusals.filter(({ path }) => shown.current.has(plain(path)));
    for (const refusal of placed) form.setError(refusal.path as Path<T>, { message: wordRefusal(refusal) });
    setGeneral(wordRefusals(result.refusals.filter((refusal) => !placed.includes(refusal))));
  });
  const submit = (event?: FormEvent) => {
    event?.preventDefault();
    // A slip over a document lies inside the document's own form, which must not hear of it.
    event?.stopPropagation();
    if (busy) return;
    // What was refused before may stand at a path that no field clears.
    form.clearErrors();
    return check();
  };
  const errorAt = (path: string): string | undefined => {
    shown.current.add(plain(path));
    const error: { message?: string; root?: { message?: string } } | undefined = get(form.formState.errors, path);
    return error?.message ?? error?.root?.message;
  };
  const field = (path: Path<T>): Registered => ({ ...form.register(path), error: errorAt(path) });
  return { form, submit, field, errorAt, general, busy, isDirty };
}

/** A form over one record: checked by the record's own schema, kept by an action. */
export function useRecordForm<T extends FieldValues>(
  schema: Schema,
  initial: T,
  keep: (value: T) => Promise<Result<unknown>>,
  onKept: (value: T) => void,
  recordOf: (value: T) => unknown = (value) => value,
) {
  return useActionForm({ schema, initial, run: keep, onDone: onKept, recordOf });
}
