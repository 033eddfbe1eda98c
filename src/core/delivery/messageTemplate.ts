import * as yup from 'yup';
import { neededText } from '@/core/kernel/validate';
import { wanted } from '@/core/kernel/wanted';
import { FIRST_TEMPLATES } from './firstTemplates';
import { MAIL_PURPOSES, type MailPurpose } from './mail';

/** What a placeholder stands for, for whoever chooses one. */
export const PLACEHOLDERS = {
  customer: 'name of the customer',
  contact: 'name of the contact, else of the customer',
  business: 'name of our business',
  number: 'number of the document',
  date: 'date of the document',
  due: 'due date, or last day of a quote',
  total: 'total with currency',
  open: 'what is still open, with currency',
  'order number': 'order number of the customer',
  subject: 'subject of the document',
  'payment link': 'address where it is paid by card',
  documents: 'list of the documents, each with number, due date and what is open',
  'amount due': 'sum of all that is due, with currency',
  'days late': 'days since the oldest was due',
  'as at': 'day that a statement or reminder is as at',
} as const;

export type Placeholder = keyof typeof PLACEHOLDERS;

/** What placeholders stand for in one message; one that is missing or empty has no value there. */
export type PlaceholderValues = Readonly<Partial<Record<Placeholder, string>>>;

/** The words of messages of one purpose in one language. */
export interface MessageTemplate {
  /** `invoice|en`. */
  readonly id: string;
  readonly purpose: MailPurpose;
  /** ISO 639-1. */
  readonly language: string;
  readonly subject: string;
  readonly text: string;
}

const ANY = /\{([^{}\n]{1,40})\}/g;

const isPlaceholder = (name: string): name is Placeholder => Object.hasOwn(PLACEHOLDERS, name);

/** Names in braces that stand for nothing: they would go out as they are. */
export function unknownPlaceholders(text: string): readonly string[] {
  return [...new Set([...text.matchAll(ANY)].map(([, name = '']) => name))].filter((name) => !isPlaceholder(name));
}

const knownOnly = (maximum: number) =>
  neededText('write-words-of-message', maximum).test('placeholders', 'placeholders', function known(text) {
    const [first] = unknownPlaceholders(text);
    return first === undefined || this.createError({ message: { what: 'placeholder', found: `{${first}}` } as never });
  });

export const messageTemplateSchema = yup.object({
  id: neededText('give-id'),
  purpose: yup.string().oneOf(MAIL_PURPOSES, wanted('choose-purpose')).defined(),
  language: neededText('choose-language', 2),
  subject: knownOnly(200),
  text: knownOnly(5000),
});

/** A text with its placeholders filled in, and those that had no value. */
export function filledIn(
  text: string,
  values: PlaceholderValues,
): { readonly text: string; readonly missing: readonly string[] } {
  const missing = new Set<string>();
  const filled = text.replace(ANY, (whole, name: string) => {
    const value = isPlaceholder(name) ? values[name] : undefined;
    if (value === undefined || value === '') missing.add(whole);
    return value ?? (isPlaceholder(name) ? '' : whole);
  });
  return { text: filled, missing: [...missing] };
}

export function templateId(purpose: MailPurpose, language: string): string {
  return `${purpose}|${language}`;
}

/** The words for a purpose: those of the book in the language, else those that come with the program, in English at last. */
export function templateFor(own: readonly MessageTemplate[], purpose: MailPurpose, language: string): MessageTemplate {
  const kept = own.find(({ id }) => id === templateId(purpose, language));
  return kept ?? firstTemplate(purpose, language);
}

/** The words that come with the program. */
export function firstTemplate(purpose: MailPurpose, language: string): MessageTemplate {
  const known = Object.hasOwn(FIRST_TEMPLATES, language) ? language : 'en';
  const { greeting, closing, words } = FIRST_TEMPLATES[known as keyof typeof FIRST_TEMPLATES];
  const [subject, body] = words[purpose];
  return {
    id: templateId(purpose, language),
    purpose,
    language,
    subject,
    text: `${greeting}\n\n${body}\n\n${closing}\n{business}`,
  };
}
