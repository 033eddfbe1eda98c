'use client';

import { toast } from 'sonner';
import { type Registration, registrationSchema } from '@/core/tax/registration';
import { changeRegistration } from '@/store/actions/setup';
import { SheetTitle } from '@/ui/Page';
import { useOpenBook } from '../shell/BookContext';
import { act } from '../shell/book';
import { FormFoot } from './FormFoot';
import { RegistrationFields } from './RegistrationFields';
import { useRecordForm } from './useRecordForm';

/** Our registration with the tax authority. */
export function RegistrationForm() {
  const { registration } = useOpenBook();
  const { form, submit, field, general } = useRecordForm<Registration>(
    registrationSchema,
    registration,
    (value) => act(changeRegistration, value),
    () => toast('The registration is kept'),
  );
  return (
    <form onSubmit={submit} noValidate>
      <SheetTitle aside="tax falls due on issue">Registration</SheetTitle>
      <RegistrationFields field={field} />
      <FormFoot label="Keep the registration" busy={form.formState.isSubmitting} general={general} />
    </form>
  );
}
