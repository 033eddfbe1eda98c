/**
 * ISO 4217 currencies whose number of decimals is not two (edition of 2024). Every other three
 * capital letters in `KNOWN` have two.
 */
const OTHER_THAN_TWO: Readonly<Record<string, number>> = {
  BIF: 0,
  CLP: 0,
  DJF: 0,
  GNF: 0,
  ISK: 0,
  JPY: 0,
  KMF: 0,
  KRW: 0,
  PYG: 0,
  RWF: 0,
  UGX: 0,
  UYI: 0,
  VND: 0,
  VUV: 0,
  XAF: 0,
  XOF: 0,
  XPF: 0,
  BHD: 3,
  IQD: 3,
  JOD: 3,
  KWD: 3,
  LYD: 3,
  OMR: 3,
  TND: 3,
  CLF: 4,
  UYW: 4,
};

const TWO_DECIMALS =
  'AED AFN ALL AMD ANG AOA ARS AUD AWG AZN BAM BBD BDT BGN BMD BND BOB BOV BRL BSD BTN BWP BYN BZD ' +
  'CAD CDF CHE CHF CHW CNY COP COU CRC CUP CVE CZK DKK DOP DZD EGP ERN ETB EUR FJD FKP GBP GEL GHS ' +
  'GIP GMD GTQ GYD HKD HNL HTG HUF IDR ILS INR IRR JMD KES KGS KHR KPW KYD KZT LAK LBP LKR LRD LSL ' +
  'MAD MDL MGA MKD MMK MNT MOP MRU MUR MVR MWK MXN MXV MYR MZN NAD NGN NIO NOK NPR NZD PAB PEN PGK ' +
  'PHP PKR PLN QAR RON RSD RUB SAR SBD SCR SDG SEK SGD SHP SLE SOS SRD SSP STN SVC SYP SZL THB TJS ' +
  'TMT TOP TRY TTD TWD TZS UAH USD USN UYU UZS VED VES WST XCD XCG YER ZAR ZMW ZWG';

const EXPONENTS: ReadonlyMap<string, number> = new Map([
  ...TWO_DECIMALS.split(' ').map((code): [string, number] => [code, 2]),
  ...Object.entries(OTHER_THAN_TWO),
]);

/** An ISO 4217 alphabetic code that this table knows. */
export type Currency = string & { readonly __currency: true };

export function isCurrency(code: unknown): code is Currency {
  return typeof code === 'string' && EXPONENTS.has(code);
}

/** @throws RangeError for a code the table does not hold. */
export function currency(code: string): Currency {
  if (!isCurrency(code)) throw new RangeError(`not an ISO 4217 code: ${code}`);
  return code;
}

/** Decimals of the currency's minor unit: EUR 2, JPY 0, KWD 3. */
export function exponentOf(code: Currency): number {
  return EXPONENTS.get(code) ?? 2;
}

/** All codes, sorted, for lists to choose from. */
export const CURRENCIES: readonly Currency[] = [...EXPONENTS.keys()].sort() as Currency[];
