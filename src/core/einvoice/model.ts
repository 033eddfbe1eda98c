import type { GroupId, TermId } from './terms';
import type { XmlNode } from './xml/node';

/*
 * The semantic model of EN 16931-1 as a tree of groups and terms, so that a rule, a reader and a
 * writer speak of the same `BT-…`. Groups that occur once without a rule about their presence (BG-2,
 * BG-6, BG-9, BG-13, BG-19, BG-22, BG-29 to BG-31) are folded into the group that holds them.
 */

/** One value as it is written: text, not yet read as a number or a day. */
export interface Term {
  readonly value: string;
  /** Scheme of an identifier (BT-29-1 and the like), list of a classification, unit where it hangs on the value. */
  readonly scheme: string;
  /** Version of the list of a classification (BT-158-2), media type of a file (BT-125-1). */
  readonly version: string;
  /** Name of a file (BT-125-2). */
  readonly fileName: string;
  /** Where it was read. */
  readonly at?: XmlNode;
}

export interface Group {
  readonly id: GroupId;
  readonly terms: Partial<Record<TermId, Term[]>>;
  readonly groups: Partial<Record<GroupId, Group[]>>;
  /** Where it was read. */
  at?: XmlNode;
}

/** A whole e-invoice: the group `ROOT`. */
export type EInvoice = Group;

/** A term to put into a group: its value, or the value with its scheme. */
export type TermInput = string | (Pick<Term, 'value'> & Partial<Term>);

export function newGroup(id: GroupId, at?: XmlNode): Group {
  return at === undefined ? { id, terms: {}, groups: {} } : { id, terms: {}, groups: {}, at };
}

/** Adds a term; nothing for an empty value, since an e-invoice holds no empty elements. */
export function addTerm(group: Group, id: TermId, input: TermInput): void {
  const given: Pick<Term, 'value'> & Partial<Term> = typeof input === 'string' ? { value: input } : input;
  const { value, scheme = '', version = '', fileName = '', at } = given;
  if (value === '') return;
  const full: Term = at === undefined ? { value, scheme, version, fileName } : { value, scheme, version, fileName, at };
  const known = group.terms[id];
  if (known === undefined) group.terms[id] = [full];
  else known.push(full);
}

export function addGroup(group: Group, child: Group): void {
  const known = group.groups[child.id];
  if (known === undefined) group.groups[child.id] = [child];
  else known.push(child);
}

/** A group of terms and inner groups, for writing one down: `group('BG-5', { 'BT-40': 'IE' })`. */
export function group(
  id: GroupId,
  terms: Partial<Record<TermId, TermInput | readonly TermInput[]>>,
  groups: readonly (Group | null)[] = [],
): Group {
  const made = newGroup(id);
  for (const [term, input] of Object.entries(terms) as [TermId, TermInput | readonly TermInput[]][])
    for (const one of Array.isArray(input) ? (input as readonly TermInput[]) : [input as TermInput])
      addTerm(made, term, one);
  for (const child of groups) if (child !== null) addGroup(made, child);
  return made;
}

const NO_TERMS: readonly Term[] = [];
const NO_GROUPS: readonly Group[] = [];

export const termsOf = (from: Group, id: TermId): readonly Term[] => from.terms[id] ?? NO_TERMS;
/** The first value of a term, '' where there is none. */
export const textOf = (from: Group, id: TermId): string => from.terms[id]?.[0]?.value ?? '';
export const schemeOf = (from: Group, id: TermId): string => from.terms[id]?.[0]?.scheme ?? '';
export const groupsOf = (from: Group, id: GroupId): readonly Group[] => from.groups[id] ?? NO_GROUPS;

/** Every group of a tree, itself first. */
export function allGroups(from: Group): readonly Group[] {
  const all: Group[] = [];
  const walk = (group: Group) => {
    all.push(group);
    for (const id in group.groups) for (const child of group.groups[id as GroupId] ?? []) walk(child);
  };
  walk(from);
  return all;
}

/** What a model holds without where it was read, with its parts in one order: for comparing. */
export function plainModel(from: Group): unknown {
  const byId = ([a]: readonly [string, unknown], [b]: readonly [string, unknown]) => (a < b ? -1 : 1);
  const terms = Object.entries(from.terms).map(([id, list]) => [
    id,
    (list ?? [])
      .map(({ value, scheme, version, fileName }) => [value, scheme, version, fileName].join('\u0000'))
      .sort(),
  ]);
  const groups = Object.entries(from.groups).flatMap(([id, list = []]) =>
    list.length === 0 ? [] : [[id, list.map(plainModel)]],
  );
  return [...terms, ...groups].sort(byId as never);
}
