import { SaxesParser } from 'saxes';
import { accept, type Result, refuse } from '@/core/kernel/result';
import type { Wanted } from '@/core/kernel/wanted';
import type { XmlNode } from './node';

/** Deepest nesting that is read; the standards need eight. */
export const DEEPEST = 64;
/** Most elements that are read, which keeps the memory of the commands under 300 MB: an invoice of 10,000 lines has 150,000. */
export const MOST_ELEMENTS = 200_000;
/** Longest start of an element with its attributes, in characters; the standards need two hundred. */
const LONGEST_TAG = 20_000;
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
class Unreadable extends Error {
  constructor(readonly wanted: Wanted) {
    super('unreadable');
  }
}

const bad = (wanted: Wanted) => refuse({ code: 'invalid', path: '', wanted });

/** What a node is made of while it is read. */
type OpenNode = { -readonly [K in keyof XmlNode]: XmlNode[K] } & { children: XmlNode[] };

/** Shared by the many elements that have none, which keeps large files small in memory. */
const NO_ATTRIBUTES: Readonly<Record<string, string>> = {};
const NO_CHILDREN: XmlNode[] = [];

/** True when an element begins with more attributes than any standard has; found before they are taken in. */
function hasEndlessTag(text: string): boolean {
  for (let from = text.indexOf('<'); from >= 0; ) {
    const until = text.indexOf('>', from);
    if (until < 0) return text.length - from > LONGEST_TAG;
    const next = text[from + 1];
    if (next !== '!' && next !== '?' && until - from > LONGEST_TAG) return true;
    from = text.indexOf('<', until);
  }
  return false;
}

/** The name of an element by its namespace; the same text for the same name, however often it comes. */
function namer(): (uri: string, local: string) => string {
  const spaces = new Map<string, Map<string, string>>();
  return (uri, local) => {
    let names = spaces.get(uri);
    if (names === undefined) {
      names = new Map();
      spaces.set(uri, names);
    }
    const known = names.get(local);
    if (known !== undefined) return known;
    const prefix = PREFIXES[uri];
    const name = prefix === undefined ? `{${uri}}${local}` : `${prefix}${local}`;
    names.set(local, name);
    return name;
  };
}

/** Longest text that is shared: codes, dates, amounts and names, not remarks or attached files. */
const LONGEST_SHARED = 40;
const MOST_SHARED = 10_000;

/** One text for all that say the same: most of a file repeats, and rules compare and look up what they are given. */
function sharer(): (text: string) => string {
  const known = new Map<string, string>();
  return (text) => {
    if (text.length > LONGEST_SHARED) return text;
    const shared = known.get(text);
    if (shared !== undefined) return shared;
    if (known.size < MOST_SHARED) known.set(text, text);
    return text;
  };
}

/**
 * Reads the text of an XML file from a stranger into a tree: well-formed XML 1.0 with namespaces, no
 * DTD (so no entities but the five of XML), bounded in depth and number of elements, in linear time.
 * Refused with what it must be instead.
 */
export function readXml(text: string): Result<XmlNode> {
  if (hasEndlessTag(text)) return bad({ what: 'shorter-tags', most: LONGEST_TAG });
  const parser = new SaxesParser({ xmlns: true, position: true });
  let root: OpenNode | null = null;
  let open: OpenNode | null = null;
  let depth = 0;
  let count = 0;
  const texts: string[] = [];
  const nameOf = namer();
  const same = sharer();
  const fail = (wanted: Wanted): never => {
    throw new Unreadable(wanted);
  };
  parser.on('error', (error) => fail({ what: 'well-formed', error: error.message }));
  parser.on('doctype', () => fail('file-without-dtd'));
  parser.on('opentag', (tag) => {
    depth += 1;
    count += 1;
    if (depth > DEEPEST) fail({ what: 'less-nesting', most: DEEPEST });
    if (count > MOST_ELEMENTS) fail({ what: 'fewer-elements', most: MOST_ELEMENTS });
    let attributes: Record<string, string> | null = null;
    for (const key in tag.attributes) {
      const attribute = tag.attributes[key];
      if (attribute?.uri !== '') continue;
      attributes ??= {};
      attributes[attribute.name] = same(attribute.value);
    }
    const node: OpenNode = {
      name: nameOf(tag.uri, tag.local),
      attributes: attributes ?? NO_ATTRIBUTES,
      children: NO_CHILDREN,
      parent: open,
      text: '',
      line: parser.line,
    };
    if (open === null) root = node;
    else if (open.children === NO_CHILDREN) open.children = [node];
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
    open.text = same((texts[depth] ?? '').trim());
    open = open.parent as OpenNode | null;
    depth -= 1;
  });
  try {
    parser.write(text).close();
  } catch (error) {
    if (error instanceof Unreadable) return bad(error.wanted);
    throw error;
  }
  return root === null ? bad('file-with-content') : accept(root);
}

const UTF16_LE = [0xff, 0xfe];
const UTF16_BE = [0xfe, 0xff];

/** Text of the bytes of an XML file by its byte-order mark or what its declaration says; UTF-8 without either. */
export function decodeXml(bytes: Uint8Array): Result<string> {
  if (bytes.length > LARGEST_FILE) return bad({ what: 'file-of', mib: LARGEST_FILE / 2 ** 20 });
  if (bytes.length === 0) return bad('file-with-content');
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
    return bad({ what: 'encoding-it-names', encoding });
  }
}
