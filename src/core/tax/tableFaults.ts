import type { IsoDate } from '@/core/kernel/date';
import { addDays, isoDate } from '@/core/kernel/date';
import { CUSTOMER_KINDS, type DecisionRow, NUMBER_STATES, type Relation, SUPPLY_KINDS } from './decisionTable';
import { relationOf } from './determine';
import { type Territory, territoryOf } from './jurisdiction';
import { chargeTogether } from './packs/overlap';
import type { Whereabouts } from './place';
import { isActive, type Registration } from './registration';
import { knownClasses, type TaxSetup } from './taxSetup';

/** A kind of supply that no row catches, in words. */
export interface Gap {
  readonly supply: string;
  readonly taxClass: string;
  readonly customer: string;
  readonly number: string;
  readonly shipTo: string;
  readonly days: string;
}

export interface TableFaults {
  /** Ids of rows that can never decide anything: rows before them take everything they ask for. */
  readonly unreachable: readonly string[];
  /** Ids of rows that wait for a registration we do not have. */
  readonly waiting: readonly string[];
  /** Rows whose code is not in Setup. */
  readonly unknownCode: readonly string[];
  /** Pairs of taxes, in words, that a row which charges all taxes of a place would charge together. */
  readonly together: readonly string[];
  /** What goes out from our own address and is caught by no row. */
  readonly gaps: readonly Gap[];
}

/** A set of cases: for each dimension the values it holds, as bits. */
type Box = readonly bigint[];

interface Dimension {
  readonly values: readonly string[];
}

interface Spot {
  readonly name: string;
  readonly address: Whereabouts;
}

const MOST_PIECES = 4000;

/** Unions are looked at as they will be once all that is known has come into force. */
const ALWAYS = isoDate('2999-12-31');

const bit = (i: number): bigint => 1n << BigInt(i);

function bitsOf(values: readonly string[], wanted: readonly string[]): bigint {
  if (wanted.length === 0) return (1n << BigInt(values.length)) - 1n;
  return values.reduce((bits, value, i) => (wanted.includes(value) ? bits | bit(i) : bits), 0n);
}

/** What is left of a box when another is taken out, as boxes that do not overlap. */
function without(box: Box, cut: Box): readonly Box[] {
  if (box.some((bits, i) => (bits & (cut[i] ?? 0n)) === 0n)) return [box];
  const pieces: Box[] = [];
  const rest = [...box];
  for (const [i, bits] of box.entries()) {
    const outside = bits & ~(cut[i] ?? 0n);
    if (outside !== 0n) pieces.push(rest.map((b, j) => (j === i ? outside : b)));
    rest[i] = bits & (cut[i] ?? 0n);
  }
  return pieces;
}

/** Null when the pieces grow beyond what is worth following. */
function minusAll(boxes: readonly Box[], cuts: readonly Box[]): readonly Box[] | null {
  let left = boxes;
  for (const cut of cuts) {
    left = left.flatMap((box) => without(box, cut));
    if (left.length > MOST_PIECES) return null;
  }
  return left;
}

/** Addresses that the table can tell apart: each territory, the rest of its country and union, and elsewhere. */
function spotsOf(setup: TaxSetup): readonly Spot[] {
  const address = (country: string, region: string): Whereabouts => ({ country, region, postalCode: '', city: '' });
  const territories = setup.registrations.map((r) => ({
    name: setup.jurisdiction.get(r.jurisdictionId)?.name ?? r.jurisdictionId,
    ...territoryOf(setup.jurisdiction, r.jurisdictionId),
  }));
  const spots: Spot[] = territories.map(({ name, country, region }) => ({ name, address: address(country, region) }));
  for (const { country, region } of territories)
    if (region !== '') spots.push({ name: `the rest of ${country}`, address: address(country, '·') });
  spots.push({ name: 'another member state of the EU', address: address('LU', '') });
  spots.push({ name: 'another country', address: address('AQ', '') });
  const seen = new Set<string>();
  return spots.filter(({ address: a }) => {
    const key = `${a.country}|${a.region}`;
    const known = seen.has(key);
    seen.add(key);
    return !known;
  });
}

/** First days of the stretches in which neither rows nor registrations change. */
function daysOf(setup: TaxSetup): readonly IsoDate[] {
  const starts = new Set<IsoDate>([isoDate('1900-01-01')]);
  for (const { from, until } of [...setup.rows, ...setup.registrations]) {
    if (from !== '') starts.add(from);
    if (until !== '') starts.add(addDays(until, 1));
  }
  return [...starts].sort();
}

