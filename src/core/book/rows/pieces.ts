import { RHYTHM_UNITS } from '@/core/documents/rhythm';
import { amount, count, currency, flag, maybe, oneOf, record, words } from '../shape';

/* What rows of several areas hold. */

/** A postal address, its country by ISO 3166-1. */
export const address = record({ street: words, city: words, region: words, postalCode: words, country: words });

/** Where an e-invoice goes: a scheme of ISO 6523 and an id. */
export const endpoint = record({ scheme: words, id: words });

/** The same in the currency of the document. */
export const inDocument = maybe(record({ currency, amount: maybe(amount), base: maybe(amount), tax: maybe(amount) }));

/** How often something repeats. */
export const rhythm = record({ unit: oneOf(...RHYTHM_UNITS), every: count, lastDay: flag });
