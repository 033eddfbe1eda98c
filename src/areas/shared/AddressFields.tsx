import { AreaField, ChoiceField, TextField } from '@/ui/Field';
import { COUNTRY_CHOICES } from './choices';
import type { Registered } from './useActionForm';

type Part = 'street' | 'city' | 'region' | 'postalCode' | 'country';

/** Fields of an address; `field` registers one part of it. */
export function AddressFields({ field }: { readonly field: (part: Part) => Registered }) {
  return (
    <fieldset className="grid grid-cols-4 gap-x-4">
      <legend className="sr-only">Address</legend>
      <AreaField label="Street and number" className="col-span-4" {...field('street')} />
      <TextField label="Postal code" {...field('postalCode')} />
      <TextField label="Town or city" {...field('city')} />
      <TextField label="County or region" {...field('region')} />
      <ChoiceField label="Country" options={COUNTRY_CHOICES} {...field('country')} />
    </fieldset>
  );
}
