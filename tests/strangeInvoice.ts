import { type Syntax, writeEInvoice } from '@/core/einvoice/syntax';
import { baseInvoice } from './einvoice';
import { seeded } from './seeded';

const bytes = new TextEncoder();
const JUNK = [
  '',
  '-',
  '1e999',
  '９９９',
  '2026-02-31',
  'S',
  '&amp;',
  '\u202e',
  ' '.repeat(50),
  '9'.repeat(400),
  '<x/>',
];

/** Changes one thing: an element goes, comes twice or changes places, a text or attribute becomes junk, bytes are cut or turned. */
function mutated(xml: string, random: () => number): Uint8Array {
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)] as T;
  const leaves = [...xml.matchAll(/<((?:\w+:)?\w+)((?: [^<>]*)?)>([^<>]*)<\/\1>/g)];
  const leaf = pick(leaves);
  const [whole, name = '', attributes = ''] = leaf;
  const put = (text: string) => bytes.encode(xml.slice(0, leaf.index) + text + xml.slice(leaf.index + whole.length));
  const at = Math.floor(random() * xml.length);
  const turned = () => {
    const copy = bytes.encode(xml);
    copy[at] = (copy[at] ?? 0) ^ (1 << Math.floor(random() * 8));
    return copy;
  };
  return pick([
    () => put(''),
    () => put(whole + whole),
    () => put(`${pick(leaves)[0]}${whole}`),
    () => put(`<${name}${attributes}>${pick(JUNK)}</${name}>`),
    () =>
      put(
        `<${name} ${pick(['schemeID', 'currencyID', 'listID', 'format'])}="${pick(['', 'x', 'EUR', '102'])}">1</${name}>`,
      ),
    () => put(`<${name}><${name}>${whole}</${name}></${name}>`),
    () => put(whole.replace('>', '/>')),
    () => bytes.encode(xml.slice(0, at)),
    () => bytes.encode(`<!DOCTYPE x [<!ENTITY a "b">]>${xml}`),
    turned,
    turned,
  ])();
}

/** A small valid e-invoice in one syntax or the other, with something changed in it; the same for the same seed. */
export function strangeInvoice(seed: number): { readonly syntax: Syntax; readonly file: Uint8Array } {
  const syntax: Syntax = seed % 2 === 0 ? 'ubl' : 'cii';
  return { syntax, file: mutated(writeEInvoice(baseInvoice(), syntax), seeded(seed)) };
}
