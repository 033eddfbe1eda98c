import { addGroup, addTerm, type Group, groupsOf, newGroup, type Term, termsOf } from './model';
import type { GroupId, TermId } from './terms';
import type { XmlNode } from './xml/node';
import { element, type OutNode, type SettledTexts, settled } from './xml/writeXml';

/*
 * A syntax is a tree of bindings, one for each element the standard uses, in the order of its schema.
 * The same tree reads and writes, so that what is written is what is read.
 */

/** How the text of an element differs from the value of its term. */
export interface Format {
  readonly read: (text: string, node: XmlNode) => string;
  readonly write: (value: string) => string;
  /** Attributes and inner element of the written text. */
  readonly attributes?: Readonly<Record<string, string>>;
  /** Element inside that carries the text. */
  readonly inner?: string;
}

interface Leaf {
  readonly kind: 'leaf';
  readonly el: string;
  readonly term: TermId;
  /** Attribute that holds the term's scheme, version or file name. */
  readonly scheme?: string;
  readonly version?: string;
  readonly fileName?: string;
  /** Attributes that are terms of their own, such as the unit of a quantity. */
  readonly attributes?: Readonly<Record<string, TermId>>;
  /** Carries the currency of the document, or that of the tax, as `currencyID`. */
  readonly currency?: 'document' | 'tax';
  readonly format?: Format;
  /** Which terms it writes; all by default. */
  readonly writes?: (term: Term) => boolean;
  readonly reads?: (node: XmlNode, context: ReadContext) => boolean;
}

interface Branch {
  readonly kind: 'branch';
  readonly el: string;
  readonly bindings: readonly Binding[];
  /** The group it stands for, once for each; without one its terms belong to the group around it. */
  readonly group?: GroupId;
  /** Written once for each value of this term. */
  readonly each?: TermId;
  readonly reads?: (node: XmlNode, context: ReadContext) => boolean;
}

/** An element that always holds the same, such as the scheme of a tax. */
interface Fixed {
  readonly kind: 'fixed';
  readonly el: string;
  readonly text: string;
  readonly bindings: readonly Fixed[];
}

/** Elements that need more than a tree: read into and written from the group around them. */
interface Special {
  readonly kind: 'special';
  readonly el: string;
  readonly read: (node: XmlNode, into: Group, context: ReadContext) => void;
  readonly write: (from: Group, context: WriteContext) => readonly OutNode[];
}

export type Binding = Leaf | Branch | Fixed | Special;

type LeafOptions = Omit<Leaf, 'kind' | 'el' | 'term'>;

export const leaf = (el: string, term: TermId, options: LeafOptions = {}): Leaf => ({
  kind: 'leaf',
  el,
  term,
  ...options,
});
export const branch = (
  el: string,
  bindings: readonly Binding[],
  options: Omit<Branch, 'kind' | 'el' | 'bindings'> = {},
): Branch => ({ kind: 'branch', el, bindings, ...options });
export const fixed = (el: string, text: string): Fixed => ({ kind: 'fixed', el, text, bindings: [] });
export const fixedBranch = (el: string, ...bindings: readonly Fixed[]): Fixed => ({
  kind: 'fixed',
  el,
  text: '',
  bindings,
});
export const special = (el: string, read: Special['read'], write: Special['write']): Special => ({
  kind: 'special',
  el,
  read,
  write,
});

export interface ReadContext {
  readonly root: Group;
  /** BT-5 and BT-6, known before all else: they tell two totals of tax apart. */
  readonly currencies: Pick<WriteContext, 'currency' | 'taxCurrency'>;
  /** Elements that no binding names. */
  readonly unknown: XmlNode[];
  /** Elements that stand behind ones the schema has after them. */
  readonly misplaced: XmlNode[];
}

export interface WriteContext {
  /** How many elements a line of the invoice stands in. */
  readonly lineDepth: number;
  /** Lines that are written. */
  readonly settled: SettledTexts;
  readonly root: Group;
  readonly currency: string;
  readonly taxCurrency: string;
}

/** Bindings of one element, and where they stand in the order of the schema: an element may be read in several ways. */
interface Place {
  readonly bindings: readonly Binding[];
  readonly first: number;
  readonly last: number;
}

const tables = new WeakMap<readonly Binding[], ReadonlyMap<string, Place>>();

/** Bindings by the element they read, made once for each list. */
function placesOf(bindings: readonly Binding[]): ReadonlyMap<string, Place> {
  const known = tables.get(bindings);
  if (known !== undefined) return known;
  const made = new Map<string, Place>();
  for (const [i, binding] of bindings.entries()) {
    const before = made.get(binding.el);
    made.set(binding.el, {
      bindings: [...(before?.bindings ?? []), binding],
      first: before?.first ?? i,
      last: i,
    });
  }
  tables.set(bindings, made);
  return made;
}

function readLeaf({ term, scheme, version, fileName, attributes, format }: Leaf, node: XmlNode, into: Group): void {
  const value = format === undefined ? node.text : format.read(node.text, node);
  const of = (name: string | undefined) => (name === undefined ? '' : (node.attributes[name] ?? ''));
  addTerm(into, term, { value, scheme: of(scheme), version: of(version), fileName: of(fileName), at: node });
  for (const name in attributes) addTerm(into, attributes[name] as TermId, { value: of(name), at: node });
}

