import { isValidBIC, isValidIBAN } from 'ibantools';

/** An account number without blanks, in capitals. */
export function compactIban(text: string): string {
  return text.replace(/\s/g, '').toUpperCase();
}

/** True when the form of its country and the check digits (ISO 13616, mod 97) hold. */
export function isIban(text: string): boolean {
  return isValidIBAN(compactIban(text));
}

/** True for a bank's code of eight or eleven characters (ISO 9362). */
export function isBic(text: string): boolean {
  return isValidBIC(text);
}

/** For people, in groups of four. */
export function writeIban(iban: string): string {
  return compactIban(iban).replace(/(.{4})(?=.)/g, '$1 ');
}
