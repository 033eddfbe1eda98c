import Papa from 'papaparse';
import type { Currency } from '@/core/kernel/currency';
import { type IsoDate, isIsoDate } from '@/core/kernel/date';
import { type Minor, minus, negated } from '@/core/kernel/money';
import { accept, type Result } from '@/core/kernel/result';
import type { ColumnRole, DateOrder, StatementColumns } from '@/core/parties/statementColumns';
import { bankText, MOST_LINES, readBankAmount, type Statement, type StatementLine, unreadable } from './statement';

export type Rows = readonly (readonly string[])[];

/** Largest text that is read, in characters. */
const LARGEST = 20 * 2 ** 20;

/** Rows of a CSV text, whatever parts its cells; null where it is too large. */
export function statementRows(text: string): Rows | null {
  if (text.length > LARGEST) return null;
  const { data } = Papa.parse<string[]>(text.replace(/^\ufeff/, ''), { skipEmptyLines: 'greedy' });
  return data.map((row) => row.map((cell) => cell.trim()));
}

/** Heads as banks write them in English, German, French, Spanish and Irish, in small letters; the first that fits counts. */
const HEADS: readonly (readonly [ColumnRole, RegExp])[] = [
  [
    'date',
    /^(booking|posted|posting|transaction|entry)? ?date$|^buchungs(tag|datum)$|^datum$|^date( (de )?(l')?(opération|comptable))?$|^fecha( (de )?operación| contable)?$|^dáta$/,
  ],
  ['in', /^(paid|money) in$|^credit( amount)?$|^haben$|^gutschrift$|^crédit$|^abono$|^haber$|^isteach$|^deposits?$/],
  ['out', /^(paid|money) out$|^debit( amount)?$|^soll$|^lastschrift$|^débit$|^cargo$|^debe$|^amach$|^withdrawals?$/],
  ['amount', /^amount( \(?[a-z]{3}\)?)?$|^betrag( \(?[a-z]{3}\)?)?$|^umsatz$|^montant$|^importe$|^méid$|^value$/],
  ['balance', /^(running )?balance$|^saldo$|^solde$|^iarmhéid$/],
  ['iban', /iban|^account number$|^kontonummer$|^counterparty account$|^compte$/],
  ['bank-reference', /^(bank|transaction) (reference|id)$|^id$|^umsatz-?id$|^numéro d'opération$/],
  ['reference', /^reference$|^customer reference$|^end-?to-?end|^kundenreferenz$|^référence$|^referencia$|^tagairt$/],
  [
    'name',
    /^(name|payee|payer|counterparty)( name)?$|auftraggeber|empfänger|begünstigter|^bénéficiaire$|^tiers$|^beneficiario$|^ordenante$|^ainm$/,
  ],
  [
    'text',
    /description|details|narrative|memo|particulars|verwendungszweck|buchungstext|^libellé|concepto|^cur síos$|^text$/,
  ],
];

const roleOf = (head: string): ColumnRole => HEADS.find(([, form]) => form.test(head.toLowerCase()))?.[0] ?? '';

const SHAPE = /^(\d{1,4})[-./ ](\d{1,2})[-./ ](\d{1,4})/;

function dateOrderOf(texts: readonly string[]): DateOrder {
  const parts = texts.flatMap((text) => {
    const [, a = '', b = ''] = SHAPE.exec(text) ?? [];
    return a === '' ? [] : [[a, b] as const];
  });
  if (parts.some(([a]) => a.length === 4)) return 'ymd';
  return parts.some(([, b]) => Number(b) > 12) ? 'mdy' : 'dmy';
}

/** The mark before decimals, by the last mark of amounts with two or three decimals behind it. */
function decimalOf(texts: readonly string[]): '.' | ',' {
  const marks = texts.flatMap((text) => /([.,])\d{1,2}\D*$/.exec(text)?.[1] ?? []);
  return marks.filter((mark) => mark === ',').length > marks.length / 2 ? ',' : '.';
}

/** A guess at how a file is read, by its heads and by what stands below them; its person sees what comes of it. */
export function guessColumns(rows: Rows): StatementColumns {
  const found = rows.slice(0, 30).map((row) => row.map(roleOf));
  const score = (roles: readonly ColumnRole[]) => new Set(roles.filter(Boolean)).size;
  const best = found.reduce((most, roles, i) => (score(roles) > score(found[most] ?? []) ? i : most), 0);
  // Heads that nobody knows are heads all the same: they hold no figure.
  const headed = score(found[best] ?? []) >= 2 || (rows[best] ?? []).every((cell) => !/\d/.test(cell));
  const seen = new Set<ColumnRole>();
  // A role counts once, but texts add up.
  const roles = (headed ? (found[best] ?? []) : (rows[0] ?? []).map((): ColumnRole => '')).map((role): ColumnRole => {
    if (role !== 'text' && seen.has(role)) return '';
    seen.add(role);
    return role;
  });
  const body = rows.slice(headed ? best + 1 : 0);
  const cells = (...wanted: readonly ColumnRole[]) =>
    body.flatMap((row) => row.filter((cell, i) => cell !== '' && wanted.includes(roles[i] ?? '')));
  return {
    skip: headed ? best + 1 : 0,
    heads: headed ? (rows[best] ?? []) : [],
    roles,
    dates: dateOrderOf(cells('date')),
    decimal: decimalOf(cells('amount', 'in', 'out', 'balance')),
    reversed: false,
  };
}

/** Whether a file has the form that columns were told for. */
export function fitsColumns(rows: Rows, { skip, heads, roles }: StatementColumns): boolean {
  const head = skip === 0 ? undefined : rows[skip - 1];
  return heads.length === 0 ? rows[skip]?.length === roles.length : head?.join('\t') === heads.join('\t');
}

const MONTHS = /^(jan|feb|mar|apr|may|jun|jul|aug|sep|oct|nov|dec)/i;

/** A day as a bank writes it: in figures, by the order of the file, or with a month by its English name. */
export function bankDay(text: string, order: DateOrder): IsoDate | null {
  const named = /^(\d{1,2})[-. ]([A-Za-z]{3,9})\.?[-. ](\d{2,4})/.exec(text);
  const [, a = '', b = '', c = ''] = named ?? SHAPE.exec(text) ?? [];
  if (a === '' || c === '') {
    const packed = /^(\d{4})(\d{2})(\d{2})$/.exec(text);
    const plain = packed === null ? '' : packed.slice(1).join('-');
    return isIsoDate(plain) ? plain : null;
  }
  const month =
    named === null
      ? ''
      : String('janfebmaraprmayjunjulaugsepoctnovdec'.indexOf(MONTHS.exec(b)?.[1]?.toLowerCase() ?? '?') / 3 + 1);
  const [year, mm, day] =
    named !== null ? [c, month, a] : order === 'ymd' ? [a, b, c] : order === 'mdy' ? [c, a, b] : [c, b, a];
  const full = year.length === 2 ? `20${year}` : year;
  const iso = `${full}-${mm.padStart(2, '0')}-${day.padStart(2, '0')}`;
  return isIsoDate(iso) ? iso : null;
}

/** An amount as a bank writes it: `1.234,56-`, `(12.00)`, `€ 5.00 DR`, `−3,00`; null when it is none. */
export function csvAmount(text: string, decimal: '.' | ',', currency: Currency): Minor | null {
  const minus = /^\(.*\)$|-\s*$|^[^\d]*[-\u2212]|\b(?:dr|db|s|soll)\.?$/i.test(text);
  const digits = text.replace(/[^\d.,]/g, '').replace(decimal === ',' ? /\./g : /,/g, '');
  const read = readBankAmount(digits, currency);
  return read === null ? null : minus ? negated(read) : read;
}

interface Cells {
  readonly of: (role: ColumnRole) => string;
  readonly texts: readonly string[];
}

function cellsOf(row: readonly string[], roles: readonly ColumnRole[]): Cells {
  const of = (role: ColumnRole) => row[roles.indexOf(role)] ?? '';
  return { of, texts: row.filter((_, i) => roles[i] === 'text') };
}

/** What a line moves: one amount, or what its columns for money in and out hold, which some banks write with a sign. */
function amountOf({ of }: Cells, columns: StatementColumns, currency: Currency): Minor | null {
  const read = (text: string) => csvAmount(text, columns.decimal, currency);
  if (columns.roles.includes('amount')) return read(of('amount'));
  const size = (text: string): Minor | null => {
    const amount = text === '' ? (0n as Minor) : read(text);
    return amount !== null && amount < 0n ? negated(amount) : amount;
  };
  const [into, out] = [size(of('in')), size(of('out'))];
  return into === null || out === null || (of('in') === '' && of('out') === '') ? null : minus(into, out);
}

/** Whether columns say enough: a date, and an amount or money in and out. */
export function areEnough({ roles }: StatementColumns): boolean {
  return roles.includes('date') && (roles.includes('amount') || roles.includes('in') || roles.includes('out'));
}

interface Read {
  readonly line: StatementLine;
  readonly balance: Minor | null;
}

function readRow(row: readonly string[], at: number, columns: StatementColumns, currency: Currency): Result<Read> {
  const cells = cellsOf(row, columns.roles);
  const { of } = cells;
  const date = bankDay(of('date'), columns.dates);
  if (date === null) return unreadable(`row ${at}`, 'statement-day', of('date'));
  const amount = amountOf(cells, columns, currency);
  if (amount === null)
    return unreadable(`row ${at}`, { what: 'statement-amount', currency }, of('amount') || of('in') || of('out'));
  const balance = of('balance') === '' ? null : csvAmount(of('balance'), columns.decimal, currency);
  return accept({
    line: {
      date,
      amount: columns.reversed ? negated(amount) : amount,
      text: bankText(...cells.texts),
      name: bankText(of('name')),
      iban: of('iban'),
      reference: bankText(of('reference')),
      bankReference: of('bank-reference'),
    },
    balance,
  });
}

/** A row below the lines that says a sum or a balance: it has no day. */
const isFoot = (row: readonly string[], { roles, dates }: StatementColumns): boolean =>
  bankDay(cellsOf(row, roles).of('date'), dates) === null;

/** Reads a CSV file of a bank by its columns: one statement of an account in a currency, oldest line first. */
export function readCsvStatement(rows: Rows, columns: StatementColumns, currency: Currency): Result<Statement> {
  if (!areEnough(columns)) return unreadable('', 'columns-of-statement');
  let body = rows.slice(columns.skip);
  if (body.length > MOST_LINES) return unreadable('', { what: 'fewer-lines', most: MOST_LINES });
  while (body.length > 1 && isFoot(body.at(-1) ?? [], columns)) body = body.slice(0, -1);
  const all: Read[] = [];
  for (const [i, row] of body.entries()) {
    const read = readRow(row, columns.skip + i + 1, columns, currency);
    if (!read.ok) return read;
    all.push(read.value);
  }
  const newestFirst = all.length > 1 && (all[0]?.line.date ?? '') > (all.at(-1)?.line.date ?? '');
  const inOrder = newestFirst ? all.toReversed() : all;
  const [first] = inOrder;
  const opening = first === undefined || first.balance === null ? null : minus(first.balance, first.line.amount);
  return first === undefined
    ? unreadable('', 'file-with-statement')
    : accept({
        number: '',
        account: '',
        currency,
        opening,
        closing: inOrder.at(-1)?.balance ?? null,
        lines: inOrder.map(({ line }) => line),
      });
}
