import type { XmlNode } from '../xml/node';

/* What rules ask of the elements of a file, from one walk over them. */

export interface Elements {
  /** With neither text nor elements inside. */
  readonly empty: readonly XmlNode[];
  /** With an attribute `currencyID`. */
  readonly amounts: readonly XmlNode[];
  /** Those that a rule asks for by name. */
  readonly named: ReadonlyMap<string, readonly XmlNode[]>;
}

const ASKED_FOR = [
  'cbc:ChargeIndicator',
  'udt:Indicator',
  'cac:Price',
  'ram:AppliedTradeAllowanceCharge',
  'cac:TaxTotal',
  'cac:DocumentReference',
  'cbc:IssueDate',
  'cbc:DueDate',
  'cbc:TaxPointDate',
  'cbc:StartDate',
  'cbc:EndDate',
  'cbc:ActualDeliveryDate',
] as const;
export type AskedFor = (typeof ASKED_FOR)[number];

const walked = new WeakMap<XmlNode, Elements>();

/** Of the file with this root, in the order of the file; walked once for all rules. */
export function elementsIn(root: XmlNode): Elements {
  const known = walked.get(root);
  if (known !== undefined) return known;
  const empty: XmlNode[] = [];
  const amounts: XmlNode[] = [];
  const named = new Map<string, XmlNode[]>(ASKED_FOR.map((name) => [name, []]));
  const walk = (node: XmlNode) => {
    named.get(node.name)?.push(node);
    if (node.attributes.currencyID !== undefined) amounts.push(node);
    if (node.children.length > 0) node.children.forEach(walk);
    else if (node.text === '') empty.push(node);
  };
  walk(root);
  const made = { empty, amounts, named };
  walked.set(root, made);
  return made;
}
