/** An element that was read. Names carry the prefix that its namespace has in the standards, whatever the file called it. */
export interface XmlNode {
  readonly name: string;
  readonly attributes: Readonly<Record<string, string>>;
  readonly children: XmlNode[];
  readonly parent: XmlNode | null;
  /** Its own text, trimmed. */
  text: string;
  /** Line in the file, from 1. */
  readonly line: number;
}

/** Where an element stands: `/Invoice/cac:InvoiceLine[2]/cbc:ID`; a place is counted only among several. */
export function pathOf(node: XmlNode): string {
  const parts: string[] = [];
  for (let at: XmlNode | null = node; at !== null; at = at.parent) {
    const { name, parent } = at;
    const alike = parent === null ? [] : parent.children.filter((one) => one.name === name);
    parts.unshift(alike.length > 1 ? `${name}[${alike.indexOf(at) + 1}]` : name);
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