const reading = (binding: Binding, node: XmlNode, context: ReadContext): boolean =>
  (binding.kind !== 'leaf' && binding.kind !== 'branch') || binding.reads === undefined || binding.reads(node, context);

/** True for an amount in the tax currency, where that is another than the document's (BT-111). */
export function inTaxCurrency(currency: string | undefined, { currencies }: ReadContext): boolean {
  const { taxCurrency } = currencies;
  return taxCurrency !== '' && currency === taxCurrency && taxCurrency !== currencies.currency;
}

/**
 * Reads the children of an element into a group; what no binding names is noted as unknown, what stands
 * out of the order of the schema as misplaced.
 */
export function readInto(node: XmlNode, bindings: readonly Binding[], into: Group, context: ReadContext): void {
  const places = placesOf(bindings);
  let reached = 0;
  for (const child of node.children) {
    const place = places.get(child.name);
    if (place !== undefined && place.last < reached) context.misplaced.push(child);
    else if (place !== undefined) reached = Math.max(reached, place.first);
    const binding = place?.bindings.find((one) => reading(one, child, context));
    if (binding === undefined) context.unknown.push(child);
    else if (binding.kind === 'leaf') readLeaf(binding, child, into);
    else if (binding.kind === 'special') binding.read(child, into, context);
    else if (binding.kind === 'branch') {
      const { group } = binding;
      const inner = group === undefined ? into : newGroup(group, child);
      if (group !== undefined) addGroup(into, inner);
      readInto(child, binding.bindings, inner, context);
    }
  }
}

function writeLeaf(binding: Leaf, term: Term, from: Group, context: WriteContext): OutNode {
  const { scheme, version, fileName, format, currency } = binding;
  let attributes: Record<string, string> | null = null;
  const put = (name: string | undefined, value: string) => {
    if (name === undefined || value === '') return;
    attributes ??= {};
    attributes[name] = value;
  };
  const inner = format?.inner;
  if (inner === undefined && format?.attributes !== undefined) attributes = { ...format.attributes };
  put(scheme, term.scheme);
  put(version, term.version);
  put(fileName, term.fileName);
  for (const name in binding.attributes) put(name, from.terms[binding.attributes[name] as TermId]?.[0]?.value ?? '');
  if (currency !== undefined) put('currencyID', currency === 'tax' ? context.taxCurrency : context.currency);
  const text = format === undefined ? term.value : format.write(term.value);
  const content = inner === undefined ? text : [element(inner, text, format?.attributes)];
  return element(binding.el, content, attributes);
}

function writeFixed({ el, text, bindings }: Fixed): OutNode {
  return element(el, bindings.length === 0 ? text : bindings.map(writeFixed));
}

/** The same group with one value of a term alone. */
const withOnly = (from: Group, id: TermId, term: Term): Group => ({ ...from, terms: { ...from.terms, [id]: [term] } });

/** Lines from which on they are written one by one: it takes longer, and a fraction of the memory. */
const SETTLED_FROM = 1000;

function writeBranch(binding: Branch, from: Group, context: WriteContext, into: OutNode[]): void {
  const { el, group, each, bindings } = binding;
  const settles = group === 'BG-25' && groupsOf(from, group).length > SETTLED_FROM;
  const write = (source: Group) => {
    const content = writeFrom(source, bindings, context);
    if (content.length === 0) return;
    const written = element(el, content);
    into.push(settles ? settled(written, context.lineDepth, context.settled) : written);
  };
  if (group !== undefined) groupsOf(from, group).forEach(write);
  else if (each === undefined) write(from);
  else for (const term of termsOf(from, each)) write(withOnly(from, each, term));
}

function writeLeaves(binding: Leaf, from: Group, context: WriteContext, into: OutNode[]): void {
  const terms = from.terms[binding.term];
  if (terms === undefined) return;
  for (const term of terms)
    if (binding.writes === undefined || binding.writes(term)) into.push(writeLeaf(binding, term, from, context));
}

/** One by one: as arguments of one call a hundred thousand lines would overflow the stack. */
function addAll(nodes: OutNode[], more: readonly OutNode[]): void {
  for (const node of more) nodes.push(node);
}

/** The elements that hold a group, in the order of the schema; nothing when they would say only what is fixed. */
export function writeFrom(from: Group, bindings: readonly Binding[], context: WriteContext): readonly OutNode[] {
  const nodes: OutNode[] = [];
  let onlyFixed = 0;
  for (const binding of bindings) {
    if (binding.kind === 'leaf') writeLeaves(binding, from, context, nodes);
    else if (binding.kind === 'branch') writeBranch(binding, from, context, nodes);
    else if (binding.kind === 'special') addAll(nodes, binding.write(from, context));
    else {
      nodes.push(writeFixed(binding));
      onlyFixed += 1;
    }
  }
  return nodes.length > onlyFixed ? nodes : [];
}
