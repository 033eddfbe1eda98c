import * as yup from 'yup';
import { optionalText } from '@/core/kernel/validate';

/** An electronic address: scheme from the EAS list (`9935`, `0088`, `EM`) and the id in it. Both empty: none. */
export interface Endpoint {
  readonly scheme: string;
  readonly id: string;
}

const EAS_SCHEME = /^(\d{4}|EM|AN|AQ|AS|AU)$/;

export const endpointSchema = yup
  .object({
    scheme: optionalText(4).test(
      'eas',
      'Give a scheme of the EAS list, such as 9935 or 0088.',
      (v) => v === '' || EAS_SCHEME.test(v),
    ),
    id: optionalText(100),
  })
  .test('both', 'An e-invoice address needs both its scheme and its id.', function both(v) {
    if ((v.scheme === '') === (v.id === '')) return true;
    return this.createError({ path: `${this.path}.${v.id === '' ? 'id' : 'scheme'}` });
  });
