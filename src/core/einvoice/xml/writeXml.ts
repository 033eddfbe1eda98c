import { XMLBuilder } from 'fast-xml-parser';

declare const brand: unique symbol;

/** An element to write, in the shape that the builder takes; made by `element` alone. */
export interface OutNode {
  readonly [brand]: 'element';
}

/** Characters that XML 1.0 has no place for. */
const ILLEGAL = /[^\t\n\r\u0020-\ud7ff\ue000-\ufffd\u{10000}-\u{10ffff}]/gu;

/** Most texts need no look at each character: printable ASCII without what XML reads as its own. */
const PLAIN = /^[ !#-%(-;=?-~]*$/;
const MARKS: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;' };

/** Text as it stands in a file. Quotes of attributes are escaped by the builder. */
function escaped(text: string): string {
  if (PLAIN.test(text)) return text;
  return text.replace(ILLEGAL, '').replace(/[&<>]/g, (mark) => MARKS[mark] ?? mark);
}

const builder = new XMLBuilder({
  preserveOrder: true,
  ignoreAttributes: false,
  attributeNamePrefix: '',
  format: true,
  indentBy: '  ',
  suppressEmptyNode: true,
  // It would look at each text five times.
  processEntities: false,
});

/** An element. Attributes and text are plain; they are escaped on writing. */
export function element(
  name: string,
  content: string | readonly OutNode[],
  attributes: Readonly<Record<string, string>> | null = null,
): OutNode {
  // The builder takes a text as it is; wrapped as a node of its own it would cost as much as an element.
  const inner = typeof content === 'string' ? escaped(content) : content;
  if (attributes === null) return { [name]: inner } as unknown as OutNode;
  const written: Record<string, string> = {};
  for (const key in attributes) written[key] = escaped(attributes[key] ?? '');
  return { [name]: inner, ':@': written } as unknown as OutNode;
}

/** Where settled text belongs; no text of an invoice can hold the tag, as all text is escaped. */
const SETTLED = 'settled';
const SETTLED_AT = /\n *<settled>(\d+)<\/settled>/;

/** Elements that are text already, in the order they were settled. */
export type SettledTexts = string[];

/**
 * Keeps the element as text that stands in a file `depth` elements deep, and gives what stands for it until it is
 * written: a list of thousands of such takes a fraction of the memory that their elements would.
 */
export function settled(node: OutNode, depth: number, texts: SettledTexts): OutNode {
  let outer = node;
  for (let i = 0; i < depth; i++) outer = { [SETTLED]: [outer] } as unknown as OutNode;
  const rows = (builder.build([outer]) as string).trim().split('\n');
  texts.push(rows.slice(depth, rows.length - depth).join('\n'));
  return element(SETTLED, String(texts.length - 1));
}

/** An element as text, for a file that is written piece by piece. */
export function fragment(node: OutNode): string {
  return (builder.build([node]) as string).trim();
}

/** The text of an XML file, indented, in UTF-8 once it is encoded. */
export function writeXml(root: OutNode, texts: SettledTexts = []): string {
  const parts = (builder.build([root]) as string).trim().split(SETTLED_AT);
  // Every second part is the number of a text.
  for (let i = 1; i < parts.length; i += 2) parts[i] = `\n${texts[Number(parts[i])] ?? ''}`;
  return ['<?xml version="1.0" encoding="UTF-8"?>\n', ...parts, '\n'].join('');
}
