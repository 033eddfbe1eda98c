import { XMLParser } from 'fast-xml-parser';
import { type ExchangeRate, exchangeRateId } from '@/core/currency/exchangeRate';
import { type Currency, isCurrency } from '@/core/kernel/currency';
import { type IsoDate, isIsoDate } from '@/core/kernel/date';
import { type Decimal, isDecimal, ratioOf, tenTo, trimmed, writeUnits } from '@/core/kernel/decimal';
import { divide } from '@/core/kernel/ratio';
import { accept, type Result, refuse, shown } from '@/core/kernel/result';
import { halfUp } from '@/core/kernel/rounding';

/** Largest file that is read: 5 MiB of characters. */
const LARGEST = 5 * 2 ** 20;
/** Currency that central banks of the euro area quote others for. */
const BASE = 'EUR';
const DECIMALS = 10;

interface Quoted {
  readonly date: IsoDate;
  readonly perBase: ReadonlyMap<Currency, Decimal>;
}

type Node = { readonly [name: string]: unknown };

const listOf = (value: unknown): readonly Node[] =>
  value === undefined || value === null ? [] : ((Array.isArray(value) ? value : [value]) as readonly Node[]);

/** Every `Cube` with a day, however deep it lies. */
function days(node: Node): readonly Node[] {
  return listOf(node.Cube).flatMap((cube) => (cube['@time'] === undefined ? days(cube) : [cube]));
}

function readDay(cube: Node): Quoted | null {
  const date = cube['@time'];
  if (!isIsoDate(date)) return null;
  const quoted = listOf(cube.Cube).flatMap((one): readonly (readonly [Currency, Decimal])[] => {
    const [code, rate] = [one['@currency'], one['@rate']];
    return isCurrency(code) && isDecimal(rate) && ratioOf(rate).n > 0n ? [[code, rate]] : [];
  });
  return { date, perBase: new Map(quoted) };
}

/** A rate against the euro as one against the home currency; null where the home currency is not quoted. */
function perHome({ perBase }: Quoted, code: string, home: Currency): Decimal | null {
  const rateOf = (of: string) => (of === BASE ? ('1' as Decimal) : perBase.get(of as Currency));
  const [own, base] = [rateOf(code), rateOf(home)];
  if (own === undefined || base === undefined) return null;
  if (home === BASE) return own;
  const { n, d } = divide(ratioOf(own), ratioOf(base));
  return trimmed(writeUnits(halfUp({ n: n * tenTo(DECIMALS), d }), DECIMALS));
}

/**
 * Reads the daily form in which the central bank of the euro area publishes its reference rates
 * (`Cube` elements with `time`, `currency`, `rate`). Refused with a document type, which could draw in
 * other files, and when it holds no rates.
 */
export function readRateXml(text: string, home: Currency, source: string): Result<readonly ExchangeRate[]> {
  if (text.length > LARGEST)
    return refuse({
      code: 'too-large',
      path: '',
      wanted: 'fewer-days-of-rates',
    });
  if (/<!(?:DOCTYPE|ENTITY)/i.test(text)) return refuse({ code: 'invalid', path: 'file', wanted: 'rates-without-dtd' });
  let root: Node;
  try {
    const parser = new XMLParser({
      ignoreAttributes: false,
      attributeNamePrefix: '@',
      removeNSPrefix: true,
      parseTagValue: false,
      parseAttributeValue: false,
      processEntities: false,
    });
    root = (parser.parse(text, true) as { Envelope?: Node }).Envelope ?? {};
  } catch (error) {
    return refuse({
      code: 'invalid',
      path: 'file',
      wanted: 'whole-xml-file',
      found: shown((error as Error).message),
    });
  }
  const rates = days(root)
    .flatMap((cube) => readDay(cube) ?? [])
    .flatMap((day) =>
      [BASE as Currency, ...day.perBase.keys()].flatMap((code): readonly ExchangeRate[] => {
        const rate = code === home ? null : perHome(day, code, home);
        if (rate === null) return [];
        return [{ id: exchangeRateId(code, day.date), currency: code, date: day.date, perHome: rate, source }];
      }),
    );
  if (rates.length > 0) return accept(rates);
  return refuse({
    code: 'invalid',
    path: 'file',
    wanted: { what: 'rates-of', home },
  });
}
