/** An element that was read. Names carry the prefix that its namespace has in the standards, whatever the file called it. */
export interface XmlNode {
  readonly name: string;
  readonly attributes: Readonly<Record<string, string>>;
  readonly children: readonly XmlNode[];
  readonly parent: XmlNode | null;
  /** Its own text, trimmed. */
  text: string;
  /** Line in the file, from 1. */
  readonly line: number;
}

type Places = ReadonlyMap<XmlNode, number>;
const places = new WeakMap<XmlNode, Places>();

/** Place of each child among those of its name, from 1; 0 for one without others. Counted once for a parent. */
function placesIn(parent: XmlNode): Places {
  const known = places.get(parent);
  if (known !== undefined) return known;
  const counts = new Map<string, number>();
  for (const { name } of parent.children) counts.set(name, (counts.get(name) ?? 0) + 1);
  const seen = new Map<string, number>();
  const made = new Map<XmlNode, number>();
  for (const child of parent.children) {
    const place = (seen.get(child.name) ?? 0) + 1;
    seen.set(child.name, place);
    made.set(child, counts.get(child.name) === 1 ? 0 : place);
  }
  places.set(parent, made);
  return made;
}

/** Where an element stands: `/Invoice/cac:InvoiceLine[2]/cbc:ID`; a place is counted only among several. */
export function pathOf(node: XmlNode): string {
  const parts: string[] = [];
  for (let at: XmlNode | null = node; at !== null; at = at.parent) {
    const place = at.parent === null ? 0 : placesIn(at.parent).get(at);
    parts.unshift(place === undefined || place === 0 ? at.name : `${at.name}[${place}]`);
  }
  return `/${parts.join('/')}`;
}

export function childOf(node: XmlNode, name: string): XmlNode | undefined {
  return node.children.find((child) => child.name === name);
}

/** The element at the end of a way of names, or undefined. */
export function descend(node: XmlNode, ...names: readonly string[]): XmlNode | undefined {
  let at: XmlNode | undefined = node;
  for (const name of names) at = at === undefined ? undefined : childOf(at, name);
  return at;
}
