import type { Format } from './binding';

/** Days of CII: `20261123` with format 102. What is no such day is read as it stands, so that a rule can name it. */
const day = (inner: string): Format => ({
  inner,
  attributes: { format: '102' },
  read: (_, node) => {
    const text = node.children[0]?.text ?? node.text;
    const parts = /^(\d{4})(\d{2})(\d{2})$/.exec(text);
    return parts === null ? text : `${parts[1]}-${parts[2]}-${parts[3]}`;
  },
  write: (value) => value.replaceAll('-', ''),
});

export const DATE_TIME = day('udt:DateTimeString');
export const QUALIFIED_DATE_TIME = day('qdt:DateTimeString');
export const DATE = day('udt:DateString');

/** BT-8: UBL takes UNTDID 2005, CII UNTDID 2475 (CEN/TS 16931-3-3, code mapping of BT-8). The model holds 2005. */
const DUE_CODES: Readonly<Record<string, string>> = { '5': '3', '29': '35', '72': '432' };
const CII_CODES = Object.fromEntries(Object.entries(DUE_CODES).map(([cii, ubl]) => [ubl, cii]));

export const DUE_CODE: Format = {
  read: (text) => DUE_CODES[text] ?? text,
  write: (value) => CII_CODES[value] ?? value,
};
