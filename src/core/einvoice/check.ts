import { allGroups, type EInvoice, type Group, groupsOf, newGroup, termsOf, textOf } from './model';
import { FAMILIES } from './rules/categories';
import { CODE_RULES } from './rules/codes';
import { FILE_RULES } from './rules/file';
import { FLAVOUR_RULES, flavourOf } from './rules/flavours';
import { IDENTIFIER_RULES } from './rules/identifiers';
import { PEPPOL_RULES } from './rules/peppol';
import { PRESENCE } from './rules/presence';
import type { Fault, Identifier, Profile, Rule, Seen, Severity } from './rules/rule';
import { SUMS } from './rules/sums';
import type { ReadInvoice } from './syntax';
import type { GroupId, TermId } from './terms';
import { isCreditNote } from './ubl';
import { pathOf, type XmlNode } from './xml/node';

/** Every rule, one definition each. */
export const RULES: readonly Rule[] = [
  ...FILE_RULES,
  ...PRESENCE,
  ...SUMS,
  ...FAMILIES,
  ...CODE_RULES,
  ...PEPPOL_RULES,
  ...IDENTIFIER_RULES,
  ...FLAVOUR_RULES,
];

const of = (profile: Profile, rules: readonly Rule[]) =>
  rules.filter((rule) => rule.profile === 'en16931' || profile === 'peppol');
const PLAIN_RULES = RULES.filter((rule) => !FLAVOUR_RULES.includes(rule));
const RULES_BY = {
  en16931: { plain: of('en16931', PLAIN_RULES), flavoured: of('en16931', RULES) },
  peppol: { plain: of('peppol', PLAIN_RULES), flavoured: of('peppol', RULES) },
} as const;

/** The rules that an e-invoice is asked under a profile: those of EN 16931 always, those of a flavour when it names it. */
export function rulesFor(invoice: EInvoice, profile: Profile): readonly Rule[] {
  return RULES_BY[profile][flavourOf(invoice) === undefined ? 'plain' : 'flavoured'];
}

/** What a rule found, at its place in the file and in the model. */
export interface RuleFinding {
  readonly rule: string;
  readonly severity: Severity;
  readonly term: TermId | GroupId;
  /** Element, such as `/Invoice/cac:InvoiceLine[2]/cbc:ID`; empty for a model without a file. */
  readonly path: string;
  readonly message: string;
  /** Place of the line it is about, from 0; null for all else. */
  readonly line: number | null;
}

/** Places of one rule that are told one by one; more of them would say nothing new. */
const MOST_OF_A_RULE = 50;

/** The profile an e-invoice says it keeps (BT-24). */
export function profileOf(invoice: EInvoice): Profile {
  return textOf(invoice, 'BT-24').includes('urn:fdc:peppol.eu:2017:poacc:billing:3.0') ? 'peppol' : 'en16931';
}

/** Seller, buyer, payee, and where it is delivered to. */
const PARTIES: readonly GroupId[] = ['BG-4', 'BG-7', 'BG-10', 'BG-13'];
/** Electronic addresses, identifiers and registration numbers of parties, which may name a scheme. */
const IDENTIFIERS: readonly TermId[] = [
  'BT-34',
  'BT-49',
  'BT-29',
  'BT-46',
  'BT-60',
  'BT-30',
  'BT-47',
  'BT-61',
  'BT-71',
];

function identifiersOf(invoice: EInvoice): readonly Identifier[] {
  const found: Identifier[] = [];
  for (const id of PARTIES)
    for (const party of groupsOf(invoice, id))
      for (const term of IDENTIFIERS)
        for (const one of termsOf(party, term)) if (one.scheme !== '') found.push({ in: party, term, one });
  return found;
}

