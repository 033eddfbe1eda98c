import { SaxesParser } from 'saxes';
import { accept, type Result, refuse } from '@/core/kernel/result';
import type { XmlNode } from './node';

/** Deepest nesting that is read; the standards need eight. */
export const DEEPEST = 64;
/** Most elements that are read: an invoice of 10,000 lines has about 400,000. */
export const MOST_ELEMENTS = 600_000;
/** Largest file in bytes, 20 MiB. */
export const LARGEST_FILE = 20 * 2 ** 20;

/** Prefixes by namespace: UBL 2.1 (OASIS), CII D16B (UN/CEFACT). Roots of UBL have none. */
const PREFIXES: Readonly<Record<string, string>> = {
  'urn:oasis:names:specification:ubl:schema:xsd:Invoice-2': '',
  'urn:oasis:names:specification:ubl:schema:xsd:CreditNote-2': '',
  'urn:oasis:names:specification:ubl:schema:xsd:CommonAggregateComponents-2': 'cac:',
  'urn:oasis:names:specification:ubl:schema:xsd:CommonBasicComponents-2': 'cbc:',
  'urn:oasis:names:specification:ubl:schema:xsd:CommonExtensionComponents-2': 'ext:',
  'urn:un:unece:uncefact:data:standard:CrossIndustryInvoice:100': 'rsm:',
  'urn:un:unece:uncefact:data:standard:ReusableAggregateBusinessInformationEntity:100': 'ram:',
  'urn:un:unece:uncefact:data:standard:UnqualifiedDataType:100': 'udt:',
  'urn:un:unece:uncefact:data:standard:QualifiedDataType:100': 'qdt:',
};

/** Stops the parser; the message is for the person who has the file. */
class Unreadable extends Error {}

const bad = (message: string) => refuse({ code: 'invalid', path: '', expected: message });

/**
 * Reads the text of an XML file from a stranger into a tree: well-formed XML 1.0 with namespaces, no
 * DTD (so no entities but the five of XML), bounded in depth and number of elements, in linear time.
 * Refuses with a sentence that says why.
 */
export function readXml(text: string): Result<XmlNode> {
  const parser = new SaxesParser({ xmlns: true, position: true });
  let root: XmlNode | null = null;
  let open: XmlNode | null = null;
  let depth = 0;
  let count = 0;
  const texts: string[] = [];
  const fail = (message: string): never => {
    throw new Unreadable(message);
  };
  parser.on('error', (error) => fail(`This is not well-formed XML: ${error.message}.`));
  parser.on('doctype', () => fail('The file has a DTD; e-invoices must not have one.'));
  parser.on('opentag', (tag) => {
    depth += 1;
    count += 1;
    if (depth > DEEPEST) fail(`The file is nested deeper than ${DEEPEST} elements.`);
    if (count > MOST_ELEMENTS) fail(`The file has more than ${MOST_ELEMENTS} elements.`);
    const attributes: Record<string, string> = {};
    for (const { name, value, uri } of Object.values(tag.attributes)) if (uri === '') attributes[name] = value;
    const prefix = PREFIXES[tag.uri];
    const node: XmlNode = {
      name: prefix === undefined ? `{${tag.uri}}${tag.local}` : `${prefix}${tag.local}`,
      attributes,
      children: [],
      parent: open,
      text: '',
      line: parser.line,
    };
    if (open === null) root = node;
    else open.children.push(node);
    texts[depth] = '';
    open = node;
  });
  const addText = (part: string) => {
    if (depth > 0) texts[depth] += part;
  };
  parser.on('text', addText);
  parser.on('cdata', addText);
  parser.on('closetag', () => {
    if (open === null) return;
    open.text = (texts[depth] ?? '').trim();
    open = open.parent;
    depth -= 1;
  });
  try {
    parser.write(text).close();
  } catch (error) {
    if (error instanceof Unreadable) return bad(error.message);
    throw error;
  }
  return root === null ? bad('The file is empty.') : accept(root);
}

const UTF16_LE = [0xff, 0xfe];
const UTF16_BE = [0xfe, 0xff];

/** Text of the bytes of an XML file by its byte-order mark or what its declaration says; UTF-8 without either. */
export function decodeXml(bytes: Uint8Array): Result<string> {
  if (bytes.length > LARGEST_FILE) return bad(`The file is larger than ${LARGEST_FILE / 2 ** 20} MB.`);
  if (bytes.length === 0) return bad('The file is empty.');
  const begins = (mark: readonly number[]) => mark.every((byte, i) => bytes[i] === byte);
  let encoding =
    begins(UTF16_LE) || (bytes[0] === 0x3c && bytes[1] === 0) ? 'utf-16le' : begins(UTF16_BE) ? 'utf-16be' : '';
  if (encoding === '') {
    const head = String.fromCharCode(...bytes.subarray(0, 200));
    encoding = /^(?:\u00ef\u00bb\u00bf)?<\?xml[^>]*encoding\s*=\s*["']([A-Za-z0-9._-]+)["']/.exec(head)?.[1] ?? 'utf-8';
  }
  try {
    return accept(new TextDecoder(encoding, { fatal: true }).decode(bytes));
  } catch {
    return bad(`The text of the file is not in the encoding it names (${encoding}).`);
  }
}
