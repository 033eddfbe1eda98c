import { type EInvoice, type Group, groupsOf, type Term, termsOf, textOf } from '../model';
import type { Syntax } from '../syntax';
import { type GroupId, groupName, type TermId, termName } from '../terms';
import type { XmlNode } from '../xml/node';

export type Profile = 'en16931' | 'peppol';
export type Severity = 'error' | 'warning';

/** Where a rule fails, and what to do about it. */
export interface Fault {
  readonly message: string;
  /** The term or group at fault, where the rule is about more than one. */
  readonly term?: TermId | GroupId;
  /** The group it stands in: the document when nothing is said. */
  readonly in?: Group;
  /** The element, where it is known better than by term and group. */
  readonly at?: XmlNode | undefined;
}

/** One rule of a standard. */
export interface Rule {
  /** Its public id. */
  readonly id: string;
  readonly profile: Profile;
  readonly severity: Severity;
  /** What it is about. */
  readonly term: TermId | GroupId;
  /** What it demands, in one sentence. */
  readonly demands: string;
  /** Nothing when it holds; else one fault for each place where it does not. */
  readonly test: (seen: Seen) => Iterable<Fault>;
}

/** An identifier with its scheme: an electronic address, a registration, a number of a customer. */
export interface Identifier {
  readonly in: Group;
  readonly term: TermId;
  readonly one: Term;
}

/** An e-invoice as rules look at it: its model, its file where there is one, and parts they all need. */
export interface Seen {
  readonly invoice: EInvoice;
  /** Every group, the document itself first. */
  readonly groups: readonly Group[];
  readonly seller: Group;
  readonly buyer: Group;
  /** Identifiers of every party, and of the place of delivery, that name a scheme. */
  readonly identifiers: readonly Identifier[];
  readonly lines: readonly Group[];
  readonly allowances: readonly Group[];
  readonly charges: readonly Group[];
  readonly breakdown: readonly Group[];
  /** The file; null for a model that is being made. */
  readonly file: { readonly root: XmlNode; readonly syntax: Syntax } | null;
  /** True when it is a credit note by its type or its root. */
  readonly creditNote: boolean;
}

type RuleBody = Omit<Rule, 'id' | 'profile' | 'severity'> & { readonly severity?: Severity };

/** A rule of EN 16931-1; an error unless it says otherwise. */
export const en = (id: string, body: RuleBody): Rule => ({ severity: 'error', ...body, id, profile: 'en16931' });
/** A rule of the Peppol BIS Billing 3.0 profile. */
export const peppol = (id: string, body: RuleBody): Rule => ({ severity: 'error', ...body, id, profile: 'peppol' });

const NONE: readonly Fault[] = [];
export const faultUnless = (holds: boolean, fault: () => Fault): readonly Fault[] => (holds ? NONE : [fault()]);

/** True where a term says something. */
export const says = (from: Group, id: TermId): boolean => textOf(from, id) !== '';

/** The rule that a term is there in every group of a kind. */
export function needs(
  id: string,
  groups: (seen: Seen) => readonly Group[],
  where: string,
  ...anyOf: readonly TermId[]
): Rule {
  const [term = 'BT-1' as TermId] = anyOf;
  const names = anyOf.map(termName).join(' or ');
  return en(id, {
    term,
    demands: `${where} has the ${names}.`,
    // Faults are told one by one: a file may have more of them than anybody reads.
    test: function* (seen) {
      for (const one of groups(seen))
        if (!anyOf.some((t) => says(one, t))) yield { in: one, message: `Enter the ${names}.` };
    },
  });
}

/** The rule that a group is there. */
export function needsGroup(id: string, groups: (seen: Seen) => readonly Group[], where: string, inner: GroupId): Rule {
  return en(id, {
    term: inner,
    demands: `${where} has the ${groupName(inner)}.`,
    test: function* (seen) {
      for (const one of groups(seen))
        if (groupsOf(one, inner).length === 0) yield { in: one, message: `Enter the ${groupName(inner)}.` };
    },
  });
}

export const atRoot = (seen: Seen): readonly Group[] => [seen.invoice];
export const eachOf =
  (id: GroupId) =>
  (seen: Seen): readonly Group[] =>
    groupsOf(seen.invoice, id);

/** Every value of a term in some groups, with the group. */
export function* valuesOf(groups: Iterable<Group>, id: TermId): Generator<{ readonly in: Group; readonly one: Term }> {
  for (const group of groups) for (const one of termsOf(group, id)) yield { in: group, one };
}

/** The rule that every value of a term is in a public list. */
export function inList(
  id: string,
  profile: (id: string, body: RuleBody) => Rule,
  list: { readonly name: string; readonly has: (code: string) => boolean },
  term: TermId,
  groups: (seen: Seen) => Iterable<Group>,
  part: 'value' | 'scheme' | 'version' = 'value',
): Rule {
  const what =
    part === 'value'
      ? termName(term)
      : part === 'scheme'
        ? `scheme of the ${termName(term)}`
        : `media type of the ${termName(term)}`;
  return profile(id, {
    term,
    demands: `The ${what} is a code of ${list.name}.`,
    test: function* (seen) {
      for (const { in: group, one } of valuesOf(groups(seen), term)) {
        const code = one[part];
        if (code !== '' && !list.has(code))
          yield {
            in: group,
            term,
            at: one.at,
            message: `“${code}” is no code of ${list.name}: choose one for the ${what}.`,
          };
      }
    },
  });
}
