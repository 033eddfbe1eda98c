import * as yup from 'yup';
import { neededText, optionalText } from '@/core/kernel/validate';
import { wanted } from '@/core/kernel/wanted';

/** Columns that a style may leave out; description and value always print. */
export const STYLE_COLUMNS = ['quantity', 'price', 'discount', 'tax', 'supplied'] as const;
export type StyleColumn = (typeof STYLE_COLUMNS)[number];

/** Facts and blocks that a style may leave out. */
export const STYLE_PARTS = ['phone', 'email', 'companyNumber', 'salesperson', 'subject', 'delivery', 'seal'] as const;
export type StylePart = (typeof STYLE_PARTS)[number];

/** Where the customer's address stands, for an envelope with a window on that side; free where it follows the title. */
export const ADDRESS_WINDOWS = ['', 'left', 'right'] as const;

export type AddressWindow = (typeof ADDRESS_WINDOWS)[number];

/** How the customer is told to pay: account lines, a code for phones to read, a slip to tear off. */
export type PaymentBlock = 'account' | 'code' | 'slip';

/** How documents look when they are printed. */
export interface DocumentStyle {
  readonly id: string;
  readonly name: string;
  /** Ink of titles and rules, `#9A4320`. */
  readonly accent: string;
  /** JPEG as a data address; empty for none. */
  readonly logo: string;
  readonly leaveOutColumns: readonly StyleColumn[];
  readonly leaveOut: readonly StylePart[];
  readonly payment: PaymentBlock;
  /** Bank account that documents of the style say to pay into; missing or empty for the one of their currency. */
  readonly bankAccountId?: string;
  /** Missing for none. */
  readonly window?: AddressWindow;
  /** Lines at the foot of every page, such as register court, directors and bank; missing for none. */
  readonly footer?: string;
  /** Words by language that go before the shipped ones: title of an invoice, and a line at the foot. */
  readonly words: readonly { readonly language: string; readonly title: string; readonly foot: string }[];
}

/** The style of books that have none of their own. */
export const PLAIN_STYLE: DocumentStyle = {
  id: '',
  name: 'Plain',
  accent: '#1F2430',
  logo: '',
  leaveOutColumns: [],
  leaveOut: [],
  payment: 'account',
  words: [],
};

/** What the law asks for on an invoice that charges tax, and a style may hide: Directive 2006/112/EC art. 226 (6) to (9). */
export const LAWFUL_COLUMNS: readonly StyleColumn[] = ['quantity', 'price', 'discount', 'tax'];

/** A logo may not swell the book: 300 kB of base64. */
const LARGEST_LOGO = 300_000;

export const styleSchema = yup.object({
  id: neededText('give-id'),
  name: neededText('give-a-name', 60),
  accent: yup
    .string()
    .matches(/^#[0-9A-Fa-f]{6}$/, wanted('give-colour'))
    .defined(),
  logo: optionalText(LARGEST_LOGO).test(
    'jpeg',
    wanted('choose-picture'),
    (v) => v === '' || v.startsWith('data:image/jpeg;base64,'),
  ),
  leaveOutColumns: yup
    .array()
    .of(
      yup
        .string()
        .oneOf([...STYLE_COLUMNS])
        .defined(),
    )
    .defined(),
  window: yup.string().oneOf([...ADDRESS_WINDOWS]),
  leaveOut: yup
    .array()
    .of(
      yup
        .string()
        .oneOf([...STYLE_PARTS])
        .defined(),
    )
    .defined(),
  payment: yup.string().oneOf(['account', 'code', 'slip']).defined(),
  bankAccountId: yup.string().max(80),
  footer: yup.string().max(600, wanted({ what: 'shorter-text', most: 600 })),
  words: yup
    .array()
    .of(yup.object({ language: neededText('give-language', 5), title: optionalText(60), foot: optionalText(500) }))
    .defined(),
});
