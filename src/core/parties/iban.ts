const SHAPE = /^[A-Z]{2}\d{2}[A-Z0-9]{11,30}$/;

/** An account number without blanks, in capitals. */
export function compactIban(text: string): string {
  return text.replace(/\s/g, '').toUpperCase();
}

/** True when the shape and the check digits (ISO 13616, mod 97) hold. */
export function isIban(text: string): boolean {
  const iban = compactIban(text);
  if (!SHAPE.test(iban)) return false;
  const digits = (iban.slice(4) + iban.slice(0, 4)).replace(/[A-Z]/g, (c) => String(c.charCodeAt(0) - 55));
  return BigInt(digits) % 97n === 1n;
}

/** For people, in groups of four. */
export function writeIban(iban: string): string {
  return compactIban(iban).replace(/(.{4})(?=.)/g, '$1 ');
}
