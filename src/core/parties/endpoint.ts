import * as yup from 'yup';
import { optionalText } from '@/core/kernel/validate';
import { wanted } from '@/core/kernel/wanted';

/** An electronic address: scheme from the EAS list (`9935`, `0088`, `EM`) and the id in it. Both empty: none. */
export interface Endpoint {
  readonly scheme: string;
  readonly id: string;
}

const EAS_SCHEME = /^(\d{4}|EM|AN|AQ|AS|AU)$/;

export const endpointSchema = yup
  .object({
    scheme: optionalText(4).test('eas', wanted('give-scheme'), (v) => v === '' || EAS_SCHEME.test(v)),
    id: optionalText(100),
  })
  .test('both', wanted('both-scheme-and-id'), function both(v) {
    if ((v.scheme === '') === (v.id === '')) return true;
    return this.createError({ path: `${this.path}.${v.id === '' ? 'id' : 'scheme'}` });
  });
