import { type ComponentProps, type ReactNode, useId } from 'react';

const BOX =
  'w-full rounded-sm border border-rule bg-sheet px-2 text-ink hover:border-soft aria-[invalid=true]:border-brick';

interface FieldProps {
  readonly label: string;
  /** A sentence below the field, for what the label can't say. */
  readonly hint?: string;
  readonly error?: string | undefined;
  readonly className?: string;
  readonly children: (ids: { id: string; 'aria-describedby': string; 'aria-invalid': boolean }) => ReactNode;
}

/** A label, its control, and what is wrong with it, tied together for screen readers. */
export function Field({ label, hint, error, className = '', children }: FieldProps) {
  const id = useId();
  const noteId = `${id}-note`;
  return (
    <div className={className}>
      <label htmlFor={id} className="block text-soft text-sm">
        {label}
      </label>
      {children({ id, 'aria-describedby': noteId, 'aria-invalid': error !== undefined })}
      {/* The line is always there: an error that pushed the page down would move a button from under a click. */}
      <p id={noteId} className={`min-h-[18px] pb-1.5 text-sm ${error === undefined ? 'text-soft' : 'text-brick'}`}>
        {error === undefined ? hint : `▲ ${error}`}
      </p>
    </div>
  );
}

type TextFieldProps = Omit<FieldProps, 'children'> & ComponentProps<'input'>;

export function TextField({ label, hint, error, className, ...input }: TextFieldProps) {
  return (
    <Field label={label} error={error} {...(hint && { hint })} {...(className && { className })}>
      {(ids) => <input {...input} {...ids} className={`${BOX} h-8`} />}
    </Field>
  );
}

type AreaFieldProps = Omit<FieldProps, 'children'> & ComponentProps<'textarea'>;

export function AreaField({ label, hint, error, className, ...area }: AreaFieldProps) {
  return (
    <Field label={label} error={error} {...(hint && { hint })} {...(className && { className })}>
      {(ids) => <textarea rows={2} {...area} {...ids} className={`${BOX} py-1`} />}
    </Field>
  );
}

interface ChoiceFieldProps
  extends Omit<FieldProps, 'children'>,
    Omit<ComponentProps<'select'>, 'className' | 'children'> {
  /** Value and the words for it. */
  readonly options: readonly (readonly [string, string])[];
}

export function ChoiceField({ label, hint, error, className, options, ...select }: ChoiceFieldProps) {
  return (
    <Field label={label} error={error} {...(hint && { hint })} {...(className && { className })}>
      {(ids) => (
        <select {...select} {...ids} className={`${BOX} h-8`}>
          {options.map(([value, words]) => (
            <option key={value} value={value}>
              {words}
            </option>
          ))}
        </select>
      )}
    </Field>
  );
}
