import * as yup from 'yup';
import { CURRENCIES } from '@/core/kernel/currency';
import { type IsoDate, isIsoDate } from '@/core/kernel/date';
import { type Decimal, isDecimal } from '@/core/kernel/decimal';
import { accept, type Result, refuse } from '@/core/kernel/result';
import { PAYMENT_METHODS, type PaymentMethod } from '@/core/parties/paymentMethod';
import { CATEGORIES, type Category } from '@/core/tax/calcTypes';
import { FREQUENCIES, type Frequency } from '@/core/tax/registration';

/* What `able replay` reads: how a book begins, what is done in it step by step, and the day it is looked at. */

interface Dated {
  readonly date: IsoDate;
}

export interface IssueStep extends Dated {
  readonly do: 'issue';
  readonly id: string;
  readonly customer: string;
  readonly registration: string;
  /** A day; 30 days after the issue date where neither it nor terms are given. */
  readonly due?: string;
  readonly terms?: string;
  readonly currency?: string;
  readonly priceMode?: 'net' | 'gross';
  readonly lines: readonly {
    readonly quantity: Decimal;
    readonly price: Decimal;
    readonly code: string;
    readonly discount?: { readonly percent?: Decimal; readonly amount?: Decimal };
    /** When its revenue belongs. */
    readonly deferral?: {
      readonly from?: string;
      readonly to?: string;
      readonly months?: number;
      readonly first?: string;
      readonly parts?: readonly { readonly date: string; readonly percent: string }[];
    };
  }[];
  /** Withholding types; those of the customer unless it is given. */
  readonly withholding?: readonly string[];
}

export interface CreditStep extends Dated {
  readonly do: 'credit';
  readonly id: string;
  readonly of: string;
  /** With tax; all that is left without it. */
  readonly amount?: Decimal;
}

export interface ReceiveStep extends Dated {
  readonly do: 'receive';
  readonly id: string;
  readonly customer: string;
  readonly currency?: string;
  readonly parts: readonly {
    readonly method: PaymentMethod;
    readonly amount: Decimal;
    readonly charge?: Decimal;
    /** What it was worth in home currency. */
    readonly home?: Decimal;
    readonly chequeDate?: string;
  }[];
  readonly to: readonly {
    readonly document: string;
    readonly money: Decimal;
    readonly withheld?: readonly { readonly type: string; readonly amount: Decimal }[];
    readonly discount?: Decimal;
    readonly difference?: { readonly amount: Decimal; readonly account: 'rounding' | 'bank-charges' };
  }[];
}

export interface AllocateStep extends Dated {
  readonly do: 'allocate';
  readonly credit: string;
  readonly to: string;
  readonly amount: Decimal;
}

/** Undoes the newest allocation between a credit and a debt, or a refund or write-off by its id. */
export interface UndoStep extends Dated {
  readonly do: 'undo';
  readonly credit?: string;
  readonly to?: string;
  readonly id?: string;
}

export interface DishonourStep extends Dated {
  readonly do: 'dishonour';
  readonly receipt: string;
  /** In home currency. */
  readonly fee?: Decimal;
}

export interface WriteOffStep extends Dated {
  readonly do: 'writeOff';
  readonly id?: string;
  readonly document: string;
  readonly amount: Decimal;
  readonly relief: boolean;
}

export interface CertificateStep extends Dated {
  readonly do: 'certificate';
  readonly customer: string;
  readonly type: string;
  readonly number: string;
  readonly amount: Decimal;
  /** Receipts, or documents where it was kept back at issue. */
  readonly of: readonly string[];
}

export interface ClaimStep extends Dated {
  readonly do: 'claim';
  readonly type: string;
  readonly registration: string;
  readonly amount: Decimal;
}

export interface RefundStep extends Dated {
  readonly do: 'refund';
  readonly id: string;
  readonly of: string;
  readonly amount: Decimal;
}

