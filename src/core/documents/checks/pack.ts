import * as yup from 'yup';
import { neededText } from '@/core/kernel/validate';
import type { Finding } from '../finding';
import type { FactName, Facts } from './facts';

/** A condition on a fact: that it is there, that it is not, or that it lies above a figure. */
export interface Condition {
  readonly fact: FactName;
  readonly not?: boolean;
  readonly over?: number;
}

/** A content rule: where `when` holds, `needs` must hold too. */
export interface CheckRule {
  /** Public id. */
  readonly id: string;
  readonly severity: Finding['severity'];
  /** Law it comes from. */
  readonly source: string;
  /** Field to mend; see `Finding.field`. */
  readonly field: string;
  /** A sentence that says what to do; `{fact}` stands for what the fact says. */
  readonly message: string;
  readonly when?: readonly Condition[];
  readonly needs: readonly Condition[];
}

/** The content rules of one place of registration. */
export interface CheckPack {
  readonly id: string;
  readonly title: string;
  /** Registrations of these countries take it; `EU` stands for its members. */
  readonly countries: readonly string[];
  /** Documents up to this gross, in whole home units, need only the rules named. */
  readonly simplified?: { readonly title: string; readonly limit: number; readonly rules: readonly string[] };
  readonly rules: readonly CheckRule[];
}

const conditions = yup.array().of(
  yup.object({
    fact: neededText('fill-this-in'),
    not: yup.boolean(),
    over: yup.number(),
  }),
);

/** What a file of content rules must be like. */
export const checkPackSchema = yup.object({
  id: neededText('fill-this-in', 20),
  title: neededText('fill-this-in', 80),
  countries: yup.array().of(neededText('fill-this-in')).defined(),
  simplified: yup
    .object({
      title: neededText('fill-this-in', 80),
      limit: yup.number().integer().positive().defined(),
      rules: yup.array().of(neededText('fill-this-in')).defined(),
    })
    .optional()
    .default(undefined),
  rules: yup
    .array()
    .of(
      yup.object({
        id: neededText('fill-this-in', 30),
        severity: yup.string().oneOf(['must', 'should', 'note']).defined(),
        source: neededText('fill-this-in'),
        field: neededText('fill-this-in'),
        message: neededText('fill-this-in', 300),
        when: conditions.optional(),
        needs: conditions.defined(),
      }),
    )
    .defined(),
});

function holds({ fact, not = false, over }: Condition, facts: Facts): boolean {
  const value = facts[fact];
  const is = over === undefined ? value !== '' && value !== 0 : typeof value === 'number' && value > over;
  return not ? !is : is;
}

function worded(message: string, facts: Facts): string {
  return message.replace(/\{([\w.]+)\}/g, (_, name: string) => {
    const value = facts[name as FactName];
    return typeof value === 'number' ? String(Math.abs(value)) : value;
  });
}

/** The rules of a pack that look at a document: all, or those of a simplified one. */
export function rulesFor(pack: CheckPack, facts: Facts): readonly CheckRule[] {
  const { simplified } = pack;
  // Whoever accounts for the tax needs the whole invoice, however small it is.
  const small = simplified !== undefined && facts.grossHome < simplified.limit && facts.customerAccounts === '';
  return small ? pack.rules.filter((rule) => simplified.rules.includes(rule.id)) : pack.rules;
}

/** What the rules of a pack find; empty when all hold. */
export function packFindings(pack: CheckPack, facts: Facts): readonly Finding[] {
  return rulesFor(pack, facts).flatMap(({ id, severity, source, field, message, when = [], needs }) => {
    if (!when.every((condition) => holds(condition, facts))) return [];
    if (needs.every((condition) => holds(condition, facts))) return [];
    return [{ rule: id, severity, source, field, message: worded(message, facts) }];
  });
}
