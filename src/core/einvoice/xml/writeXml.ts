import { XMLBuilder } from 'fast-xml-parser';

/** An element to write. Attributes and content are plain text; they are escaped here. */
export interface OutNode {
  readonly name: string;
  readonly attributes: Readonly<Record<string, string>>;
  readonly content: string | readonly OutNode[];
}

/** Characters that XML 1.0 has no place for. */
const ILLEGAL = /[^\t\n\r\u0020-\ud7ff\ue000-\ufffd\u{10000}-\u{10ffff}]/gu;

/** Most texts need no look at each character. */
const PLAIN = /^[ -~]*$/;
const clean = (text: string): string => (PLAIN.test(text) ? text : text.replace(ILLEGAL, ''));

const builder = new XMLBuilder({
  preserveOrder: true,
  ignoreAttributes: false,
  attributeNamePrefix: '',
  format: true,
  indentBy: '  ',
  suppressEmptyNode: true,
});

type Written = { [name: string]: unknown };

function forBuilder({ name, attributes, content }: OutNode): Written {
  // The builder takes a text as it is; wrapped as a node of its own it would cost as much as an element.
  const inner = typeof content === 'string' ? clean(content) : content.map(forBuilder);
  let cleaned: Record<string, string> | null = null;
  for (const key in attributes) {
    cleaned ??= {};
    cleaned[key] = clean(attributes[key] ?? '');
  }
  return cleaned === null ? { [name]: inner } : { [name]: inner, ':@': cleaned };
}

/** The text of an XML file, indented, in UTF-8 once it is encoded. */
export function writeXml(root: OutNode): string {
  return `<?xml version="1.0" encoding="UTF-8"?>\n${(builder.build([forBuilder(root)]) as string).trim()}\n`;
}
