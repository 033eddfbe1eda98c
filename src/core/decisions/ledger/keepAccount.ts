import * as yup from 'yup';
import type { Decision } from '@/core/book/changes';
import { accept, refuse } from '@/core/kernel/result';
import { neededText, validated } from '@/core/kernel/validate';
import { wanted } from '@/core/kernel/wanted';
import type { Account } from '@/core/ledger/account';

const TYPES: readonly Account['type'][] = ['asset', 'liability', 'income', 'expense', 'equity'];

/** Letters, digits, points and dashes: what accounts are numbered by in any chart. */
const CODE = /^[\p{L}\p{N}][\p{L}\p{N}.-]{0,11}$/u;

export const accountSchema = yup.object({
  code: neededText('give-account-code', 12).matches(CODE, wanted('give-account-code')),
  name: neededText('give-a-name', 80),
  type: yup.string().oneOf(TYPES, wanted('choose-account-type')).defined(),
  role: yup.string().defined(),
  ended: yup.boolean().optional(),
});

export interface KeepAccountMaterial {
  readonly chart: readonly Account[];
  /** Something was posted to it. */
  readonly isPosted: boolean;
}

/**
 * Keeps an account of the chart: a new one, or another name. What was posted to keeps its type; accounts that actions post to
 * by themselves keep type and role, and do not end.
 */
export function keepAccount(
  { chart, isPosted }: KeepAccountMaterial,
  account: Account,
  isNew: boolean,
): Decision<Account> {
  const checked = validated<Account>(accountSchema, account);
  if (!checked.ok) return checked;
  const { code, name, type, ended = false } = account;
  const before = chart.find((one) => one.code === code);
  if (isNew && before !== undefined) return refuse({ code: 'duplicate', path: 'code', found: code });
  if (!isNew && before === undefined) return refuse({ code: 'not-found', path: 'code' });
  const role = before?.role ?? '';
  if (before !== undefined && before.type !== type && (isPosted || role !== ''))
    return refuse({ code: 'in-use', path: 'type', keep: before.type });
  if (ended && role !== '') return refuse({ code: 'in-use', path: 'ended', keep: before?.name ?? name });
  const value: Account = { code, name: name.trim(), type, role, ...(ended && { ended }) };
  return accept({
    value,
    changes: {
      put: { accounts: [value] },
      audit: { subject: `${code} ${value.name}`, about: [code], ...(before && { before }), after: value },
    },
  });
}