export interface JournalStep extends Dated {
  readonly do: 'journal';
  /** Debits above zero. */
  readonly lines: readonly { readonly role: string; readonly registration?: string; readonly amount: Decimal }[];
}

export interface FileStep extends Dated {
  readonly do: 'file';
  readonly registration: string;
  /** First day of the period. */
  readonly period: IsoDate;
  readonly note?: string;
}

/** Revalues what is open in other currencies; its date is the last day of a month. */
export interface RevalueStep extends Dated {
  readonly do: 'revalue';
}

export interface ReopenStep extends Dated {
  readonly do: 'reopen';
  readonly registration: string;
  /** First day of the period. */
  readonly period: IsoDate;
  readonly reason: string;
}

export interface PayTaxStep extends Dated {
  readonly do: 'payTax';
  readonly registration: string;
  /** First day of the period. */
  readonly period: IsoDate;
  readonly amount: Decimal;
}

export type Step =
  | IssueStep
  | CreditStep
  | ReceiveStep
  | AllocateStep
  | UndoStep
  | DishonourStep
  | RefundStep
  | WriteOffStep
  | CertificateStep
  | ClaimStep
  | JournalStep
  | RevalueStep
  | FileStep
  | ReopenStep
  | PayTaxStep;

export interface Scenario {
  readonly home: string;
  readonly registrations: readonly {
    readonly id: string;
    readonly jurisdiction: string;
    readonly frequency: Frequency;
    readonly basis: 'on-issue' | 'on-payment';
    readonly from: IsoDate;
  }[];
  readonly codes: readonly { readonly id: string; readonly category: Category; readonly rate: Decimal }[];
  readonly withholdingTypes?: readonly {
    readonly id: string;
    readonly base: 'net' | 'gross' | 'tax';
    readonly rate: Decimal;
    readonly when: 'on-issue' | 'on-payment';
    readonly certificate: boolean;
  }[];
  readonly customers: readonly {
    readonly id: string;
    readonly name?: string;
    readonly country?: string;
    readonly parent?: string;
    readonly withholding?: readonly string[];
  }[];
  readonly rates?: readonly { readonly currency: string; readonly date: IsoDate; readonly perHome: Decimal }[];
  readonly steps: readonly Step[];
  readonly at: IsoDate;
}

const MOST = 10_000;

const text = () =>
  yup
    .string()
    .strict()
    .typeError('must be a text')
    .required('must be given')
    .max(200, 'must be at most 200 characters');
const day = () => text().test('day', 'must be a day such as 2026-01-31', (v) => v === undefined || isIsoDate(v));
const amount = () =>
  text().test('decimal', 'must be a decimal such as "12.50"', (v) => v === undefined || isDecimal(v));
const oneOf = (...values: readonly string[]) => text().oneOf(values, `must be one of ${values.join(', ')}`);
const currency = () => text().oneOf([...CURRENCIES], 'must be an ISO 4217 code such as "EUR"');
const list = (of: yup.Schema) =>
  yup
    .array()
    .strict()
    .of(of)
    .typeError('must be a list')
    .required('must be given')
    .max(MOST, `must hold at most ${MOST} entries`);
const yesOrNo = () => yup.boolean().strict().typeError('must be true or false').required('must be given');
const shape = (of: yup.ObjectShape) =>
  yup.object(of).strict().noUnknown('must hold only what is documented').typeError('must be an object');

