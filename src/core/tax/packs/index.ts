import type { IsoDate } from '@/core/kernel/date';
import { readRegion } from '@/core/kernel/region';
import { unionOf } from '../unions';
import AU from './data/AU.json';
import CA from './data/CA.json';
import CH from './data/CH.json';
import DE from './data/DE.json';
import ES from './data/ES.json';
import EU from './data/EU.json';
import FR from './data/FR.json';
import GB from './data/GB.json';
import IE from './data/IE.json';
import IN from './data/IN.json';
import IT from './data/IT.json';
import KE from './data/KE.json';
import NL from './data/NL.json';
import NO from './data/NO.json';
import NZ from './data/NZ.json';
import SG from './data/SG.json';
import USWA from './data/US-WA.json';
import ZA from './data/ZA.json';
import { type Pack, type PackFile, readPack } from './pack';

const FILES = [
  IE,
  DE,
  FR,
  NL,
  ES,
  IT,
  EU,
  GB,
  NO,
  CH,
  USWA,
  CA,
  AU,
  NZ,
  SG,
  IN,
  KE,
  ZA,
] as unknown as readonly PackFile[];

const read = new Map<string, Pack>();

/** Titles of all packs, in the order they are offered. A new one is a file in `data/` and its name here. */
export const PACK_TITLES: readonly { readonly id: string; readonly title: string; readonly knownAt: string }[] =
  FILES.map(({ id, title, knownAt }) => ({ id, title, knownAt }));

/** @throws RangeError for an id that is not among `PACK_TITLES`, or a file that does not hold a pack. */
export function packOf(id: string): Pack {
  const known = read.get(id);
  if (known !== undefined) return known;
  const file = FILES.find((f) => f.id === id);
  const result = file === undefined ? null : readPack(file);
  if (result === null || !result.ok)
    throw new RangeError(`no pack ${id}: ${result === null ? 'unknown' : JSON.stringify(result.refusals)}`);
  read.set(id, result.value);
  return result.value;
}

/** The packs that a business begins with, and the territory that its first registration is under. */
export interface FirstPacks {
  readonly packs: readonly Pack[];
  readonly jurisdictionId: string;
}

/**
 * What a business registered in a country begins with: the pack of the country, and that of the union it is in on a
 * day. `region` is that of its address, which decides where registrations are by state. Null where no pack fits.
 */
export function firstPacks(country: string, region: string, day: IsoDate): FirstPacks | null {
  const usual = FILES.find((file) => file.registration?.country === country)?.registration ?? null;
  if (usual === null) return null;
  const pack = packOf(FILES.find((file) => file.registration === usual)?.id ?? '');
  const union = FILES.find(({ id }) => id === unionOf(country, day));
  const packs = union === undefined ? [pack] : [pack, packOf(union.id)];
  if (usual.jurisdictionId === country) return { packs, jurisdictionId: country };
  const code = readRegion(country, region);
  const own = pack.jurisdictions.find((one) => one.id === `${country}-${code}`);
  return own === undefined ? null : { packs, jurisdictionId: own.id };
}
