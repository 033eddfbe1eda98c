import { AreaField, ChoiceField, TextField } from '@/ui/Field';
import { COUNTRY_CHOICES, regionChoices } from './choices';
import type { Registered } from './useActionForm';

type Part = 'street' | 'city' | 'region' | 'postalCode' | 'country';

interface AddressFieldsProps {
  /** Registers one part of the address. */
  readonly field: (part: Part) => Registered;
  /** What it holds now. */
  readonly address: { readonly country: string; readonly region: string };
  /** `town` where the country, and the region that is chosen by it, are asked for elsewhere. */
  readonly part?: 'whole' | 'town';
}

/** Fields of an address; the region is chosen where the country's taxes go by it, else written freely. */
export function AddressFields({ field, address: { country, region }, part = 'whole' }: AddressFieldsProps) {
  const regions = regionChoices(country, region);
  return (
    <fieldset className="grid grid-cols-4 gap-x-4">
      <legend className="sr-only">Address</legend>
      <AreaField label="Street and number" className="col-span-4" {...field('street')} />
      <TextField label="Postal code" {...field('postalCode')} />
      <TextField label="Town or city" {...field('city')} />
      {part === 'whole' && <ChoiceField label="Country" options={COUNTRY_CHOICES} {...field('country')} />}
      {regions.length === 0 ? (
        <TextField label="County or region" {...field('region')} />
      ) : (
        part === 'whole' && (
          <ChoiceField key={country} label="State or province" options={regions} {...field('region')} />
        )
      )}
    </fieldset>
  );
}