const STEPS: Readonly<Record<Step['do'], yup.ObjectShape>> = {
  issue: {
    id: text(),
    customer: text(),
    registration: text(),
    due: day().optional(),
    terms: text().optional(),
    currency: currency().optional(),
    priceMode: oneOf('net', 'gross').optional(),
    lines: list(
      shape({
        quantity: amount(),
        price: amount(),
        code: text(),
        discount: shape({ percent: amount().optional(), amount: amount().optional() }).optional().default(undefined),
        deferral: shape({
          from: day().optional(),
          to: day().optional(),
          months: yup.number().strict().integer('must be a whole number').optional(),
          first: text().optional(),
          parts: list(shape({ date: day(), percent: amount() })).optional(),
        })
          .optional()
          .default(undefined),
      }),
    ),
    withholding: list(text()).optional(),
  },
  credit: { id: text(), of: text(), amount: amount().optional() },
  receive: {
    id: text(),
    customer: text(),
    currency: currency().optional(),
    parts: list(
      shape({
        method: oneOf(...PAYMENT_METHODS),
        amount: amount(),
        charge: amount().optional(),
        home: amount().optional(),
        chequeDate: day().optional(),
      }),
    ),
    to: list(
      shape({
        document: text(),
        money: amount(),
        withheld: list(shape({ type: text(), amount: amount() })).optional(),
        discount: amount().optional(),
        difference: shape({ amount: amount(), account: oneOf('rounding', 'bank-charges') })
          .optional()
          .default(undefined),
      }),
    ),
  },
  allocate: { credit: text(), to: text(), amount: amount() },
  undo: { credit: text(), to: text() },
  dishonour: { receipt: text(), fee: amount().optional() },
  refund: { id: text(), of: text(), amount: amount() },
  writeOff: { id: text().optional(), document: text(), amount: amount(), relief: yesOrNo() },
  certificate: { customer: text(), type: text(), number: text(), amount: amount(), of: list(text()) },
  claim: { type: text(), registration: text(), amount: amount() },
  journal: { lines: list(shape({ role: text(), registration: text().optional(), amount: amount() })) },
  revalue: {},
  file: { registration: text(), period: day(), note: text().optional() },
  reopen: { registration: text(), period: day(), reason: text() },
  payTax: { registration: text(), period: day(), amount: amount() },
};

const step = yup.lazy((value: unknown) => {
  const what = value !== null && typeof value === 'object' ? (value as { do?: unknown }).do : undefined;
  const known = Object.keys(STEPS);
  const byId = what === 'undo' && (value as { id?: unknown }).id !== undefined;
  const fields = byId ? { id: text() } : STEPS[what as Step['do']];
  const own = typeof what === 'string' && known.includes(what) ? fields : null;
  return own === null ? yup.object({ do: oneOf(...known) }) : shape({ do: text(), date: day(), ...own });
});

const SCENARIO = shape({
  home: currency(),
  registrations: list(
    shape({
      id: text(),
      jurisdiction: text().matches(/^[A-Z]{2}$/, 'must be two capitals, such as IE'),
      frequency: oneOf(...FREQUENCIES),
      basis: oneOf('on-issue', 'on-payment'),
      from: day(),
    }),
  ).min(1, 'must hold at least one'),
  codes: list(shape({ id: text(), category: oneOf(...CATEGORIES), rate: amount() })),
  withholdingTypes: list(
    shape({
      id: text(),
      base: oneOf('net', 'gross', 'tax'),
      rate: amount(),
      when: oneOf('on-issue', 'on-payment'),
      certificate: yesOrNo(),
    }),
  ).optional(),
  customers: list(
    shape({
      id: text(),
      name: text().optional(),
      country: text().optional(),
      parent: text().optional(),
      withholding: list(text()).optional(),
    }),
  ),
  rates: list(shape({ currency: currency(), date: day(), perHome: amount() })).optional(),
  steps: list(step as unknown as yup.Schema),
  at: day(),
});

/** Reads a scenario from foreign data; refused at the first path that is wrong. */
export function readScenario(data: unknown): Result<Scenario> {
  try {
    return accept(SCENARIO.validateSync(data, { strict: true, abortEarly: true }) as unknown as Scenario);
  } catch (error) {
    if (!(error instanceof yup.ValidationError)) throw error;
    const must = error.message.startsWith('must') ? error.message : 'must be of the documented form';
    return refuse({ code: 'malformed', path: error.path ?? '', must });
  }
}