function boxesOf(
  row: DecisionRow,
  registrations: readonly Registration[],
  setup: TaxSetup,
  classes: readonly string[],
  spots: readonly Spot[],
  days: readonly IsoDate[],
): readonly Box[] {
  return registrations
    .filter((r) => row.registeredIn.length === 0 || row.registeredIn.includes(r.jurisdictionId))
    .map((registration) => {
      const territory: Territory = territoryOf(setup.jurisdiction, registration.jurisdictionId);
      const where = (wanted: readonly Relation[], day: IsoDate) =>
        spots.reduce(
          (bits, { address }, i) =>
            wanted.length === 0 || wanted.includes(relationOf(territory, address, day)) ? bits | bit(i) : bits,
          0n,
        );
      const inForce = days.reduce((bits, day, i) => {
        const held = (row.from === '' || row.from <= day) && (row.until === '' || day <= row.until);
        return held && isActive(registration, day) ? bits | bit(i) : bits;
      }, 0n);
      return [
        bitsOf(SUPPLY_KINDS, row.supply),
        bitsOf(classes, row.taxClass),
        bitsOf(CUSTOMER_KINDS, row.customer),
        bitsOf(NUMBER_STATES, row.number),
        where(row.shipFrom, ALWAYS),
        where(row.shipTo, ALWAYS),
        inForce,
      ];
    });
}

const said = (bits: bigint, { values }: Dimension): string => {
  const all = bits === (1n << BigInt(values.length)) - 1n;
  return all ? '' : values.filter((_, i) => (bits & bit(i)) !== 0n).join(', ');
};

/** Taxes of one territory that charge one class at one time; where all of its taxes are charged, both are. */
function togetherIn({ rows, taxesOf, jurisdiction }: TaxSetup): readonly string[] {
  if (!rows.some(({ result }) => result.kind === 'stack')) return [];
  return [...taxesOf].flatMap(([id, taxes]) =>
    taxes.flatMap((tax, i) =>
      taxes
        .slice(i + 1)
        .filter((other) => chargeTogether(tax, other))
        .map((other) => `${tax.name} and ${other.name} of ${jurisdiction.get(id)?.name ?? id}`),
    ),
  );
}

/**
 * Finds rows that can never be reached and cases that no row catches. Unions are taken as
 * they are known to become. `home` is the address goods leave from.
 */
export function tableFaults(setup: TaxSetup, home: Whereabouts): TableFaults {
  const classes = [...knownClasses(setup), '·'];
  const spots = spotsOf(setup);
  const days = daysOf(setup);
  const boxes = setup.rows.map((row) => boxesOf(row, setup.registrations, setup, classes, spots, days));
  const unreachable: string[] = [];
  const before: Box[] = [];
  for (const [i, row] of setup.rows.entries()) {
    const own = boxes[i] ?? [];
    const left = minusAll(own, before);
    if (own.length > 0 && left !== null && left.every((box) => box.some((bits) => bits === 0n)))
      unreachable.push(row.id);
    before.push(...own);
  }
  const homeSpots = spots.reduce((bits, { address }, i) => {
    const here = address.country === home.country && (address.region === '' || address.region === home.region);
    return here ? bits | bit(i) : bits;
  }, 0n);
  const firstDay = bitsOf(
    days,
    days.filter((day) => setup.registrations.some((r) => isActive(r, day))),
  );
  const everything: Box = [
    bitsOf(SUPPLY_KINDS, []),
    bitsOf(classes, []),
    bitsOf(CUSTOMER_KINDS, []),
    bitsOf(NUMBER_STATES, []),
    homeSpots,
    bitsOf(
      spots.map((spot) => spot.name),
      [],
    ),
    firstDay,
  ];
  const open = setup.registrations.length === 0 || homeSpots === 0n ? [] : (minusAll([everything], before) ?? []);
  const gaps = open
    .filter((box) => box.every((bits) => bits !== 0n))
    .map(
      (box): Gap => ({
        supply: said(box[0] ?? 0n, { values: SUPPLY_KINDS }),
        taxClass: said(box[1] ?? 0n, { values: classes.map((c) => (c === '·' ? 'any other' : c)) }),
        customer: said(box[2] ?? 0n, { values: CUSTOMER_KINDS }),
        number: said(box[3] ?? 0n, { values: NUMBER_STATES }),
        shipTo: said(box[5] ?? 0n, { values: spots.map((spot) => spot.name) }),
        days: said(box[6] ?? 0n, { values: days.map((day) => (day === '1900-01-01' ? 'the beginning' : day)) }),
      }),
    );
  const ours = new Set(setup.registrations.map((r) => r.jurisdictionId));
  return {
    unreachable,
    waiting: setup.rows
      .filter((row) => row.registeredIn.length > 0 && !row.registeredIn.some((id) => ours.has(id)))
      .map((row) => row.id),
    unknownCode: setup.rows
      .filter((row) => row.result.kind === 'code' && !setup.code.has(row.result.code))
      .map((row) => row.id),
    together: togetherIn(setup),
    gaps,
  };
}
