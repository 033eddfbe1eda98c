import { ChoiceField, TextField } from '@/ui/Field';
import { COUNTRY_CHOICES, FREQUENCY_CHOICES } from './choices';
import { DateField } from './DateField';
import type { Registered } from './useActionForm';

type Part = 'name' | 'authority' | 'country' | 'number' | 'frequency' | 'keptFrom';

/** First fields of a registration, shared by Setup and the first steps of a book. */
export function RegistrationFields({ field }: { readonly field: (part: Part) => Registered }) {
  return (
    <div className="grid grid-cols-2 gap-x-4">
      <TextField label="Short name" hint="Shown at the head of the period ribbon" {...field('name')} />
      <TextField label="Authority" {...field('authority')} />
      <TextField label="Registration number" {...field('number')} />
      <ChoiceField label="Country of the authority" options={COUNTRY_CHOICES} {...field('country')} />
      <ChoiceField label="Return frequency" options={FREQUENCY_CHOICES} {...field('frequency')} />
      <DateField
        label="Start of the first tax period in this book"
        hint="Periods are filed in order from this one"
        {...field('keptFrom')}
      />
    </div>
  );
}
