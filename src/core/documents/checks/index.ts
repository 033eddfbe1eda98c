import type { IsoDate } from '@/core/kernel/date';
import { unionOf } from '@/core/tax/unions';
import COMMON from './data/COMMON.json';
import EU from './data/EU.json';
import GB from './data/GB.json';
import GST from './data/GST.json';
import US from './data/US.json';
import { type CheckPack, checkPackSchema } from './pack';

/** @throws ValidationError for a file that does not hold a pack; a test reads them all. */
const read = (file: unknown): CheckPack => checkPackSchema.validateSync(file, { strict: true }) as unknown as CheckPack;

const FALLBACK = read(COMMON);

/** All packs of content rules. A new one is a file in `data/` and its name here. */
export const CHECK_PACKS: readonly CheckPack[] = [read(EU), read(GB), read(US), read(GST), FALLBACK];

/** The pack that looks at documents of a registration in a country on a day. */
export function checkPackFor(country: string, day: IsoDate): CheckPack {
  const union = unionOf(country, day);
  return CHECK_PACKS.find((pack) => pack.countries.includes(union ?? country)) ?? FALLBACK;
}

/** A pack by its id; documents of version 2 name none and were issued under the rules of the EU. */
export function checkPackOf(id: string | undefined): CheckPack {
  return CHECK_PACKS.find((pack) => pack.id === (id ?? 'EU')) ?? FALLBACK;
}