function look(invoice: EInvoice, file: Seen['file']): Seen {
  const none = newGroup('BG-4');
  return {
    invoice,
    groups: allGroups(invoice),
    seller: groupsOf(invoice, 'BG-4')[0] ?? none,
    buyer: groupsOf(invoice, 'BG-7')[0] ?? none,
    identifiers: identifiersOf(invoice),
    lines: groupsOf(invoice, 'BG-25'),
    allowances: groupsOf(invoice, 'BG-20'),
    charges: groupsOf(invoice, 'BG-21'),
    breakdown: groupsOf(invoice, 'BG-23'),
    file,
    creditNote: file?.root.name === 'CreditNote' || (file?.syntax !== 'ubl' && isCreditNote(invoice)),
  };
}

/** Lines by every group in them, so that a finding can name its line. */
function linesByGroup(lines: readonly Group[]): ReadonlyMap<Group, number> {
  const places = new Map<Group, number>();
  for (const [i, line] of lines.entries()) {
    places.set(line, i);
    for (const id of ['BG-26', 'BG-27', 'BG-28', 'BG-32'] as const)
      for (const inner of groupsOf(line, id)) places.set(inner, i);
  }
  return places;
}

function placeOf(fault: Fault, seen: Seen, term: TermId | GroupId): string {
  const group = fault.in ?? seen.invoice;
  const own = term.startsWith('BT-') ? group.terms[term as TermId]?.[0]?.at : undefined;
  const node: XmlNode | undefined = fault.at ?? own ?? group.at ?? seen.file?.root;
  return node === undefined ? '' : pathOf(node);
}

/** What the rules of a profile find; those of EN 16931 hold in every profile. */
export function checkEInvoice(
  invoice: EInvoice,
  profile: Profile,
  file: Pick<ReadInvoice, 'root' | 'syntax'> | null = null,
): readonly RuleFinding[] {
  const seen = look(invoice, file);
  let lines: ReadonlyMap<Group, number> | null = null;
  const lineOf = (group: Group | undefined): number | null => {
    if (group === undefined) return null;
    // Only a fault asks for it, and most files have none.
    lines ??= linesByGroup(seen.lines);
    return lines.get(group) ?? null;
  };
  const findings: RuleFinding[] = [];
  for (const rule of rulesFor(invoice, profile)) {
    let told = 0;
    for (const fault of rule.test(seen)) {
      told += 1;
      if (told > MOST_OF_A_RULE) break;
      const term = fault.term ?? rule.term;
      findings.push({
        rule: rule.id,
        severity: rule.severity,
        term,
        path: placeOf(fault, seen, term),
        message: fault.message,
        line: lineOf(fault.in),
      });
    }
  }
  return findings;
}

/** An element of a namespace of neither syntax is named by it; see `readXml`. */
const isForeign = ({ name }: XmlNode): boolean => name.startsWith('{');

/** What a file as a whole comes to: the rules of its profile, or of the one asked for, and elements no term stands for. */
export function checkFile(
  read: ReadInvoice,
  asked?: Profile,
): { readonly profile: Profile; readonly findings: readonly RuleFinding[] } {
  const profile = asked ?? profileOf(read.invoice);
  const aboutNode =
    (rule: string, severity: Severity, message: string) =>
    (node: XmlNode): RuleFinding => ({
      rule,
      severity,
      term: 'ROOT',
      path: pathOf(node),
      message,
      line: null,
    });
  const told = <T>(nodes: readonly T[]): readonly T[] => nodes.slice(0, MOST_OF_A_RULE);
  const strange = [
    ...told(read.misplaced).map(
      aboutNode('FORMAT-ORDER', 'error', 'This element stands behind one that the schema has after it: move it up.'),
    ),
    ...told(read.unknown.filter(isForeign)).map(
      aboutNode('FORMAT-UNKNOWN', 'error', 'This element is of a namespace that the schema does not have: remove it.'),
    ),
    ...told(read.unknown.filter((node) => !isForeign(node))).map(
      aboutNode('FORMAT-UNKNOWN', 'warning', 'EN 16931 has no term for this element: what it says is not read.'),
    ),
  ];
  return { profile, findings: [...checkEInvoice(read.invoice, profile, read), ...strange] };
}
